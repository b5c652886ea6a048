import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { loadKnowledge } from "@/core/diagnosis";
import { judgeLife, optionOutside } from "@/core/plan";
import { database } from "@/server/database";
import { ownEvidence } from "@/server/field/ageing";
import { now } from "@/server/now";
import { loadPlanFile } from "@/server/plan/load-plan";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop, seesCost } from "@/server/sign-in/roles";
import { countOf, plainly, sections, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { ChangeSystem, MoveRacks } from "@/ui/plan/change-plan-form";
import { JobTabs } from "@/ui/plan/job-tabs";
import { PlanVersions } from "@/ui/plan/plan-versions";
import { failureText } from "@/ui/words/failures";
import { wearName } from "@/ui/words/field-zones";
import {
  exposureName,
  featureName,
  lifeText,
  optionName,
  protectionName,
  refusalText,
  substrateName,
  systemText,
} from "@/ui/words/plan";
import { planChange } from "../../../actions";

export const metadata: Metadata = { title: "Risks and system" };

export default async function SystemPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const [file, { units }] = await Promise.all([
    loadPlanFile(database(), person, (await params).number, now()),
    preferences(),
  ]);
  if (!file) notFound();
  const { plan, part, advice } = file;
  const knowledge = loadKnowledge();
  // It goes over all customers' work.
  const own =
    plan.system && ofTheShop(person) ? await ownEvidence(database(), plan.system, file.service.exposure) : null;
  const reached = own ? (own.curve.medianYears ?? own.curve.longestYears) : null;
  const likely = file.risks.filter((r) => r.likelihood === "likely").length;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {file.customer} · {file.partName}, {substrateName[file.partItem.data.substrate]}
            </>
          }
          title={`Job ${file.number}: risks and system`}
        >
          <Verdict result={!part ? "unknown" : likely > 0 ? "watch" : "in"}>
            {!part
              ? "Never measured"
              : likely > 0
                ? `${likely} likely risk${likely > 1 ? "s" : ""}`
                : "No likely risk left"}
          </Verdict>
          <div className="small soft">
            {plan.version > 0
              ? `plan version ${plan.version}${plan.released ? ", released" : ""}`
              : "as it was taken in"}
          </div>
        </PageHead>
        <JobTabs number={file.number} here="system" cost={seesCost(person)} />
        {plan.system && (
          <p className="mt-4">
            <b>{systemText(plan.system)}</b>{" "}
            <span className="soft">
              with {file.powder.code} {file.powder.data.name}
            </span>
          </p>
        )}
        {file.life && (
          <p className="m-0">
            Usually stands <b className="fig">{lifeText(file.life)}</b> here <Grade grade={file.life.grade} />
            {plan.lifeYears !== null && (
              <>
                {" "}
                ·{" "}
                <Verdict result={judgeLife(plan.lifeYears, file.life)}>
                  {
                    {
                      in: `${plan.lifeYears} years asked: it bears that`,
                      watch: `${plan.lifeYears} years asked: at the edge of what it bears`,
                      out: `${plan.lifeYears} years asked: more than it bears. Do not promise it`,
                      unknown: "",
                    }[judgeLife(plan.lifeYears, file.life)]
                  }
                </Verdict>
                {file.promised !== null && plan.lifeYears > file.promised && (
                  <>
                    {" "}
                    <Verdict result="watch">its powder’s maker promises {countOf(file.promised, "year")}</Verdict>
                  </>
                )}
              </>
            )}
          </p>
        )}
        {own && (
          <p className="m-0 mt-1">
            This shop’s own, on {protectionName[own.protection]}, {wearName[own.wear].toLowerCase()}:{" "}
            <b className="fig">{countOf(own.curve.n, "structure")}</b> followed,{" "}
            {own.curve.medianYears === null
              ? `more than half stand after ${own.curve.longestYears.toFixed(1)} years, the longest any was followed`
              : `half failed somewhere by ${own.curve.medianYears.toFixed(1)} years`}{" "}
            <Grade grade="measured" /> ·{" "}
            <Link className="link" href="/field/ageing">
              the curves
            </Link>
            {plan.lifeYears !== null && reached !== null && plan.lifeYears > reached && (
              <>
                {" "}
                ·{" "}
                <Verdict result="watch">
                  {plan.lifeYears} years asked: longer than{" "}
                  {own.curve.medianYears === null ? "anything was followed" : "half of them stood"}
                </Verdict>
              </>
            )}
            {own.curve.n < 5 && <span className="small soft"> So few say little yet.</span>}
          </p>
        )}
        {!part && <p className="mt-4">{failureText({ kind: "no-measures", part: file.partName })}</p>}
        {file.refused.map((r) => (
          <p key={r.kind} className="m-0 mt-2 border-l-4 border-out pl-3">
            <Verdict result="out">Cannot work</Verdict> {refusalText[r.kind]}{" "}
            {plan.overruled
              .filter((o) => o.kind === r.kind)
              .map((o) => (
                <span key={o.kind}>
                  Done all the same: “{o.reason}”, {o.by}.
                </span>
              ))}
          </p>
        ))}
        <div className="ruled mt-4">
          <h2>Risks that this system leaves</h2>
          {file.risks.length === 0 && <p className="soft">None that is known.</p>}
          {file.risks.map((r) => {
            const [defect, cause] = r.leadsTo[0] ?? ["", ""];
            return (
              <div
                key={r.id}
                className="row grid-cols-[110px_minmax(0,1fr)_200px] max-[700px]:grid-cols-[100px_minmax(0,1fr)]"
              >
                <Verdict result={r.likelihood === "likely" ? "watch" : "unknown"}>{r.likelihood}</Verdict>
                <span>
                  <b>{r.name}.</b> {r.because}
                  <span className="small soft block">
                    leads to {knowledge.defects.get(defect)?.label.toLowerCase() ?? defect} by{" "}
                    {knowledge.causes.get(cause)?.label.toLowerCase() ?? cause} · {r.source}
                  </span>
                </span>
                <span className="max-[700px]:hidden">
                  <span className="small soft">removed by</span>
                  <br />
                  {r.removedBy
                    .map(
                      (code) =>
                        `${optionName[code] ?? code.replaceAll("-", " ")}${optionOutside(code, file.has) ? " (to be had outside)" : ""}`,
                    )
                    .join(", or ")}
                </span>
              </div>
            );
          })}
        </div>
        {advice?.ok && (
          <div className="ruled mt-6">
            <h2>Cheaper, recommended, better</h2>
            {may(person.role, "release") ? (
              <ChangeSystem
                key={plan.version}
                job={file.number}
                seen={plan.version}
                released={plan.released && plan.version > 0}
                advice={advice.value}
                current={plan.system}
                condition={file.condition}
                hanging={file.racks.map((r) => r.number)}
                has={file.has}
                change={planChange}
              />
            ) : (
              <p className="soft">A lead chooses the system.</p>
            )}
            {may(person.role, "release") && (
              <div className="mt-3">
                <MoveRacks
                  job={file.number}
                  seen={plan.version}
                  racks={file.racks.filter((r) => r.version < plan.version)}
                  change={planChange}
                />
              </div>
            )}
            <p className="small soft mt-2">
              <Grade grade="assumed" /> {advice.value.recommended.life.basis}.
            </p>
          </div>
        )}
        {advice && !advice.ok && <p className="mt-4 text-out">{failureText(advice.error)}</p>}
      </section>
      <Margin step="plan">
        <MarginBlock title="What it is and where it will live">
          <p>
            {file.partItem.data.features.map((f) => featureName[f]).join(", ") || "nothing special on it"}
            {part
              ? `; ${sections(part.thinnestMm, part.thickestMm, units)}, ${plainly(part.massKg, "mass", units)}, ${withUnit(part.areaM2, "area", units, 1)}`
              : ""}
          </p>
          <p>
            {plan.exposure.map((e) => exposureName[e]).join(", ")}
            {plan.lifeYears ? `; ${plan.lifeYears} years asked for` : ""}
          </p>
          <p className="soft">
            {plan.condition
              ? `rust ${plan.condition.rust}${plan.condition.scale ? ", scale" : ""}${plan.condition.oil ? ", oil" : ""}${plan.condition.weldSpatter ? ", spatter" : ""}${plan.condition.oldCoating !== "none" ? `, old coating ${plan.condition.oldCoating}` : ""}`
              : "condition not noted"}
          </p>
        </MarginBlock>
        <PlanVersions versions={plan.versions} timeZone={file.site.timeZone} />
        <MarginBlock title="Causes it may come back as">
          <p className="small soft">
            What is declined here is what a case of that defect finds years later.{" "}
            <Link className="link" href="/causes">
              Causes
            </Link>
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
