import { usualUpkeep } from "@/core/upkeep";
import type { NewRecord } from "@/server/record/store-record";
import { FAN_UP_DAYS } from "./demo-line";
import { DAY, type Made, record } from "./demo-record";
import type { Seed } from "./shop-wash";

/** What the shop keeps up: what is usual, under numbers of its own. */
export const upkeepSeeds: readonly Seed[] = usualUpkeep.map((plan, i) => ({
  kind: "upkeep",
  code: `U-${i + 1}`,
  data: { ...plan, retired: false },
}));

/** Told by name: how long ago it was last done, its value then, what was found. */
const told: Readonly<
  Record<
    string,
    { daysAgo: number; value?: number; result?: "put-right" | "not-in-order"; who?: string; note?: string }
  >
> = {
  "Blast media": { daysAgo: 3, value: 6 },
  "Blast nozzle and hose": { daysAgo: 9, value: 30 },
  "Washer nozzles": {
    daysAgo: 8,
    value: 2,
    result: "put-right",
    note: "two of riser 3 blocked with scale, cleaned with the strainer",
  },
  "Chemical supplier's visit": {
    daysAgo: 12,
    who: "Ebba Lund, for the maker of the conversion product",
    note: "Titrated side by side, 0.1 mL apart. Inhibitor to be looked at before every restart after a stop; sheet of the seal to follow within the month.",
  },
  "pH electrode and conductivity cell": { daysAgo: 2, value: 97 },
  "Compressor drain, dryer and filters": { daysAgo: 4, value: 22 },
  "Earth of booth, conveyor and hangers": { daysAgo: 3, value: 0.3 },
  "Booth filters and draught": {
    daysAgo: FAN_UP_DAYS,
    result: "put-right",
    note: "filters changed, fan turned up a step to hold the powder in",
  },
  "Oven burner and ventilation": { daysAgo: 214, who: "licensed burner fitter" },
  "Oven interlocks and over-temperature trip": { daysAgo: 96, who: "licensed burner fitter" },
  "Oven door seals": { daysAgo: 28 },
  "Oven survey, a probe at each place": {
    daysAgo: 12,
    value: 15.3,
    result: "put-right",
    note: "door side cold, seal at the lower left hard and cracked: ordered, heavy racks off that side",
  },
  "Plugs and masks": { daysAgo: 5 },
  "Oven thermostat against a probe": { daysAgo: 40, value: -1.5 },
  "Film gauge against its shims": { daysAgo: 1, value: 0.8 },
};

/** Half a year of upkeep, each done a little before it was due; what was last found is told above. */
export function upkeepRecords(made: Made, anchor: Date): NewRecord[] {
  return usualUpkeep.flatMap((plan, i) => {
    const last = told[plan.what];
    if (!last) return [];
    const item = made.entity("upkeep", `U-${i + 1}`);
    const by = plan.stage === "test" ? "tomasz" : plan.hands === "line" ? "rufus" : "ines";
    const times = Math.min(8, 1 + Math.floor(180 / plan.everyDays));
    return Array.from({ length: times }, (_, n) => {
      const first = n === 0;
      // What was put right the last time was in order before.
      const value = last.value === undefined ? null : !first && last.result === "put-right" ? 0 : last.value;
      return record("upkeep", anchor.getTime() - (last.daysAgo + n * plan.everyDays) * DAY, `U-${i + 1}`, {
        by,
        grade: value === null ? "by-procedure" : "measured",
        details: {
          upkeep_done: [
            {
              item_id: item,
              result: first ? (last.result ?? "in-order") : "in-order",
              value,
              unit: value === null ? null : (plan.measure?.unit ?? null),
              who: last.who ?? null,
              note: first ? (last.note ?? null) : plan.hands === "supplier" ? "Nothing to be changed." : null,
            },
          ],
        },
      });
    });
  });
}
