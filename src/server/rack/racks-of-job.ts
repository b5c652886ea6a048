import type { Kysely } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

/** The number of a rack of this job as it is written; null where it is none of this job's. */
export async function rackOfJob(db: Kysely<Database>, jobId: string, number: string): Promise<string | null> {
  const rack = await db
    .selectFrom("rack")
    .select("number")
    .where("job_id", "=", jobId)
    .where("number", "=", number)
    .executeTakeFirst();
  return rack?.number ?? null;
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
