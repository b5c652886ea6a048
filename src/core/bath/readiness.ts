import { err, ok, type Result } from "../result";
import { type EvidenceGrade, type VerdictResult, weakestGrade } from "../verdict";
import type { BathParameter, BathWindow } from "./bath-window";

export type ReadinessValue = {
  readonly bath: string;
  readonly parameter: BathParameter;
  /** Null where it was never checked. */
  readonly value: number | null;
  readonly grade: EvidenceGrade;
  readonly window: BathWindow;
};
export type Readiness = {
  /** 0–100; null where nothing is known. 100: every value in the middle of its window; 50: the worst one at its limit. */
  readonly index: number | null;
  readonly limiting: { readonly bath: string; readonly parameter: BathParameter; readonly value: number } | null;
  readonly unknown: readonly { readonly bath: string; readonly parameter: BathParameter }[];
  readonly grade: EvidenceGrade;
};

/**
 * How far a value is from where it should be: 0 in the middle of its window, 1 at a limit, more beyond. With one limit
 * only, 0 is where the other side has no end: nothing, for an upper limit. Failure: `no-window`.
 */
export function offCentre(value: number, { lower, upper }: BathWindow): Result<number> {
  if (!Number.isFinite(value)) return err({ kind: "not-finite", parameter: "", value });
  if (lower !== null && upper !== null) {
    const half = (upper - lower) / 2;
    return half > 0 ? ok(Math.abs(value - (lower + half)) / half) : err({ kind: "no-window", lower, upper });
  }
  if (upper !== null) return upper > 0 ? ok(Math.max(0, value) / upper) : err({ kind: "no-window", lower, upper });
  if (lower !== null) return value > 0 ? ok(Math.max(0, lower) / value) : ok(Number.POSITIVE_INFINITY);
  return err({ kind: "no-window", lower, upper });
}

/** 100 − 50 d² inside the window, 50 at its limit, and down to 0 half a window beyond. */
export const scoreOf = (d: number): number => (d <= 1 ? 100 - 50 * d * d : Math.max(0, 50 - 100 * (d - 1)));

/**
 * One figure for the wash as it stands: the score of its worst value, since a good rinse does not mend a bad bath. Values
 * never checked are listed and make the grade unknown; values without a window do not count. O(values).
 */
export function readiness(values: readonly ReadinessValue[]): Readiness {
  let worst: { score: number; bath: string; parameter: BathParameter; value: number } | null = null;
  const unknown: Readiness["unknown"][number][] = [];
  const grades: EvidenceGrade[] = [];
  for (const { bath, parameter, value, grade, window } of values) {
    if (window.lower === null && window.upper === null) continue;
    grades.push(value === null ? "unknown" : grade);
    if (value === null) {
      unknown.push({ bath, parameter });
      continue;
    }
    const d = offCentre(value, window);
    if (!d.ok) continue;
    const score = scoreOf(d.value);
    if (!worst || score < worst.score) worst = { score, bath, parameter, value };
  }
  return {
    index: worst ? Math.round(worst.score) : null,
    limiting: worst && { bath: worst.bath, parameter: worst.parameter, value: worst.value },
    unknown,
    grade: grades.length ? weakestGrade(grades) : "unknown",
  };
}

/** Under this index the worst value has gone over eight tenths of the way to its limit (100 − 50 · 0.84² ≈ 65). */
export const READY_WATCH = 65;
/** The index with a value just at its limit. */
export const READY_LIMIT = 50;
/** Whether the wash is ready: out when a value is beyond its limit, to watch near it, not known without any. */
export const readinessResult = (index: number | null): VerdictResult =>
  index === null ? "unknown" : index < READY_LIMIT ? "out" : index < READY_WATCH ? "watch" : "in";
