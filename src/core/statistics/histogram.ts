import { err, ok, type Result } from "../result";
import { checkValues } from "./mean";

export type Bin = { readonly from: number; readonly to: number; readonly count: number };

/** Counts values in bins [from, to) of one width, aligned to multiples of it. Failures: `no-values`, `not-finite`, `bad-width`. */
export function histogram(values: readonly number[], width: number): Result<readonly Bin[]> {
  const checked = checkValues(values);
  if (!checked.ok) return checked;
  if (!(width > 0) || !Number.isFinite(width)) return err({ kind: "bad-width", width });
  const first = Math.floor(Math.min(...values) / width);
  const last = Math.floor(Math.max(...values) / width);
  if (last - first > 10_000) return err({ kind: "bad-width", width });
  const counts = new Array<number>(last - first + 1).fill(0);
  for (const value of values)
    counts[Math.floor(value / width) - first] = (counts[Math.floor(value / width) - first] ?? 0) + 1;
  return ok(counts.map((count, i) => ({ from: (first + i) * width, to: (first + i + 1) * width, count })));
}
