import { type Kysely, sql } from "kysely";

/** Pull-off: force on a dolly, the stress it comes to, and how the film gave way. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table pull_off (
  record_id uuid primary key references record, dolly_mm float8 not null check (dolly_mm > 0), force_n float8 not null, stress_mpa float8 not null,
  adhesive_percent float8 not null, cohesive_percent float8 not null, glue_percent float8 not null, asked_mpa float8, on_panel boolean not null);
create trigger refuse_row_change before update or delete on pull_off for each row execute function refuse_change();
create trigger refuse_truncate before truncate on pull_off for each statement execute function refuse_change();
`)
    .execute(db);
}
