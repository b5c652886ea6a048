import { type Kysely, sql } from "kysely";

/** Hardness, impact, bend, gloss and colour of a rack, with what was asked: beside the rub they say how cured it is. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table cure_test (
  record_id uuid primary key references record, test text not null check (test in ('pencil-hardness','impact','bend','gloss-60','colour')),
  value float8 not null, readings float8[] not null, asked_lower float8, asked_upper float8, on_panel boolean not null);
create trigger refuse_row_change before update or delete on cure_test for each row execute function refuse_change();
create trigger refuse_truncate before truncate on cure_test for each statement execute function refuse_change();
`)
    .execute(db);
}
