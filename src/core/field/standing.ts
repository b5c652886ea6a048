/** What was read last stands until it is read again, with the day it was read; two who read it at one visit are both taken. */
export type Standing<C> = { readonly of: readonly C[]; readonly at: Date };

/** Captures within so long of each other are of one visit, ms. */
export const ONE_VISIT_MS = 36 * 3_600_000;

/**
 * Those of the captures in which something was read last: the newest that reads it and those of the same visit; null where
 * nobody ever read it. A later visit that read something else takes nothing away. `captures` newest first. O(captures).
 */
export function lastRead<C extends { readonly at: Date }>(
  captures: readonly C[],
  reads: (capture: C) => boolean,
): Standing<C> | null {
  const first = captures.find(reads);
  if (!first) return null;
  return {
    at: first.at,
    of: captures.filter((c) => reads(c) && Math.abs(first.at.getTime() - c.at.getTime()) <= ONE_VISIT_MS),
  };
}
