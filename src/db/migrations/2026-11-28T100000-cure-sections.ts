import { type Kysely, sql } from "kysely";

/**
 * Events of a load by the clock of the recorder that was followed, which the stand-in runs faster than the wall's, and the
 * section of a piece that a reading was taken on, where it is cured section by section.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql.raw("alter table bake_event add column since_door_s float8, add column section text").execute(db);
}
