import type { EvidenceGrade, VerdictResult } from "@/core/verdict";

/** What every item of a rack's verdict has: how it stands, how that is known, the records it rests on. */
export type Judged = {
  readonly result: VerdictResult;
  readonly grade: EvidenceGrade;
  readonly sources: readonly string[];
};
