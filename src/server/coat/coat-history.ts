import { type Kysely, sql } from "kysely";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** One coat of a past rack of the same part and powder, with what came of it. */
export type PastCoat = {
  readonly rack: string;
  readonly rackId: string;
  readonly at: Date;
  readonly by: string;
  readonly decision: string | null;
  readonly kv: number | null;
  readonly currentUa: number | null;
  readonly gunAirKPa: number | null;
  readonly gunAirRestKPa: number | null;
  readonly boothAirMPerS: number | null;
  readonly distanceMm: number | null;
  readonly earthMohm: number | null;
  readonly hookCycles: number | null;
  readonly reclaimPercent: number | null;
  readonly metalC: number | null;
  readonly passes: number | null;
  readonly booth: string;
  readonly gun: string | null;
  readonly lot: string;
  readonly situation: string | null;
  readonly coatNo: number;
  readonly pieces: number;
  readonly meanUm: number | null;
  readonly usedKg: number | null;
  readonly sheetId: string | null;
  /** Newest values before the coat: the booth's draught, the hall's humidity, the air's dew point. */
  readonly boothAirSeen: number | null;
  readonly humidity: number | null;
  readonly dewPointC: number | null;
  readonly blastUm: number | null;
};

/** Past racks looked at. */
const LOOKED_BACK = 40;

/**
 * The newest coats of racks of one part and powder, newest first, with film and decision. Index probes per rack;
 * O(racks looked at), forty of them at the most.
 */
export async function coatHistory(
  db: Kysely<Database>,
  of: { readonly partId: string; readonly powderId: string },
  at: Date,
): Promise<readonly PastCoat[]> {
  const before = (quantity: string) =>
    sql`(select c.value from record q join condition c on c.record_id = q.id where q.kind = 'condition' and q.happened_at <= r.happened_at and q.happened_at > r.happened_at - interval '12 hours' and c.quantity = ${quantity} order by q.happened_at desc limit 1)`;
  const { rows } = await sql<PastCoat>`
    select k.number as rack, k.id as "rackId", r.happened_at as at, ${personName("r.by_user")} as by,
      (select d.decision from record x join disposition d on d.record_id = x.id where x.rack_id = k.id and x.kind = 'disposition' and d.pieces is null order by x.happened_at desc limit 1) as decision,
      c.kv, c.current_ua as "currentUa", c.gun_air_kpa as "gunAirKPa", c.gun_air_rest_kpa as "gunAirRestKPa", c.booth_air_m_per_s as "boothAirMPerS", c.distance_mm as "distanceMm",
      c.earth_mohm as "earthMohm", c.hook_cycles as "hookCycles", c.reclaim_percent as "reclaimPercent", c.metal_c as "metalC", c.passes, c.booth, c.gun, e.code as lot, c.situation, c.coat_no as "coatNo",
      (select count(*)::int from piece p where p.rack_id = k.id) as pieces, c.sheet_id as "sheetId",
      c.hopper_before_kg + coalesce(c.hopper_added_kg, 0) - c.hopper_after_kg as "usedKg",
      (select avg(t.value_um) from record f join thickness_reading t on t.record_id = f.id where f.rack_id = k.id and f.kind = 'thickness' and f.happened_at > r.happened_at and t.rejected_reason is null and ${stands("f.id")}) as "meanUm",
      ${before("booth-air-speed")} as "boothAirSeen", ${before("humidity")} as humidity, ${before("compressed-air-dew-point")} as "dewPointC",
      (select s.value from record b join prep_step s on s.record_id = b.id where b.rack_id = k.id and b.kind = 'prep-step' and s.step = 'blast' and ${stands("b.id")} order by b.happened_at desc limit 1) as "blastUm"
    from (select k.* from rack k join job j on j.id = k.job_id where j.part_id = ${of.partId} and j.powder_id = ${of.powderId} and k.hung_at <= ${at} order by k.hung_at desc limit ${LOOKED_BACK}) k
    cross join lateral (select r.* from record r where r.rack_id = k.id and r.kind = 'coat' and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at desc limit 1) r
    join coat c on c.record_id = r.id join setup_entity e on e.id = c.lot_id
    order by r.happened_at desc`.execute(db);
  return rows;
}
