import { type Kysely, sql } from "kysely";
import { type Cooling, coolingNow, plateTimeConstant, STILL_AIR_W_PER_M2_K, USUAL_ROOM_C } from "@/core/cure";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { newest, type RackFile } from "../rack/load-rack";
import { setupAt, siteAt } from "../setup/setup-data";
import { heatsAs, metalOf } from "./metal-of";

export type RackCooling = Cooling & {
  readonly handleBelowC: number;
  /** The moment it may be handled, as still air has it; null where it may now. */
  readonly coolAt: Date | null;
  readonly load: string;
  readonly oven: string;
  readonly closedAt: Date;
};

/**
 * Whether a rack's metal is cool enough to be taken down and packed since its newest bake; null where it was never in an
 * oven, or is in one. Three queries, on indexes.
 */
export async function coolingOf(db: Kysely<Database>, rack: RackFile, at: Date): Promise<RackCooling | null> {
  const bake = newest(rack, "bake");
  const row = bake?.details.bake?.[0];
  if (!bake || !row?.pulled_at || row.pulled_at > at) return null;
  const metal = metalOf[rack.part.data.substrate];
  const tau = plateTimeConstant({
    material: metal,
    plateMm: heatsAs(rack.part.data).plateMm,
    hWPerM2K: STILL_AIR_W_PER_M2_K,
  });
  if (!tau.ok) return null;
  const [site, ovens, { rows }] = await Promise.all([
    siteAt(db, at),
    setupAt(db, "oven", at),
    sql<{ happened_at: Date; value_c: number }>`
      select r.happened_at, e.value_c from bake_event e join record r on r.id = e.record_id
      where e.oven_id = ${row.oven_id} and e.load_no = ${row.load_no} and e.event = 'cool' and e.value_c is not null
        and (r.rack_id is null or r.rack_id = ${rack.id}) and r.happened_at >= ${row.pulled_at} and r.happened_at <= ${at} and ${stands("r.id")}
      order by r.happened_at desc limit 1`.execute(db),
  ]);
  const oven = ovens.get(row.oven_id);
  const said = rows[0];
  const since = (moment: Date) => Math.max(0, (at.getTime() - moment.getTime()) / 1000);
  const cooling = coolingNow({
    pulledC: hottestAtPull(bake) ?? row.set_point_c ?? oven?.data.usualSetPointC ?? 205,
    sincePullS: since(row.pulled_at),
    reading: said ? { metalC: said.value_c, agoS: since(said.happened_at) } : null,
    tauS: tau.value.tauS,
    roomC: USUAL_ROOM_C,
    handleBelowC: site.handleBelowC,
  });
  if (!cooling.ok) return null;
  return {
    ...cooling.value,
    handleBelowC: site.handleBelowC,
    coolAt: cooling.value.coolInS > 0 ? new Date(at.getTime() + cooling.value.coolInS * 1000) : null,
    load: row.load_no,
    oven: oven?.code ?? "",
    closedAt: row.door_closed_at,
  };
}

/** The hottest that any metal of a bake was: what it was pulled at, or near it. */
function hottestAtPull(bake: RackFile["thread"][number]): number | null {
  const all = (bake.details.bake_channel ?? [])
    .filter((c) => c.medium !== "air")
    .flatMap((c) => c.temp_c.filter((x): x is number => x !== null));
  return all.length === 0 ? null : all.reduce((most, c) => Math.max(most, c), Number.NEGATIVE_INFINITY);
}
