import type { Metadata } from "next";
import Link from "next/link";
import { database } from "@/server/database";
import { listJobs } from "@/server/jobs/load-job";
import { currentLine } from "@/server/line/current-line";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { dayMonth } from "@/ui/format";
import { JobForm } from "@/ui/forms/make-forms";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Verdict } from "@/ui/marks/verdict";
import { createJob } from "../actions";

export const metadata: Metadata = { title: "Plan" };

export default async function PlanPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const [jobs, customers, parts, powders] = await Promise.all([
    listJobs(database(), person, line.at),
    setupAt(database(), "customer", line.at),
    setupAt(database(), "part", line.at),
    setupAt(database(), "powder", line.at),
  ]);
  return (
    <>
      <section className="bench">
        <PageHead above="Jobs, newest first" title="Plan">
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
                <span className="soft">{j.dueOn ? `due ${dayMonth(new Date(j.dueOn), line.timeZone)}` : ""}</span>
              )}
            </Link>
          ))}
        </div>
        {may(person.role, "release") && (
          <JobForm
            make={createJob}
            customers={[...customers.values()].map((c) => ({ id: c.id, label: c.data.name }))}
            parts={[...parts.values()].map((p) => ({ id: p.id, label: p.data.name }))}
            powders={[...powders.values()].map((p) => ({ id: p.id, label: `${p.code} ${p.data.name}` }))}
          />
        )}
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
