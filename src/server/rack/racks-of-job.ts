import type { Kysely } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

/** A rack of this job, as its number is written, with its pieces; null where it is none of this job's. */
export async function rackOfJob(
  db: Kysely<Database>,
  jobId: string,
  number: string,
): Promise<{ readonly id: string; readonly number: string; readonly pieces: number } | null> {
  const rack = await db
    .selectFrom("rack")
    .select((eb) => [
      "id",
      "number",
      eb
        .selectFrom("piece")
        .select(eb.fn.countAll<string>().as("n"))
        .whereRef("piece.rack_id", "=", "rack.id")
        .as("pieces"),
    ])
    .where("job_id", "=", jobId)
    .where("number", "=", number)
    .executeTakeFirst();
  return rack ? { id: rack.id, number: rack.number, pieces: Number(rack.pieces ?? 0) } : null;
}

/**
 * Where the code on a job's route card leads: to its only rack's traveller, else to the job, where its racks are listed
 * and the first one is hung. Null where the job is not this person's.
 */
export async function travellerOf(db: Kysely<Database>, person: Person, number: string): Promise<string | null> {
  const rows = await db
    .selectFrom("job")
    .leftJoin("rack", "rack.job_id", "job.id")
    .select(["job.number", "rack.number as rack"])
    .where("job.number", "=", number)
    .where(forPerson(person, "job.customer_id"))
    .limit(2)
    .execute();
  const [first, second] = rows;
  if (!first) return null;
  return first.rack && !second ? `/racks/${first.rack}` : `/jobs/${first.number}#racks`;
}
