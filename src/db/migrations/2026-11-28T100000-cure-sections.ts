import { type Kysely, sql } from "kysely";

/**
 * Events of a load by the clock of the recorder that was followed, which the stand-in runs faster than the wall's; and of a
 * piece cured section by section under lamps, its sections and which of them a reading was taken on. How a load cools, and
 * what the oven read as its door closed.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table bake_event add column since_door_s float8, add column section text, add column method text;
alter table bake add column sections jsonb, add column air_c float8;
create index bake_pulled on bake (pulled_at);
`)
    .execute(db);
}
