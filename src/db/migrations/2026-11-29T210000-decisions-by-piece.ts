import { type Kysely, sql } from "kysely";

/** Decisions on some pieces of a rack, concessions by name, where a fault was made and found, what rework costs, touch-ups. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table disposition add column pieces int, add column found_at text, add column made_at text, add column minutes float8,
  add column powder_kg float8, add column cost float8, add column currency text, add column rinsed boolean, add column class_given text;
create table disposition_piece (record_id uuid not null references record, piece_id uuid not null references piece, primary key (record_id, piece_id));
create index disposition_piece_piece on disposition_piece (piece_id);
create table concession (
  record_id uuid primary key references record, customer_name text not null, their_word text not null, zone text, limit_said text, until_on date);
alter table defect add column pieces jsonb;
create table touch_up (
  record_id uuid not null references record, ordinal int not null, what text not null, defect_id uuid references record, face text, x float8, y float8,
  done boolean not null, with_what text, primary key (record_id, ordinal));
create index touch_up_defect on touch_up (defect_id);
`)
    .execute(db);
  for (const table of ["disposition_piece", "concession", "touch_up"])
    await sql
      .raw(`
create trigger refuse_row_change before update or delete on ${table} for each row execute function refuse_change();
create trigger refuse_truncate before truncate on ${table} for each statement execute function refuse_change();`)
      .execute(db);
}
