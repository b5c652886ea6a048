import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { type PrepStep, prepSteps, stepsAskedFor } from "@/core/preparation";
import { passageStages } from "@/core/shorthand";
import { database } from "@/server/database";
import { airBefore } from "@/server/line/air";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { loadRack } from "@/server/rack/load-rack";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { span, when } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Verdict } from "@/ui/marks/verdict";
import { AirNow } from "@/ui/prepare/air-now";
import { PassageKeys, WasherRun } from "@/ui/prepare/passages";
import { PrepStepRow } from "@/ui/prepare/prep-step-row";
import { RackTabs } from "@/ui/rack/rack-tabs";

export const metadata: Metadata = { title: "Prepare" };

export default async function PreparePage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const line = await currentLine(person);
  const [site, conditions, washers, baths, air, { units }] = await Promise.all([
    siteAt(database(), rack.hungAt),
    conditionsWhenPassed(database(), [rack.id], rack.hungAt),
    setupAt(database(), "line", line.at),
    setupAt(database(), "bath", line.at),
    airBefore(database(), line.at, line.dewPointMarginC),
    preferences(),
  ]);
  const [washer] = washers.values();
  const mayLog = may(person.role, "log-line");
  const mine = new Set(rack.latest.map((r) => r.base.id));
  const passages = conditions.passages.filter((p) => mine.has(p.recordId));
  const records = rack.latest.flatMap((r) => {
    const row = r.details.prep_step?.[0];
    return r.base.kind === "prep-step" && row ? [{ base: r.base, row }] : [];
  });
  const asked = stepsAskedFor({
    substrate: rack.part.data.substrate,
    features: rack.part.data.features,
    stages: rack.job.plan.stages,
    recoat: rack.passes[rack.pass]?.after?.decision === "scuff-and-recoat",
  });
  const seen = new Set(records.map((r) => r.row.step));
  const shown = prepSteps.filter((s) => asked.includes(s) || seen.has(s));
  const rest = prepSteps.filter((s) => !shown.includes(s));
  const cureMetalC = Math.max(...rack.powder.data.schedule.map((p) => p.metalC));
  const onRecord = (step: PrepStep) => {
    const found = records.findLast((r) => r.row.step === step);
    return found
      ? {
          recordId: found.base.id,
          done: found.row.done,
          value: found.row.value,
          note: found.row.note ?? "",
          time: when(found.base.happened_at, line.at, line.timeZone),
          by: found.base.by_user,
          grade: found.base.grade,
        }
      : null;
  };
  const blasted = passages.find((p) => p.stage === "blast");
  const coated = rack.latest.find((r) => r.base.kind === "coat");
  const bareFrom = blasted?.leftAt ?? blasted?.enteredAt ?? null;
  const bareMs = bareFrom ? (coated?.base.happened_at ?? line.at).getTime() - bareFrom.getTime() : null;
  const bareOut = bareMs !== null && bareMs > line.bareLimitHours * 3_600_000;
  // What the washer and the route have; a stage passed all the same is shown too.
  const onRoute = new Set([
    ...rack.job.plan.stages,
    ...(washer?.data.stages.map((s) => s.stage) ?? []),
    ...passages.map((p) => p.stage),
    "booth",
    "oven",
    "cool",
  ]);
  const row = (step: PrepStep) => (
    <PrepStepRow
      key={step}
      rack={rack.number}
      step={step}
      onRecord={onRecord(step)}
      limits={site}
      cureMetalC={cureMetalC}
      mayLog={mayLog}
    />
  );
  const left = asked.filter((s) => !seen.has(s)).length;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Rack {rack.number} · {rack.part.data.name}, {rack.part.data.substrate.replaceAll("-", " ")}
              {rack.pass > 0 ? ` · pass ${rack.pass + 1}, sent back to be done again` : ""}
            </>
          }
          title="Prepare and pass on"
        >
          {bareMs !== null && (
            <Verdict result={bareOut ? "out" : "in"}>
              {coated ? "Was bare" : "Bare"} {span(bareMs)}
            </Verdict>
          )}
          <div className="small soft">
            {left === 0 ? "every step asked for is on record" : `${left} of ${asked.length} steps asked for to go`}
          </div>
        </PageHead>
        <RackTabs number={rack.number} here="prepare" />
        <div className="ruled mt-4">
          <h2>Steps</h2>
          {shown.map(row)}
          {rest.length > 0 && mayLog && (
            <details className="mt-2">
              <summary className="min-h-11 cursor-pointer content-center soft">Other steps: {rest.length}</summary>
              {rest.map(row)}
            </details>
          )}
        </div>
        {mayLog && (
          <div className="ruled mt-6">
            <h2>Into the next stage</h2>
            <div className="mt-2">
              <PassageKeys
                rack={rack.number}
                passages={passageStages
                  .filter((s) => onRoute.has(s))
                  .map((stage) => {
                    const p = passages.findLast((x) => x.stage === stage);
                    return {
                      stage,
                      time: p ? when(p.enteredAt, line.at, line.timeZone) : null,
                      bySpeed: p?.grade === "by-procedure",
                    };
                  })}
              />
            </div>
            {washer && (
              <WasherRun
                rack={rack.number}
                washer={{
                  code: washer.code,
                  ...washer.data,
                  contactS: Object.fromEntries(
                    [...baths.values()].flatMap((b) => (b.data.contactS ? [[b.data.stage, b.data.contactS]] : [])),
                  ),
                }}
              />
            )}
          </div>
        )}
      </section>
      <Margin step="prepare">
        <AirNow
          units={units}
          air={air}
          marginC={site.dewPointMarginC}
          now={line.at}
          timeZone={line.timeZone}
          mayLog={mayLog}
        />
        <MarginBlock title="Time bare">
          <p>
            {bareMs === null
              ? "Starts with the blast."
              : coated
                ? `Blast to powder took ${span(bareMs)}.`
                : `${span(bareMs)} since the blast; the limit is ${line.bareLimitHours} h${line.humidityPercent === null ? ", no humidity read" : ` at ${line.humidityPercent.toFixed(0)} % humidity`}.`}
          </p>
        </MarginBlock>
        <MarginBlock title="Order">
          <p className="small soft">
            Grease off before blast; seals out before any oven; the outgassing bake hotter than the cure that follows (
            {cureMetalC} °C). From the wipe on, gloves only.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
