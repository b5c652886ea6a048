import { type Kysely, sql } from "kysely";

/** Zones of structures, what is told of them, and what was found zone by zone. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table structure_zone (
  record_id uuid primary key references record, zone text not null, what text not null, place int, height_m float8, bearing_deg float8, length_mm float8, note text, gone boolean not null);
create table structure_fact (
  record_id uuid primary key references record, told_year int, told_year_grade text, told_coater text, told_coater_grade text, told_system text, told_system_grade text,
  road_m float8, salt_m float8, water_m float8, latitude float8, longitude float8, promised_years float8, note text);
create table zone_visit (
  record_id uuid primary key references record, round_id uuid, zone text not null, sound boolean, from_what text, scribe_mm float8, widths_mm float8[], creep_mm float8, rating int, loose_mm float8[],
  rust_percent float8, rust_ri int, rust_photo uuid references record, rust_machine_percent float8, blister_density int, blister_size int, flaked_percent float8, flaking int, tape_iso int, seam_rusted_mm float8, seam_mm float8, film_um float8[],
  gloss_gu float8[], gloss_deg int, delta_e float8, chalk int, salt_mg_m2 float8, profile_um float8, note text);
create index zone_visit_round on zone_visit (round_id) where round_id is not null;
`)
    .execute(db);
  for (const table of ["structure_zone", "structure_fact", "zone_visit"])
    await sql
      .raw(`
create trigger refuse_row_change before update or delete on ${table} for each row execute function refuse_change();
create trigger refuse_truncate before truncate on ${table} for each statement execute function refuse_change();`)
      .execute(db);
}
