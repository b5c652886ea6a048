import { type Kysely, sql } from "kysely";

/** The look by kind and size of what is found, tests by panel, X-cut beside the lattice, fits tried, panels followed over hours. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table cure_test drop constraint cure_test_test_check;
alter table cure_test add constraint cure_test_test_check check (test in ('pencil-hardness','impact','bend','gloss-60','gloss-20','gloss-85','colour','smoothness','holidays'));
alter table defect add column sub_kind text, add column size_mm float8, add column count int;
alter table look add column seconds float8;
alter table cross_cut alter column removed_percent drop not null;
alter table cross_cut add column method text, add column tear_mm float8, add column panel_no text;
alter table solvent_rub add column panel_no text;
alter table cure_test add column panel_no text;
alter table pull_off add column panel_no text;
create table panel (
  record_id uuid primary key references record, number text not null, metal text not null, made_from text, hung_at text, note text);
create index panel_number on panel (lower(number));
create table stands_for (record_id uuid not null references record, rack_id uuid not null references rack, primary key (record_id, rack_id));
create index stands_for_rack on stands_for (rack_id);
create table panel_reading (
  record_id uuid primary key references record, panel_no text not null, cabinet text not null, hours float8 not null, creep_mm float8,
  widths_mm float8[], scribe_mm float8, blisters text, rust_ri int, next_hours float8, note text);
create index panel_reading_panel on panel_reading (lower(panel_no));
create table fit_try (
  record_id uuid not null references record, ordinal int not null, fit text not null, gauge text, goes boolean not null, primary key (record_id, ordinal));
`)
    .execute(db);
  for (const table of ["panel", "stands_for", "panel_reading", "fit_try"])
    await sql
      .raw(`
create trigger refuse_row_change before update or delete on ${table} for each row execute function refuse_change();
create trigger refuse_truncate before truncate on ${table} for each statement execute function refuse_change();`)
      .execute(db);
}
