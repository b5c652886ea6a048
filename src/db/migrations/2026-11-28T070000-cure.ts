import { type Kysely, sql } from "kysely";

/**
 * What happens to a load while it is in the oven and cools (door, melt, infrared readings, touch-up, plugs out), surveys
 * of an oven with a probe at each place, and trials of two programs. A load is known by its oven and number, since its
 * own record is superseded when it is pulled.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table bake_event (
  record_id uuid primary key references record, oven_id uuid not null references setup_entity, load_no text not null, event text not null,
  value_c float8, emissivity float8, aim text, count int, asked int, note text);
create index bake_event_load on bake_event (oven_id, load_no);
create table oven_survey (
  record_id uuid primary key references record, oven_id uuid not null references setup_entity, set_point_c float8 not null,
  hold_from_s float8 not null, hold_to_s float8 not null, door_at_s float8, note text);
create index oven_survey_oven on oven_survey (oven_id);
create table survey_place (
  record_id uuid not null references record, ordinal int not null, place text not null, time_s float8[] not null, temp_c float8[] not null,
  primary key (record_id, ordinal));
create table cure_trial (
  record_id uuid primary key references record, question text not null, test text not null, unit text not null, program_a text not null, program_b text not null,
  values_a float8[] not null, values_b float8[] not null, note text);
create index bake_oven on bake (oven_id, door_closed_at desc);
do $$ declare t text; begin
  foreach t in array array['bake_event','oven_survey','survey_place','cure_trial'] loop
    execute format('create trigger refuse_row_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger refuse_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;
`)
    .execute(db);
}
