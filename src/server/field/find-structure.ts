import { type Kysely, sql } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

/** A structure by its short name, as far as this person may see it; undefined when there is none for them. */
export async function findStructure(db: Kysely<Database>, person: Person, code: string) {
  return db
    .selectFrom("structure")
    .selectAll()
    .where(sql`upper(code)`, "=", code.toUpperCase())
    .where(forPerson(person, "customer_id"))
    .executeTakeFirst();
}
