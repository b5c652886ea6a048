import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { refreshStanding } from "../line/standing";
import type { EntryOutcome } from "../outcome";
import { type NewRecord, outcomeOf, racksOf, storeIn } from "./store-record";

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
    const outcome = outcomeOf(await storeIn(trx, record, at));
    if (!outcome.ok) return outcome;
    fresh ||= !outcome.already;
    first ??= outcome;
  }
  if (!first?.ok) throw new RangeError("no records to store together");
  if (fresh) await refreshStanding(trx, await racksOf(trx, records));
  return { ...first, already: !fresh };
}
