import { type Kysely, sql } from "kysely";
import { type Diagnosis, diagnose, type FindingState, type Findings, learnedWeights } from "@/core/diagnosis";
import { valueOrThrow } from "@/core/result";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import { factWithRecord } from "../field/structure-facts";
import { zonesOf } from "../field/zones-of";
import { now } from "../now";
import { atPass, loadRack } from "../rack/load-rack";
import { ofTheShop, type Person, seesCustomer } from "../sign-in/roles";
import { conditionsWhenPassed } from "../trace/conditions";
import { checksOf } from "./corrective-actions";
import { type CaseDefect, defectsOf } from "./defects-of";
import { establish } from "./establish";
import { fieldFindings } from "./findings/field";
import { patternFindings } from "./findings/pattern";
import { structureFindings } from "./findings/structure";
import type { EstablishedFinding } from "./findings-from-record";
import { type KnownHere, knownHere } from "./known-here";

export type AskedFinding = {
  readonly finding: string;
  readonly state: FindingState;
  readonly by: string;
  readonly at: Date;
  readonly recordId: string;
  /** Where on the piece; null where it holds for all of it. */
  readonly zone: string | null;
  readonly note: string | null;
};
export type Confirmation = {
  readonly record_id: string;
  readonly cause: string;
  readonly proof: string;
  readonly correction: string;
  readonly corrective_action: string;
  readonly who: string;
  readonly due_on: unknown;
  readonly causes: unknown;
  readonly chain: unknown;
  readonly tied_to: string | null;
  readonly tied_code: string | null;
  readonly happened_at: Date;
  readonly by_user: string;
};
/** What acts at one place of the piece: what was found there alone laid over what holds for all of it. */
export type ZoneDiagnosis = { readonly zone: string; readonly diagnosis: Diagnosis; readonly own: number };
export type CaseFile = NonNullable<Awaited<ReturnType<typeof loadCase>>>;

/** Places told apart at most; what is of more is told together. */
const ZONES = 6;

/** A root-cause case: what the record establishes, what was asked, and what follows of which causes act. Null where it is not this person's to see. */
export async function loadCase(db: Kysely<Database>, person: Person, number: string, at: Date = now()) {
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
  const [defects, asked, confirmations, known] = await Promise.all([
    defectsOf(db, row.id),
    askedFindings(db, row.id),
    confirmationsOf(db, row.id),
    knownHere(db, at),
  ]);
  const first = defects.find((d) => d.recordId === row.defect_record_id) ?? null;
  const exposure = Array.isArray(structure?.exposure) ? (structure.exposure as unknown[]).map(String) : null;
  const conditions = rack ? await conditionsWhenPassed(db, [rack.id], rack.hungAt) : null;
  const ofFace = (face: string | null) => (rack ? establish(db, rack, exposure, face, conditions ?? undefined) : []);
  const [ofRack, others, pattern, onSite, onOthers] = await Promise.all([
    ofFace(first?.face ?? null),
    rack ? ofOtherRacks(db, person, defects, rack.id) : [],
    rack ? patternFindings(db, { rackId: rack.id, defect: row.defect, hungAt: rack.hungAt }, at) : [],
    structure ? foundOnSite(db, structure, row.zone, exposure ?? [], rack?.hungAt ?? null) : [],
    structure ? onOtherStructures(db, person, defects, structure.code, row.zone) : [],
  ]);
  const established = laidTogether(
    ofMost(ofRack, others),
    [...pattern.map(forPersonOf(person)), ...ofPieces(first)],
    ofMost(onSite, onOthers),
  );
  const everywhere = asked.filter((f) => f.zone === null);
  const confirmation = confirmations[0] ?? null;
  const weights = weightsWithout(known, row.defect, confirmation);
  const answered = new Set(asked.map((f) => f.finding));
  const ranked = (said: readonly { readonly finding: string; readonly state: FindingState }[]): Diagnosis =>
    valueOrThrow(
      diagnose(known.knowledge, row.defect, findingsOf(said), weights, {
        where: structure ? "field" : "shop",
        answered,
      }),
    );
  // What was seen at one place alone counts for the whole as well, where nothing else is said of it.
  const whole = [...asked.filter((f) => f.zone !== null), ...established, ...everywhere];
  const zones: ZoneDiagnosis[] = [];
  for (const zone of zonesNamed(defects, asked).slice(0, ZONES)) {
    const face = zone.face ? laidTogether(await ofFace(zone.face), pattern, onSite) : established;
    const own = asked.filter((f) => f.zone === zone.name);
    zones.push({
      zone: zone.name,
      own: own.length,
      diagnosis: ranked([...face, ...everywhere, ...own]),
    });
  }
  const label = known.knowledge.defects.get(row.defect);
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
    defects,
    /** The record that opened it. */
    firstDefect: row.defect_record_id,
    established,
    asked,
    findings: findingsOf(whole),
    diagnosis: ranked(whole),
    zones,
    known,
    weights,
    confirmation,
    confirmations,
    /** What was found of its corrective action, the newest first. */
    actionChecks: confirmation ? await checksOf(db, confirmation.record_id) : [],
  };
}

