import { type Kysely, sql } from "kysely";
import type { Database } from "@/db/schema";

/** A rack that is not gone and hangs under a plan older than a version: number, and which it hangs under (0: as taken in). */
export type HangsUnder = { readonly id: string; readonly number: string; readonly version: number };

/** Racks of a job that hang under a plan older than a version, by number. One query on the job. */
export async function hangingUnder(
  db: Kysely<Database>,
  jobId: string,
  version: number,
): Promise<readonly HangsUnder[]> {
  const { rows } = await sql<HangsUnder>`
    select k.id, k.number, coalesce(v.version, 0) as version from rack k join rack_standing s on s.rack_id = k.id
    left join lateral (select p.version from record r join job_plan p on p.record_id = r.id where r.job_id = k.job_id and r.kind = 'plan'
      and (r.happened_at <= k.hung_at or p.document->'moved' ? k.id::text) order by p.version desc limit 1) v on true
    where k.job_id = ${jobId} and s.gone_at is null and coalesce(v.version, 0) < ${version} order by k.number`.execute(
    db,
  );
  return rows;
}
