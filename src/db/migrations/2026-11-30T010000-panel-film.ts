import { type Kysely, sql } from "kysely";

/** Film read on a panel, a primer alone or the system in all. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table panel_film (record_id uuid primary key references record, panel_no text not null, layer text not null, values_um float8[] not null, mean_um float8 not null, note text);
create trigger refuse_row_change before update or delete on panel_film for each row execute function refuse_change();
create trigger refuse_truncate before truncate on panel_film for each statement execute function refuse_change();`)
    .execute(db);
}
