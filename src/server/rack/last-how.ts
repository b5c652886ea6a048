import { type Kysely, sql } from "kysely";
import { offeredAgain, type PrepHow, prepHow } from "@/core/preparation";
import type { Database } from "@/db/schema";

/** How each step was last done in this shop: offered again, since a shop seldom changes its grit. Ids grow with time, so that it is one probe of the index for each step. */
export async function lastHow(db: Kysely<Database>, at: Date): Promise<Readonly<Partial<Record<string, PrepHow>>>> {
  const since = new Date(at.getTime() - HOW_DAYS * 86_400_000);
  const { rows } = await sql<{ step: string; how: PrepHow }>`
    select s.step, p.how from unnest(${Object.keys(prepHow)}::text[]) as s(step)
    cross join lateral (select x.how, x.record_id from prep_step x where x.step = s.step and x.how is not null order by x.record_id desc limit 1) p
    join record r on r.id = p.record_id where r.happened_at > ${since} and r.happened_at <= ${at}`.execute(db);
  return Object.fromEntries(
    rows.map((row) => [
      row.step,
      Object.fromEntries(Object.entries(row.how).filter(([key]) => offeredAgain.has(key))) as PrepHow,
    ]),
  );
}
/** Longer ago than this, days, it is not offered again. */
const HOW_DAYS = 60;
