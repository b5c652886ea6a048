import type { Kysely } from "kysely";
import type { EntryKind, EntryOf, RecordKind } from "@/core/kinds";
import type { Failure } from "@/core/result";
import type { EvidenceGrade } from "@/core/verdict";
import type { Database } from "@/db/schema";
import type { DetailRows } from "../record/content";
import type { NewRecord } from "../record/store-record";
import type { Person } from "../sign-in/roles";

/** A checked entry of one kind. */
export type Of<K extends EntryKind> = EntryOf<K>;
export type Where = {
  jobId?: string;
  rackId?: string;
  bathId?: string;
  structureId?: string;
  caseId?: string;
  instrumentId?: string;
};
/** One of several records that come of one entry. */
export type Part = Where &
  Pick<NewRecord, "kind" | "happenedAt" | "grade" | "details"> & {
    readonly name: string;
    readonly supersedes?: NewRecord["supersedes"];
  };
/** What an entry comes to before it is stored: one record, several, or a refusal. */
export type Made =
  | {
      ok: true;
      where: Where;
      details: DetailRows;
      grade?: EvidenceGrade /** Where the entry has another name than its kind of record. */;
      kind?: RecordKind;
    }
  | { ok: true; several: readonly Part[] }
  | { ok: false; failure: Failure };

/** What a kind is made with: the transaction that holds its nouns' locks, who enters it, the moment by the clock. */
export type Making = { readonly db: Kysely<Database>; readonly person: Person; readonly at: Date };
export type Make<K extends EntryKind> = (making: Making, entry: Of<K>) => Made | Promise<Made>;
/** How each entry of a kind is made; every form, line, stream and import goes through it. */
export type Makes<K extends EntryKind> = { readonly [E in K]: Make<E> };
