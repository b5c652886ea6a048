import { type Kysely, sql } from "kysely";

/** Creep by area along a scribe, and the rusted share of a zone with its grade. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table creep_measure add column area_mm2 float8, add column length_mm float8;
create table rust_share (
  record_id uuid not null references record, ordinal int not null, zone text not null, share_percent float8 not null check (share_percent between 0 and 100),
  grade int not null check (grade between 0 and 5), primary key (record_id, ordinal));
create trigger refuse_row_change before update or delete on rust_share for each row execute function refuse_change();
create trigger refuse_truncate before truncate on rust_share for each statement execute function refuse_change();
`)
    .execute(db);
}
