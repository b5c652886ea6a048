import { type Kysely, sql } from "kysely";
import { consumptionPer100M2 } from "@/core/bath";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type SetupItem, setupAt } from "../setup/setup-data";

export type BathWork = {
  /** The last recharge; null where none is on record, and the work is counted over the days asked for. */
  readonly since: Date;
  readonly madeUp: boolean;
  readonly racks: number;
  readonly areaM2: number;
  /** Racks of parts that were never measured: their area is not counted. */
  readonly notMeasured: number;
  readonly sinceAdditionM2: number | null;
  readonly products: readonly {
    readonly product: string;
    readonly litres: number;
    readonly per100M2: number | null;
    readonly costPer100M2: number | null;
  }[];
};
/** Without a recharge on record the work is counted this far back, days. */
const DAYS_BACK = 26;

/**
 * The work a bath has done: area through its stage since it was made up and since its last addition, and what it used
 * and cost for each 100 m². Three queries on (bath, time) and (stage, time); O(racks passed).
 */
export async function bathWork(db: Kysely<Database>, bath: SetupItem<"bath">, at: Date): Promise<BathWork> {
  const back = new Date(at.getTime() - DAYS_BACK * 86_400_000);
  const recharge = await sql<{ at: Date }>`
    select r.happened_at as at from record r join bath_event e on e.record_id = r.id where r.bath_id = ${bath.id} and r.kind = 'bath-event' and e.event = 'recharge'
      and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at desc limit 1`.execute(db);
  const madeUp = recharge.rows[0]?.at ?? null;
  const since = madeUp ?? back;
  const [additions, passed, parts, drums] = await Promise.all([
    sql<{ product: string; litres: number; lots: (string | null)[]; each: number[]; last: Date }>`
      select coalesce(e.product, '') as product, sum(e.amount_l) as litres, array_agg(e.lot_id::text) as lots, array_agg(e.amount_l) as each, max(r.happened_at) as last from record r join bath_event e on e.record_id = r.id
      where r.bath_id = ${bath.id} and r.kind = 'bath-event' and e.event = 'addition' and r.happened_at > ${since} and r.happened_at <= ${at}
        and ${stands("r.id")} group by 1 order by 2 desc`.execute(db),
    sql<{ part_id: string; pieces: string; at: Date }>`
      select j.part_id, (select count(*) from piece x where x.rack_id = k.id) as pieces, p.entered_at as at from passage p
      join record r on r.id = p.record_id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
      where p.stage = ${bath.data.stage} and p.entered_at > ${since} and p.entered_at <= ${at} and ${stands("r.id")}`.execute(
      db,
    ),
    setupAt(db, "part", at),
    setupAt(db, "chemical", at),
  ]);
  const areaOf = (row: { part_id: string; pieces: string }): number | null => {
    const each = parts.get(row.part_id)?.data.measures?.areaM2;
    return each === undefined ? null : each * Number(row.pieces);
  };
  const areas = passed.rows.map((row) => ({ at: row.at, m2: areaOf(row) }));
  const sum = (rows: typeof areas) => rows.reduce((total, row) => total + (row.m2 ?? 0), 0);
  const areaM2 = sum(areas);
  const lastAddition = additions.rows.reduce<Date | null>((last, a) => (!last || a.last > last ? a.last : last), null);
  return {
    since,
    madeUp: madeUp !== null,
    racks: areas.length,
    areaM2,
    notMeasured: areas.filter((a) => a.m2 === null).length,
    sinceAdditionM2: lastAddition && sum(areas.filter((a) => a.at > lastAddition)),
    products: additions.rows.map(({ product, litres, lots, each }) => {
      const used = consumptionPer100M2(litres, areaM2);
      // A drum without a price leaves the cost unknown, not lower.
      const prices = lots.map((lot) => drums.get(lot ?? "")?.data.pricePerL ?? null);
      const cost = prices.every((p) => p !== null)
        ? consumptionPer100M2(
            prices.reduce((sum, price, i) => sum + (price ?? 0) * (each[i] ?? 0), 0),
            areaM2,
          )
        : null;
      return {
        product,
        litres,
        per100M2: used.ok ? used.value : null,
        costPer100M2: cost?.ok ? cost.value : null,
      };
    }),
  };
}
