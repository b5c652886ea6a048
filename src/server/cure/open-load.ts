import { type Kysely, sql } from "kysely";
import {
  type BakeChannel,
  type BakeEvent,
  type BakeEventKind,
  type CoolingMethod,
  type LearntHeatTransfer,
  type Metal,
  OFF_OPEN_TAU_S,
  OFF_SHUT_TAU_S,
  type PowderSchedule,
  placeOffC,
  plateTimeConstant,
  type SetPoint,
  sectionClassOf,
  USUAL_ROOM_C,
} from "@/core/cure";
import type { Face } from "@/core/plan";
import { mean, sampleSd } from "@/core/statistics";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { sectionsOf } from "../bake/section-readings";
import { type CoatOnTop, coatOnTop, sheetOf } from "../bake/sheet-of";
import { channelsOf } from "../rack/judge-rack";
import { type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type LearntOven, learnOven } from "./learn-oven";
import { heatsAs, metalOf } from "./metal-of";
import { findOven, loadSurveys } from "./oven-file";

/** A rack as the oven sees it: metal, thickest and thinnest section, mass, the sheet of its powder, and how it heats here. */
export type BakedRack = {
  readonly rack: string;
  readonly part: string;
  readonly place: string;
  /** How far the air of its place was off by the newest survey, K. */
  readonly placeOffC: number;
  readonly channel: string | null;
  readonly metal: Metal;
  /** The plate that heats as its slowest section, mm. */
  readonly sectionMm: number;
  readonly hollow: boolean;
  readonly massKg: number | null;
  readonly powder: string;
  readonly schedule: PowderSchedule;
  /** Its primer is only to gel: the schedule is that of the gel. */
  readonly gel: boolean;
  readonly learnt: LearntHeatTransfer;
  readonly tauS: number;
  readonly tauBandS: readonly [number, number];
  readonly biot: number;
  readonly lumpedHolds: boolean;
  /** Plugs and masks that went in, by the lamp's look; null where nobody counted. */
  readonly plugsIn: number | null;
  readonly faces: readonly Face[];
};
export type LoadEvent = BakeEvent & {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly valueC: number | null;
  readonly emissivity: number | null;
  readonly aim: string | null;
  readonly count: number | null;
  readonly asked: number | null;
  readonly section: string | null;
  readonly method: CoolingMethod | null;
  /** The rack it was noted of; null of the whole load. */
  readonly rack: string | null;
  readonly note: string;
};
export type LoadFile = {
  readonly recordId: string;
  readonly oven: SetupItem<"oven">;
  readonly loadNo: string;
  readonly closedAt: Date;
  readonly pulledAt: Date | null;
  readonly timing: string;
  /** Under lamps, the sections the piece is cured in; null in an oven. */
  readonly sections: readonly string[] | null;
  readonly setPointC: number;
  /** Those this person may see, and how many hang in it in all. */
  readonly racks: readonly BakedRack[];
  readonly racksInLoad: number;
  readonly channels: readonly BakeChannel[];
  readonly events: readonly LoadEvent[];
  readonly plannedIndex: number;
  readonly holdToo: boolean;
  /** What the oven was set to from when, s after the door: as it was set at first, and each change noted since. */
  readonly program: readonly SetPoint[];
  /** What the oven read as the door closed, or what it does as a rule, °C. */
  readonly airAtDoorC: number;
  /** Minutes from door to melt of earlier loads of like sections in this oven; null under three. */
  readonly usualMelt: { readonly meanS: number; readonly sdS: number; readonly loads: number } | null;
  /** How long after the door was shut again the oven is back, by its newest survey, s; null where none says. */
  readonly recoveryS: number | null;
  readonly handleBelowC: number;
};

type RackRow = {
  number: string;
  part_id: string;
  powder_id: string;
  place: string;
  channel: string | null;
  pieces: number;
  plugs: number | null;
  coat: CoatOnTop | null;
};

/** What else is known of the load a rack is in; null while it hangs in none. */
type LoadAround = {
  readonly setPointC: number;
  readonly airAtDoorC: number;
  readonly loadKg: number | null;
  readonly placeOffC: (place: string) => number;
} | null;

