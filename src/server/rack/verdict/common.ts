import type { EvidenceGrade, VerdictResult } from "@/core/verdict";
import type { TestCall } from "../test-calls";

/** What every item of a rack's verdict has: how it stands, how that is known, the records it rests on. */
export type Judged = {
  readonly result: VerdictResult;
  readonly grade: EvidenceGrade;
  readonly sources: readonly string[];
  /** What a test plan asked of it: itself, or to stand by another rack of its unit. Absent where no plan is. */
  readonly plan?: PlanSaid;
};
export type PlanSaid = Pick<TestCall, "asked" | "every" | "n" | "level" | "why"> & {
  /** How this came to be known: on the rack itself, by the unit's sample, left out, or open. */
  readonly by: "itself" | "sample" | "skipped" | "sample-out" | "open";
  /** Racks tested for it, or called for it where none is yet; null for another customer's. */
  readonly racks: readonly (string | null)[];
  readonly skipped: { readonly reason: string; readonly by: string } | null;
};
