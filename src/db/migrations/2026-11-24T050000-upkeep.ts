import { type Kysely, sql } from "kysely";

/**
 * Upkeep of what the line runs on: what was looked at, what was found, by whom. The line a passage was made on, so that
 * lines whose stages have the same names are told apart; and the heat of the metal as it was sprayed.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
alter table passage add column line_id uuid references setup_entity;
alter table coat add column metal_c float8;
create table upkeep_done (
  record_id uuid primary key references record, item_id uuid not null references setup_entity,
  result text not null check (result in ('in-order','put-right','not-in-order')), value float8, unit text, who text, note text);
create index upkeep_done_item on upkeep_done (item_id, record_id desc);
create trigger refuse_row_change before update or delete on upkeep_done for each row execute function refuse_change();
create trigger refuse_truncate before truncate on upkeep_done for each statement execute function refuse_change();
`)
    .execute(db);
}
