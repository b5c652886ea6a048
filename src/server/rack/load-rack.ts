import type { Kysely } from "kysely";
import * as v from "valibot";
import { tablesOf } from "@/core/kinds";
import type { NextStep } from "@/core/line";
import { personName } from "@/db/queries/person-name";
import { correctionsOf } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type BakeSheet, sheetOf } from "../bake/sheet-of";
import { doubtedSets } from "../film/gauge-checks";
import { planOf } from "../plan/plan-of";
import { readDetails } from "../record/read-details";
import { requirementSchema } from "../requirement";
import { preFlightLimits } from "../setup/pre-flight-limits";
import { type SetupData, type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import { ofTheShop, type Person } from "../sign-in/roles";
import { baseOf } from "./base-of";
import { findRack } from "./find-rack";
import { infraredOf } from "./infrared-of";
import { evidenceFor, passesOf } from "./passes";
import { preFlightOnRecord } from "./pre-flight-on-record";
import { callsOf } from "./test-calls";
import type { ThreadRecord } from "./thread";

export type { ThreadRecord } from "./thread";
export type RackFile = NonNullable<Awaited<ReturnType<typeof loadRack>>>;

/** Everything about one rack: its job, part, powder and thread in order of time, bakes it rode in included. Null where it does not exist for this person. */
export async function loadRack(db: Kysely<Database>, person: Person, number: string) {
  const rack = await findRack(db, person, number);
  if (!rack) return null;
  const [site, job, parts, powders, customers, pieces, thread, standing] = await Promise.all([
    siteAt(db, rack.hung_at),
    db.selectFrom("job").selectAll().where("id", "=", rack.job_id).executeTakeFirstOrThrow(),
    setupAt(db, "part", rack.hung_at),
    setupAt(db, "powder", rack.hung_at),
    setupAt(db, "customer", rack.hung_at),
    db
      .selectFrom("piece")
      .select(["id", "serial", "position"])
      .where("rack_id", "=", rack.id)
      .orderBy("position")
      .execute(),
    threadOf(db, rack.id).then((all) => (ofTheShop(person) ? all : all.map((r) => heldToOwn(r, rack)))),
    db
      .selectFrom("rack_standing")
      .select(["stage", "state", "next", "next_since", "readings", "asked", "gone_at"])
      .where("rack_id", "=", rack.id)
      .executeTakeFirst(),
  ]);
  // As the plan stood when the rack was hung, or was moved over to: another version is not held against it.
  const plan = await planOf(db, job, rack.hung_at, rack.id);
  const part = parts.get(job.part_id);
  const powder = powders.get(job.powder_id);
  if (!part || !powder)
    throw new Error(`rack ${number}: its part or powder has no version at ${rack.hung_at.toISOString()}`);
  const current = thread.filter((r) => r.supersededBy === null);
  const passes = passesOf(current);
  const evidence = evidenceFor(passes, passes.length - 1);
  const { bakeSheets, coatPowders } = await primerSheets(db, current, powders, powder);
  const doubted = await doubtedSets(
    db,
    current.filter((r) => r.base.kind === "thickness" && r.base.instrument_id !== null).map((r) => r.base.id),
  );
  const calls = await callsOf(db, rack, current);
  return {
    id: rack.id,
    number: rack.number,
    hungAt: rack.hung_at,
    pieces,
    /** Where it stands and what it waits for; null for one whose standing is not on record. */
    standing: standing ? { ...standing, next: standing.next as NextStep | null } : null,
    job: {
      id: job.id,
      number: job.number,
      receivedAt: job.received_at,
      dueOn: job.due_on,
      requirement: v.parse(requirementSchema, job.requirement),
      plan,
    },
    customer: customers.get(job.customer_id)?.data.name ?? "",
    customerCode: customers.get(job.customer_id)?.code ?? "",
    /** How its customer has each zone looked at; null where they say nothing. */
    acceptance: customers.get(job.customer_id)?.data.acceptance ?? null,
    part,
    powder,
    thread,
    /** Serials of the pieces that the verdict is of: those that no decision took off the rack. */
    judged: new Set(piecesLeft(pieces, current).map((p) => p.serial)) as ReadonlySet<string>,
    /** What the test plans ask of it, by test. */
    calls,
    /** Everything that stands, corrections applied. */
    current,
    passes,
    /** The pass being judged, its records, and what the metal under it has seen; the newest unless `atPass` chose another. */
    pass: passes.length - 1,
    latest: passes.at(-1)?.records ?? [],
    evidence,
    /** By bake, the sheet of what was on top then where that was a primer; every other bake is by the job's powder. */
    bakeSheets,
    /** By coat, the powder of a primer; every other coat is the job's powder. */
    coatPowders,
    /** By bake without a trace, the spot readings taken on its load. */
    infrared: await infraredOf(db, current),
    /** What the bare metal adds to its readings. */
    base: baseOf(evidence, site),
    /** Sets read with a gauge that then failed its shims. */
    doubted,
    /** Pre-flights that found something off. */
    flightsOff: await flightsOff(db, current, site),
    /** The site's limits as they were when it was hung, for what its metal is held against. */
    limits: limitsOf(site),
  };
}

type Piece = { readonly id: string; readonly serial: string; readonly position: number };
/** The pieces that no decision on some of them took off the rack. */
export function piecesLeft<P extends Piece>(pieces: readonly P[], current: readonly ThreadRecord[]): readonly P[] {
  const gone = new Set(current.flatMap((r) => (r.details.disposition_piece ?? []).map((p) => p.piece_id)));
  return pieces.filter((p) => !gone.has(p.id));
}
/** The same rack, judged for some of its pieces alone: faults that are only on others do not count. */
export const ofPieces = (rack: RackFile, pieces: RackFile["pieces"]): RackFile => ({
  ...rack,
  pieces,
  judged: new Set(pieces.map((p) => p.serial)),
});
/** The newest decision on all that was left on the rack; those on some of its pieces stand beside it. */
export const wholeDecision = (records: readonly ThreadRecord[]): ThreadRecord | undefined =>
  records.findLast((r) => r.base.kind === "disposition" && r.details.disposition?.[0]?.pieces == null);

/** The same rack as its customer may see it: what is printed for them names no other customer's racks or probes. */
export function customersView(rack: RackFile): RackFile {
  const own = (records: readonly ThreadRecord[]) => records.map((r) => heldToOwn(r, rack));
  return {
    ...rack,
    thread: own(rack.thread),
    current: own(rack.current),
    latest: own(rack.latest),
    evidence: own(rack.evidence),
    passes: rack.passes.map((p) => ({ ...p, records: own(p.records) })),
  };
}

/** The same rack as it stood at the end of one of its passes: a defect seen before a recoat is traced in what led to it. */
export const atPass = (rack: RackFile, index: number): RackFile => ({
  ...rack,
  pass: index,
  latest: rack.passes[index]?.records ?? [],
  evidence: evidenceFor(rack.passes, index),
});

const limitsOf = ({
  blastProfileUm,
  dustTapeWorstGrade,
  solubleSaltMgPerM2,
  waterBreakHoldsS,
  dryOffMinutes,
  dryOffHollowMinutes,
  boothMetalC,
}: SetupData<"site">) => ({
  blastProfileUm,
  dustTapeWorstGrade,
  solubleSaltMgPerM2,
  waterBreakHoldsS,
  dryOffMinutes,
  dryOffHollowMinutes,
  boothMetalC,
});

/** Pre-flights with something out, by the set-up sheet each was made by. No query where none is on record. */
async function flightsOff(
  db: Kysely<Database>,
  current: readonly ThreadRecord[],
  site: SetupData<"site">,
): Promise<ReadonlySet<string>> {
  const flights = current.filter((r) => r.base.kind === "pre-flight");
  const newestFlight = flights.at(-1);
  if (!newestFlight) return new Set();
  const sheets = await setupAt(db, "setup-sheet", newestFlight.base.happened_at);
  const off = flights.filter((r) => {
    const row = r.details.pre_flight?.[0];
    const sheet = row?.sheet_id ? (sheets.get(row.sheet_id)?.data ?? null) : null;
    return preFlightOnRecord(r, preFlightLimits(sheet, site)).result === "out";
  });
  return new Set(off.map((r) => r.base.id));
}

/**
 * A bake as a person held to one customer may see it: of a load shared with other racks their own probe; where none is
 * named for it the others by number only, since the slowest of them judges it.
 */
function heldToOwn(record: ThreadRecord, rack: { id: string; number: string }): ThreadRecord {
  const { stands_for } = record.details;
  if (stands_for?.some((s) => s.rack_id !== rack.id))
    return { ...record, details: { ...record.details, stands_for: stands_for.filter((s) => s.rack_id === rack.id) } };
  const places = record.details.bake_place ?? [];
  if (record.base.kind !== "bake" || places.every((p) => p.rack_id === rack.id)) return record;
  const channels = record.details.bake_channel ?? [];
  const named = places.find((p) => p.rack_id === rack.id)?.channel || rack.number;
  const own = channels.some((c) => c.medium === "metal" && c.name === named);
  let probe = 0;
  return {
    ...record,
    details: {
      ...record.details,
      bake_place: places.map((p) =>
        p.rack_id === rack.id ? p : { ...p, rack_id: ANOTHERS, place: "–", channel: null },
      ),
      bake_channel: channels.flatMap((c) => {
        if (c.medium === "air" || c.name === named) return [c];
        return own ? [] : [{ ...c, name: `Probe ${++probe}` }];
      }),
    },
  };
}
const ANOTHERS = "00000000-0000-7000-8000-000000000000";

/** The powders of a rack's primers and what each bake of one is held against. No query where no primer is on record. */
async function primerSheets(
  db: Kysely<Database>,
  current: readonly ThreadRecord[],
  powders: ReadonlyMap<string, SetupItem<"powder">>,
  powder: SetupItem<"powder">,
): Promise<{
  bakeSheets: ReadonlyMap<string, BakeSheet>;
  coatPowders: ReadonlyMap<string, SetupItem<"powder">>;
}> {
  const bakeSheets = new Map<string, BakeSheet>();
  const coatPowders = new Map<string, SetupItem<"powder">>();
  const newestPrimer = current.findLast((r) => r.details.coat?.[0]?.layer === "primer");
  if (!newestPrimer) return { bakeSheets, coatPowders };
  const lots = await setupAt(db, "lot", newestPrimer.base.happened_at);
  const sheetUnder = (coat: ThreadRecord) => {
    const row = coat.details.coat?.[0];
    if (row?.layer !== "primer") return null;
    return sheetOf({ lot: row.lot_id, layer: row.layer, system: row.system }, lots, powders, powder);
  };
  for (const [i, r] of current.entries()) {
    if (r.base.kind === "coat") {
      const sheet = sheetUnder(r);
      if (sheet) coatPowders.set(r.base.id, sheet.powder);
    } else if (r.base.kind === "bake") {
      // In order of time: the newest coat before this bake.
      const coat = current.slice(0, i).findLast((c) => c.base.kind === "coat");
      const sheet = coat && sheetUnder(coat);
      if (sheet) bakeSheets.set(r.base.id, sheet);
    }
  }
  return { bakeSheets, coatPowders };
}

async function threadOf(db: Kysely<Database>, rackId: string): Promise<ThreadRecord[]> {
  // One list of ids, each part of it by an index of its own: bakes it rode in, tests on panels that stood for it.
  const ids = db
    .selectFrom("record")
    .select("record.id")
    .where("rack_id", "=", rackId)
    .union(db.selectFrom("bake_place").select("record_id as id").where("rack_id", "=", rackId))
    .union(db.selectFrom("stands_for").select("record_id as id").where("rack_id", "=", rackId));
  const records = await db
    .selectFrom("record")
    .selectAll()
    .select(personName("record.by_user").as("by"))
    .where("record.id", "in", ids)
    .orderBy("happened_at")
    .orderBy("id")
    .execute();
  const corrections = await correctionsOf(
    db,
    records.map((r) => r.id),
  );
  const tables = [...new Set(records.flatMap((r) => tablesOf(r.kind)))];
  const details = await readDetails(
    db,
    records.map((r) => r.id),
    tables,
  );
  return records.map(({ by, ...base }) => ({
    base,
    by,
    details: details.get(base.id) ?? {},
    supersededBy: corrections.get(base.id)?.id ?? null,
  }));
}

/** The newest record of a kind among some; undefined when there is none. */
export const newestOf = (records: readonly ThreadRecord[], kind: string): ThreadRecord | undefined =>
  records.findLast((r) => r.base.kind === kind);
/** The newest record of a kind in the pass being judged. */
export const newest = (rack: Pick<RackFile, "latest">, kind: string): ThreadRecord | undefined =>
  newestOf(rack.latest, kind);