/** What a rack is to an oven, from its part, its powder and what the oven has learnt. */
export function bakedRack(
  row: RackRow,
  parts: ReadonlyMap<string, SetupItem<"part">>,
  powders: ReadonlyMap<string, SetupItem<"powder">>,
  lots: ReadonlyMap<string, SetupItem<"lot">>,
  learnt: LearntOven,
  load: LoadAround,
): BakedRack | null {
  const part = parts.get(row.part_id)?.data;
  const ordered = powders.get(row.powder_id);
  if (!part || !ordered) return null;
  const sheet = sheetOf(row.coat, lots, powders, ordered);
  const metal = metalOf[part.substrate];
  const { plateMm, hollow } = heatsAs(part);
  const known = load
    ? learnt.forPart({
        metal,
        plateMm,
        hollow,
        toC: Math.min(...sheet.schedule.points.map((p) => p.metalC)),
        place: row.place === "–" ? "" : row.place,
        placeOffC: load.placeOffC(row.place),
        setPointC: load.setPointC,
        airAtDoorC: load.airAtDoorC,
        loadKg: load.loadKg,
      })
    : learnt.forSection(plateMm, hollow);
  const constant = (h: number) => plateTimeConstant({ material: metal, plateMm, hWPerM2K: h });
  const [middle, slow, fast] = [known.hWPerM2K, ...known.band].map((h) => constant(h as number));
  if (!middle?.ok || !slow?.ok || !fast?.ok) return null;
  return {
    rack: row.number,
    part: part.name,
    place: row.place,
    placeOffC: 0,
    channel: row.channel,
    metal,
    sectionMm: plateMm,
    hollow,
    massKg: part.measures ? part.measures.massKg * row.pieces : null,
    powder: `${sheet.powder.code} ${sheet.powder.data.name}`,
    schedule: sheet.schedule,
    gel: sheet.gel,
    learnt: known,
    tauS: middle.value.tauS,
    tauBandS: [fast.value.tauS, slow.value.tauS],
    biot: middle.value.biot,
    lumpedHolds: middle.value.lumpedHolds,
    plugsIn: row.plugs,
    faces: part.faces,
  };
}

const rackColumns = (
  before: ReturnType<typeof sql>,
) => sql`k.number, j.part_id, j.powder_id, (select count(*)::int from piece x where x.rack_id = k.id) as pieces,
  (select l.plugs_in from record r join lamp_check l on l.record_id = r.id where r.rack_id = k.id and r.kind = 'lamp-check' order by r.happened_at desc limit 1) as plugs,
  ${coatOnTop(before)} as coat`;

