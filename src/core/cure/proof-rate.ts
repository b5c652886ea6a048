import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";

export type ProofRate = {
  readonly kind: "proof-rate";
  readonly loads: number;
  readonly proven: number;
  /** Loads since the last one that was proven, and the longest such stretch looked at. */
  readonly sinceProven: number;
  readonly longestWithout: number;
  /** In where never more than asked went by without one; watch where that happened but the newest is proven in time; out where one is owed now. */
  readonly result: VerdictResult;
};

/**
 * Whether cure was proven on as many loads as asked: one in so many, `every`, in the order of their pulls. Failures:
 * `bad-input`. O(loads).
 */
export function proofRate(proven: readonly boolean[], every: number): Result<ProofRate> {
  if (!Number.isInteger(every) || every < 1) return err({ kind: "bad-input", name: "every", value: every });
  let since = 0;
  let longest = 0;
  for (const was of proven) {
    since = was ? 0 : since + 1;
    longest = Math.max(longest, since);
  }
  const owed = since >= every;
  return ok({
    kind: "proof-rate",
    loads: proven.length,
    proven: proven.filter(Boolean).length,
    sinceProven: since,
    longestWithout: longest,
    result: proven.length === 0 ? "unknown" : owed ? "out" : longest >= every ? "watch" : "in",
  });
}
