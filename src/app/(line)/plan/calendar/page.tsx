import type { Metadata } from "next";
import { valueOrThrow } from "@/core/result";
import { workDays } from "@/core/shifts";
import { openActions } from "@/server/causes/corrective-actions";
import { database } from "@/server/database";
import { dayIn } from "@/server/day";
import { now } from "@/server/now";
import { loadCalendar } from "@/server/plan/calendar";
import { siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { dayMonth, weekdayAndDate } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { type BoardJob, CalendarBoard } from "@/ui/plan/calendar-board";
import { failureText } from "@/ui/words/failures";
import { pinStart } from "../../actions";

export const metadata: Metadata = { title: "Calendar" };

export default async function CalendarPage() {
  const person = await personOnPage();
  const at = now();
  const [calendar, site, actions] = await Promise.all([
    loadCalendar(database(), person, at),
    siteAt(database(), at),
    may(person.role, "inspect") ? openActions(database(), person) : [],
  ]);
  const today = dayIn(at, site.timeZone);
  const plan = calendar.plan.ok ? calendar.plan.value : null;
  const jobs: BoardJob[] = (plan?.jobs ?? []).flatMap((planned) => {
    const job = calendar.jobs.find((j) => j.number === planned.job);
    if (!job) return [];
    const due = job.dueOn ? new Date(`${job.dueOn}T23:59:59Z`) : null;
    return [
      {
        number: job.number,
        part: job.part,
        customer: job.customer,
        powder: job.powder.split(" ")[0] ?? "",
        pieces: job.pieces,
        due: due ? dayMonth(due, site.timeZone) : "",
        dueHour: job.dueInHours,
        planned,
      },
    ];
  });
  const { week } = calendar;
  const lastHour = Math.max(0, ...jobs.map((j) => j.planned.finishHour));
  const days = valueOrThrow(workDays(at, Math.max(2, Math.ceil(lastHour / week.hoursPerDay) + 1), week)).map((day) => ({
    label: weekdayAndDate(day.from, site.timeZone),
    hours: (day.to.getTime() - day.from.getTime()) / 3_600_000,
  }));
  const late = plan?.conflicts.filter((c) => c.kind === "late").length ?? 0;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/plan">
              Plan
            </Link>
          }
          title="Jobs on the stages"
        >
          <Verdict result={late > 0 ? "out" : jobs.length ? "in" : "unknown"}>
            {late > 0 ? `${late} late` : jobs.length ? "All in time" : "Nothing to plan"}
          </Verdict>
          <div className="small">
            <a className="link" href="/api/plan/calendar.ics">
              iCalendar
            </a>
          </div>
        </PageHead>
        {!calendar.plan.ok && <p className="mt-4 text-out">{failureText(calendar.plan.error)}</p>}
        {jobs.length === 0 && calendar.plan.ok && (
          <p className="mt-4">No job waits for its stages. Receive work, and it stands here.</p>
        )}
        {jobs.length > 0 && (
          <CalendarBoard
            jobs={jobs}
            conflicts={plan?.conflicts ?? []}
            fromIso={at.toISOString()}
            week={week}
            days={days}
            pin={pinStart}
            mayPin={may(person.role, "release")}
          />
        )}
        {actions.length > 0 && (
          <section className="ruled mt-5" aria-label="Corrective actions">
            <h2>Corrective actions</h2>
            {actions.map((a) => (
              <Link
                key={a.caseNumber}
                href={`/causes/${a.caseNumber}#action`}
                className="row grid-cols-[110px_minmax(0,1fr)_150px] text-ink no-underline hover:bg-sorrel-tint max-[560px]:grid-cols-1"
              >
                <Verdict result={a.dueOn !== null && a.dueOn < today ? "out" : "watch"}>
                  {a.dueOn ? dayMonth(new Date(`${a.dueOn}T12:00:00Z`), "UTC") : "no day"}
                </Verdict>
                <span>
                  {a.action} <span className="soft">case {a.caseNumber}</span>
                </span>
                <span className="soft">{a.who}</span>
              </Link>
            ))}
          </section>
        )}
        <p className="small soft mt-3 flex flex-wrap gap-x-5">
          <span>hatched: blast</span>
          <span>striped: wash</span>
          <span>pale: booth</span>
          <span>full: oven</span>
          <span>red line: due</span>
          <span>heavy foot: set by a person</span>
        </p>
      </section>
      <Margin step="plan">
        <MarginBlock title="How it is laid out">
          <p>
            The job with least time left goes next, unless the colour in the booth has another nearly as urgent. What a
            person has set is never moved; what does not fit beside it is named.
          </p>
          <p className="soft">
            {plan
              ? `${plan.colourChanges} colour change${plan.colourChanges === 1 ? "" : "s"}; ${week.hoursPerDay} working hours a day from ${week.startsAt}.`
              : ""}
          </p>
        </MarginBlock>
        {calendar.notPlannable.length > 0 && (
          <MarginBlock title="Not planned">
            <p>
              {calendar.notPlannable.slice(0, 12).map((n) => (
                <Link key={n} className="link mr-2" href={`/jobs/${n}`}>
                  {n}
                </Link>
              ))}
            </p>
            <p className="small soft">Never measured, so their hours are not known.</p>
          </MarginBlock>
        )}
      </Margin>
    </>
  );
}
