import { err, ok, type Result } from "../result";

/**
 * Benjamini–Hochberg: each p as the share of false discoveries if it and all smaller ones are taken for true, in the
 * order given. Failure: `bad-input` (a p outside 0 to 1). O(n log n). Source: Benjamini and Hochberg 1995.
 */
export function benjaminiHochberg(ps: readonly number[]): Result<readonly number[]> {
  const bad = ps.find((p) => !(p >= 0 && p <= 1));
  if (bad !== undefined) return err({ kind: "bad-input", name: "p", value: bad });
  const order = ps.map((_, i) => i).sort((a, b) => (ps[a] as number) - (ps[b] as number));
  const out = new Array<number>(ps.length);
  let least = 1;
  for (let rank = order.length; rank >= 1; rank--) {
    const i = order[rank - 1] as number;
    least = Math.min(least, ((ps[i] as number) * ps.length) / rank);
    out[i] = least;
  }
  return ok(out);
}
