import { type Kysely, sql } from "kysely";

/**
 * The metal before powder: drying, outgassing by its own trace, bad places with what was decided about them; panels that
 * were coated and tested; and the drum an addition came from.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table prep_step add column how jsonb;
create index prep_step_how on prep_step (step, record_id desc) where how is not null;
alter table bath_event add column lot_id uuid references setup_entity;
create index bath_event_lot on bath_event (lot_id) where lot_id is not null;
create table dry_off (
  record_id uuid primary key references record, air_c float8, metal_c float8, parts_dry boolean not null, hollow_blown boolean, note text);
create table outgas (
  record_id uuid primary key references record, cure_metal_c float8 not null, channel text not null, held_c float8, longest_s float8 not null, result text not null);
create table metal_mark (
  record_id uuid primary key references record, what text not null, face text not null, x float8 not null check (x between 0 and 100),
  y float8 not null check (y between 0 and 100), decision text not null, reason text not null);
create table panel_test (
  record_id uuid primary key references record, test text not null check (test in ('adhesion','salt-spray')), washed_at timestamptz(3) not null,
  removed_percent float8, iso int, hours float8, creep_mm float8, coating text not null, note text,
  check ((test = 'adhesion' and iso is not null) or (test = 'salt-spray' and hours is not null and creep_mm is not null)));
do $$
declare t text;
begin
  foreach t in array array['dry_off', 'outgas', 'metal_mark', 'panel_test'] loop
    execute format('create trigger refuse_row_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger refuse_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;
`)
    .execute(db);
}
