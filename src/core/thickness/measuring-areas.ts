import { atLeast } from "../limits";
import { err, ok, type Result } from "../result";
import { mean } from "../statistics/mean";
import type { VerdictResult } from "../verdict";
import { checkThicknessUm } from "./readings";

export const MEASURING_AREAS_NEEDED = 5;
/** Readings asked for on each; one alone leaves its area unknown. */
export const READINGS_PER_AREA = 3;

/**
 * Five or more areas of about 1 cm²: mean of area means ≥ m and no area mean < 0.8 m.
 * Failures: `too-few-areas` (no verdict), `no-readings`, `bad-requirement`, those of `checkThicknessUm`.
 * Source: after ISO 2360 and ISO 2178 practice on aluminium profiles.
 */
export function judgeMeasuringAreas(
  areasUm: readonly (readonly number[])[],
  minUm: number,
): Result<{
  readonly kind: "measuring-areas-verdict";
  readonly result: VerdictResult;
  readonly accepted: boolean;
  readonly meanUm: number;
  readonly areaMeansUm: readonly number[];
  readonly below80: readonly number[];
}> {
  if (!(minUm > 0) || !Number.isFinite(minUm)) return err({ kind: "bad-requirement", minUm });
  if (areasUm.length < MEASURING_AREAS_NEEDED)
    return err({ kind: "too-few-areas", got: areasUm.length, need: MEASURING_AREAS_NEEDED });
  const areaMeansUm: number[] = [];
  for (const [area, readings] of areasUm.entries()) {
    if (readings.length === 0) return err({ kind: "no-readings", area });
    for (const value of readings) {
      const checked = checkThicknessUm(value);
      if (!checked.ok) return err({ ...checked.error, area });
    }
    areaMeansUm.push(mean(readings));
  }
  const meanUm = mean(areaMeansUm);
  const below80 = areaMeansUm.flatMap((value, i) => (atLeast(value, 0.8 * minUm) ? [] : [i]));
  const accepted = atLeast(meanUm, minUm) && below80.length === 0;
  const thin = areaMeansUm.some((value) => !atLeast(value, minUm));
  return ok({
    kind: "measuring-areas-verdict",
    result: accepted ? (thin ? "watch" : "in") : "out",
    accepted,
    meanUm,
    areaMeansUm,
    below80,
  });
}
