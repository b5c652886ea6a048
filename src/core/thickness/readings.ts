import { err, ok, type Result } from "../result";
import { mean } from "../statistics/mean";

/** No cured film is this thick; a larger number is a typing or decimal-mark error. */
export const BEYOND_ANY_FILM_UM = 10_000;

export type ThicknessReading = {
  readonly valueUm: number;
  /** Why the inspector left it out of the mean; null or absent for a kept reading. It stays on record either way. */
  readonly rejectedReason?: string | null;
};
export type Spot = { readonly id: string; readonly readings: readonly ThicknessReading[] };
export type SpotMean = {
  readonly id: string;
  readonly meanUm: number;
  readonly used: number;
  readonly rejected: number;
  /** Fewer than three readings: allowed, and said. */
  readonly few: boolean;
};
export const READINGS_ASKED_PER_SPOT = 3;

/** Checks one film thickness in µm. Failures: `not-finite`, `negative`, `beyond-any-film`. */
export function checkThicknessUm(valueUm: number): Result<number> {
  if (!Number.isFinite(valueUm)) return err({ kind: "not-finite", value: valueUm });
  if (valueUm < 0) return err({ kind: "negative", valueUm });
  if (valueUm > BEYOND_ANY_FILM_UM) return err({ kind: "beyond-any-film", valueUm, mostUm: BEYOND_ANY_FILM_UM });
  return ok(valueUm);
}

/**
 * Means by spot; rejected readings are left out and counted. A spot with no kept reading is not among the means
 * and is listed in `unread`. Failures: those of `checkThicknessUm`, with the spot's id.
 */
export function spotMeans(
  spots: readonly Spot[],
): Result<{ readonly means: readonly SpotMean[]; readonly unread: readonly string[] }> {
  const means: SpotMean[] = [];
  const unread: string[] = [];
  for (const spot of spots) {
    const kept: number[] = [];
    for (const reading of spot.readings) {
      const checked = checkThicknessUm(reading.valueUm);
      if (!checked.ok) return err({ ...checked.error, spot: spot.id });
      if (!reading.rejectedReason) kept.push(reading.valueUm);
    }
    if (kept.length === 0) unread.push(spot.id);
    else
      means.push({
        id: spot.id,
        meanUm: mean(kept),
        used: kept.length,
        rejected: spot.readings.length - kept.length,
        few: kept.length < READINGS_ASKED_PER_SPOT,
      });
  }
  return ok({ means, unread });
}