/** A load by its oven and number (numbers come again: the newest, or the one whose door was closed at a moment), open or pulled, with what each rack is to this oven and what was noted of it; null where there is none this person may see. */
export async function loadLoad(
  db: Kysely<Database>,
  person: Person,
  ovenSlug: string,
  loadNo: string,
  at: Date,
  closedAt: Date | null = null,
): Promise<LoadFile | null> {
  const oven = await findOven(db, ovenSlug, at);
  if (!oven) return null;
  const { rows } = await sql<{
    record_id: string;
    load_no: string;
    door_closed_at: Date;
    pulled_at: Date | null;
    timing: string;
    set_point_c: number | null;
    air_c: number | null;
    sections: unknown;
    racks: number;
  }>`select b.record_id, b.load_no, b.door_closed_at, b.pulled_at, b.timing, b.set_point_c, b.air_c, b.sections, (select count(*)::int from bake_place x where x.record_id = b.record_id) as racks from bake b
    where b.oven_id = ${oven.id} and lower(b.load_no) = lower(${loadNo}) and (${closedAt}::timestamptz is null or b.door_closed_at = ${closedAt}) and ${stands("b.record_id")}
    order by b.door_closed_at desc limit 1`.execute(db);
  const head = rows[0];
  if (!head) return null;
  const [site, parts, powders, lots, learnt, racks, channels, events] = await Promise.all([
    siteAt(db, at),
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
    setupAt(db, "lot", at),
    learnOven(db, oven, head.door_closed_at),
    sql<RackRow>`select ${rackColumns(sql`${head.door_closed_at}::timestamptz`)}, p.place, p.channel from bake_place p join rack k on k.id = p.rack_id join job j on j.id = k.job_id
      where p.record_id = ${head.record_id} and ${forPerson(person, "j.customer_id")} order by k.number`.execute(db),
    db.selectFrom("bake_channel").selectAll().where("record_id", "=", head.record_id).orderBy("ordinal").execute(),
    sql<{
      id: string;
      happened_at: Date;
      by_user: string;
      event: BakeEventKind;
      value_c: number | null;
      emissivity: number | null;
      aim: string | null;
      count: number | null;
      asked: number | null;
      note: string | null;
      since_door_s: number | null;
      section: string | null;
      method: CoolingMethod | null;
      rack: string | null;
    }>`select r.id, r.happened_at, ${personName("r.by_user")} as by_user, e.event, e.value_c, e.emissivity, e.aim, e.count, e.asked, e.note, e.since_door_s, e.section, e.method, k.number as rack from bake_event e join record r on r.id = e.record_id left join rack k on k.id = r.rack_id left join job j on j.id = k.job_id
      where e.oven_id = ${oven.id} and e.load_no = ${head.load_no} and r.happened_at >= ${head.door_closed_at}
        and (k.id is null or ${forPerson(person, "j.customer_id")}) and ${stands("r.id")} order by r.happened_at`.execute(
      db,
    ),
  ]);
  const surveys = await loadSurveys(db, oven, at, 5);
  const offC = (place: string) => placeOffC(surveys[0]?.survey ?? null, place);
  const setPointC = head.set_point_c ?? oven.data.usualSetPointC;
  // Of a load with somebody else's racks in it the mass is not known to a person held to one customer.
  const masses = racks.rows.map((r) => {
    const own = parts.get(r.part_id)?.data.measures?.massKg;
    return own === undefined ? null : own * r.pieces;
  });
  const loadKg =
    racks.rows.length < head.racks || masses.includes(null) ? null : masses.reduce<number>((a, b) => a + (b ?? 0), 0);
  const around = { setPointC, airAtDoorC: head.air_c ?? oven.data.airAtDoorC, loadKg, placeOffC: offC };
  const inside = racks.rows.flatMap((r) => bakedRack(r, parts, powders, lots, learnt, around) ?? []);
  if (inside.length === 0) return null;
  // What was noted beside a recorder is by its clock, which may run faster than the wall's.
  const noted = events.rows
    .map((e) => ({ ...e, atS: e.since_door_s ?? (e.happened_at.getTime() - head.door_closed_at.getTime()) / 1000 }))
    .sort((a, b) => a.atS - b.atS);
  const heaviest = inside.reduce((most, r) => (r.sectionMm > most.sectionMm ? r : most));
  const melts = await usualMelt(db, oven.id, heaviest, parts, head.door_closed_at);
  return {
    recordId: head.record_id,
    oven,
    loadNo: head.load_no,
    closedAt: head.door_closed_at,
    pulledAt: head.pulled_at,
    timing: head.timing,
    sections: sectionsOf(head.sections),
    setPointC,
    racks: inside.map((r) => ({ ...r, placeOffC: offC(r.place) })),
    racksInLoad: head.racks,
    // Probes of somebody else's racks in the same load are not for a person held to one customer.
    channels: channelsOf(channels).filter(
      (c) => head.racks === inside.length || c.medium === "air" || inside.some((r) => (r.channel || r.rack) === c.name),
    ),
    events: noted.map((e) => ({
      recordId: e.id,
      at: new Date(head.door_closed_at.getTime() + e.atS * 1000),
      by: e.by_user,
      event: e.event,
      atS: e.atS,
      section: e.section,
      method: e.method,
      rack: e.rack,
      valueC: e.value_c,
      emissivity: e.emissivity,
      aim: e.aim,
      count: e.count,
      asked: e.asked,
      note: e.note ?? "",
    })),
    plannedIndex: site.plannedIndex,
    holdToo: site.planHoldToo,
    airAtDoorC: head.air_c ?? oven.data.airAtDoorC,
    program: programOf(head.set_point_c ?? oven.data.usualSetPointC, noted),
    usualMelt: melts,
    recoveryS: surveys.find((x) => x.survey.recoveryS !== null)?.survey.recoveryS ?? null,
    handleBelowC: site.handleBelowC,
  };
}

/** What the oven was told in order: set anew, or off, when its air falls slowly while it is shut and soon once it is open. */
function programOf(
  firstC: number,
  noted: readonly { readonly event: BakeEventKind; readonly atS: number; readonly value_c: number | null }[],
): SetPoint[] {
  const program: SetPoint[] = [{ fromS: 0, airC: firstC }];
  let off = false;
  for (const e of noted) {
    const after = e.atS > (program.at(-1)?.fromS ?? 0);
    if (!after) continue;
    if (e.event === "set-point" && e.value_c !== null) {
      program.push({ fromS: e.atS, airC: e.value_c });
      off = false;
    } else if (e.event === "heat-off") {
      program.push({ fromS: e.atS, airC: USUAL_ROOM_C, tauS: OFF_SHUT_TAU_S });
      off = true;
    } else if (off && e.event === "door-opened")
      program.push({ fromS: e.atS, airC: USUAL_ROOM_C, tauS: OFF_OPEN_TAU_S });
  }
  return program;
}

