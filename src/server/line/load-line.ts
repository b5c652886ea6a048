import { type Kysely, sql } from "kysely";
import { fitTimeConstant, heldUntilNow, judgeBake, planLoad, plannedAt } from "@/core/cure";
import { bareLimitHours } from "@/core/preparation";
import { valueOrThrow } from "@/core/result";
import { localMs, momentOf, shiftAt } from "@/core/shifts";
import { type VerificationStanding, verificationStanding } from "@/core/site";
import type { VerdictResult } from "@/core/verdict";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { readSections, sectionsOf } from "../bake/section-readings";
import { type CoatOnTop, coatOnTop, sheetOf } from "../bake/sheet-of";
import { type BathFile, loadBath } from "../baths/load-bath";
import { type PanelDue, panelsDue } from "../bench/panels";
import { type OpenAction, openActions } from "../causes/corrective-actions";
import { openComplaints } from "../complaints/complaints";
import { dayAndTimeIn, dayIn } from "../day";
import { channelsOf } from "../rack/judge-rack";
import { type ToLookAt, toLookAt } from "../release/look-again";
import { type SetupData, type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import { backupMissing } from "../shop/backups";
import { may, ofTheShop, type Person, seesCustomer } from "../sign-in/roles";
import { loadUpkeep, type UpkeepFile } from "../upkeep/load-upkeep";
import { airBefore } from "./air";
import { openLoadIds, type RackOnLine, racksOnLine, type StageCounts } from "./racks";

export type { RailStage } from "@/core/line";
export type { RackOnLine } from "./racks";

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
  /** When its newest sample was read. Older than `STALE_MS` its figures are of then, and what is so by now is foretold. */
  readonly lastAt: Date;
  readonly stale: boolean;
  /** By now, where the newest sample is stale: the index, and since when it is over-baked; null where nothing foretells it. */
  readonly foretold: { readonly index: number; readonly overbakedSince: Date | null } | null;
  /** Its time to be pulled is past. */
  readonly overdue: boolean;
  readonly result: VerdictResult;
};
/** A sample this old is no figure of now. */
export const STALE_MS = 5 * 60_000;
export type Line = {
  readonly at: Date;
  /** Of each stage the most urgent; how many there are in all is in `counts`. */
  readonly racks: readonly RackOnLine[];
  readonly counts: StageCounts;
  readonly baths: readonly BathFile[];
  readonly bakes: readonly OpenBake[];
  /** Structures in the field, the longest unseen first. */
  readonly structuresDue: readonly { code: string; name: string; lastVisit: Date | null }[];
  readonly openCases: readonly { number: string; defect: string; zone: string }[];
  /** Released racks that are not as they were signed, for whoever may decide; none for others. */
  readonly lookAgain: readonly ToLookAt[];
  /** What the line runs on, the most urgent first; none for a customer's person. */
  readonly upkeep: readonly UpkeepFile[];
  /** Instruments whose verification is due or was never done; none for a customer's person. */
  readonly instrumentsDue: readonly { readonly name: string; readonly standing: VerificationStanding }[];
  /** Days without a backup, where they are so many that it is to be said, for whoever sets the shop up. */
  readonly daysWithoutBackup: number | null;
  /** Panels in a cabinet, each with when it is read next. */
  readonly panels: readonly PanelDue[];
  /** Complaints that nobody has answered, for whoever may look into them. */
  readonly complaints: readonly {
    readonly id: string;
    readonly at: Date;
    readonly customer: string;
    readonly rack: string;
    readonly what: string;
  }[];
  /** Corrective actions of which nobody has said that they worked, for whoever may look after them. */
  readonly actions: readonly OpenAction[];
  readonly jobs: { readonly open: number; readonly overdue: number };
  /** Open cases in all, of which the newest are named. */
  readonly openCaseCount: number;
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

/** The shift at a moment, and when the one before began by the clock on the wall, changes of it included. */
function shiftNow(at: Date, { timeZone, shifts }: SetupData<"site">): Line["shift"] {
  const local = localMs(at.getTime(), timeZone);
  const shift = valueOrThrow(shiftAt(dayAndTimeIn(at, timeZone).slice(11), shifts));
  const began = local - (local % 60_000) - shift.minutesSincePreviousBegan * 60_000;
  return { name: shift.name, previousBegan: new Date(momentOf(began, timeZone)) };
}

/** What is running, due, out and waiting at a moment. A fixed handful of queries, each on an index, whatever the history. */
export async function loadLine(db: Kysely<Database>, person: Person, at: Date): Promise<Line> {
  const [site, parts, customers, codes] = await Promise.all([
    siteAt(db, at),
    setupAt(db, "part", at),
    setupAt(db, "customer", at),
    setupAt(db, "bath", at),
  ]);
  const [
    air,
    { racks, counts },
    baths,
    bakes,
    structuresDue,
    openCases,
    upkeep,
    jobs,
    lookAgain,
    instruments,
    complaints,
    withoutBackup,
    panels,
    actions,
  ] = await Promise.all([
    site.bareLimits.length > 0 ? airBefore(db, at) : null,
    racksOnLine(db, person, at, { parts, customers }),
    Promise.all(
      [...codes.values()].filter((bath) => !bath.data.retired).map((bath) => loadBath(db, bath.code, at, 8, codes)),
    ),
    openBakes(db, person, at, site),
    structures(db, person),
    cases(db, person),
    ofTheShop(person) ? loadUpkeep(db, at) : [],
    jobsInHand(db, person, dayIn(at, site.timeZone)),
    may(person.role, "release") ? toLookAt(db, person) : [],
    ofTheShop(person) ? setupAt(db, "instrument", at) : new Map<string, SetupItem<"instrument">>(),
    may(person.role, "inspect") ? openComplaints(db, person, at) : [],
    may(person.role, "release") ? backupMissing(db, at) : null,
    may(person.role, "inspect") ? panelsDue(db, person) : [],
    may(person.role, "inspect") ? openActions(db, person) : [],
  ]);
  const today = dayIn(at, site.timeZone);
  const humidityPercent = air?.readings.find((r) => r.quantity === "humidity")?.value ?? null;
  return {
    at,
    racks,
    counts,
    baths: baths.filter((b) => b !== null),
    bakes,
    structuresDue,
    openCases: openCases.named,
    openCaseCount: openCases.total,
    upkeep,
    instrumentsDue: [...instruments.values()]
      .filter((i) => !i.data.retired)
      .map((i) => ({ name: i.data.name, standing: verificationStanding(i.data, today) }))
      .filter(({ standing }) => standing.state !== "in" && standing.state !== "not-asked"),
    panels,
    complaints,
    actions,
    daysWithoutBackup: withoutBackup,
    jobs,
    lookAgain,
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

/** What is to be done first comes first: no trace at all, then the soonest pull, then what still heats. */
const urgencyOf = (bake: OpenBake): number =>
  bake.index === null ? bake.closedAt.getTime() - 1e13 : (bake.pullAt?.getTime() ?? Number.POSITIVE_INFINITY);

async function openBakes(db: Kysely<Database>, person: Person, at: Date, site: SetupData<"site">): Promise<OpenBake[]> {
  const inside = await openLoadIds(db, person);
  if (inside.length === 0) return [];
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
    .where("record.id", "in", inside)
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
          stale: false,
          foretold: null,
          overdue: false,
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
                schedule: { ...slowest.sheet.schedule, onsetC: slowest.verdict.onsetC },
                startC: lastC,
                earned: {
                  index,
                  overbake: slowest.verdict.channels.find((c) => c.name === channel)?.overbakeIndex ?? 0,
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
    const stale = at.getTime() - lastAt.getTime() > STALE_MS;
    const piece = plan?.ok ? plan.value.pieces[0] : undefined;
    const sinceS = (at.getTime() - lastAt.getTime()) / 1000;
    const foretold =
      stale && piece
        ? {
            index: plannedAt(piece.index, sinceS),
            overbakedSince:
              piece.spoilsS !== null && piece.spoilsS < sinceS
                ? new Date(lastAt.getTime() + piece.spoilsS * 1000)
                : null,
          }
        : null;
    const overdue = pullAt !== null && pullAt.getTime() < at.getTime() && (stale || cured);
    const spoilt = over || foretold?.overbakedSince != null;
    return [
      {
        ...base,
        index,
        channel,
        cured,
        pullAt,
        lastAt,
        stale,
        foretold,
        overdue,
        result: spoilt ? "out" : cured || overdue ? "watch" : "in",
      },
    ];
  });
  return open.sort((a, b) => urgencyOf(a) - urgencyOf(b));
}

/** An index probe a structure. */
async function structures(db: Kysely<Database>, person: Person) {
  const { rows } = await sql<{ code: string; name: string; lastVisit: Date | null }>`
    select s.code, s.name, v.last_visit as "lastVisit" from structure s
    left join lateral (select max(r.happened_at) as last_visit from record r where r.structure_id = s.id and r.kind in ('visit', 'zone-visit')) v on true
    where ${forPerson(person, "s.customer_id")} order by v.last_visit nulls first limit 20`.execute(db);
  return rows;
}

/** The newest cases without a confirmed cause, and how many there are of all. */
async function cases(db: Kysely<Database>, person: Person) {
  const { rows } = await sql<{ number: string; defect: string; zone: string; total: number }>`
    select c.number, c.defect, c.zone, count(*) over ()::int as total from root_cause_case c left join structure s on s.id = c.structure_id left join rack k on k.id = c.rack_id left join job j on j.id = k.job_id
    where not exists (select 1 from record r where r.case_id = c.id and r.kind = 'confirmation') and ${forPerson(person, "s.customer_id", "j.customer_id")} order by c.opened_at desc limit 20`.execute(
    db,
  );
  return { named: rows, total: rows[0]?.total ?? 0 };
}

/** Jobs in hand: with a rack on the line, none hung yet, or fewer pieces hung than ordered; those past their day are overdue. */
async function jobsInHand(db: Kysely<Database>, person: Person, today: string): Promise<Line["jobs"]> {
  const { rows } = await sql<{ open: number; overdue: number }>`
    select count(*)::int as open, count(*) filter (where due_on < ${today}::date)::int as overdue from job_standing
    where in_hand and ${forPerson(person, "customer_id")}`.execute(db);
  return rows[0] ?? { open: 0, overdue: 0 };
}
