import { type Kysely, sql } from "kysely";
import { fitTimeConstant, heldUntilNow, judgeBake, planLoad } from "@/core/cure";
import { bareLimitHours } from "@/core/preparation";
import { valueOrThrow } from "@/core/result";
import { shiftAt } from "@/core/shifts";
import type { VerdictResult } from "@/core/verdict";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type BathFile, loadBath } from "../baths/load-bath";
import { readSections, sectionsOf } from "../cure/section-readings";
import { type CoatOnTop, coatOnTop, sheetOf } from "../cure/sheet-of";
import { channelsOf } from "../rack/judge-rack";
import { type SetupData, setupAt, siteAt } from "../setup/setup-data";
import { ofTheShop, type Person, seesCustomer } from "../sign-in/roles";
import { loadUpkeep, type UpkeepFile } from "../upkeep/load-upkeep";
import { airBefore } from "./air";

export const railStages = ["plan", "prepare", "pretreat", "coat", "cure", "test", "release", "field"] as const;
export type RailStage = (typeof railStages)[number];
export const stageOfPassage: Record<string, RailStage> = {
  blast: "prepare",
  prebake: "prepare",
  clean: "pretreat",
  "clean-rinse": "pretreat",
  conversion: "pretreat",
  rinse: "pretreat",
  seal: "pretreat",
  "final-rinse": "pretreat",
  "dry-off": "pretreat",
  booth: "coat",
  oven: "cure",
  cool: "test",
};

export type RackState =
  | "held"
  | "adhesion-out"
  | "defect"
  | "film-open"
  | "to-release"
  | "running"
  | "bare"
  | "to-recoat"
  | "to-strip";
export type RackOnLine = {
  readonly number: string;
  readonly part: string;
  readonly customer: string;
  readonly stage: RailStage;
  readonly passage: string;
  readonly since: Date;
  readonly open: boolean;
  readonly result: VerdictResult;
  readonly what: RackState;
  readonly readings: number;
  readonly asked: number;
  readonly defect: string | null;
  readonly iso: number | null;
  readonly bareSinceMs: number | null;
  /** Out of the conversion bath and not coated: an unsealed coat protects for a day or so. */
  readonly unsealedSinceMs: number | null;
  /** Wiped with solvent and not coated: it must be gone before powder or heat. */
  readonly wipedAtMs: number | null;
};
export type OpenBake = {
  readonly recordId: string;
  readonly oven: string;
  readonly load: string;
  readonly racks: readonly string[];
  readonly closedAt: Date;
  /** Null while no metal temperature is on record: a load put in by hand, its trace still to come. */
  readonly index: number | null;
  readonly channel: string;
  /** As the shop plans: its index reached, and a hold of the sheet met where it waits for one. */
  readonly cured: boolean;
  readonly pullAt: Date | null;
  readonly lastAt: Date;
  readonly result: VerdictResult;
};
export type Line = {
  readonly at: Date;
  readonly racks: readonly RackOnLine[];
  readonly baths: readonly BathFile[];
  readonly bakes: readonly OpenBake[];
  readonly structuresDue: readonly { code: string; name: string; lastVisit: Date | null }[];
  readonly openCases: readonly { number: string; defect: string; zone: string }[];
  /** What the line runs on, the most urgent first; none for a customer's person. */
  readonly upkeep: readonly UpkeepFile[];
  readonly jobsDue: number;
  readonly bareLimitHours: number;
  /** The humidity that limit is for; null where none was read and the usual limit stands. */
  readonly humidityPercent: number | null;
  readonly dewPointMarginC: number;
  readonly unsealedLimitHours: number;
  readonly flashOffMinutes: number;
  readonly timeZone: string;
  readonly siteName: string;
  readonly shift: { readonly name: string; readonly previousBegan: Date };
};

