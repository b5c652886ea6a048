import { type Kysely, sql } from "kysely";

/** A held rack says what it is held for, where that is on record, and not only that somebody decided so. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
update rack_standing s set held_by =
  case when s.iso > coalesce((j.requirement->>'adhesionWorstIso')::int, 1) then 'adhesion' else 'defect' end
from job j where j.id = s.job_id and s.held_by = 'decision'
  and (s.iso > coalesce((j.requirement->>'adhesionWorstIso')::int, 1) or s.defect is not null);
`)
    .execute(db);
}
