import { err, ok, type Result } from "../result";
import { normalCdf, studentTQuantile } from "./distributions";

export type Summary = {
  readonly n: number;
  readonly mean: number;
  /** Null for a single value. */
  readonly sampleSd: number | null;
  /** 95 % t interval of the mean; null for a single value. */
  readonly interval: readonly [number, number] | null;
};

/** Values in groups (spots in racks), told by sums over the groups, as a database adds them up. */
export type NestedMoments = {
  readonly groups: number;
  readonly n: number;
  /** Sums over the groups: their means, these squared, one over their number of values. */
  readonly sumOfMeans: number;
  readonly sumOfSquaredMeans: number;
  readonly sumOfInverseSizes: number;
  /** Squares about the group's own mean, over all values. */
  readonly squaresWithin: number;
};
export type NestedSummary = Summary & {
  readonly groups: number;
  /** Standard deviation from group to group, and within one; null where there is one only. */
  readonly sdBetween: number | null;
  readonly sdWithin: number | null;
  /** As many independent values as would tell the mean, and degrees of freedom as would tell the spread, as well. */
  readonly counts: { readonly forMean: number; readonly forSpread: number } | null;
};

/**
 * Mean, spread and interval of values that come in groups: those of one group are not independent. The mean is that of
 * the group means, its 95 % interval by t from their own spread (groups − 1); the spread of a single value is that between
 * groups and within together; its degrees of freedom after Satterthwaite. One group says nothing of the others: no
 * interval. Failures: `no-values`, `bad-input`. Source: Searle, Casella, McCulloch, Variance Components (1992), section 3.
 */
export function nestedSummaryOf(sums: NestedMoments): Result<NestedSummary> {
  const { groups, n, sumOfMeans, sumOfSquaredMeans, sumOfInverseSizes, squaresWithin } = sums;
  if (n === 0 || groups === 0) return err({ kind: "no-values" });
  for (const [name, value] of Object.entries(sums))
    if (!Number.isFinite(value)) return err({ kind: "bad-input", name, value });
  if (!Number.isInteger(groups) || groups < 1) return err({ kind: "bad-input", name: "groups", value: groups });
  if (!Number.isInteger(n) || n < groups) return err({ kind: "bad-input", name: "n", value: n });
  const mean = sumOfMeans / groups;
  const within = n > groups ? Math.max(0, squaresWithin) / (n - groups) : null;
  const sdWithin = within === null ? null : Math.sqrt(within);
  if (groups === 1)
    return ok({ n, groups, mean, sampleSd: sdWithin, sdBetween: null, sdWithin, interval: null, counts: null });
  const ofMeans = Math.max(0, (sumOfSquaredMeans - groups * mean ** 2) / (groups - 1));
  const inverse = sumOfInverseSizes / groups;
  const between = Math.max(0, ofMeans - (within ?? 0) * inverse);
  const variance = between + (within ?? 0);
  const half = studentTQuantile(0.975, groups - 1) * Math.sqrt(ofMeans / groups);
  const uncertain = ofMeans ** 2 / (groups - 1) + (within === null ? 0 : (within * (1 - inverse)) ** 2 / (n - groups));
  return ok({
    n,
    groups,
    mean,
    sampleSd: Math.sqrt(variance),
    sdBetween: Math.sqrt(between),
    sdWithin,
    interval: [mean - half, mean + half],
    counts:
      variance > 0 && ofMeans > 0
        ? { forMean: (groups * variance) / ofMeans, forSpread: variance ** 2 / uncertain }
        : null,
  });
}

/** Sums of squares keep half the digits of a number: a spread under this share of the mean is that of the arithmetic. */
const NO_SPREAD_OF_SUMS = 1e-6;
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
 * Ppk with its interval from a summary: ± 1.96 √(1/(9n) + Ppk²/(2(n − 1))); of values in groups with as many as count
 * (`NestedSummary`). Failures: `no-limits`, `limits-crossed`,
 * `too-few-values` (25 asked for), `no-spread`. Source: Bissell, Applied Statistics 39 (1990).
 */
export function capabilityOf(
  { n, mean, sampleSd, counts = null }: Summary & { readonly counts?: NestedSummary["counts"] },
  { min, max }: { readonly min: number | null; readonly max: number | null },
): Result<CapabilityInterval> {
  if (min === null && max === null) return err({ kind: "no-limits" });
  if (min !== null && max !== null && min >= max) return err({ kind: "limits-crossed", min, max });
  if (n < 25 || sampleSd === null) return err({ kind: "too-few-values", got: n, need: 25 });
  if (sampleSd <= NO_SPREAD_OF_SUMS * Math.abs(mean)) return err({ kind: "no-spread", value: mean });
  const sides = [
    ...(min === null ? [] : [(mean - min) / (3 * sampleSd)]),
    ...(max === null ? [] : [(max - mean) / (3 * sampleSd)]),
  ];
  const ppk = Math.min(...sides);
  const half = Z95 * Math.sqrt(1 / (9 * (counts?.forMean ?? n)) + ppk ** 2 / (2 * (counts?.forSpread ?? n - 1)));
  return ok({
    pp: min === null || max === null ? null : (max - min) / (6 * sampleSd),
    ppk,
    ppkInterval: [ppk - half, ppk + half],
    shareBelow: min === null ? null : normalCdf(min, mean, sampleSd),
  });
}
