import type { Failure } from "@/core/result";
import type { EvidenceGrade } from "@/core/verdict";
import type { DetailRows } from "../record/content";
import type { NewRecord, StoreOutcome } from "../record/store-record";

export type EntryOutcome =
  | { readonly ok: true; readonly recordId: string; readonly already: boolean }
  | { readonly ok: false; readonly failure: EntryFailure };
export type EntryFailure = Failure;

/** What an entry comes to before it is stored: one record, several, or a refusal. */
export type Where = {
  jobId?: string;
  rackId?: string;
  bathId?: string;
  structureId?: string;
  caseId?: string;
  instrumentId?: string;
};
export type Part = Where &
  Pick<NewRecord, "kind" | "happenedAt" | "grade" | "details"> & {
    readonly name: string;
    readonly supersedes?: NewRecord["supersedes"];
  };
export type Made =
  | { ok: true; where: Where; details: DetailRows; grade?: EvidenceGrade; kind?: string }
  | { ok: true; several: readonly Part[] }
  | { ok: false; failure: EntryFailure };

export const refuse = (failure: EntryFailure): { ok: false; failure: EntryFailure } => ({ ok: false, failure });
/** What the store answered, as an entry's outcome. */
export const outcomeOf = (outcome: StoreOutcome): EntryOutcome =>
  outcome.kind === "stored" || outcome.kind === "already-stored"
    ? { ok: true, recordId: outcome.recordId, already: outcome.kind === "already-stored" }
    : refuse(outcome);
