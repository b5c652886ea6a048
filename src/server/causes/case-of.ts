import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";

/** A case by its number, and where a record of it stands; null where there is none. An index probe. */
export async function caseOf(
  db: Kysely<Database>,
  number: string,
): Promise<{
  readonly id: string;
  readonly defect: string;
  readonly where: { caseId: string; rackId?: string; structureId?: string };
} | null> {
  const found = await db
    .selectFrom("root_cause_case")
    .select(["id", "defect", "rack_id", "structure_id"])
    .where("number", "=", number)
    .executeTakeFirst();
  if (!found) return null;
  return {
    id: found.id,
    defect: found.defect,
    where: {
      caseId: found.id,
      ...(found.rack_id ? { rackId: found.rack_id } : {}),
      ...(found.structure_id ? { structureId: found.structure_id } : {}),
    },
  };
}
