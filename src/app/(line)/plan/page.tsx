import type { Metadata } from "next";
import { database } from "@/server/database";
import { dayIn } from "@/server/day";
import { JOBS_PER_PAGE, listJobs } from "@/server/jobs/load-job";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { countOf, dayMonth } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { Pages, pageFrom } from "@/ui/shift/pages";

export const metadata: Metadata = { title: "Plan" };

export default async function PlanPage({ searchParams }: { searchParams: Promise<{ page?: string }> }) {
  const person = await personOnPage();
  const line = await currentLine(person);
  const page = pageFrom((await searchParams).page);
  const { jobs, total } = await listJobs(database(), person, line.at, page);
  const today = dayIn(line.at, line.timeZone);
  return (
    <>
      <section className="bench">
        <PageHead
          above={`${countOf(total, "job")}, newest first${line.jobs.overdue > 0 ? `; ${line.jobs.overdue} late` : ""}`}
          title="Plan"
        >
          <span className="flex gap-3">
            {may(person.role, "release") && (
              <Link className="btn pri" href="/plan/receive">
                Receive work
              </Link>
            )}
            <Link className="btn" href="/plan/parts">
              Parts
            </Link>
            <Link className="btn" href="/plan/calendar">
              Calendar
            </Link>
          </span>
        </PageHead>
        <div className="ruled mt-3">
          {jobs.length === 0 && <p className="py-3">No job is here for you yet.</p>}
          {jobs.map((j) => (
            <Link
              key={j.number}
              href={`/jobs/${j.number}`}
              className="row min-h-[52px] grid-cols-[72px_minmax(0,1fr)_190px_90px_150px] items-center text-ink no-underline hover:bg-sorrel-tint max-[700px]:grid-cols-[64px_minmax(0,1fr)_auto]"
            >
              <b className="fig">{j.number}</b>
              <span>
                <b>{j.part}</b> <span className="soft">{j.customer}</span>
              </span>
              <span className="soft max-[700px]:hidden">{j.powder}</span>
              <span className="num max-[700px]:hidden">{j.racks} racks</span>
              {j.declined > 0 ? (
                <Verdict result="watch">{j.declined > 1 ? `${j.declined} declined` : "Option declined"}</Verdict>
              ) : (
                <span className={j.dueOn && j.dueOn < today && j.inHand ? "text-out" : "soft"}>
                  {j.dueOn
                    ? `${j.dueOn < today && j.inHand ? "late, due" : "due"} ${dayMonth(new Date(j.dueOn), "UTC")}`
                    : ""}
                </span>
              )}
            </Link>
          ))}
        </div>
        <Pages path="/plan" page={page} perPage={JOBS_PER_PAGE} total={total} />
      </section>
      <Margin step="plan">
        <MarginBlock title="What stands with a job">
          <p>
            Customer, part and its sketch, substrate, system, requirement, what was offered and declined; the racks
            under it and all their records.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
