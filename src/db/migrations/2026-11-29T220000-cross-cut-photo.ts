import { type Kysely, sql } from "kysely";

/** A cross-cut read from a photo: the photo, what the machine read, and what was accepted square by square. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      "alter table cross_cut add column photo_id uuid references record, add column machine_percent float8, add column shares jsonb",
    )
    .execute(db);
}
