import { type Kysely, sql } from "kysely";

/**
 * What a set of readings comes to on each face, added up from the means of its spots when it is stored: trends over
 * millions of readings read these few rows instead. Derived, and no part of a record's content.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table film_face (
  record_id uuid not null references record, face text not null, spots int not null, readings int not null,
  sum_um float8 not null, sum_sq_um float8 not null, lowest_um float8 not null, highest_um float8 not null, primary key (record_id, face));
insert into film_face (record_id, face, spots, readings, sum_um, sum_sq_um, lowest_um, highest_um)
  select record_id, face, count(*), sum(n), sum(um), sum(um * um), min(um), max(um)
  from (select record_id, face, spot, avg(value_um) as um, count(*) as n from thickness_reading where rejected_reason is null group by record_id, face, spot) s group by record_id, face;
create trigger refuse_row_change before update or delete on film_face for each row execute function refuse_change();
create trigger refuse_truncate before truncate on film_face for each statement execute function refuse_change();
`)
    .execute(db);
}
