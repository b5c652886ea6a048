import { type Kysely, sql } from "kysely";

/** What was found of a corrective action, and when it is looked at again. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table action_check (record_id uuid primary key references record, confirmation_id uuid not null references record, state text not null, seen text not null, sheet text, again_on date);
create index action_check_confirmation on action_check (confirmation_id);
create trigger refuse_row_change before update or delete on action_check for each row execute function refuse_change();
create trigger refuse_truncate before truncate on action_check for each statement execute function refuse_change();`)
    .execute(db);
}
