import { err, ok, type Result } from "../result";

/** How long metal may stand bare up to a humidity, %; a site's own table, driest first. */
export type BareLimit = { readonly upToHumidityPercent: number; readonly hours: number };

/**
 * Hours that metal may stand bare in this air: the first row that covers the humidity, the last one beyond it. Without a
 * table, or without a reading, the site's usual hours stand. Failure: `bad-input` (humidity not 0 to 100 %). O(rows).
 */
export function bareLimitHours(
  humidityPercent: number | null,
  limits: readonly BareLimit[],
  usualHours: number,
): Result<number> {
  if (humidityPercent === null || limits.length === 0) return ok(usualHours);
  if (!(humidityPercent >= 0 && humidityPercent <= 100))
    return err({ kind: "bad-input", name: "humidity, %", value: humidityPercent });
  const inOrder = [...limits].sort((a, b) => a.upToHumidityPercent - b.upToHumidityPercent);
  const row = inOrder.find((l) => humidityPercent <= l.upToHumidityPercent + 1e-9) ?? inOrder.at(-1);
  return ok(row?.hours ?? usualHours);
}

/** Fall of the metal taken where the readings do not tell, °C an hour: a hall cooling in the evening. */
export const USUAL_FALL_C_PER_HOUR = 1;

/**
 * Hours until the metal has lost its margin over the dew point, while it falls at a rate and the moisture in the air
 * stays: 0 where it is lost already, null where it does not fall. Failure: `bad-input`.
 */
export function hoursOfMargin(input: {
  readonly metalC: number;
  readonly dewPointC: number;
  readonly leastMarginC: number;
  readonly fallCPerHour: number;
}): Result<number | null> {
  for (const [name, value] of Object.entries(input))
    if (!Number.isFinite(value)) return err({ kind: "bad-input", name, value });
  const spare = input.metalC - input.dewPointC - input.leastMarginC;
  if (spare <= 0) return ok(0);
  return ok(input.fallCPerHour > 0 ? spare / input.fallCPerHour : null);
}
