import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { type NewRecord, type StoreOutcome, storeRecord } from "./store-record";

const UNIQUE_VIOLATION = "23505";
class NotAll extends Error {
  constructor(readonly outcome: StoreOutcome) {
    super(outcome.kind);
  }
}

/**
 * Several records of one entry, all or none. Answers as for the first of them: `stored` when any is new,
 * `already-stored` when a retry finds them all there, else the first refusal. I/O throws; none to store is a `RangeError`.
 */
export async function storeTogether(
  db: Kysely<Database>,
  records: readonly NewRecord[],
  at: Date,
): Promise<StoreOutcome> {
  const store = () =>
    db.transaction().execute(async (trx) => {
      const outcomes: StoreOutcome[] = [];
      for (const record of records) {
        const outcome = await storeRecord(trx, record, at);
        if (outcome.kind !== "stored" && outcome.kind !== "already-stored") throw new NotAll(outcome);
        outcomes.push(outcome);
      }
      const [first] = outcomes;
      if (!first) throw new RangeError("no records to store together");
      return outcomes.find((o) => o.kind === "stored") ? { ...first, kind: "stored" as const } : first;
    });
  try {
    // Two at once: the second waits for the first at the unique key, fails there, and then finds what was stored.
    return (await store().catch((error) => {
      if ((error as { code?: string }).code === UNIQUE_VIOLATION) return store();
      throw error;
    })) as StoreOutcome;
  } catch (error) {
    if (error instanceof NotAll) return error.outcome;
    throw error;
  }
}
