import { type Kysely, sql } from "kysely";

/** Planning on the record: versions of a job's plan, options offered and answered, and a start that a person has set. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table job_plan (
  record_id uuid primary key references record, version int not null check (version > 0), released boolean not null, document jsonb not null);
create table offer (
  record_id uuid primary key references record, code text not null, what text not null, quantity float8, unit text,
  price float8 check (price >= 0), currency text not null, risk text not null);
create table offer_answer (
  record_id uuid primary key references record, offer_id uuid not null references record, taken boolean not null,
  who text not null, how text not null, answered_on date not null, note text);
create index offer_answer_offer on offer_answer (offer_id);
create table job_start (
  record_id uuid primary key references record, start_at timestamptz(3));
create index record_job on record (job_id, kind, happened_at) where job_id is not null;
do $$
declare t text;
begin
  foreach t in array array['job_plan', 'offer', 'offer_answer', 'job_start'] loop
    execute format('create trigger refuse_row_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger refuse_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;
`)
    .execute(db);
}
