import { type Kysely, sql } from "kysely";

/**
 * Where each rack stands and what it waits for: derived from its records, written with them, read by index. No part of
 * the record: it can be worked out again at any time, and `npm run verify` does. A job keeps the customer's own numbers.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table rack_standing (
  rack_id uuid primary key references rack, number text not null, job_id uuid not null references job, customer_id uuid not null references setup_entity,
  part_id uuid not null references setup_entity, hung_at timestamptz(3) not null,
  stage text not null, passage text not null, since timestamptz(3) not null, open boolean not null, state text not null, result text not null,
  next text, next_since timestamptz(3) not null, held_by text, readings int not null, asked int not null, defect text, iso int,
  bare_since timestamptz(3), unsealed_since timestamptz(3), wiped_at timestamptz(3), bake_id uuid references record, gone_at timestamptz(3));
create index rack_standing_line on rack_standing (stage, since) where gone_at is null;
create index rack_standing_next on rack_standing (next, next_since) where gone_at is null;
create index rack_standing_job on rack_standing (job_id);
create index rack_standing_customer on rack_standing (customer_id) where gone_at is null;
create index rack_standing_bake on rack_standing (bake_id) where bake_id is not null;
create table job_standing (
  job_id uuid primary key references job, customer_id uuid not null references setup_entity, due_on date,
  ordered int, hung int not null, on_line int not null, in_hand boolean not null);
create index job_standing_in_hand on job_standing (due_on) where in_hand;
alter table job add column customer_order text, add column delivery_note text;
create index rack_number_text on rack (number text_pattern_ops);
`)
    .execute(db);
}
