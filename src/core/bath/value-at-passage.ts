import type { EvidenceGrade } from "../verdict";

export type CheckedValue = { readonly atMs: number; readonly value: number; readonly recordId: string };
export type ValueAtPassage = {
  readonly value: number | null;
  readonly grade: EvidenceGrade;
  /** How it was had: between two checks, held from one of them, the last one with no later check yet, or never checked. */
  readonly how: "interpolated" | "held-before" | "held-after" | "last-value" | "never-checked";
  readonly sources: readonly string[];
};

/**
 * A bath value at the minute a rack passed: interpolated between the checks before and after, never across an
 * addition, dump or recharge (there the last value before, or the first after, is held). Measured when a check lies
 * within the round interval of the passage, assumed beyond it, unknown without one.
 */
export function valueAtPassage(input: {
  readonly atMs: number;
  readonly before: CheckedValue | null;
  readonly after: CheckedValue | null;
  readonly eventsMs: readonly number[];
  readonly roundHours: number;
}): ValueAtPassage {
  const { atMs, before, after, eventsMs } = input;
  const eventSinceBefore = before !== null && eventsMs.some((ms) => ms > before.atMs && ms <= atMs);
  const eventUntilAfter = after !== null && eventsMs.some((ms) => ms > atMs && ms <= after.atMs);
  const roundMs = input.roundHours * 3_600_000;
  const gradeOf = (checks: readonly CheckedValue[]): EvidenceGrade =>
    checks.some((c) => Math.abs(c.atMs - atMs) <= roundMs) ? "measured" : "assumed";
  const held = (check: CheckedValue, how: ValueAtPassage["how"]): ValueAtPassage => ({
    value: check.value,
    grade: gradeOf([check]),
    how,
    sources: [check.recordId],
  });
  if (before && after && !eventSinceBefore && !eventUntilAfter) {
    const share = after.atMs === before.atMs ? 0 : (atMs - before.atMs) / (after.atMs - before.atMs);
    return {
      value: before.value + share * (after.value - before.value),
      grade: gradeOf([before, after]),
      how: "interpolated",
      sources: [before.recordId, after.recordId],
    };
  }
  if (after && eventSinceBefore && !eventUntilAfter) return held(after, "held-after");
  if (before && !eventSinceBefore) return held(before, after ? "held-before" : "last-value");
  if (after && !before && !eventUntilAfter) return held(after, "held-after");
  if (before) return { ...held(before, "last-value"), grade: "assumed" };
  return { value: null, grade: "unknown", how: "never-checked", sources: [] };
}
