import { type Kysely, sql } from "kysely";
import { type ReworkDecision, type RouteStep, reworkRoute } from "@/core/plan";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";

/** A decision that sent a rack back, with the steps it added to its card. */
export type ReworkOfRack = {
  readonly decision: ReworkDecision;
  readonly note: string;
  readonly by: string;
  readonly at: Date;
  readonly steps: readonly RouteStep[];
};

/** What each decision to do it again added to a rack's card, in order of time. One query on the rack's decisions. */
export async function reworksOfRack(
  db: Kysely<Database>,
  rackId: string,
  card: readonly RouteStep[],
  mostUm: number | null,
): Promise<readonly ReworkOfRack[]> {
  const { rows } = await sql<{
    decision: ReworkDecision;
    note: string;
    by: string;
    at: Date;
    rinsed: boolean | null;
  }>`
    select d.decision, d.note, coalesce(nullif(d.signed_name, ''), ${personName("r.by_user")}) as by, r.happened_at as at, d.rinsed
    from record r join disposition d on d.record_id = r.id
    where r.rack_id = ${rackId} and r.kind = 'disposition' and d.decision in ('wipe-off', 'scuff-and-recoat', 'strip', 'touch-up')
    order by r.happened_at, r.id`.execute(db);
  return rows.map(({ rinsed, ...row }) => ({
    ...row,
    steps: reworkRoute(row.decision, card, { rinsed: rinsed === true, mostUm }),
  }));
}
