import type { VerdictResult } from "../verdict";
import { type BathWindow, judgeBathValue } from "./bath-window";

/** A time a bath was out of its window: from the last check that was not out, since it left unseen after that. */
export type OutStretch = {
  /** Last check before it that was not out; the first one that was where none is known before. */
  readonly fromMs: number;
  readonly firstOutMs: number;
  /** First check after it that was not out; null while it is still out. */
  readonly toMs: number | null;
  /** The value furthest out. */
  readonly worst: number;
  readonly checksOut: number;
};

/**
 * The stretches out of window, oldest first, of checks in order of time. What happened between the last good check and
 * the first bad one is not known, so that it counts: a rack that passed then may have met the bad bath. O(points).
 */
export function outStretches(
  points: readonly { readonly atMs: number; readonly value: number }[],
  window: BathWindow,
): readonly OutStretch[] {
  const out: OutStretch[] = [];
  let open: { fromMs: number; firstOutMs: number; worst: number; checksOut: number } | null = null;
  let before: number | null = null;
  const beyond = (value: number) => Math.max(value - (window.upper ?? value), (window.lower ?? value) - value);
  for (const { atMs, value } of points) {
    const result: VerdictResult = judgeBathValue(value, window);
    if (result === "out") {
      if (!open) open = { fromMs: before ?? atMs, firstOutMs: atMs, worst: value, checksOut: 0 };
      open.checksOut++;
      if (beyond(value) > beyond(open.worst)) open.worst = value;
    } else {
      if (open) out.push({ ...open, toMs: atMs });
      open = null;
      before = atMs;
    }
  }
  if (open) out.push({ ...open, toMs: null });
  return out;
}
