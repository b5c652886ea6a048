import { type Kysely, sql } from "kysely";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { sheetOfRack } from "../coat/sheet-for";
import { newest, type RackFile } from "../rack/load-rack";
import { setupAt, siteAt } from "../setup/setup-data";
import { type Conditions, conditionsWhenPassed } from "../trace/conditions";
import { type EstablishedFinding, findingsFromRecord } from "./findings-from-record";

/** What the record establishes of one rack, at the time it passed; of one face where the film is asked of that. Some ten index probes. */
export async function establish(
  db: Kysely<Database>,
  rack: RackFile,
  exposure: readonly string[] | null,
  face: string | null,
  known?: Conditions,
): Promise<EstablishedFinding[]> {
  const at = rack.hungAt;
  const [conditions, site, sheets, lots] = await Promise.all([
    known ?? conditionsWhenPassed(db, [rack.id], at),
    siteAt(db, at),
    setupAt(db, "setup-sheet", at),
    setupAt(db, "lot", at),
  ]);
  const coat = newest(rack, "coat");
  const lotId = coat?.details.coat?.[0]?.lot_id;
  const [air, booth, humidity] = coat
    ? await Promise.all([
        lastCondition(db, "compressed-air-dew-point", coat.base.happened_at),
        lastCondition(db, "booth-air-speed", coat.base.happened_at),
        lastCondition(db, "humidity", coat.base.happened_at),
      ])
    : [null, null, null];
  return findingsFromRecord(rack, conditions, {
    site,
    setupSheet: sheetOfRack(sheets, rack)?.data ?? null,
    lot: lotId ? (lots.get(lotId)?.data ?? null) : null,
    exposure,
    face,
    compressedAirDewPointC: air,
    boothAirMPerS: booth,
    humidityPercent: humidity?.value ?? null,
  });
}

/** The newest reading of a condition before a moment, half a day back at most. One probe of the index on kind and time. */
async function lastCondition(db: Kysely<Database>, quantity: string, at: Date) {
  const found = await db
    .selectFrom("record")
    .innerJoin("condition", "condition.record_id", "record.id")
    .select(["record.id as recordId", "condition.value"])
    .where("record.kind", "=", "condition")
    .where("condition.quantity", "=", quantity)
    .where("record.happened_at", "<=", at)
    .where("record.happened_at", ">", new Date(at.getTime() - 12 * 3_600_000))
    .where(sql<boolean>`${stands("record.id")}`)
    .orderBy("record.happened_at", "desc")
    .limit(1)
    .executeTakeFirst();
  return found ?? null;
}
