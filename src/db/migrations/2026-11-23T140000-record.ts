import { type Kysely, sql } from "kysely";

/**
 * The record: base row, typed details, seals; nouns of the trade; set-up data versioned by validity; files.
 * Everything here is added to only. UPDATE, DELETE and TRUNCATE are refused by triggers to everyone and never
 * granted to the application's role.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table setup_entity (
  id uuid primary key, kind text not null, code text not null, unique (kind, code));
create table setup_version (
  id uuid primary key, entity_id uuid not null references setup_entity, valid_from timestamptz(3) not null,
  recorded_at timestamptz(3) not null default now(), by_user text not null, reason text not null, data jsonb not null,
  unique (entity_id, valid_from, recorded_at));
create index setup_version_entity on setup_version (entity_id, valid_from desc, recorded_at desc);

create table file (
  id uuid primary key, sha256 text not null, media_type text not null, name text not null, size_bytes int not null,
  bytes bytea not null, added_by text not null, added_at timestamptz(3) not null default now());

create table job (
  id uuid primary key, number text not null unique, customer_id uuid not null references setup_entity,
  part_id uuid not null references setup_entity, powder_id uuid not null references setup_entity,
  received_at timestamptz(3) not null, due_on date, requirement jsonb not null, plan jsonb not null, created_by text not null);
create index job_customer on job (customer_id, received_at desc);
create index job_received on job (received_at desc);
create table rack (
  id uuid primary key, number text not null unique, job_id uuid not null references job,
  hung_at timestamptz(3) not null, created_by text not null);
create index rack_job on rack (job_id);
create index rack_hung on rack (hung_at desc);
create table piece (
  id uuid primary key, rack_id uuid not null references rack, serial text not null unique, position int not null, unique (rack_id, position));
create table structure (
  id uuid primary key, code text not null unique, customer_id uuid not null references setup_entity, site text not null,
  name text not null, put_up_on date, exposure jsonb not null, created_by text not null);
create table structure_piece (
  structure_id uuid not null references structure, piece_id uuid not null references piece, place text not null,
  primary key (structure_id, piece_id));
create index structure_piece_piece on structure_piece (piece_id);

create table record (
  id uuid primary key, kind text not null, happened_at timestamptz(3) not null, stored_at timestamptz(3) not null,
  by_user text not null, grade text not null check (grade in ('measured','by-procedure','assumed','unknown')),
  instrument_id uuid references setup_entity, job_id uuid references job, rack_id uuid references rack,
  piece_id uuid references piece, bath_id uuid references setup_entity, bake_id uuid references record,
  structure_id uuid references structure, case_id uuid, file_id uuid references file,
  idempotency_key text not null unique, request_hash text not null,
  supersedes uuid references record, reason text, content_hash text not null,
  check ((supersedes is null) = (reason is null)));
create unique index record_superseded_once on record (supersedes) where supersedes is not null;
create index record_rack on record (rack_id, happened_at) where rack_id is not null;
create index record_bath on record (bath_id, happened_at) where bath_id is not null;
create index record_structure on record (structure_id, happened_at) where structure_id is not null;
create index record_case on record (case_id, happened_at) where case_id is not null;
create index record_kind on record (kind, happened_at desc);
create index record_stored on record (stored_at desc);

create table root_cause_case (
  id uuid primary key, number text not null unique, defect text not null, defect_record_id uuid not null references record,
  rack_id uuid references rack, structure_id uuid references structure, zone text not null,
  opened_at timestamptz(3) not null, opened_by text not null);
alter table record add foreign key (case_id) references root_cause_case;

create table passage (
  record_id uuid primary key references record, stage text not null, entered_at timestamptz(3) not null,
  left_at timestamptz(3), source text not null, check (left_at >= entered_at));
create table bath_check (
  record_id uuid not null references record, ordinal int not null, parameter text not null, value float8 not null,
  typed text not null, typed_unit text not null, titrant_ml float8, blank_ml float8, factor float8,
  primary key (record_id, ordinal));
create table bath_event (
  record_id uuid primary key references record, event text not null check (event in ('addition','dump','recharge')),
  product text, amount_l float8, parameter text, expected_value float8, note text);
create table thickness_set (
  record_id uuid primary key references record, coat_no int not null, source text not null, typed_unit text not null);
create table thickness_reading (
  record_id uuid not null, ordinal int not null, face text not null, spot text not null,
  value_um float8 not null check (value_um >= 0 and value_um <= 10000), typed text not null, rejected_reason text,
  primary key (record_id, ordinal));
create table bake (
  record_id uuid primary key references record, oven_id uuid not null references setup_entity, load_no text not null,
  powder_id uuid not null references setup_entity, door_closed_at timestamptz(3) not null, pulled_at timestamptz(3),
  timing text not null, set_point_c float8);
create table bake_place (
  record_id uuid not null references record, rack_id uuid not null references rack, place text not null, channel text,
  primary key (record_id, rack_id));
create index bake_place_rack on bake_place (rack_id);
create table bake_channel (
  record_id uuid not null references record, ordinal int not null, name text not null,
  medium text not null check (medium in ('air','metal')), time_s float8[] not null, temp_c float8[] not null,
  primary key (record_id, ordinal));
create table coat (
  record_id uuid primary key references record, coat_no int not null, layer text not null, lot_id uuid not null references setup_entity,
  booth text not null, kv float8, current_ua float8, gun_air_kpa float8, distance_mm float8, earth_mohm float8,
  hook_cycles int, sprayed_hot boolean, colour_change_before boolean, reclaim_percent float8);
create table prep_step (
  record_id uuid primary key references record, step text not null, done boolean not null, value float8, unit text, note text);
create table condition (
  record_id uuid primary key references record, quantity text not null, value float8 not null, unit text not null, place text not null);
create table cross_cut (
  record_id uuid primary key references record, removed_percent float8 not null, squares_lost int, squares int,
  spacing_mm float8, iso int not null, astm text not null, on_panel boolean not null);
create table solvent_rub (
  record_id uuid primary key references record, double_rubs int not null, rub_limit int not null, grade int not null,
  known_cured_grade int, on_panel boolean not null);
create table defect (
  record_id uuid primary key references record, defect text not null, face text, x float8, y float8,
  extent_percent float8, pieces_affected int, pieces_seen int, note text);
create table disposition (
  record_id uuid primary key references record, decision text not null, note text not null, verdict jsonb not null, signed_name text not null);
create table certificate (
  record_id uuid primary key references record, number text not null unique, document jsonb not null);
create table visit (
  record_id uuid primary key references record, weather text, note text);
create table creep_measure (
  record_id uuid not null references record, ordinal int not null, zone text not null, from_what text not null,
  scribe_mm float8, widths_mm float8[] not null, creep_mm float8 not null, rating int, primary key (record_id, ordinal));
create table finding (
  record_id uuid primary key references record, finding text not null, state text not null check (state in ('present','absent','unknown')), note text);
create table confirmation (
  record_id uuid primary key references record, cause text not null, proof text not null, correction text not null,
  corrective_action text not null, who text not null, due_on date);
create table photo (
  record_id uuid primary key references record, caption text not null, zone text);

create table seal (
  number int primary key, sealed_at timestamptz(3) not null, member_count int not null, merkle_root text not null,
  previous_hash text not null, hash text not null unique, signature text not null);
create table seal_member (
  record_id uuid primary key references record, seal_number int not null references seal, position int not null,
  content_hash text not null, unique (seal_number, position));

create table sign_in_attempt (
  id bigint generated always as identity primary key, username text not null, address text not null,
  at timestamptz(3) not null default now(), succeeded boolean not null);
create index sign_in_attempt_username on sign_in_attempt (username, at desc);
create index sign_in_attempt_address on sign_in_attempt (address, at desc);

-- Readings come a hundred thousand at a time: their record is looked up once per statement, not once per row. Records are
-- never deleted, so that the other half of a foreign key has nothing to guard.
create function reading_needs_record() returns trigger language plpgsql as $$
begin
  if exists (select 1 from (select distinct record_id from added) a where not exists (select 1 from record r where r.id = a.record_id)) then
    raise exception 'a reading without its record' using errcode = 'foreign_key_violation';
  end if;
  return null;
end $$;
create trigger reading_needs_record after insert on thickness_reading referencing new table as added for each statement execute function reading_needs_record();

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'records are added to, never changed: % on % refused', tg_op, tg_table_name using errcode = 'insufficient_privilege';
end $$;
do $$
declare t text;
begin
  for t in select table_name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'
    and table_name not like 'kysely%' and table_name <> 'sign_in_attempt'
  loop
    execute format('create trigger refuse_row_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger refuse_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;
`)
    .execute(db);
}
