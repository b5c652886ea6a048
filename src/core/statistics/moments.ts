import { err, ok, type Result } from "../result";
import { normalCdf, studentTQuantile } from "./distributions";

/** Values told by their count, sum and sum of squares, as a database adds them up. */
export type Moments = { readonly n: number; readonly sum: number; readonly sumOfSquares: number };
export type Summary = {
  readonly n: number;
  readonly mean: number;
  /** Null for a single value. */
  readonly sampleSd: number | null;
  /** 95 % t interval of the mean; null for a single value. */
  readonly interval: readonly [number, number] | null;
};

/** Mean, sample standard deviation and interval from sums. Failures: `no-values`, `bad-input`. A variance that rounding takes under nothing is nothing. */
export function summaryOf({ n, sum, sumOfSquares }: Moments): Result<Summary> {
  if (n === 0) return err({ kind: "no-values" });
  if (!(n > 0) || !Number.isInteger(n)) return err({ kind: "bad-input", name: "n", value: n });
  if (!Number.isFinite(sum)) return err({ kind: "bad-input", name: "sum", value: sum });
  if (!Number.isFinite(sumOfSquares)) return err({ kind: "bad-input", name: "sumOfSquares", value: sumOfSquares });
  const mean = sum / n;
  if (n === 1) return ok({ n, mean, sampleSd: null, interval: null });
  const sampleSd = Math.sqrt(Math.max(0, (sumOfSquares - n * mean ** 2) / (n - 1)));
  const half = (studentTQuantile(0.975, n - 1) * sampleSd) / Math.sqrt(n);
  return ok({ n, mean, sampleSd, interval: [mean - half, mean + half] });
}

/** 95 % point of the normal, two-sided. */
const Z95 = 1.959964;
export type CapabilityInterval = {
  readonly pp: number | null;
  readonly ppk: number;
  /** 95 %, normal approximation. */
  readonly ppkInterval: readonly [number, number];
  readonly shareBelow: number | null;
};

/**
 * Ppk with its interval from a summary: ± 1.96 √(1/(9n) + Ppk²/(2(n − 1))). Failures: `no-limits`, `limits-crossed`,
 * `too-few-values` (25 asked for), `no-spread`. Source: Bissell, Applied Statistics 39 (1990).
 */
export function capabilityOf(
  { n, mean, sampleSd }: Summary,
  { min, max }: { readonly min: number | null; readonly max: number | null },
): Result<CapabilityInterval> {
  if (min === null && max === null) return err({ kind: "no-limits" });
  if (min !== null && max !== null && min >= max) return err({ kind: "limits-crossed", min, max });
  if (n < 25 || sampleSd === null) return err({ kind: "too-few-values", got: n, need: 25 });
  if (sampleSd === 0) return err({ kind: "no-spread", value: mean });
  const sides = [
    ...(min === null ? [] : [(mean - min) / (3 * sampleSd)]),
    ...(max === null ? [] : [(max - mean) / (3 * sampleSd)]),
  ];
  const ppk = Math.min(...sides);
  const half = Z95 * Math.sqrt(1 / (9 * n) + ppk ** 2 / (2 * (n - 1)));
  return ok({
    pp: min === null || max === null ? null : (max - min) / (6 * sampleSd),
    ppk,
    ppkInterval: [ppk - half, ppk + half],
    shareBelow: min === null ? null : normalCdf(min, mean, sampleSd),
  });
}
