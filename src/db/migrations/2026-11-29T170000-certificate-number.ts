import { type Kysely, sql } from "kysely";

/** A certificate is found by its number and by its file, for whoever checks its paper. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create index certificate_number on certificate (number);
create index file_sha256 on file (sha256);
create index record_certificate_file on record (file_id) where kind = 'certificate';
`)
    .execute(db);
}
