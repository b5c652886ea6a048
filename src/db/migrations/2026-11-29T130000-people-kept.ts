import { type Kysely, sql } from "kysely";

/**
 * People kept by the shop itself: locked out and let in again, a new password by a code that works once, and what was done
 * to whom by whom. The last two are added to and never changed.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table "user" add column "lockedAt" timestamptz;
create table person_event (
  id uuid primary key, person_id text not null references "user", at timestamptz not null, by_user text not null,
  what text not null check (what in ('made','changed','locked','let-in','sessions-ended','code-made','password-by-code','own-password')),
  note text not null default '');
create index person_event_by_person on person_event (person_id, at desc);
create table one_time_code (
  id uuid primary key, person_id text not null references "user", code_hash text not null,
  made_at timestamptz not null, expires_at timestamptz not null);
create index one_time_code_by_person on one_time_code (person_id, made_at desc);
create table one_time_code_use (code_id uuid primary key references one_time_code, at timestamptz not null);
`)
    .execute(db);
}
