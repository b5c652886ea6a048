import type { Kysely } from "kysely";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import { newId, now } from "../now";
import type { Person } from "../sign-in/roles";
import type { SetupInput, SetupKind } from "./setup-data";

/** A new version of something set up, from a moment on; the ones before stay. The data is checked by who calls. */
export async function addVersion<K extends SetupKind>(
  db: Kysely<Database>,
  person: Person,
  version: { readonly entityId: string; readonly at: Date; readonly reason: string; readonly data: SetupInput<K> },
): Promise<void> {
  await db
    .insertInto("setup_version")
    .values({
      id: newId(),
      entity_id: version.entityId,
      valid_from: version.at,
      recorded_at: now(),
      by_user: person.username,
      reason: version.reason,
      data: JSON.stringify(version.data),
    })
    .execute();
}

/** Who made a version: named to the one whose change came second. */
export async function madeBy(db: Kysely<Database>, versionId: string): Promise<string> {
  const row = await db
    .selectFrom("setup_version")
    .select(personName("by_user").as("by_user"))
    .where("id", "=", versionId)
    .executeTakeFirst();
  return row?.by_user ?? "";
}
