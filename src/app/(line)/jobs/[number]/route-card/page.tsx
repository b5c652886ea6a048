import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { loadPlanFile } from "@/server/plan/load-plan";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may, seesCost } from "@/server/sign-in/roles";
import { countOf } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Verdict } from "@/ui/marks/verdict";
import { ReleasePlan } from "@/ui/plan/change-plan-form";
import { JobTabs } from "@/ui/plan/job-tabs";
import { PlanVersions } from "@/ui/plan/plan-versions";
import { checkName, parameterText, routeName } from "@/ui/words/plan";
import { stageNames } from "@/ui/words/reasons";
import { planChange } from "../../../actions";

export const metadata: Metadata = { title: "Route card" };

export default async function RouteCardPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const file = await loadPlanFile(database(), person, (await params).number, now());
  if (!file) notFound();
  const { units } = await preferences();
  const { route, plan } = file;
  const numbered = route.map((step, i) => ({ ...step, no: i + 1 }));
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
          title={`Job ${file.number}: route card`}
        >
          <Verdict result={released ? "in" : "unknown"}>
            {released ? `Released, version ${plan.version}` : "Not released"}
          </Verdict>
          <div className="small">
            <a className="link" href={`/api/jobs/${file.number}/route-card.pdf`}>
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
          <ol className="ruled mt-4 list-none p-0">
            {numbered.map((s) => (
              <li
                key={s.no}
                className="row grid-cols-[26px_86px_minmax(0,1fr)_minmax(0,240px)_90px] items-center max-[700px]:grid-cols-[26px_minmax(0,1fr)_90px]"
              >
                <span className="fig faint">{s.no}</span>
                <span className="soft max-[700px]:hidden">{stageNames[s.stage]}</span>
                <span>
                  <b>{routeName[s.code]}</b>
                  {s.parameters.length > 0 && (
                    <span className="soft">: {s.parameters.map((p) => parameterText(p, units)).join(", ")}</span>
                  )}
                </span>
                <span className="small soft max-[700px]:hidden">{s.checks.map((c) => checkName[c]).join("; ")}</span>
                <span>{s.hold && <Verdict result="watch">Hold point</Verdict>}</span>
              </li>
            ))}
          </ol>
        )}
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