/** The newest word on each finding stands; later lists stand before earlier ones. */
const findingsOf = (said: readonly { readonly finding: string; readonly state: FindingState }[]): Findings =>
  Object.fromEntries(said.map((f) => [f.finding, f.state] as const));

/**
 * What is established of the rack, of the run of racks and on site. What was seen on site is of what it has become: it stands
 * before what the record of the day says of the same; what was read of the rack itself before what its run suggests.
 */
function laidTogether(
  ofRack: readonly EstablishedFinding[],
  pattern: readonly EstablishedFinding[],
  onSite: readonly EstablishedFinding[],
): readonly EstablishedFinding[] {
  const all = new Map<string, EstablishedFinding>();
  for (const list of [pattern, ofRack, onSite])
    for (const f of list) if (f.state !== "unknown" || !all.has(f.finding)) all.set(f.finding, f);
  return [...all.values()];
}

/** Of a case of many racks or structures so many others are looked into, spread over its time. */
const OTHER_RACKS = 4;
/** What holds for so many of the racks that tell it is taken to hold for the case; a share between says nothing. */
const MOST = 2 / 3;

/** What the record establishes of other racks of a case. Some twenty index probes a rack, at most four racks. */
async function ofOtherRacks(
  db: Kysely<Database>,
  person: Person,
  defects: readonly CaseDefect[],
  rackId: string,
): Promise<readonly (readonly EstablishedFinding[])[]> {
  const faces = new Map(defects.flatMap((d) => (d.rack && d.rackId !== rackId ? [[d.rack, d.face] as const] : [])));
  const numbers = [...faces.keys()];
  const step = Math.max(1, numbers.length / OTHER_RACKS);
  const picked = Array.from(
    { length: Math.min(OTHER_RACKS, numbers.length) },
    (_, i) => numbers[Math.floor(i * step)] as string,
  );
  return Promise.all(
    picked.map(async (number) => {
      const other = await loadRack(db, person, number);
      return other ? establish(db, other, null, faces.get(number) ?? null) : [];
    }),
  );
}

/** What is found on other structures of a case, spread over its time. A handful of queries a structure, at most four. */
async function onOtherStructures(
  db: Kysely<Database>,
  person: Person,
  defects: readonly CaseDefect[],
  code: string,
  zone: string,
): Promise<readonly (readonly EstablishedFinding[])[]> {
  const codes = [...new Set(defects.flatMap((d) => d.structureCode ?? []))].filter((c) => c !== code);
  const step = Math.max(1, codes.length / OTHER_RACKS);
  const picked = Array.from(
    { length: Math.min(OTHER_RACKS, codes.length) },
    (_, i) => codes[Math.floor(i * step)] as string,
  );
  if (picked.length === 0) return [];
  const rows = await db.selectFrom("structure").selectAll().where("code", "in", picked).execute();
  return Promise.all(
    rows
      .filter((s) => seesCustomer(person, s.customer_id))
      .map((s) =>
        foundOnSite(db, s, zone, Array.isArray(s.exposure) ? (s.exposure as unknown[]).map(String) : [], null),
      ),
  );
}

/** A customer's person is not told how many racks of others show it. */
const forPersonOf =
  (person: Person) =>
  (f: EstablishedFinding): EstablishedFinding =>
    ofTheShop(person) ? f : { ...f, what: { kind: "seen", what: "by the run of racks" } };

