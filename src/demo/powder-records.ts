import { POWDER_STORE } from "@/server/coat/powder-store";
import type { NewRecord } from "@/server/record/store-record";
import { DAY, type Made, record } from "./demo-record";
import { shop } from "./shop";

const WEEKS_OF_STORE = 24;
/** Warm for a while in summer, under a roof that is not shaded. */
const storeC = (daysAgo: number): number => (daysAgo > 90 && daysAgo < 140 ? 30 : 21) + (daysAgo % 3);
const WEEKS_OF_GAUGE = 20;
const shims = [51.2, 124.6] as const;

/** The powder store's air week by week, first panels of the lots, and the gauge on its shims. */
export function powderRecords(made: Made, anchor: Date): NewRecord[] {
  const at = (daysAgo: number) => anchor.getTime() - daysAgo * DAY;
  const store = Array.from({ length: WEEKS_OF_STORE }, (_, week) => {
    const daysAgo = week * 7 + 1;
    return record("condition", at(daysAgo), `store:${week}`, {
      by: "maren",
      grade: "measured",
      details: {
        condition: [{ quantity: "air-temperature", value: storeC(daysAgo), unit: "°C", place: POWDER_STORE }],
      },
    });
  });
  const panels = shop
    .filter(
      (s) => s.kind === "lot" && !s.code.startsWith("GR-6") && !(s.code.startsWith("GR-212") && s.code.endsWith("4")),
    )
    .map((lot, i) =>
      record("first-panel", at(60 + i), lot.code, {
        by: "tomasz",
        grade: "measured",
        details: {
          first_panel: [
            {
              lot_id: made.entity("lot", lot.code),
              result: "matches",
              gloss: null,
              delta_e: 0.3 + (i % 4) / 10,
              film_um: 70 + (i % 5),
              note: null,
            },
          ],
        },
      }),
    );
  const gauge = Array.from({ length: WEEKS_OF_GAUGE }, (_, week) =>
    record("gauge-check", at(week * 7 + 1.2), `731:${week}`, {
      by: "tomasz",
      grade: "measured",
      instrumentId: made.entity("instrument", "731"),
      details: {
        gauge_check: [{ tolerance_um: 1, tolerance_percent: 2, holds: true, note: null }],
        gauge_shim: shims.map((certified, i) => {
          const readings = [0.3, -0.2, 0.5].map((d) => Math.round((certified + d + ((week + i) % 3) / 5) * 10) / 10);
          return {
            ordinal: i + 1,
            certified_um: certified,
            tolerance_um: 0.8,
            readings_um: readings,
            mean_um: readings.reduce((a, b) => a + b, 0) / readings.length,
            holds: true,
          };
        }),
      },
    }),
  );
  return [...store, ...panels, ...gauge];
}
