import { type Kysely, sql } from "kysely";

/** Complaints and what is answered to them; who recorded anything yet, by index; when backups were taken, told by the command that takes them. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table complaint (
  record_id uuid primary key references record, said_by text not null, said_on date not null, their_number text, what text not null,
  pieces_returned int check (pieces_returned >= 0), pieces_affected int check (pieces_affected >= 0), wants text not null);
create table complaint_answer (
  record_id uuid primary key references record, complaint_id uuid not null references record, answer text not null,
  sent_to text not null, sent_by text not null);
create index complaint_answer_of on complaint_answer (complaint_id);
create table backup_taken (
  id uuid primary key, taken_at timestamptz(3) not null, file text not null, size_bytes bigint not null,
  encrypted boolean not null, scheduled boolean not null);
create index record_by on record (by_user, happened_at desc);
create index backup_taken_newest on backup_taken (taken_at desc);
`)
    .execute(db);
  for (const table of ["complaint", "complaint_answer"])
    await sql
      .raw(`
create trigger refuse_row_change before update or delete on ${table} for each row execute function refuse_change();
create trigger refuse_truncate before truncate on ${table} for each statement execute function refuse_change();
`)
      .execute(db);
}