/** The shift at a moment. Around a change of the clocks the start of the one before is an hour out. */
function shiftNow(at: Date, site: SetupData<"site">): Line["shift"] {
  const local = new Intl.DateTimeFormat("en-GB", {
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
    timeZone: site.timeZone,
  }).format(at);
  const shift = valueOrThrow(shiftAt(local, site.shifts));
  return { name: shift.name, previousBegan: new Date(at.getTime() - shift.minutesSincePreviousBegan * 60_000) };
}

/** Racks no older than this without a decision are on the line. */
const DAYS_ON_LINE = 3;

/** What is running, due, out and waiting at a moment. A fixed handful of queries, each on an index, whatever the history. */
export async function loadLine(db: Kysely<Database>, person: Person, at: Date): Promise<Line> {
  const [site, parts, customers, codes] = await Promise.all([
    siteAt(db, at),
    setupAt(db, "part", at),
    setupAt(db, "customer", at),
    setupAt(db, "bath", at),
  ]);
  const [air, racks, baths, bakes, structuresDue, openCases, upkeep, jobs] = await Promise.all([
    site.bareLimits.length > 0 ? airBefore(db, at) : null,
    racksOnLine(db, person, at),
    Promise.all(
      [...codes.values()].filter((bath) => !bath.data.retired).map((bath) => loadBath(db, bath.code, at, 8, codes)),
    ),
    openBakes(db, person, at, site),
    structures(db, person),
    cases(db, person),
    ofTheShop(person) ? loadUpkeep(db, at) : [],
    db
      .selectFrom("job")
      .select(({ fn }) => fn.countAll<string>().as("n"))
      .where("due_on", ">=", at.toISOString().slice(0, 10))
      .where(forPerson(person, "customer_id"))
      .executeTakeFirstOrThrow(),
  ]);
  const humidityPercent = air?.readings.find((r) => r.quantity === "humidity")?.value ?? null;
  return {
    at,
    racks: racks.map((row) =>
      describeRack(
        row,
        parts.get(row.part_id)?.data,
        customers.get(row.customer_id)?.data.name ?? "",
        site.crossCutWorstIso,
      ),
    ),
    baths: baths.filter((b) => b !== null),
    bakes,
    structuresDue,
    openCases,
    upkeep,
    jobsDue: Number(jobs.n),
    bareLimitHours: valueOrThrow(bareLimitHours(humidityPercent, site.bareLimits, site.bareLimitHours)),
    humidityPercent,
    dewPointMarginC: site.dewPointMarginC,
    unsealedLimitHours: site.unsealedLimitHours,
    flashOffMinutes: site.flashOffMinutes,
    timeZone: site.timeZone,
    siteName: site.name,
    shift: shiftNow(at, site),
  };
}

type RackRow = {
  number: string;
  part_id: string;
  customer_id: string;
  hung_at: Date;
  stage: string | null;
  entered_at: Date | null;
  left_at: Date | null;
  decision: string | null;
  reworked_at: Date | null;
  iso: number | null;
  defect: string | null;
  readings: string;
  rubbed: boolean;
  blasted_at: Date | null;
  converted_at: Date | null;
  wiped_at: Date | null;
  coated: boolean;
};