/** From door to melt of the newest forty loads with a melt on record, those whose heaviest section is of the same class. */
async function usualMelt(
  db: Kysely<Database>,
  ovenId: string,
  { sectionMm, hollow }: { readonly sectionMm: number; readonly hollow: boolean },
  parts: ReadonlyMap<string, SetupItem<"part">>,
  before: Date,
): Promise<LoadFile["usualMelt"]> {
  const { rows } = await sql<{ s: number; part_ids: string[] }>`
    select coalesce(e.since_door_s, extract(epoch from r.happened_at - b.door_closed_at)::float8) as s, array(select distinct j.part_id from bake_place p join rack k on k.id = p.rack_id join job j on j.id = k.job_id where p.record_id = b.record_id) as part_ids
    from bake_event e join record r on r.id = e.record_id
    join lateral (select x.record_id, x.door_closed_at from bake x where x.oven_id = e.oven_id and x.load_no = e.load_no and x.door_closed_at <= r.happened_at
      and ${stands("x.record_id")} order by x.door_closed_at desc limit 1) b on true
    where e.oven_id = ${ovenId} and e.event = 'melted' and r.happened_at < ${before} and ${stands("r.id")}
    order by r.happened_at desc limit 40`.execute(db);
  const section = sectionClassOf(sectionMm, hollow);
  const alike = rows.flatMap((row) => {
    const heaviest = row.part_ids
      .flatMap((id) => parts.get(id)?.data ?? [])
      .map(heatsAs)
      .sort((a, b) => b.plateMm - a.plateMm)[0];
    return heaviest && sectionClassOf(heaviest.plateMm, heaviest.hollow) === section ? [row.s] : [];
  });
  return alike.length < 3 ? null : { meanS: mean(alike), sdS: sampleSd(alike), loads: alike.length };
}

/** Racks as they hang: metal, heaviest section, mass. Two queries. */
export async function hangingRacks(
  db: Kysely<Database>,
  person: Person,
  numbers: readonly string[],
  at: Date,
): Promise<
  { rack: string; metal: Metal; sectionMm: number; hollow: boolean; massKg: number | null; faces: readonly string[] }[]
> {
  if (numbers.length === 0) return [];
  const [parts, { rows }] = await Promise.all([
    setupAt(db, "part", at),
    sql<{ number: string; part_id: string; pieces: number }>`
      select k.number, j.part_id, (select count(*)::int from piece x where x.rack_id = k.id) as pieces from rack k join job j on j.id = k.job_id
      where k.number = any(${numbers}::text[]) and ${forPerson(person, "j.customer_id")} order by k.number`.execute(db),
  ]);
  return rows.flatMap((row) => {
    const part = parts.get(row.part_id)?.data;
    if (!part) return [];
    const massKg = part.measures ? part.measures.massKg * row.pieces : null;
    return [
      {
        rack: row.number,
        metal: metalOf[part.substrate],
        sectionMm: heatsAs(part).plateMm,
        hollow: heatsAs(part).hollow,
        massKg,
        faces: part.faces.map((f) => f.name),
      },
    ];
  });
}

/** Racks coated and not yet in an oven, as the planner needs them. Three queries. */
export async function racksToBake(
  db: Kysely<Database>,
  person: Person,
  numbers: readonly string[],
  oven: SetupItem<"oven">,
  at: Date,
): Promise<BakedRack[]> {
  if (numbers.length === 0) return [];
  const [parts, powders, lots, learnt, { rows }] = await Promise.all([
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
    setupAt(db, "lot", at),
    learnOven(db, oven, at),
    sql<RackRow>`select ${rackColumns(sql`${at}::timestamptz`)}, '–' as place, null as channel from rack k join job j on j.id = k.job_id
      where k.number = any(${numbers}::text[]) and ${forPerson(person, "j.customer_id")} order by k.number`.execute(db),
  ]);
  return rows.flatMap((r) => bakedRack(r, parts, powders, lots, learnt, null) ?? []);
}
