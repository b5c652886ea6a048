import { err, ok, type Result } from "../result";
import { studentTQuantile } from "./distributions";

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
export type ValuesFailure =
  | { readonly kind: "no-values" }
  | { readonly kind: "not-finite"; readonly index: number; readonly value: number };

/** Checks that there are values and all are finite; names the first that is not. */
export function checkValues(values: readonly number[]): Result<readonly number[], ValuesFailure> {
  if (values.length === 0) return err({ kind: "no-values" });
  const index = values.findIndex((value) => !Number.isFinite(value));
  if (index >= 0) return err({ kind: "not-finite", index, value: values[index] as number });
  return ok(values);
}

/** Arithmetic mean, summed about the first value so that a large offset loses no digits. Values must not be empty. */
export function mean(values: readonly number[]): number {
  const origin = values[0];
  if (origin === undefined) throw new RangeError("mean of no values");
  let sum = 0;
  for (const value of values) sum += value - origin;
  return origin + sum / values.length;
}

/** Sample standard deviation (divisor n − 1), two-pass with correction. Needs two values or more. */
export function sampleSd(values: readonly number[]): number {
  if (values.length < 2) throw new RangeError(`sample sd of ${values.length} values`);
  const centre = mean(values);
  let squares = 0;
  let residue = 0;
  for (const value of values) {
    squares += (value - centre) ** 2;
    residue += value - centre;
  }
  return Math.sqrt(Math.max(0, squares - residue ** 2 / values.length) / (values.length - 1));
}

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
