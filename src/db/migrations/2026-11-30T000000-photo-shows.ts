import { type Kysely, sql } from "kysely";

/** A photo may show a record: the cloth of a rub, the tape of a cut, a fault, the chip beside the piece. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql.raw("alter table photo add column of_record uuid references record").execute(db);
}
