import { type Kysely, sql } from "kysely";

/**
 * Released racks that stand otherwise now than they were signed: derived from their records, written with what came since.
 * No part of the record. `closed_on` is what a lead has looked at: only what changes after that asks again.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table look_again (
  rack_id uuid primary key references rack, decision_id uuid not null references record, since timestamptz(3) not null,
  changed jsonb not null, closed_on text);
create index look_again_open on look_again (since) where closed_on is null;
`)
    .execute(db);
}
