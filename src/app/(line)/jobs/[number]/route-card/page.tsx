import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { loadPlanFile } from "@/server/plan/load-plan";
import { reworksOfRack } from "@/server/plan/reworks-of-rack";
import { preferences } from "@/server/preferences";
import { rackOfJob } from "@/server/rack/racks-of-job";
import { personOnPage } from "@/server/sign-in/person";
import { may, seesCost } from "@/server/sign-in/roles";
import { countOf, dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Verdict } from "@/ui/marks/verdict";
import { ReleasePlan } from "@/ui/plan/change-plan-form";
import { JobTabs } from "@/ui/plan/job-tabs";
import { PlanVersions } from "@/ui/plan/plan-versions";
import { RouteSteps } from "@/ui/plan/route-steps";
import { decisionWords } from "@/ui/words/decisions";
import { planChange } from "../../../actions";

export const metadata: Metadata = { title: "Route card" };

export default async function RouteCardPage({
  params,
  searchParams,
}: {
  params: Promise<{ number: string }>;
  searchParams: Promise<{ rack?: string }>;
}) {
  const person = await personOnPage();
  const file = await loadPlanFile(database(), person, (await params).number, now());
  if (!file) notFound();
  const { units } = await preferences();
  const { route, plan } = file;
  const asked = (await searchParams).rack;
  const rack = typeof asked === "string" && asked !== "" ? await rackOfJob(database(), file.jobId, asked) : null;
  if (asked && !rack) notFound();
  const reworks = rack ? await reworksOfRack(database(), rack.id, route, file.powder.data.mostInAllUm) : [];
  const released = plan.released && plan.version > 0;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {file.customer} · {file.partName},{" "}
              {plan.pieces === null ? "pieces not counted" : countOf(plan.pieces, "piece")} · {file.powder.code}{" "}
              {file.powder.data.name}
            </>
          }
          title={rack ? `Rack ${rack.number}: route card` : `Job ${file.number}: route card`}
        >
          <Verdict result={released ? "in" : "unknown"}>
            {released ? `Released, version ${plan.version}` : "Not released"}
          </Verdict>
          <div className="small">
            <a
              className="link"
              href={`/api/jobs/${file.number}/route-card.pdf${rack ? `?rack=${encodeURIComponent(rack.number)}` : ""}`}
            >
              Print, PDF
            </a>
          </div>
        </PageHead>
        <JobTabs number={file.number} here="route-card" cost={seesCost(person)} />
        {route.length === 0 ? (
          <p className="mt-4">
            {plan.system
              ? "The part was never measured, so no card can be made."
              : "No system is chosen yet: choose it under Risks and system. The racks of this job follow the route noted when it was taken in:"}{" "}
            {!plan.system && plan.stages.join(" → ")}
          </p>
        ) : (
          <RouteSteps steps={route} first={1} units={units} />
        )}
        {reworks.map((r, i) => (
          <section key={r.at.getTime()} className="mt-5">
            <h2>
              {decisionWords[r.decision] ?? r.decision}, {r.by}, {dateAndTime(r.at, file.site.timeZone)}
            </h2>
            <p className="small soft m-0">{r.note}</p>
            <RouteSteps
              steps={r.steps}
              first={1 + route.length + reworks.slice(0, i).reduce((n, x) => n + x.steps.length, 0)}
              units={units}
            />
          </section>
        ))}
        {may(person.role, "release") && route.length > 0 && !released && (
          <div className="mt-5">
            <ReleasePlan job={file.number} seen={plan.version} change={planChange} />
          </div>
        )}
      </section>
      <Margin step="plan">
        <MarginBlock title="From here to the shop">
          <p>
            {released
              ? "Released: racks hung under this job carry it. A change is a new version, with its reason."
              : "Release it, and every rack hung under the job carries it as its thread."}
          </p>
        </MarginBlock>
        <PlanVersions versions={plan.versions} timeZone={file.site.timeZone} />
      </Margin>
    </>
  );
}
