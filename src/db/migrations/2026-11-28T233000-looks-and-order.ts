import { type Kysely, sql } from "kysely";

/** The look at a finished part, what was open and is closed, and why an order of work was set aside. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table look (
  record_id uuid primary key references record, faces jsonb not null, distance_m float8, light_lux float8, found boolean not null, note text);
create table item_closed (record_id uuid primary key references record, what text not null, seen text not null);
alter table coat add column left_out text;
alter table bake add column left_out text;
alter table passage add column left_out text;
create trigger refuse_row_change before update or delete on look for each row execute function refuse_change();
create trigger refuse_truncate before truncate on look for each statement execute function refuse_change();
create trigger refuse_row_change before update or delete on item_closed for each row execute function refuse_change();
create trigger refuse_truncate before truncate on item_closed for each statement execute function refuse_change();
`)
    .execute(db);
}
