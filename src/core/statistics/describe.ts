import { ok, type Result } from "../result";
import { studentTQuantile } from "./distributions";
import { checkValues, mean, sampleSd, type ValuesFailure } from "./mean";

export type Description = {
  readonly kind: "description";
  readonly n: number;
  readonly mean: number;
  /** Sample standard deviation (n − 1); null for a single value. */
  readonly sampleSd: number | null;
  /** Coefficient of variation, sd / mean; null where the mean is 0 or the sd unknown. */
  readonly coefficientOfVariation: number | null;
  readonly min: number;
  readonly max: number;
  readonly q10: number;
  readonly q25: number;
  readonly median: number;
  readonly q75: number;
  readonly q90: number;
  /** Two-sided 95 % interval of the mean (Student t); null for a single value. */
  readonly meanInterval95: readonly [number, number] | null;
};
/** Quantile type 7 (linear between order statistics). `sorted` ascending; p in [0, 1]. */
export function quantileType7(sorted: readonly number[], p: number): number {
  if (sorted.length === 0) throw new RangeError("quantile of no values");
  const position = (sorted.length - 1) * p;
  const low = Math.floor(position);
  const below = sorted[low] as number;
  const above = sorted[Math.min(low + 1, sorted.length - 1)] as number;
  return below + (position - low) * (above - below);
}

/** Describes a set of values. Units are those of the values. Failures: `no-values`, `not-finite`. O(n log n). */
export function describeValues(values: readonly number[]): Result<Description, ValuesFailure> {
  const checked = checkValues(values);
  if (!checked.ok) return checked;
  const sorted = [...values].sort((a, b) => a - b);
  const centre = mean(values);
  const sd = values.length > 1 ? sampleSd(values) : null;
  const half = sd === null ? null : (studentTQuantile(0.975, values.length - 1) * sd) / Math.sqrt(values.length);
  return ok({
    kind: "description",
    n: values.length,
    mean: centre,
    sampleSd: sd,
    coefficientOfVariation: sd === null || centre === 0 ? null : sd / centre,
    min: sorted[0] as number,
    max: sorted[sorted.length - 1] as number,
    q10: quantileType7(sorted, 0.1),
    q25: quantileType7(sorted, 0.25),
    median: quantileType7(sorted, 0.5),
    q75: quantileType7(sorted, 0.75),
    q90: quantileType7(sorted, 0.9),
    meanInterval95: half === null ? null : [centre - half, centre + half],
  });
}
