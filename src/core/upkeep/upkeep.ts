import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";

/** Where on the line an upkeep belongs. */
export const upkeepStages = ["prepare", "pretreat", "coat", "cure", "test"] as const;
export type UpkeepStage = (typeof upkeepStages)[number];

/** Who may do it: anyone on the line, a licensed person, or the supplier on a visit. */
export const upkeepHands = ["line", "licensed", "supplier"] as const;
export type UpkeepHands = (typeof upkeepHands)[number];

/** What was found: in order, put right on the spot, or not in order and left so. */
export const upkeepResults = ["in-order", "put-right", "not-in-order"] as const;
export type UpkeepResult = (typeof upkeepResults)[number];

export type UpkeepMeasure = {
  readonly name: string;
  readonly unit: string;
  readonly lower: number | null;
  readonly upper: number | null;
};
export type UpkeepPlan = {
  readonly what: string;
  readonly stage: UpkeepStage;
  readonly everyDays: number;
  readonly look: string;
  /** What comes of leaving it. */
  readonly leadsTo: string;
  readonly caution: string;
  readonly hands: UpkeepHands;
  readonly measure: UpkeepMeasure | null;
};

const MOST_DAYS = 1830;
/** Said beforehand: this share of the interval is left. */
const SAID_BEFORE = 0.1;
const DAY_MS = 86_400_000;

/** Checks a plan. Failures: `bad-upkeep` (field, value, why). */
export function checkUpkeep<P extends UpkeepPlan>(plan: P): Result<P> {
  const bad = (field: string, value: number | string, why: string) => err({ kind: "bad-upkeep", field, value, why });
  if (!(plan.everyDays >= 1 && plan.everyDays <= MOST_DAYS))
    return bad("interval", plan.everyDays, `is not 1 to ${MOST_DAYS} days`);
  if (plan.what.trim() === "") return bad("what", plan.what, "is empty");
  const m = plan.measure;
  if (m && m.name.trim() === "") return bad("measure", m.name, "has no name");
  if (m && m.lower === null && m.upper === null) return bad("measure", m.name, "has no limit");
  if (m && m.lower !== null && m.upper !== null && m.lower >= m.upper)
    return bad("measure", m.lower, `is not under its upper limit (${m.upper})`);
  return ok(plan);
}

/** A measured value by the plan's limits: null where there is none to judge. */
export function measureHolds(measure: UpkeepMeasure | null, value: number | null): boolean | null {
  if (!measure || value === null) return null;
  return (measure.lower === null || value >= measure.lower) && (measure.upper === null || value <= measure.upper);
}

export type UpkeepState = "never" | "not-in-order" | "overdue" | "soon" | "done";
export type UpkeepStanding = {
  readonly state: UpkeepState;
  readonly result: VerdictResult;
  /** When it is due next; null where it was never done, and is due now. */
  readonly dueMs: number | null;
};

/**
 * How an upkeep stands: what was left not in order stays out until it is put right; never done is unknown, not fine.
 * O(1).
 */
export function upkeepStanding(
  everyDays: number,
  last: { readonly atMs: number; readonly result: UpkeepResult } | null,
  nowMs: number,
): UpkeepStanding {
  if (!last) return { state: "never", result: "unknown", dueMs: null };
  if (last.result === "not-in-order") return { state: "not-in-order", result: "out", dueMs: last.atMs };
  const dueMs = last.atMs + everyDays * DAY_MS;
  if (nowMs > dueMs) return { state: "overdue", result: "watch", dueMs };
  if (nowMs > dueMs - SAID_BEFORE * everyDays * DAY_MS) return { state: "soon", result: "in", dueMs };
  return { state: "done", result: "in", dueMs };
}
