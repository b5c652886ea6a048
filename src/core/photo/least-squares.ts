/** The sum of products of two rows. */
export const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((s, v, i) => s + v * (b[i] as number), 0);
/** What of each term fits the values best, by the normal equations; null where the rows do not say. O(rows × terms²). */
export function leastSquares(
  rows: readonly (readonly number[])[],
  values: readonly number[],
): readonly number[] | null {
  const k = rows[0]?.length ?? 0;
  const m = Array.from({ length: k }, () => new Array<number>(k + 1).fill(0));
  for (const [r, row] of rows.entries())
    for (let i = 0; i < k; i++) {
      const line = m[i] as number[];
      const a = row[i] as number;
      for (let j = 0; j < k; j++) line[j] = (line[j] as number) + a * (row[j] as number);
      line[k] = (line[k] as number) + a * (values[r] as number);
    }
  for (let i = 0; i < k; i++) {
    let p = i;
    for (let r = i + 1; r < k; r++) if (Math.abs(m[r]?.[i] ?? 0) > Math.abs(m[p]?.[i] ?? 0)) p = r;
    [m[i], m[p]] = [m[p] as number[], m[i] as number[]];
    const own = m[i] as number[];
    if (!(Math.abs(own[i] as number) > 1e-9)) return null;
    for (let r = 0; r < k; r++) {
      if (r === i) continue;
      const row = m[r] as number[];
      const by = (row[i] as number) / (own[i] as number);
      for (let c = i; c <= k; c++) row[c] = (row[c] as number) - by * (own[c] as number);
    }
  }
  return m.map((row, i) => (row[k] as number) / (row[i] as number));
}
