import { type Kysely, sql } from "kysely";

/** A certificate is found by its number and by its file, for whoever checks its paper; a rack's first decision and coat, for the yield. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create index certificate_number on certificate (number);
create index file_sha256 on file (sha256);
create index record_certificate_file on record (file_id) where kind = 'certificate';
create index record_decision on record (rack_id, happened_at, id) where kind = 'disposition';
create index record_coat on record (rack_id, happened_at, id) include (by_user) where kind = 'coat';
`)
    .execute(db);
}