async function racksOnLine(db: Kysely<Database>, person: Person, at: Date): Promise<RackRow[]> {
  const since = new Date(at.getTime() - DAYS_ON_LINE * 86_400_000);
  const { rows } = await sql<RackRow>`
    select k.number, j.part_id, j.customer_id, k.hung_at, p.stage, p.entered_at, p.left_at, d.decision, w.at as reworked_at, x.iso, f.defect, t.readings, u.rubbed, b.blasted_at, b.converted_at, u.wiped_at, u.coated
    from rack k join job j on j.id = k.job_id
    left join lateral (select d.decision from record r join disposition d on d.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' order by r.happened_at desc limit 1) d on true
    left join lateral (select max(r.happened_at) as at, coalesce(max(r.happened_at), '-infinity') as since from record r join disposition d on d.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' and d.decision in ('scuff-and-recoat', 'strip')) w on true
    left join lateral (select q.stage, q.entered_at, q.left_at from record r join passage q on q.record_id = r.id where r.rack_id = k.id and r.kind = 'passage' and r.happened_at > w.since and ${stands("r.id")} order by r.happened_at desc limit 1) p on true
    left join lateral (select x.iso from record r join cross_cut x on x.record_id = r.id where r.rack_id = k.id and r.kind = 'cross-cut' and r.happened_at > w.since and ${stands("r.id")} order by r.happened_at desc limit 1) x on true
    left join lateral (select f.defect from record r join defect f on f.record_id = r.id where r.rack_id = k.id and r.kind = 'defect' and f.pieces_affected is distinct from 0 and r.happened_at > w.since and ${stands("r.id")} order by r.happened_at desc limit 1) f on true
    left join lateral (select count(*) as readings from record r join thickness_reading t on t.record_id = r.id where r.rack_id = k.id and r.kind = 'thickness' and t.rejected_reason is null and r.happened_at > w.since and ${stands("r.id")}) t on true
    left join lateral (select max(coalesce(q.left_at, q.entered_at)) filter (where q.stage = 'blast') as blasted_at, max(coalesce(q.left_at, q.entered_at)) filter (where q.stage = 'conversion') as converted_at from record r join passage q on q.record_id = r.id where r.rack_id = k.id and r.kind = 'passage' and q.stage in ('blast', 'conversion') and r.happened_at > w.since and ${stands("r.id")}) b on true
    left join lateral (select coalesce(bool_or(r.kind = 'solvent-rub'), false) as rubbed, coalesce(bool_or(r.kind = 'coat'), false) as coated, max(r.happened_at) filter (where q.step = 'solvent-wipe' and q.done and ${stands("r.id")}) as wiped_at from record r left join prep_step q on q.record_id = r.id where r.rack_id = k.id and r.kind in ('solvent-rub', 'coat', 'prep-step') and r.happened_at > w.since) u on true
    where k.hung_at > ${since} and k.hung_at <= ${at} and (d.decision is null or d.decision in ('hold', 'scuff-and-recoat', 'strip'))
      and ${forPerson(person, "j.customer_id")}
    order by k.hung_at desc limit 40`.execute(db);
  return rows.reverse();
}

function describeRack(
  row: RackRow,
  part: { name: string; faces: readonly { spots: readonly unknown[] }[] } | undefined,
  customer: string,
  worstIso: number,
): RackOnLine {
  const asked = 3 * (part?.faces.reduce((n, face) => n + face.spots.length, 0) ?? 0);
  const readings = Number(row.readings);
  const done = row.stage === "oven" && row.left_at !== null;
  const sentBack = row.reworked_at !== null && row.stage === null && row.decision !== "hold";
  const stage: RailStage = sentBack
    ? "prepare"
    : row.decision === "hold"
      ? "release"
      : readings > 0
        ? readings >= asked && row.rubbed
          ? "release"
          : "test"
        : done
          ? "test"
          : (stageOfPassage[row.stage ?? "blast"] ?? "prepare");
  const bareSinceMs = row.blasted_at && !row.coated ? row.blasted_at.getTime() : null;
  const what: RackState = sentBack
    ? row.decision === "strip"
      ? "to-strip"
      : "to-recoat"
    : row.decision === "hold"
      ? "held"
      : (row.iso ?? 0) > worstIso
        ? "adhesion-out"
        : row.defect
          ? "defect"
          : readings > 0 && readings < asked
            ? "film-open"
            : stage === "release"
              ? "to-release"
              : bareSinceMs && row.left_at !== null
                ? "bare"
                : "running";
  const result: VerdictResult =
    what === "held" || what === "adhesion-out"
      ? "out"
      : what === "defect" || sentBack
        ? "watch"
        : what === "film-open"
          ? "unknown"
          : "in";
  return {
    number: row.number,
    part: part?.name ?? "",
    customer,
    stage,
    passage: row.stage ?? (sentBack ? "sent back" : "blast"),
    since: row.left_at ?? row.entered_at ?? row.reworked_at ?? row.hung_at,
    open: row.left_at === null,
    result,
    what,
    readings,
    asked,
    defect: row.defect,
    iso: row.iso,
    bareSinceMs,
    unsealedSinceMs: row.coated ? null : (row.converted_at?.getTime() ?? null),
    wipedAtMs: row.coated ? null : (row.wiped_at?.getTime() ?? null),
  };
}

