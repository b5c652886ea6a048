import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import type { EntryOutcome } from "../outcome";
import { type NewRecord, outcomeOf, storeRecord } from "./store-record";

/**
 * Several records of one entry within a transaction, all or none. Answers as for the first of them: new when any is new,
 * already there when a retry finds them all, else the first refusal, which undoes the rest. None to store is a `RangeError`.
 */
export async function storeTogether(
  trx: Kysely<Database>,
  records: readonly NewRecord[],
  at: Date,
): Promise<EntryOutcome> {
  let first: EntryOutcome | null = null;
  let fresh = false;
  for (const record of records) {
    const outcome = outcomeOf(await storeRecord(trx, record, at));
    if (!outcome.ok) return outcome;
    fresh ||= !outcome.already;
    first ??= outcome;
  }
  if (!first?.ok) throw new RangeError("no records to store together");
  return { ...first, already: !fresh };
}
