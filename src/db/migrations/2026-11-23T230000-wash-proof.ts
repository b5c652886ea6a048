import { type Kysely, sql } from "kysely";

/** Proofs of the wash: panels stripped and weighed or judged by colour, and what was done about sludge and filters. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table wash_panel (
  record_id uuid primary key references record, before_g float8, after_g float8, area_m2 float8, g_per_m2 float8 check (g_per_m2 >= 0),
  colour text, look text not null, note text, check (g_per_m2 is not null or colour is not null));
create table sludge (
  record_id uuid primary key references record, what text not null, depth_mm float8 check (depth_mm >= 0), note text);
do $$
declare t text;
begin
  foreach t in array array['wash_panel', 'sludge'] loop
    execute format('create trigger refuse_row_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger refuse_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;
`)
    .execute(db);
}
