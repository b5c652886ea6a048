import { type Kysely, sql } from "kysely";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

export type LastGoodCoat = {
  readonly label: string;
  readonly kv: number | null;
  readonly currentUa: number | null;
  readonly gun: string | null;
  readonly gunAirKPa: number | null;
  readonly distanceMm: number | null;
  readonly earthMohm: number | null;
  readonly hookCycles: number | null;
  readonly reclaimPercent: number | null;
  readonly gunAirRestKPa: number | null;
  readonly boothAirMPerS: number | null;
  readonly passes: number | null;
};

/** The settings of the newest rack of the same part and powder that a lead accepted; null where there is none. Walks the jobs of that part and powder. */
export async function lastGoodCoat(
  db: Kysely<Database>,
  rack: { readonly id: string; readonly part: { readonly id: string }; readonly powder: { readonly id: string } },
  at: Date,
): Promise<LastGoodCoat | null> {
  const { rows } = await sql<LastGoodCoat & { number: string }>`
    select k.number, c.gun, c.kv, c.current_ua as "currentUa", c.gun_air_kpa as "gunAirKPa", c.distance_mm as "distanceMm",
      c.earth_mohm as "earthMohm", c.hook_cycles as "hookCycles", c.reclaim_percent as "reclaimPercent", c.gun_air_rest_kpa as "gunAirRestKPa", c.booth_air_m_per_s as "boothAirMPerS", c.passes
    from job j join rack k on k.job_id = j.id
    cross join lateral (select r.id from record r where r.rack_id = k.id and r.kind = 'coat' and ${stands("r.id")} order by r.happened_at desc limit 1) n
    join coat c on c.record_id = n.id
    where j.part_id = ${rack.part.id} and j.powder_id = ${rack.powder.id} and k.id <> ${rack.id} and k.hung_at <= ${at}
      and (select d.decision from record r join disposition d on d.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' and d.pieces is null order by r.happened_at desc limit 1) = 'accept'
    order by k.hung_at desc limit 1`.execute(db);
  const [row] = rows;
  if (!row) return null;
  const { number, ...settings } = row;
  return { ...settings, label: `rack ${number}, the last accepted` };
}
