import { type Kysely, sql } from "kysely";
import { type LotAge, lotAge, orderOfUse, type Stored } from "@/core/powder";
import type { Failure } from "@/core/result";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import { POWDER_STORE } from "./powder-store";

const DAY_MS = 86_400_000;
/** A reading of the store stands until the next one, and no longer than this, days. */
const READING_STANDS_DAYS = 7;

export type PowderLot = {
  readonly id: string;
  readonly code: string;
  readonly powder: SetupItem<"powder"> | null;
  readonly madeOn: string;
  readonly receivedOn: string;
  /** The day its first box was opened; null while it is shut. */
  readonly openedOn: string | null;
  /** Received, less what coats took out of the hopper from it; null where it was not weighed in. */
  readonly stockKg: number | null;
  readonly receivedKg: number | null;
  readonly usedKg: number;
  readonly daysLeft: number;
  readonly age: LotAge | null;
  readonly failure: Failure | null;
  readonly panel: {
    readonly result: "matches" | "off";
    readonly at: Date;
    readonly by: string;
    readonly gloss: number | null;
    readonly deltaE: number | null;
  } | null;
};

/** Stretches of the store's air since a day, each reading until the next. O(readings). */
function stretches(readings: readonly { at: Date; tempC: number }[], from: Date, to: Date): Stored[] {
  return readings.flatMap((r, i) => {
    const startMs = Math.max(r.at.getTime(), from.getTime());
    const next = readings[i + 1]?.at.getTime() ?? to.getTime();
    const endMs = Math.min(next, to.getTime(), r.at.getTime() + READING_STANDS_DAYS * DAY_MS);
    return endMs > startMs ? [{ days: (endMs - startMs) / DAY_MS, tempC: r.tempC }] : [];
  });
}

/**
 * Lots of powder, the one to use first leading: days left with warm storage counted, stock by the hopper's weights, first
 * panel. Five queries; O(lots × readings of the store in two years).
 */
export async function powderLots(db: Kysely<Database>, at: Date): Promise<readonly PowderLot[]> {
  const [lots, powders, site, store, used, panels] = await Promise.all([
    setupAt(db, "lot", at),
    setupAt(db, "powder", at),
    siteAt(db, at),
    sql<{ at: Date; tempC: number }>`
      select r.happened_at as at, c.value as "tempC" from record r join condition c on c.record_id = r.id
      where r.kind = 'condition' and r.happened_at > ${new Date(at.getTime() - 730 * DAY_MS)} and r.happened_at <= ${at} and c.quantity = 'air-temperature' and c.place = ${POWDER_STORE}
        and ${stands("r.id")} order by r.happened_at`.execute(db),
    sql<{ lot_id: string; kg: number }>`
      select c.lot_id, sum(c.hopper_before_kg + coalesce(c.hopper_added_kg, 0) - c.hopper_after_kg)::float8 as kg from coat c join record r on r.id = c.record_id
      where c.hopper_before_kg is not null and c.hopper_after_kg is not null and r.happened_at <= ${at} and ${stands("r.id")} group by 1`.execute(
      db,
    ),
    sql<{
      lot_id: string;
      result: "matches" | "off";
      at: Date;
      by: string;
      gloss: number | null;
      deltaE: number | null;
    }>`
      select distinct on (p.lot_id) p.lot_id, p.result, r.happened_at as at, ${personName("r.by_user")} as by, p.gloss, p.delta_e as "deltaE" from first_panel p join record r on r.id = p.record_id
      where r.happened_at <= ${at} and ${stands("r.id")} order by p.lot_id, r.happened_at desc, r.id desc`.execute(db),
  ]);
  const byCode = new Map([...powders.values()].map((p) => [p.code, p]));
  const kgOf = new Map(used.rows.map((row) => [row.lot_id, row.kg]));
  const panelOf = new Map(panels.rows.map(({ lot_id, ...panel }) => [lot_id, panel]));
  const seen = [...lots.values()].map(({ id, code, data }): PowderLot => {
    const powder = byCode.get(data.powderCode) ?? null;
    const made = new Date(data.madeOn);
    const ageDays = (at.getTime() - made.getTime()) / DAY_MS;
    const spells = stretches(store.rows, new Date(data.receivedOn), at);
    const age = powder ? lotAge(powder.data.shelfLifeDays, ageDays, spells, site.warmStorageCounts) : null;
    const usedKg = kgOf.get(id) ?? 0;
    return {
      id,
      code,
      powder,
      madeOn: data.madeOn,
      receivedOn: data.receivedOn,
      openedOn: data.openedOn,
      receivedKg: data.stockKg,
      stockKg: data.stockKg === null ? null : Math.max(0, data.stockKg - usedKg),
      usedKg,
      daysLeft: age?.ok ? age.value.daysLeft : Number.NEGATIVE_INFINITY,
      age: age?.ok ? age.value : null,
      failure: age && !age.ok ? age.error : null,
      panel: panelOf.get(id) ?? null,
    };
  });
  return orderOfUse(seen);
}
