import jStat from "jstat";

function checkCounts(k: number, n: number): void {
  if (!Number.isInteger(k) || !Number.isInteger(n) || n < 1 || k < 0 || k > n) throw new RangeError(`not ${k} of ${n}`);
}

/** 95 % interval of a share k of n (Wilson 1927), 0–1. */
export function wilsonInterval(k: number, n: number, z = 1.959963984540054): readonly [number, number] {
  checkCounts(k, n);
  const p = k / n;
  const middle = (p + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z / (1 + (z * z) / n)) * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n));
  // At none and at all of them one bound is the share itself; worked out it would come to a hair beside it.
  return [k === 0 ? 0 : middle - half, k === n ? 1 : middle + half];
}

/** Exact two-sided interval of a share k of n; at k = 0 the upper bound is one-sided. Source: Clopper and Pearson, Biometrika 26 (1934). */
export function clopperPearson(k: number, n: number, confidence = 0.95): readonly [number, number] {
  checkCounts(k, n);
  const tail = k === 0 || k === n ? 1 - confidence : (1 - confidence) / 2;
  return [k === 0 ? 0 : jStat.beta.inv(tail, k, n - k + 1), k === n ? 1 : jStat.beta.inv(1 - tail, k + 1, n - k)];
}
