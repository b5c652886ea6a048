import { type Kysely, sql } from "kysely";

/**
 * Moments come from the application's clock alone: the database's own would tell another time. A record that follows
 * another in the ordinary course of things says so, instead of a reason that is searched for words.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table setup_version alter column recorded_at drop default;
alter table file alter column added_at drop default;
alter table record add column in_course boolean check (in_course is null or supersedes is not null);
alter table sign_in_attempt alter column at drop default;
`)
    .execute(db);
}
