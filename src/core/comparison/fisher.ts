import { err, ok, type Result } from "../result";
import { lnChoose } from "../statistics/factorial";

export type FisherTest = {
  readonly kind: "fisher-test";
  /** Two-sided: tables no likelier than this one, together. */
  readonly p: number;
  /** (a + ½)(d + ½) / (b + ½)(c + ½): a half is always added, so that an empty cell has one too. */
  readonly oddsRatio: number;
};
/** Tables as likely as the observed one within this, relative, count with it. */
const AS_LIKELY = 1e-7;

/**
 * Fisher's exact test of a two-by-two table of counts, affected with and without a property over others with and without
 * it. Failures: `bad-input` (not a whole number of 0 or more), `no-values` (an empty table). O(smallest margin). Source:
 * Fisher 1922.
 */
export function fisherExact(
  table: readonly [readonly [number, number], readonly [number, number]],
): Result<FisherTest> {
  const [[a, b], [c, d]] = table;
  for (const count of [a, b, c, d])
    if (!Number.isInteger(count) || count < 0 || count > 1e7)
      return err({ kind: "bad-input", name: "count", value: count });
  const total = a + b + c + d;
  if (total === 0) return err({ kind: "no-values" });
  const [row, column] = [a + b, a + c];
  const ln = (x: number) => lnChoose(column, x) + lnChoose(total - column, row - x) - lnChoose(total, row);
  const observed = ln(a);
  let p = 0;
  for (let x = Math.max(0, row + column - total); x <= Math.min(row, column); x++) {
    const here = ln(x);
    if (here <= observed + AS_LIKELY) p += Math.exp(here);
  }
  return ok({
    kind: "fisher-test",
    p: Math.min(1, p),
    oddsRatio: ((a + 0.5) * (d + 0.5)) / ((b + 0.5) * (c + 0.5)),
  });
}
