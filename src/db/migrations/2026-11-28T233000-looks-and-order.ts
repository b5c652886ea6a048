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
-- What is derived of racks counts otherwise now: readings since the newest coat, the worst of several cross-cuts. These are worked out anew.
delete from rack_standing s where
  exists (select 1 from record r join record c on c.rack_id = r.rack_id and c.kind = 'coat' and c.happened_at > r.happened_at where r.rack_id = s.rack_id and r.kind = 'thickness')
  or (select count(*) from record r where r.rack_id = s.rack_id and r.kind = 'cross-cut') > 1;
create trigger refuse_row_change before update or delete on look for each row execute function refuse_change();
create trigger refuse_truncate before truncate on look for each statement execute function refuse_change();
create trigger refuse_row_change before update or delete on item_closed for each row execute function refuse_change();
create trigger refuse_truncate before truncate on item_closed for each statement execute function refuse_change();
`)
    .execute(db);
}
