import type { Kysely } from "kysely";
import { take } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import type { Outcome } from "./outcome";

/** A moment, or the clock itself, which is read once the locks are held. */
export type Clock = Date | (() => Date);
/** What happened may lie this far ahead of the server's clock before it is taken for a slip. */
export const CLOCK_SLACK_MS = 5 * 60_000;
export const momentOf = (clock: Clock): Date => (clock instanceof Date ? clock : clock());

class Undone<T> extends Error {
  constructor(readonly outcome: T) {
    super("refused");
  }
}
const UNIQUE_VIOLATION = "23505";

/**
 * The one way to write: a transaction that holds its nouns' locks, reads the clock after it has them, looks again at how
 * things stand, and keeps all or nothing (a refusal undoes what was written before it). Where the database itself refuses
 * a second of a kind, it is done once more and then finds the first. Within a transaction it joins that.
 */
export async function write<T extends Outcome>(
  db: Kysely<Database>,
  locks: readonly string[],
  clock: Clock,
  run: (trx: Kysely<Database>, at: Date) => Promise<T>,
): Promise<T> {
  const inside = async (trx: Kysely<Database>): Promise<T> => {
    await take(trx, locks);
    return run(trx, momentOf(clock));
  };
  if (db.isTransaction) return inside(db);
  const once = async (): Promise<T> => {
    try {
      return await db.transaction().execute(async (trx) => {
        const outcome = await inside(trx);
        if (!outcome.ok) throw new Undone(outcome);
        return outcome;
      });
    } catch (error) {
      if (error instanceof Undone) return error.outcome as T;
      throw error;
    }
  };
  return once().catch((error) => {
    if ((error as { code?: string }).code === UNIQUE_VIOLATION) return once();
    throw error;
  });
}
