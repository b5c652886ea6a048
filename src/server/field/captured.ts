import type { Kysely } from "kysely";
import * as v from "valibot";
import type { Database } from "@/db/schema";
import { storeEntry } from "../entries/store-entry";
import { badEntry } from "../input";
import { type EntryOutcome, refuse } from "../outcome";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

/** Entries that are captured on site. */
const ofTheField: ReadonlySet<string> = new Set(["zone-visit", "defect"]);
const sent = v.object({
  /** User name of the person who captured it. */
  by: v.pipe(v.string(), v.maxLength(80)),
  entry: v.looseObject({ kind: v.string() }),
});

/**
 * Stores what was captured on a device, however long ago and however often it is sent. Failures: `bad-entry`,
 * `somebody-elses` where another person than the one signed in captured it, and those of `storeEntry`.
 */
export async function storeCaptured(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const read = v.safeParse(sent, input);
  if (!read.success) return refuse(badEntry(read.issues));
  const { by, entry } = read.output;
  if (by !== person.username) return refuse({ kind: "somebody-elses", by });
  if (!ofTheField.has(entry.kind))
    return refuse({ kind: "bad-entry", field: "kind", why: "is not captured on site", value: entry.kind.slice(0, 40) });
  return storeEntry(db, person, entry, clock);
}
