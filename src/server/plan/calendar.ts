import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { bakeMinutesFor, type Schedule, type StageOfWork, schedule, type WorkToPlan } from "@/core/plan";
import { type Result, valueOrThrow } from "@/core/result";
import { hoursWithin, type WorkWeek, workDays } from "@/core/shifts";
import { forPerson } from "@/db/queries/for-person";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { dayAndTimeIn } from "../day";
import { badEntry, text } from "../input";
import { type EntryOutcome, refuse } from "../outcome";
import { storeOne } from "../record/store-record";
import { planSchema } from "../requirement";
import { type SetupData, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
import { measuredPart } from "./load-plan";

export type CalendarJob = {
  readonly number: string;
  readonly part: string;
  readonly customer: string;
  readonly powder: string;
  readonly pieces: number;
  readonly dueOn: string | null;
  /** Working hours from now until the end of its due day; null where it has no date. */
  readonly dueInHours: number | null;
  /** Set by a person; null where the schedule places it. */
  readonly pinned: Date | null;
  readonly hours: Readonly<Partial<Record<StageOfWork, number>>>;
};
export type Calendar = {
  readonly from: Date;
  readonly week: WorkWeek;
  readonly jobs: readonly CalendarJob[];
  readonly plan: Result<Schedule>;
  /** Jobs on hand that were never measured, so that no hours are known. */
  readonly notPlannable: readonly string[];
};
/** Jobs without a rack yet, newest first: what is still to be planned. */
const MOST_JOBS = 300;

const endOf = (day: string) => new Date(`${day}T23:59:59Z`);
export const weekOf = (site: SetupData<"site">): WorkWeek => ({
  timeZone: site.timeZone,
  startsAt: site.workStartsAt,
  hoursPerDay: site.workHoursPerDay,
  days: site.workDays,
});

/** The jobs on hand against the stages' hours, from a moment on. A handful of queries; O(jobs²) to place them. */
export async function loadCalendar(db: Kysely<Database>, person: Person, at: Date): Promise<Calendar> {
  const [parts, powders, customers, site] = await Promise.all([
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
    setupAt(db, "customer", at),
    siteAt(db, at),
  ]);
  const { rows } = await sql<{
    number: string;
    part_id: string;
    powder_id: string;
    customer_id: string;
    due_on: string | null;
    plan: unknown;
    document: unknown;
    start_at: Date | null;
    hung: string;
  }>`
    select j.number, j.part_id, j.powder_id, j.customer_id, j.due_on::text, j.plan, p.document, s.start_at,
      (select count(*) from piece x join rack k on k.id = x.rack_id where k.job_id = j.id) as hung
    from job j
    left join lateral (select d.document from record r join job_plan d on d.record_id = r.id where r.job_id = j.id and r.kind = 'plan' order by d.version desc limit 1) p on true
    left join lateral (select d.start_at from record r join job_start d on d.record_id = r.id where r.job_id = j.id and r.kind = 'job-start' order by r.happened_at desc, r.id desc limit 1) s on true
    where ${forPerson(person, "j.customer_id")}
      and (j.due_on is null or j.due_on >= ${new Date(at.getTime() - 60 * 86_400_000)}) and j.received_at > ${new Date(at.getTime() - 120 * 86_400_000)}
    order by j.received_at desc, j.number desc limit ${MOST_JOBS}`.execute(db);
  const week = weekOf(site);
  const moments = rows.flatMap((row) => [row.due_on ? endOf(row.due_on) : at, row.start_at ?? at]);
  const furthest = Math.max(at.getTime(), ...moments.map((m) => m.getTime()));
  const daysAhead = Math.ceil((furthest - at.getTime()) / 86_400_000) + 1;
  const days = valueOrThrow(workDays(at, daysAhead, week));
  const workHours = (moment: Date) => hoursWithin(days, moment);
  const jobs: CalendarJob[] = [];
  const work: WorkToPlan[] = [];
  const notPlannable: string[] = [];
  for (const row of rows) {
    const plan = v.parse(planSchema, row.document ?? row.plan);
    const part = parts.get(row.part_id)?.data;
    const powder = powders.get(row.powder_id);
    const left = (plan.pieces ?? 0) - Number(row.hung);
    if (plan.pieces !== null && left <= 0) continue;
    if (plan.pieces === null && Number(row.hung) > 0) continue;
    const hours = part && powder && site.rates ? hoursOf(part, plan, powder.data, Math.max(1, left), site.rates) : null;
    if (!hours || !powder || !part) {
      notPlannable.push(row.number);
      continue;
    }
    const dueInHours = row.due_on ? workHours(endOf(row.due_on)) : null;
    jobs.push({
      number: row.number,
      part: part.name,
      customer: customers.get(row.customer_id)?.data.name ?? "",
      powder: `${powder.code} ${powder.data.name}`,
      pieces: Math.max(1, left),
      dueOn: row.due_on,
      dueInHours,
      pinned: row.start_at,
      hours,
    });
    work.push({
      job: row.number,
      hours,
      colour: powder.code,
      cureGroup: String(powder.data.schedule[0]?.metalC ?? ""),
      dueInHours,
      pinnedAtHour: row.start_at && row.start_at >= at ? workHours(row.start_at) : null,
    });
  }
  return { from: at, week, jobs, plan: schedule(work), notPlannable };
}

function hoursOf(
  part: SetupData<"part">,
  plan: v.InferOutput<typeof planSchema>,
  powder: SetupData<"powder">,
  pieces: number,
  rates: NonNullable<SetupData<"site">["rates"]>,
): Partial<Record<StageOfWork, number>> | null {
  const measured = measuredPart(part);
  if (!measured) return null;
  const area = measured.areaM2 * pieces;
  const bake = bakeMinutesFor(measured, powder.schedule);
  if (!bake.ok) return null;
  const coats = (plan.system?.coats ?? 1) + (plan.primer ? 1 : 0);
  const loads = Math.max(1, Math.ceil((measured.massKg * pieces) / 900));
  const round = (h: number) => Math.max(0.25, Math.round(h * 4) / 4);
  return {
    ...(plan.stages.includes("blast") ? { blast: round(area / rates.blastM2PerHour) } : {}),
    ...(plan.stages.includes("clean") || plan.stages.includes("conversion")
      ? { wash: round(area / rates.washM2PerHour) }
      : {}),
    booth: round((area * coats) / rates.sprayM2PerHour),
    oven: round((loads * bake.value) / 60),
  };
}

const startSchema = v.object({
  id: v.pipe(v.string(), v.uuid("is not an id")),
  job: text(20),
  /** Null gives the job back to the schedule. */
  startAt: v.nullable(
    v.pipe(
      v.string(),
      v.isoTimestamp("is not a moment"),
      v.transform((s) => new Date(s)),
    ),
  ),
});

/** A person sets a job's start, or gives it back. The one before stays on record. Failures: `bad-entry`, `unknown-job`, `in-the-past`, and the store's. */
export async function setStart(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(startSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { id, job: number, startAt } = parsed.output;
  return write(db, [lock.job(number)], clock, async (trx, at) => {
    if (startAt && startAt.getTime() < at.getTime() - 5 * 60_000) {
      const { timeZone } = await siteAt(trx, at);
      return refuse({
        kind: "in-the-past",
        what: "start",
        value: dayAndTimeIn(startAt, timeZone),
        today: dayAndTimeIn(at, timeZone),
      });
    }
    const job = await trx
      .selectFrom("job")
      .select("id")
      .where("number", "=", number)
      .where(forPerson(person, "customer_id"))
      .executeTakeFirst();
    if (!job) return refuse({ kind: "unknown-job", number });
    return storeOne(
      trx,
      {
        id,
        kind: "job-start",
        happenedAt: at,
        by: person.username,
        grade: "measured",
        idempotencyKey: `start:${id}`,
        jobId: job.id,
        details: { job_start: [{ start_at: startAt }] },
      },
      at,
    );
  });
}