/** What holds for most of the racks of a case; where they differ it is told and moves nothing. */
function ofMost(
  own: readonly EstablishedFinding[],
  others: readonly (readonly EstablishedFinding[])[],
): readonly EstablishedFinding[] {
  if (others.length === 0) return own;
  const ids = new Set([own, ...others].flatMap((list) => list.map((f) => f.finding)));
  return [...ids].flatMap((finding): EstablishedFinding[] => {
    const said = [own, ...others].flatMap((list) => list.find((f) => f.finding === finding) ?? []);
    const known = said.filter((f) => f.state !== "unknown");
    const present = known.filter((f) => f.state === "present");
    const [any] = said;
    if (!any) return [];
    if (known.length === 0) return [any];
    const share = present.length / known.length;
    const state: FindingState = share >= MOST ? "present" : share <= 1 - MOST ? "absent" : "unknown";
    const like = known.find((f) => f.state === state) ?? known[0] ?? any;
    const among = { withIt: present.length, of: known.length };
    return [{ ...like, state, among, sources: [...new Set(known.flatMap((f) => f.sources))] }];
  });
}

/** What the count of pieces at the look says by itself: all of several, or some. */
function ofPieces(defect: CaseDefect | null): readonly EstablishedFinding[] {
  const [seen, affected] = [defect?.piecesSeen ?? null, defect?.piecesAffected ?? null];
  if (!defect || seen === null || affected === null || seen < 3) return [];
  return [
    {
      finding: "whole-load",
      state: affected === seen ? "present" : "absent",
      grade: "measured",
      what: { kind: "seen", what: `${affected} of ${seen} pieces show it` },
      sources: [defect.recordId],
    },
  ];
}

/** Places that a case tells apart: faces on which its defects were seen, and those that answers name. */
function zonesNamed(
  defects: readonly CaseDefect[],
  asked: readonly AskedFinding[],
): readonly { readonly name: string; readonly face: string | null }[] {
  const faces = [...new Set(defects.flatMap((d) => (d.face ? [d.face] : [])))].map((face) => ({ name: face, face }));
  const named = [...new Set(asked.flatMap((f) => (f.zone ? [f.zone] : [])))]
    .filter((zone) => !faces.some((f) => f.name === zone))
    .map((name) => ({ name, face: null }));
  const all = [...faces, ...named];
  return all.length > 1 || named.length > 0 ? all : [];
}

/** Base weights learned from the other cases: its own confirmation is no evidence for it. */
function weightsWithout(
  known: KnownHere,
  defect: string,
  confirmation: Confirmation | null,
): ReadonlyMap<string, number> {
  const counts = new Map(known.confirmed.get(defect) ?? []);
  const own = confirmation ? counts.get(confirmation.cause) : undefined;
  if (confirmation && own) counts.set(confirmation.cause, own - 1);
  return learnedWeights(known.knowledge.defects.get(defect)?.causes ?? new Map(), counts);
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
  // What was read there stands before what was told, and a rack of this shop before both.
  const read = fieldFindings(zones, { zone, exposure, years });
  if (coatedOn) return read;
  const told = structureFindings(exposure, await factWithRecord(db, structure.id));
  return [...read, ...told.filter((t) => !read.some((f) => f.finding === t.finding))];
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

async function askedFindings(db: Kysely<Database>, caseId: string): Promise<AskedFinding[]> {
  const { rows } = await sql<AskedFinding>`
    select distinct on (f.finding, f.zone) f.finding, f.state, f.zone, f.note, ${personName("r.by_user")} as by, r.happened_at as at, r.id as "recordId"
    from record r join finding f on f.record_id = r.id where r.case_id = ${caseId} order by f.finding, f.zone, r.happened_at desc, r.stored_at desc, r.id desc`.execute(
    db,
  );
  return rows;
}

/** Every cause that was confirmed of a case, the newest first. */
async function confirmationsOf(db: Kysely<Database>, caseId: string): Promise<readonly Confirmation[]> {
  const { rows } = await sql<Confirmation>`
    select c.*, r.happened_at, ${personName("r.by_user")} as by_user from record r join confirmation c on c.record_id = r.id
    where r.case_id = ${caseId}::uuid and r.kind = 'confirmation' order by r.happened_at desc, r.stored_at desc, r.id desc`.execute(
    db,
  );
  return rows;
}
