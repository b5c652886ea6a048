import { type Kysely, sql } from "kysely";

/**
 * Readings may be copied in before their record, whose hash is known only when the last one has come: the record is then
 * awaited, and a foreign key looks for it at the end of the transaction. Without it nothing is kept.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table reading_awaits (record_id uuid primary key references record deferrable initially deferred);
create or replace function reading_needs_record() returns trigger language plpgsql as $$
begin
  insert into reading_awaits (record_id)
    select a.record_id from (select distinct record_id from added) a where not exists (select 1 from record r where r.id = a.record_id)
    on conflict do nothing;
  return null;
end $$;
`)
    .execute(db);
}
