import { type Kysely, sql } from "kysely";
import { type PreFlightItem, preFlightMeasures } from "@/core/coating";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** What changes slowly, and is offered again as it was last read in the booth. */
const SLOW: readonly PreFlightItem[] = ["air-rest", "air-flowing", "air-filter", "compressor", "booth-air"];
const LOOKED_BACK_DAYS = 14;

/** The last reading of each slow item, two weeks back at most. One walk down the index on kind and time. */
export async function lastPreFlight(
  db: Kysely<Database>,
  at: Date,
): Promise<Readonly<Partial<Record<PreFlightItem, number>>>> {
  const since = new Date(at.getTime() - LOOKED_BACK_DAYS * 86_400_000);
  const { rows } = await sql<{ item: PreFlightItem; value: number }>`
    select distinct on (i.item) i.item, i.value from record r join pre_flight_item i on i.record_id = r.id
    where r.kind = 'pre-flight' and r.happened_at > ${since} and r.happened_at <= ${at} and i.how = 'measured' and i.item = any(${SLOW.filter((i) => preFlightMeasures[i])}::text[])
      and ${stands("r.id")} order by i.item, r.happened_at desc`.execute(db);
  return Object.fromEntries(rows.map((row) => [row.item, row.value]));
}

/** Pairs of powder height and cured film at the same spot of the same rack, for one powder. One query; O(heights on record). */
export async function heightPairs(
  db: Kysely<Database>,
  powderId: string,
  at: Date,
): Promise<readonly { readonly heightUm: number; readonly curedUm: number }[]> {
  const { rows } = await sql<{ heightUm: number; curedUm: number }>`
    select h.height_um as "heightUm", f.um as "curedUm" from powder_height h join record r on r.id = h.record_id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
    cross join lateral (select avg(t.value_um) as um from record x join thickness_reading t on t.record_id = x.id
      where x.rack_id = k.id and x.kind = 'thickness' and x.happened_at > r.happened_at and t.face = h.face and t.spot = h.spot and t.rejected_reason is null
        and ${stands("x.id")}) f
    where j.powder_id = ${powderId} and r.happened_at <= ${at} and f.um is not null and ${stands("r.id")}
    order by r.happened_at desc limit 200`.execute(db);
  return rows;
}
