import { err, ok, type Result } from "../result";

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
