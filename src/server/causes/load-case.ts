import { type Kysely, sql } from "kysely";
import { type Diagnosis, diagnose, type Findings, loadKnowledge } from "@/core/diagnosis";
import { valueOrThrow } from "@/core/result";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { sheetOfRack } from "../coat/sheet-for";
import { zonesOf } from "../field/zones-of";
import { atPass, loadRack, newest, type RackFile, wholeDecision } from "../rack/load-rack";
import { setupAt, siteAt } from "../setup/setup-data";
import { type Person, seesCustomer } from "../sign-in/roles";
import { type Conditions, conditionsWhenPassed } from "../trace/conditions";
import { checksOf } from "./corrective-actions";
import { fieldFindings } from "./findings/field";
import { type EstablishedFinding, findingsFromRecord } from "./findings-from-record";

const knowledge = loadKnowledge();
export type AskedFinding = {
  readonly finding: string;
  readonly state: "present" | "absent" | "unknown";
  readonly by: string;
  readonly at: Date;
  readonly recordId: string;
};
export type CaseFile = NonNullable<Awaited<ReturnType<typeof loadCase>>>;

/** A root-cause case: what the record establishes, what was asked, and the ranking that follows. Null where it is not this person's to see. */
export async function loadCase(db: Kysely<Database>, person: Person, number: string) {
  const row = await db.selectFrom("root_cause_case").selectAll().where("number", "=", number).executeTakeFirst();
  if (!row) return null;
  const structure = row.structure_id
    ? await db.selectFrom("structure").selectAll().where("id", "=", row.structure_id).executeTakeFirst()
    : null;
  const rackRow = row.rack_id
    ? await db.selectFrom("rack").select("number").where("id", "=", row.rack_id).executeTakeFirst()
    : await rackOfStructure(db, row.structure_id);
  const found = rackRow ? await loadRack(db, person, rackRow.number) : null;
  // A defect seen before a recoat is traced in what led to it, not in what came after.
  const seenIn = found?.passes.findIndex((p) => p.records.some((r) => r.base.id === row.defect_record_id)) ?? -1;
  const rack = found && seenIn >= 0 ? atPass(found, seenIn) : found;
  if (!rack && !seesCustomer(person, structure?.customer_id)) return null;
  const defect = await db
    .selectFrom("record")
    .innerJoin("defect", "defect.record_id", "record.id")
    .selectAll("defect")
    .select(["record.happened_at", personName("record.by_user").as("by_user")])
    .where("record.id", "=", row.defect_record_id)
    .executeTakeFirst();
  const exposure = Array.isArray(structure?.exposure) ? (structure.exposure as unknown[]).map(String) : null;
  const ofRack = rack ? await establish(db, rack, exposure, defect?.face ?? null) : [];
  const onSite = structure ? await foundOnSite(db, structure, row.zone, exposure ?? [], rack?.hungAt ?? null) : [];
  // What was seen on site is of what it has become: it stands before what the record of the day says of the same.
  const seen = new Set(onSite.map((f) => f.finding));
  const established = [...ofRack.filter((f) => !seen.has(f.finding)), ...onSite];
  const asked = await askedFindings(db, row.id);
  const findings: Findings = Object.fromEntries([
    ...established.map((f) => [f.finding, f.state] as const),
    ...asked.map((f) => [f.finding, f.state] as const),
  ]);
  const confirmation = await db
    .selectFrom("record")
    .innerJoin("confirmation", "confirmation.record_id", "record.id")
    .selectAll("confirmation")
    .select(["record.happened_at", personName("record.by_user").as("by_user")])
    .where("record.case_id", "=", row.id)
    .orderBy("record.happened_at", "desc")
    .orderBy("record.stored_at", "desc")
    .orderBy("record.id", "desc")
    .executeTakeFirst();
  const diagnosis: Diagnosis = valueOrThrow(
    diagnose(knowledge, row.defect, findings, undefined, {
      where: structure ? "field" : "shop",
      answered: new Set(asked.map((f) => f.finding)),
    }),
  );
  const label = knowledge.defects.get(row.defect);
  return {
    id: row.id,
    number: row.number,
    defect: row.defect,
    defectLabel: label?.label ?? row.defect,
    defectPlain: label?.plain ?? "",
    zone: row.zone,
    openedAt: row.opened_at,
    openedBy: row.opened_by,
    structure,
    rack,
    defectRow: defect ?? null,
    established,
    asked,
    diagnosis,
    confirmation: confirmation ?? null,
    /** What was found of its corrective action, the newest first. */
    actionChecks: confirmation ? await checksOf(db, confirmation.record_id) : [],
  };
}

/** What the zones of a structure say, as they were read last. */
async function foundOnSite(
  db: Kysely<Database>,
  structure: { readonly id: string; readonly put_up_on: unknown },
  zone: string,
  exposure: readonly string[],
  coatedOn: Date | null,
): Promise<readonly EstablishedFinding[]> {
  const putUp = structure.put_up_on ? new Date(`${String(structure.put_up_on).slice(0, 10)}T12:00:00Z`) : null;
  const zones = await zonesOf(db, structure.id, coatedOn ?? putUp);
  const last = zones.flatMap((z) => z.captures.map((c) => c.at.getTime()));
  const since = putUp ?? coatedOn;
  const years = since && last.length > 0 ? (Math.max(...last) - since.getTime()) / (365.25 * 86_400_000) : null;
  return fieldFindings(zones, { zone, exposure, years });
}

