import { type Kysely, sql } from "kysely";

/** What a test plan asks of each rack, tests left out with their reasons; and beside them how each test called for came out, derived. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table test_call (
  record_id uuid not null references record, ordinal int not null, plan_id uuid not null references setup_entity, version_id uuid not null references setup_version,
  test text not null, every text not null, n int, level text not null, key text, unit text not null, asked boolean not null, why text not null, first boolean not null,
  primary key (record_id, ordinal));
create index test_call_unit on test_call (plan_id, test, unit);
create index test_call_newest on test_call (plan_id, test, record_id desc);
create index test_call_key on test_call (plan_id, test, key) where key is not null;
create table test_skip (record_id uuid primary key references record, test text not null, reason text not null);
create table test_outcome (
  record_id uuid not null references record, test text not null, plan_id uuid not null, good boolean, at timestamptz(3) not null,
  primary key (record_id, test));
alter table rack_standing add column tests_due text[] not null default '{}', add column sample_due text[] not null default '{}';
create index test_outcome_newest on test_outcome (plan_id, test, at desc) where good is not null;
`)
    .execute(db);
  for (const table of ["test_call", "test_skip"])
    await sql
      .raw(`
create trigger refuse_row_change before update or delete on ${table} for each row execute function refuse_change();
create trigger refuse_truncate before truncate on ${table} for each statement execute function refuse_change();`)
      .execute(db);
}
