import { type Kysely, sql } from "kysely";

/** Causes: which defects a case is of, several causes with their zones, small trials, notes, and what a rack met, kept for comparing. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table finding add column zone text;
alter table confirmation add column causes jsonb, add column chain jsonb, add column tied_to text, add column tied_code text;
create table case_defect (record_id uuid not null references record, ordinal int not null, of uuid not null references record, state text not null, why text, primary key (record_id, ordinal));
create index case_defect_of on case_defect (of);
create table case_note (record_id uuid primary key references record, text text not null, people text);
create table trial (record_id uuid primary key references record, cause text not null, plan text not null, panels int not null, expect_with float8 not null, expect_without float8 not null, certainty float8 not null);
create table trial_result (record_id uuid primary key references record, trial_id uuid not null references record, arm text not null, panels int not null, with_it int not null, note text);
create index trial_result_trial on trial_result (trial_id);
create index defect_by_kind on defect (defect);
create sequence rack_met_turn;
create table rack_met (rack_id uuid primary key references rack, made_at timestamptz not null, records int not null, met jsonb not null, turn bigint not null default nextval('rack_met_turn'));
create index rack_met_in_turn on rack_met (turn);
create index rack_met_made on rack_met (made_at);
`)
    .execute(db);
  for (const table of ["case_defect", "case_note", "trial", "trial_result"])
    await sql
      .raw(`
create trigger refuse_row_change before update or delete on ${table} for each row execute function refuse_change();
create trigger refuse_truncate before truncate on ${table} for each statement execute function refuse_change();`)
      .execute(db);
}
