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
import { List } from "@/ui/lists/list";
import { Verdict } from "@/ui/marks/verdict";
import { Pages, pageFrom } from "@/ui/shift/pages";

export const metadata: Metadata = { title: "Plan" };

const columns = [
  { key: "job", head: "job", width: "72px", look: "fig font-bold" },
  { key: "part", head: "part", width: "minmax(0,1fr)" },
  { key: "powder", head: "powder", width: "190px", wide: true, look: "soft" },
  { key: "racks", head: "racks", width: "90px", num: true, wide: true },
  { key: "due", head: "due", width: "minmax(96px,150px)" },
];

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
          <List
            name="Jobs"
            part={total > jobs.length}
            empty="No job is here for you yet. Receive work, and it stands here until it is decided."
            columns={columns}
            rows={jobs.map((j) => {
              const late = j.dueOn !== null && j.dueOn < today && j.inHand;
              return {
                key: j.number,
                href: `/jobs/${j.number}`,
                cells: {
                  part: (
                    <>
                      <b>{j.part}</b> <span className="soft">{j.customer}</span>
                    </>
                  ),
                  racks: countOf(j.racks, "rack"),
                  due:
                    j.declined > 0 ? (
                      <Verdict result="watch">{j.declined > 1 ? `${j.declined} declined` : "Option declined"}</Verdict>
                    ) : (
                      <span className={late ? "text-out" : "soft"}>
                        {j.dueOn ? `${late ? "late, due" : "due"} ${dayMonth(new Date(j.dueOn), "UTC")}` : ""}
                      </span>
                    ),
                },
                values: {
                  job: j.number,
                  part: `${j.part}, ${j.customer}`,
                  powder: j.powder,
                  racks: j.racks,
                  due: j.dueOn,
                },
              };
            })}
          />
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
