import { type Kysely, sql } from "kysely";

/** Work that nobody ordered: what, how long, who pays, what it cost. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table extra_work (record_id uuid primary key references record, what text not null, minutes float8 not null, charged boolean not null, cost float8, currency text);
create trigger refuse_row_change before update or delete on extra_work for each row execute function refuse_change();
create trigger refuse_truncate before truncate on extra_work for each statement execute function refuse_change();`)
    .execute(db);
}
