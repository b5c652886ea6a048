import type { Kysely } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

/** A rack by its number, as far as this person may see it; undefined when there is none for them. */
export async function findRack(db: Kysely<Database>, person: Person, number: string) {
  return db
    .selectFrom("rack")
    .innerJoin("job", "job.id", "rack.job_id")
    .select([
      "rack.id",
      "rack.number",
      "rack.job_id",
      "rack.hung_at",
      "job.part_id",
      "job.powder_id",
      "job.customer_id",
    ])
    .where("rack.number", "=", number)
    .where(forPerson(person, "job.customer_id"))
    .executeTakeFirst();
}
