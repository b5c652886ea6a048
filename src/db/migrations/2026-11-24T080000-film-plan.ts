import { type Kysely, sql } from "kysely";

/** What was to be read on a rack, and the seed its random places and pieces were chosen with: anyone can choose them again. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table film_plan (
  record_id uuid primary key references record, rule text not null, area_m2 float8 not null, seed int not null, spots int not null, places int not null,
  measured jsonb not null, lot int, sample int, accept_most int, aql float8, rql float8, producer_risk float8, consumer_risk float8, pull jsonb);
create trigger refuse_row_change before update or delete on film_plan for each row execute function refuse_change();
create trigger refuse_truncate before truncate on film_plan for each statement execute function refuse_change();
`)
    .execute(db);
}