/** What is to be done first comes first: no trace at all, then the soonest pull, then what still heats. */
const urgencyOf = (bake: OpenBake): number =>
  bake.index === null ? bake.closedAt.getTime() - 1e13 : (bake.pullAt?.getTime() ?? Number.POSITIVE_INFINITY);

async function openBakes(db: Kysely<Database>, person: Person, at: Date, site: SetupData<"site">): Promise<OpenBake[]> {
  const since = new Date(at.getTime() - 12 * 3_600_000);
  const rows = await db
    .selectFrom("record")
    .innerJoin("bake", "bake.record_id", "record.id")
    .select([
      "record.id",
      "bake.oven_id",
      "bake.load_no",
      "bake.powder_id",
      "bake.door_closed_at",
      "bake.set_point_c",
      "bake.sections",
    ])
    .where("record.kind", "=", "bake")
    .where("record.happened_at", ">", since)
    .where("record.happened_at", "<=", at)
    .where("bake.pulled_at", "is", null)
    .where(stands("record.id"))
    .execute();
  if (rows.length === 0) return [];
  const ids = rows.map((r) => r.id);
  const [ovens, powders, channels, { rows: places }, lots] = await Promise.all([
    setupAt(db, "oven", at),
    setupAt(db, "powder", at),
    db.selectFrom("bake_channel").selectAll().where("record_id", "in", ids).orderBy("ordinal").execute(),
    sql<{ record_id: string; number: string; customer_id: string; powder_id: string; coat: CoatOnTop | null }>`
      select p.record_id, k.number, j.customer_id, j.powder_id, ${coatOnTop(sql`b.door_closed_at`)} as coat
      from bake b join bake_place p on p.record_id = b.record_id join rack k on k.id = p.rack_id join job j on j.id = k.job_id
      where b.record_id = any(${ids}::uuid[])`.execute(db),
    setupAt(db, "lot", at),
  ]);
  const bySection = await Promise.all(
    rows.map((row) => {
      const sections = sectionsOf(row.sections);
      return sections ? readSections(db, { ...row, sections }, at) : null;
    }),
  );
  const open = rows.flatMap((row, n): OpenBake[] => {
    const stored = channelsOf(channels.filter((c) => c.record_id === row.id));
    const mine = bySection[n] ?? stored;
    const inside = places.filter((p) => p.record_id === row.id);
    const racks = inside.filter((p) => seesCustomer(person, p.customer_id)).map((p) => p.number);
    if (racks.length === 0) return [];
    const base = {
      recordId: row.id,
      oven: ovens.get(row.oven_id)?.code ?? "Oven",
      load: row.load_no,
      racks,
      closedAt: row.door_closed_at,
    };
    // A load may carry more than one powder: the one that has earned least decides.
    const sheets = inside.flatMap((p) => {
      const ordered = powders.get(p.powder_id);
      return ordered ? [sheetOf(p.coat, lots, powders, ordered)] : [];
    });
    const judged = [...new Map(sheets.map((s) => [`${s.powder.id} ${s.gel}`, s])).values()].flatMap((sheet) => {
      const verdict = judgeBake(mine, sheet.schedule, { sections: sectionsOf(row.sections) });
      return verdict.ok ? [{ sheet, verdict: verdict.value }] : [];
    });
    const slowest = judged.sort((a, b) => a.verdict.decidingIndex - b.verdict.decidingIndex)[0];
    if (!slowest)
      return [
        {
          ...base,
          index: null,
          channel: "",
          cured: false,
          pullAt: null,
          lastAt: row.door_closed_at,
          result: "unknown",
        },
      ];
    const { decidingChannel: channel, decidingIndex: index } = slowest.verdict;
    const trace = mine.find((c) => c.name === channel)?.trace;
    const lastS = trace?.timeS.at(-1) ?? 0;
    const lastC = trace?.tempC.filter((c): c is number => c !== null).at(-1) ?? 0;
    const lastAt = new Date(row.door_closed_at.getTime() + lastS * 1000);
    // What is still to earn, from the time constant its own trace shows, in the air as it is and is set.
    const air = mine.find((c) => c.medium === "air");
    const own = mine.find((c) => c.name === channel);
    const oven = ovens.get(row.oven_id)?.data;
    const fit = air && own ? fitTimeConstant(air.trace, own.trace, lastS) : null;
    const setPointC = row.set_point_c ?? oven?.usualSetPointC ?? 205;
    const plan =
      !fit?.ok || !own
        ? null
        : planLoad(
            {
              startC: air?.trace.tempC.findLast((t): t is number => t !== null) ?? setPointC,
              tauS: oven?.emptyTauS ?? 140,
              program: [{ fromS: 0, airC: setPointC }],
            },
            [
              {
                id: channel,
                section: { tauS: fit.value.tauS },
                schedule: { points: slowest.sheet.schedule.points, onsetC: slowest.verdict.onsetC },
                startC: lastC,
                earned: {
                  index,
                  overbake: 0,
                  heldS: slowest.sheet.schedule.points.map((p) => heldUntilNow(own.trace, p.metalC)),
                },
              },
            ],
            { leastIndex: site.plannedIndex, holdToo: site.planHoldToo },
          );
    const readyS = plan?.ok ? (plan.value.pieces[0]?.readyS ?? null) : null;
    // Without a fit the index alone can say it.
    const unread = slowest.verdict.unknownPlaces.length > 0;
    const cured = readyS === null ? plan === null && index >= site.plannedIndex && !unread : readyS <= 0;
    const minutesToGo = cured ? 0 : readyS === null ? null : readyS / 60;
    const over = judged.some((j) => j.verdict.channels.some((c) => (c.overbakeIndex ?? 0) > 100));
    const pullAt = minutesToGo === null ? null : new Date(lastAt.getTime() + minutesToGo * 60_000);
    return [{ ...base, index, channel, cured, pullAt, lastAt, result: over ? "out" : cured ? "watch" : "in" }];
  });
  return open.sort((a, b) => urgencyOf(a) - urgencyOf(b));
}

async function structures(db: Kysely<Database>, person: Person) {
  const { rows } = await sql<{ code: string; name: string; lastVisit: Date | null }>`
    select s.code, s.name, v.last_visit as "lastVisit" from structure s left join lateral (select max(r.happened_at) as last_visit from record r where r.structure_id = s.id and r.kind = 'visit') v on true
    where ${forPerson(person, "s.customer_id")} order by v.last_visit nulls first limit 20`.execute(db);
  return rows;
}

async function cases(db: Kysely<Database>, person: Person) {
  const { rows } = await sql<{ number: string; defect: string; zone: string }>`
    select c.number, c.defect, c.zone from root_cause_case c left join structure s on s.id = c.structure_id left join rack k on k.id = c.rack_id left join job j on j.id = k.job_id
    where not exists (select 1 from record r where r.case_id = c.id and r.kind = 'confirmation') and ${forPerson(person, "s.customer_id", "j.customer_id")} order by c.opened_at desc limit 20`.execute(
    db,
  );
  return rows;
}
