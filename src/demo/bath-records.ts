import { INHIBITOR_FACTOR_MG_PER_ML, type simulateLine, TITRATION_FACTOR_PERCENT_PER_ML } from "@/core/simulated-line";
import type { NewRecord } from "@/server/record/store-record";
import { type Made, record } from "./demo-record";
import { chemicals } from "./shop-wash";

type Addition = { readonly product: string; readonly atMs: number };
/** The drum an addition came from; the wrong one was none of the bath's. */
const lotOf = (made: Made, { product }: Addition): string | null =>
  chemicals.some((c) => c.product === product)
    ? made.entity("chemical", `${product} ${chemicals.find((c) => c.product === product)?.lot}`)
    : null;

/** Bath rounds, additions and the air of the hall, as the simulated line had them. */
export function bathRecords(made: Made, line: ReturnType<typeof simulateLine>): NewRecord[] {
  const conversion = made.entity("bath", "Tank 3");
  const rinse = made.entity("bath", "Tank 4");
  const meter = made.entity("instrument", "M2");
  const empty = { titrant_ml: null, blank_ml: null, factor: null };
  return [
    ...line.conversion.checks.map((c) =>
      record("bath-check", c.atMs, "tank3", {
        by: "rufus",
        grade: "measured",
        bathId: conversion,
        instrumentId: meter,
        details: {
          bath_check: [
            { ordinal: 1, parameter: "ph", value: c.ph, typed: String(c.ph), typed_unit: "", ...empty },
            {
              ordinal: 2,
              parameter: "temperature",
              value: c.temperatureC,
              typed: String(c.temperatureC),
              typed_unit: "°C",
              ...empty,
            },
            {
              ordinal: 3,
              parameter: "concentration",
              value: (c.titrantMl - 0.2) * TITRATION_FACTOR_PERCENT_PER_ML,
              typed: String(c.titrantMl),
              typed_unit: "mL",
              titrant_ml: c.titrantMl,
              blank_ml: 0.2,
              factor: TITRATION_FACTOR_PERCENT_PER_ML,
            },
            ...(c.inhibitorMgPerL === null
              ? []
              : [
                  {
                    ordinal: 4,
                    parameter: "inhibitor",
                    value: c.inhibitorMgPerL,
                    typed: (c.inhibitorMgPerL / INHIBITOR_FACTOR_MG_PER_ML).toFixed(1),
                    typed_unit: "mL",
                    titrant_ml: c.inhibitorMgPerL / INHIBITOR_FACTOR_MG_PER_ML,
                    blank_ml: 0,
                    factor: INHIBITOR_FACTOR_MG_PER_ML,
                  },
                ]),
          ],
        },
      }),
    ),
    ...line.conversion.events.map((e) =>
      record("bath-event", e.atMs, "tank3", {
        by: "rufus",
        grade: "by-procedure",
        bathId: conversion,
        details: {
          bath_event: [
            {
              event: e.event,
              product: e.product,
              amount_l: e.amountL,
              parameter: null,
              expected_value: null,
              note: e.note || null,
              lot_id: lotOf(made, e),
            },
          ],
        },
      }),
    ),
    ...line.stops.map((s) =>
      record("line-stop", s.fromMs, "washer", {
        by: "rufus",
        grade: "measured",
        details: {
          line_stop: [
            {
              line_id: made.entity("line", "Washer 1"),
              from_at: new Date(s.fromMs),
              to_at: new Date(s.toMs),
              cause: s.cause,
            },
          ],
        },
      }),
    ),
    ...line.rinse.map((r) =>
      record("bath-check", r.atMs, "tank4", {
        by: "rufus",
        grade: "measured",
        bathId: rinse,
        instrumentId: meter,
        details: {
          bath_check: [
            {
              ordinal: 1,
              parameter: "conductivity",
              value: r.microSiemensPerCm,
              typed: String(r.microSiemensPerCm),
              typed_unit: "µS/cm",
              ...empty,
            },
          ],
        },
      }),
    ),
    ...line.air.flatMap((a) =>
      (
        [
          ["humidity", a.humidityPercent, "%", "hall"],
          ["air-temperature", a.airC, "°C", "hall"],
          ["compressed-air-dew-point", a.compressedAirDewPointC, "°C", "booth 1"],
          ["booth-air-speed", Math.round(a.boothAirMPerS * 100) / 100, "m/s", "booth 1"],
        ] as const
      ).map(([quantity, value, unit, place]) =>
        record("condition", a.atMs, quantity, {
          by: "tomasz",
          grade: "measured",
          details: { condition: [{ quantity, value, unit, place }] },
        }),
      ),
    ),
  ];
}