async function rackOfStructure(db: Kysely<Database>, structureId: string | null) {
  if (!structureId) return undefined;
  return db
    .selectFrom("structure_piece")
    .innerJoin("piece", "piece.id", "structure_piece.piece_id")
    .innerJoin("rack", "rack.id", "piece.rack_id")
    .select("rack.number")
    .where("structure_piece.structure_id", "=", structureId)
    .orderBy("piece.serial")
    .limit(1)
    .executeTakeFirst();
}

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

async function askedFindings(db: Kysely<Database>, caseId: string): Promise<AskedFinding[]> {
  const { rows } =
    await sql<AskedFinding>`select distinct on (f.finding) f.finding, f.state, ${personName("r.by_user")} as by, r.happened_at as at, r.id as "recordId"
    from record r join finding f on f.record_id = r.id where r.case_id = ${caseId} order by f.finding, r.happened_at desc, r.stored_at desc, r.id desc`.execute(
      db,
    );
  return rows;
}

export type AtRisk = {
  readonly number: string;
  readonly hungAt: Date;
  readonly part: string;
  readonly customer: string;
  readonly pieces: number;
  readonly decision: string | null;
  readonly structure: string | null;
};

/** Racks looked into, the nearest in time first; how many there are more is said. */
const MOST_LOOKED_INTO = 400;
export type Containment = {
  readonly racks: readonly AtRisk[];
  /** Other racks hung within the thirty days, and how many of them, the nearest, were looked into. */
  readonly hung: number;
  readonly lookedInto: number;
};

/** Containment: other racks of the period that passed under the same condition as this case's rack. One set-based query each; O(racks looked into). */
export async function sameCondition(
  db: Kysely<Database>,
  person: Person,
  file: { rack: RackFile | null; established: readonly EstablishedFinding[] },
  cause: string,
): Promise<Containment> {
  const rack = file.rack;
  const none = { racks: [], hung: 0, lookedInto: 0 };
  if (!rack) return none;
  const known = knowledge.causes.get(cause);
  const shared = file.established.filter(
    (f) => f.state === "present" && known?.evidence.some((e) => e.finding === f.finding && e.whenPresent >= 1),
  );
  if (shared.length === 0) return none;
  const from = new Date(rack.hungAt.getTime() - 30 * 86_400_000);
  const to = new Date(rack.hungAt.getTime() + 30 * 86_400_000);
  const candidates = await db
    .selectFrom("rack")
    .innerJoin("job", "job.id", "rack.job_id")
    .select(["rack.id", "rack.number", sql<number>`(count(*) over ())::int`.as("hung")])
    .where("rack.hung_at", ">=", from)
    .where("rack.hung_at", "<=", to)
    .where("rack.id", "<>", rack.id)
    .where(forPerson(person, "job.customer_id"))
    .orderBy(sql`abs(extract(epoch from rack.hung_at - ${rack.hungAt}))`)
    .orderBy("rack.number")
    .limit(MOST_LOOKED_INTO)
    .execute();
  const all = await conditionsWhenPassed(
    db,
    candidates.map((c) => c.id),
    rack.hungAt,
  );
  const baths = groupByRack(all.baths);
  const passages = groupByRack(all.passages);
  const conditionsOf = (id: string): Conditions => ({ baths: baths.get(id) ?? [], passages: passages.get(id) ?? [] });
  // What the baths said is known for all of them from one query: most candidates fall here, before anything else is read.
  const left = candidates.filter((c) => shared.every((f) => bathSays(f.finding, conditionsOf(c.id)) !== false));
  const out: AtRisk[] = [];
  for (let start = 0; start < left.length; start += RACKS_AT_ONCE) {
    const found = await Promise.all(
      left.slice(start, start + RACKS_AT_ONCE).map((c) => atRisk(db, person, c.number, conditionsOf(c.id), shared)),
    );
    out.push(...found.filter((f) => f !== null));
  }
  out.sort((a, b) => a.hungAt.getTime() - b.hungAt.getTime());
  return { racks: out, hung: candidates[0]?.hung ?? 0, lookedInto: candidates.length };
}

/** Racks looked into at one time: as many as leave connections for everyone else. */
const RACKS_AT_ONCE = 6;

function groupByRack<T extends { readonly rackId: string }>(rows: readonly T[]): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(row.rackId);
    if (group) group.push(row);
    else groups.set(row.rackId, [row]);
  }
  return groups;
}

/** Whether the baths a rack met bear out a finding about them; null where the finding is about something else. */
function bathSays(finding: string, conditions: Conditions): boolean | null {
  const role = finding === "conversion-out" ? "conversion" : finding === "rinse-dirty" ? "rinse" : null;
  return role === null ? null : conditions.baths.some((b) => b.role === role && b.result === "out");
}

async function atRisk(
  db: Kysely<Database>,
  person: Person,
  number: string,
  conditions: Conditions,
  shared: readonly EstablishedFinding[],
): Promise<AtRisk | null> {
  const other = await loadRack(db, person, number);
  if (!other) return null;
  const findings = await establish(db, other, null, null, conditions);
  if (!shared.every((f) => findings.some((g) => g.finding === f.finding && g.state === "present"))) return null;
  const structure = await db
    .selectFrom("structure_piece")
    .innerJoin("piece", "piece.id", "structure_piece.piece_id")
    .innerJoin("structure", "structure.id", "structure_piece.structure_id")
    .select("structure.name")
    .where("piece.rack_id", "=", other.id)
    .limit(1)
    .executeTakeFirst();
  return {
    number: other.number,
    hungAt: other.hungAt,
    part: other.part.data.name,
    customer: other.customer,
    pieces: other.pieces.length,
    decision: wholeDecision(other.current)?.details.disposition?.[0]?.decision ?? null,
    structure: structure?.name ?? null,
  };
}
