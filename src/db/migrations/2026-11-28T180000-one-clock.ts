import { type Kysely, sql } from "kysely";

/** Moments come from the application's clock alone: the database's own would tell another time. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table setup_version alter column recorded_at drop default;
alter table file alter column added_at drop default;
alter table sign_in_attempt alter column at drop default;
`)
    .execute(db);
}
