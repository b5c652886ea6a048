import type { Kysely } from "kysely";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import type { SetupKind } from "./setup-data";

/** Every version of one thing set up, the newest first: when, who, why. Index probes; O(versions). */
export async function setupHistory(db: Kysely<Database>, kind: SetupKind, code: string) {
  return db
    .selectFrom("setup_version")
    .innerJoin("setup_entity", "setup_entity.id", "setup_version.entity_id")
    .select(["setup_version.id as versionId", "recorded_at as at", "reason", personName("by_user").as("by")])
    .where("setup_entity.kind", "=", kind)
    .where("setup_entity.code", "=", code)
    .orderBy("recorded_at", "desc")
    .execute();
}
