import { type Kysely, sql } from "kysely";

/** What was read from photos of a zone, and flakes that were lifted there. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table structure_fact add column told_protection text;
alter table zone_visit add column blisters_per_dm2 float8, add column blister_mm float8, add column chalk_delta_l float8;
create table zone_photo (
  record_id uuid not null references record, ordinal int not null, of text not null, photo uuid not null references record, machine float8, machine_each float8[], added_percent float8, removed_percent float8,
  scale text, px_per_mm float8, primary key (record_id, ordinal));
create index zone_photo_photo on zone_photo (photo);
create table site_plan (
  record_id uuid primary key references record, customer_id uuid not null, site text not null, picture uuid references record, document jsonb not null, note text);
create index site_plan_site on site_plan (customer_id, lower(site));
create table flake (
  record_id uuid primary key references record, back text not null, under text, film_um float8, bag text, front_photo uuid references record, back_photo uuid references record);
`)
    .execute(db);
  for (const table of ["zone_photo", "flake", "site_plan"])
    await sql
      .raw(`
create trigger refuse_row_change before update or delete on ${table} for each row execute function refuse_change();
create trigger refuse_truncate before truncate on ${table} for each statement execute function refuse_change();`)
      .execute(db);
}
