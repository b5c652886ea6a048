import { err, ok, type Result } from "../result";
import { normalCdf } from "../statistics/distributions";

export type MannWhitneyTest = {
  readonly kind: "mann-whitney-test";
  /** Pairs in which the affected value is the greater one, and half of those that tie. */
  readonly u: number;
  readonly p: number;
  /** Cliff's δ = (greater − less) / pairs, affected first. */
  readonly cliffsDelta: number;
  readonly exact: boolean;
  /** By the normal approximation with a group under eight: rough. */
  readonly rough: boolean;
};
/** With no ties and a group no larger than this the distribution is worked out. */
const EXACT_UP_TO = 20;
const ROUGH_UNDER = 8;
/** Beyond so many pairs it takes more memory than it is worth, and the normal one says the same. */
const EXACT_PAIRS = 40_000;

/**
 * Mann–Whitney U, two-sided: exact without ties where the smaller group has 20 or fewer (of up to 40,000 pairs), otherwise normal with the
 * correction for ties and for continuity. Failures: `no-values`, `not-finite`. O(n log n), exact O(n₁² n₂). Source: Mann and
 * Whitney 1947; Cliff 1993.
 */
export function mannWhitney(affected: readonly number[], others: readonly number[]): Result<MannWhitneyTest> {
  const [n1, n2] = [affected.length, others.length];
  if (n1 === 0 || n2 === 0) return err({ kind: "no-values" });
  const bad = affected.find((v) => !Number.isFinite(v)) ?? others.find((v) => !Number.isFinite(v));
  if (bad !== undefined) return err({ kind: "not-finite", value: bad });
  const all = Float64Array.from([...affected, ...others]).sort();
  let rankSum = 0;
  for (const value of affected) {
    const below = firstAtLeast(all, value);
    rankSum += (below + 1 + firstOver(all, value, below)) / 2;
  }
  let ties = 0;
  for (let i = 0; i < all.length; ) {
    let j = i + 1;
    while (j < all.length && all[j] === all[i]) j++;
    ties += (j - i) ** 3 - (j - i);
    i = j;
  }
  const u = rankSum - (n1 * (n1 + 1)) / 2;
  return ok(testOfU(u, n1, n2, ties));
}

/** The test from U, the two sizes and Σ(t³ − t) over runs of t equal values. */
export function testOfU(u: number, n1: number, n2: number, ties: number): MannWhitneyTest {
  const pairs = n1 * n2;
  const exact = ties === 0 && Math.min(n1, n2) <= EXACT_UP_TO && pairs <= EXACT_PAIRS;
  return {
    kind: "mann-whitney-test",
    u,
    p: exact ? exactP(u, Math.min(n1, n2), Math.max(n1, n2)) : normalP(u, n1, n2, ties),
    cliffsDelta: (2 * u - pairs) / pairs,
    exact,
    rough: !exact && Math.min(n1, n2) < ROUGH_UNDER,
  };
}

/** Place of the first value of sorted ones that is at least this. */
function firstAtLeast(sorted: Float64Array, value: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sorted[middle] as number) < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Place of the first value of sorted ones that is over this, from a place on. */
function firstOver(sorted: Float64Array, value: number, from: number): number {
  let [low, high] = [from, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sorted[middle] as number) <= value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Twice the smaller tail of U, from the Gaussian binomial ∏ (1 − q^(n₂+i)) / (1 − qⁱ). */
function exactP(u: number, n1: number, n2: number): number {
  const tail = Math.floor(Math.min(u, n1 * n2 - u));
  // Near full separation the product's differences are lost in rounding: there the few orders are added up instead.
  if (tail <= SMALL_TAIL) return Math.min(1, 2 * tailShare(tail, n1, n2));
  const most = n1 * n2;
  // Shares rather than counts: those grow beyond what a number holds.
  let share = new Float64Array(most + 1);
  share[0] = 1;
  for (let i = 1; i <= n1; i++) {
    const next = Float64Array.from(share);
    for (let k = most; k >= n2 + i; k--) next[k] = (next[k] as number) - (share[k - n2 - i] as number);
    for (let k = i; k <= most; k++) next[k] = (next[k] as number) + (next[k - i] as number);
    const scale = i / (n2 + i);
    share = next.map((v) => v * scale);
  }
  let below = 0;
  for (let k = 0; k <= u; k++) below += share[k] as number;
  let above = 0;
  for (let k = most; k >= u; k--) above += share[k] as number;
  return Math.min(1, 2 * Math.min(below, above));
}

/** Tails this short are added up one by one. */
const SMALL_TAIL = 400;

/** Share of all orders of two groups whose U is `tail` or less, by P(a, b, k) = a/(a+b) P(a−1, b, k−b) + b/(a+b) P(a, b−1, k). */
function tailShare(tail: number, n1: number, n2: number): number {
  let rows: Float64Array[] = Array.from({ length: n2 + 1 }, () =>
    Float64Array.from({ length: tail + 1 }, (_, k) => (k === 0 ? 1 : 0)),
  );
  for (let a = 1; a <= n1; a++) {
    const next: Float64Array[] = [];
    for (let b = 0; b <= n2; b++) {
      const before = rows[b] as Float64Array;
      const beside = next[b - 1];
      const mine = new Float64Array(tail + 1);
      for (let k = 0; k <= tail; k++)
        mine[k] = (a * (k >= b ? (before[k - b] as number) : 0) + b * (beside ? (beside[k] as number) : 0)) / (a + b);
      next.push(mine);
    }
    rows = next;
  }
  return (rows[n2] as Float64Array).reduce((sum, share) => sum + share, 0);
}

function normalP(u: number, n1: number, n2: number, ties: number): number {
  const n = n1 + n2;
  const variance = ((n1 * n2) / 12) * (n + 1 - ties / (n * (n - 1)));
  if (variance <= 0) return 1;
  const away = Math.max(0, Math.abs(u - (n1 * n2) / 2) - 0.5);
  return Math.min(1, 2 * (1 - normalCdf(away / Math.sqrt(variance))));
}
