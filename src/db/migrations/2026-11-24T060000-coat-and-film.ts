import { type Kysely, sql } from "kysely";

/**
 * Coating as it is set up, looked at and built: pre-flight, the lamp's look at loose powder, its height, the first panel of
 * a lot; and the proof of the gauge: its shims, the bare metal under the film, places chosen at random.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table coat add column gun text, add column sheet_id uuid references setup_entity, add column situation text,
  add column system text, add column gun_air_rest_kpa float8, add column booth_air_m_per_s float8, add column passes int,
  add column hopper_before_kg float8, add column hopper_after_kg float8, add column hopper_added_kg float8;
create table pre_flight (
  record_id uuid primary key references record, situation text not null, sheet_id uuid references setup_entity, lot_id uuid references setup_entity);
create table pre_flight_item (
  record_id uuid not null references record, ordinal int not null, item text not null,
  how text not null check (how in ('measured','by-procedure','skipped')), value float8, unit text, good boolean, note text,
  primary key (record_id, ordinal));
create table lamp_check (
  record_id uuid primary key references record, coat_no int not null, faces jsonb not null, wiped boolean, plugs_in int, bumped boolean not null, note text);
create table light_spot (
  record_id uuid not null references record, ordinal int not null, face text not null, x float8 not null check (x between 0 and 100),
  y float8 not null check (y between 0 and 100), what text not null, primary key (record_id, ordinal));
create table powder_height (
  record_id uuid not null references record, ordinal int not null, face text not null, spot text not null, height_um float8 not null check (height_um > 0),
  primary key (record_id, ordinal));
create table first_panel (
  record_id uuid primary key references record, lot_id uuid not null references setup_entity, result text not null check (result in ('matches','off')),
  gloss float8, delta_e float8, film_um float8, note text);
create index first_panel_lot on first_panel (lot_id, record_id desc);
create table gauge_check (
  record_id uuid primary key references record, tolerance_um float8 not null, tolerance_percent float8 not null, holds boolean not null, note text);
create table gauge_shim (
  record_id uuid not null references record, ordinal int not null, certified_um float8 not null, tolerance_um float8 not null,
  readings_um float8[] not null, mean_um float8 not null, holds boolean not null, primary key (record_id, ordinal));
create table base_metal (record_id uuid primary key references record, readings_um float8[] not null, mean_um float8 not null, note text);
create index record_instrument_time on record (instrument_id, happened_at desc) where instrument_id is not null;
do $$
declare t text;
begin
  foreach t in array array['pre_flight', 'pre_flight_item', 'lamp_check', 'light_spot', 'powder_height', 'first_panel', 'gauge_check', 'gauge_shim', 'base_metal'] loop
    execute format('create trigger refuse_row_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger refuse_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;
`)
    .execute(db);
}
