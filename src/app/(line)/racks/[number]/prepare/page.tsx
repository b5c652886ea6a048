import type { Metadata } from "next";
import { notFound } from "next/navigation";
import {
  filmToProfile,
  holdsWater,
  judgeDryOff,
  type MetalDecision,
  type MetalFault,
  outgasResult,
  type PrepHow,
  type PrepStep,
  prepSteps,
} from "@/core/preparation";
import { passageStages } from "@/core/shorthand";
import { filmAsked } from "@/core/thickness";
import { database } from "@/server/database";
import { airBefore } from "@/server/line/air";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { askedSteps, hottestCureC } from "@/server/rack/asked-steps";
import { lastHow } from "@/server/rack/last-how";
import { loadRack } from "@/server/rack/load-rack";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { usualExtraWork } from "@/server/yield/free-work";
import { Fold } from "@/ui/fields/fold";
import { span, when, withUnit } from "@/ui/format";
import { FocusOnArrival } from "@/ui/frame/focus-on-arrival";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Verdict } from "@/ui/marks/verdict";
import { Photos } from "@/ui/plan/photos";
import { AirNow } from "@/ui/prepare/air-now";
import { DryOffForm } from "@/ui/prepare/dry-off-form";
import { ExtraWorkForm } from "@/ui/prepare/extra-work-form";
import { OutgasForm } from "@/ui/prepare/later";
import { MetalMarks } from "@/ui/prepare/metal-marks";
import { PassageKeys, WasherRun } from "@/ui/prepare/passages";
import { PrepStepRow } from "@/ui/prepare/prep-step-row";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { dryOffReason } from "@/ui/words/preparation";
import { attachPhoto } from "../../../actions";

export const metadata: Metadata = { title: "Prepare" };

export default async function PreparePage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const line = await currentLine(person);
  const [hows, site, conditions, washers, baths, air, { units }] = await Promise.all([
    lastHow(database(), line.at),
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
    return r.base.kind === "prep-step" && row ? [{ base: r.base, by: r.by, row }] : [];
  });
  const asked = askedSteps(rack);
  const seen = new Set(records.map((r) => r.row.step));
  const shown = prepSteps.filter((s) => asked.includes(s) || seen.has(s));
  const rest = prepSteps.filter((s) => !shown.includes(s));
  const cureMetalC = hottestCureC(rack);
  const onRecord = (step: PrepStep) => {
    const found = records.findLast((r) => r.row.step === step);
    return found
      ? {
          recordId: found.base.id,
          done: found.row.done,
          value: found.row.value,
          note: found.row.note ?? "",
          how: found.row.how as PrepHow | null,
          time: when(found.base.happened_at, line.at, line.timeZone),
          by: found.by,
          grade: found.base.grade,
        }
      : null;
  };
  const blasted = passages.find((p) => p.stage === "blast");
  const coated = rack.latest.find((r) => r.base.kind === "coat");
  const bareFrom = blasted?.leftAt ?? blasted?.enteredAt ?? null;
  const bareMs = bareFrom ? (coated?.base.happened_at ?? line.at).getTime() - bareFrom.getTime() : null;
  const bareOut = bareMs !== null && bareMs > line.bareLimitHours * 3_600_000;
  const marks = rack.latest.flatMap((r) =>
    (r.details.metal_mark ?? []).map((m) => ({
      recordId: r.base.id,
      what: m.what as MetalFault,
      face: m.face,
      x: m.x,
      y: m.y,
      decision: m.decision as MetalDecision,
      reason: m.reason,
      who: `${when(r.base.happened_at, line.at, line.timeZone)}, ${r.by}`,
    })),
  );
  const photos = rack.latest.flatMap((r) =>
    r.base.kind === "photo" && r.base.file_id
      ? [
          {
            id: r.base.file_id,
            caption: r.details.photo?.[0]?.caption ?? "",
            when: when(r.base.happened_at, line.at, line.timeZone),
          },
        ]
      : [],
  );
  const wet = holdsWater(rack.part.data.features);
  const dryPass = passages.findLast((p) => p.stage === "dry-off");
  const dryMinutes = dryPass?.seconds ? dryPass.seconds / 60 : null;
  const leastMinutes = wet ? site.dryOffHollowMinutes : site.dryOffMinutes;
  const dryRecord = rack.latest.findLast((r) => r.base.kind === "dry-off");
  const dryRow = dryRecord?.details.dry_off?.[0];
  const dried =
    dryRow &&
    judgeDryOff(
      { minutes: dryMinutes, metalC: dryRow.metal_c, partsDry: dryRow.parts_dry, hollowBlown: dryRow.hollow_blown },
      { leastMinutes, boothMetalC: site.boothMetalC, holdsWater: wet },
    );
  const outgassed = rack.latest.findLast((r) => r.base.kind === "outgas");
  const outgasRow = outgassed?.details.outgas?.[0];
  // What the washer and the route have; a stage passed all the same is shown too.
  const onRoute = new Set([
    ...rack.job.plan.stages,
    ...(washer?.data.stages.map((s) => s.stage) ?? []),
    ...passages.map((p) => p.stage),
    "booth",
    "oven",
    "cool",
  ]);
  // What reaches the browser is what a step is held against, not the site with its rates.
  const { blastProfileUm, dustTapeWorstGrade, solubleSaltMgPerM2, waterBreakHoldsS } = site;
  const limits = { blastProfileUm, dustTapeWorstGrade, solubleSaltMgPerM2, waterBreakHoldsS };
  const row = (step: PrepStep) => (
    <PrepStepRow
      key={step}
      rack={rack.number}
      step={step}
      onRecord={onRecord(step)}
      limits={limits}
      substrate={rack.part.data.substrate}
      cureMetalC={cureMetalC}
      mayLog={mayLog}
      lastHow={hows[step] ?? null}
    />
  );
  const profileUm = onRecord("blast")?.value ?? null;
  const { minUm, maxUm } = filmAsked(rack.job.requirement.film);
  const plannedUm = maxUm === null ? minUm : (minUm + maxUm) / 2;
  const cover = profileUm === null ? null : filmToProfile(plannedUm, profileUm, site.filmToProfileLeast);
  const left = asked.filter((s) => !seen.has(s)).length;
  const extraUsual = mayLog ? await usualExtraWork(database()) : [];
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
        <RackTabs number={rack.number} here="prepare" standing={rack.standing} />
        <FocusOnArrival on="#bench form input.input:not([type=file])" />
        <div className="ruled mt-4">
          <h2>Steps</h2>
          {shown.map(row)}
          {profileUm !== null && cover?.ok && (
            <p className="m-0 mt-2" id="film-over-profile">
              <Verdict result={cover.value.result}>
                The film planned is {cover.value.ratio.toFixed(1)} × this profile
              </Verdict>{" "}
              <span className="small soft">
                {withUnit(plannedUm, "thickness", units)} over {withUnit(profileUm, "thickness", units)}
                {cover.value.result === "in"
                  ? ""
                  : cover.value.result === "out"
                    ? ": peaks come through the film. Ask for more film, or a finer grit."
                    : `: under ${site.filmToProfileLeast} × its peaks come near the face. Build toward the upper end.`}
              </span>
            </p>
          )}
          {rest.length > 0 && mayLog && (
            <Fold className="mt-2" summaryClassName="min-h-11 soft" summary={<>Other steps: {rest.length}</>}>
              {rest.map(row)}
            </Fold>
          )}
        </div>
        {(asked.includes("prebake") || outgassed) && (
          <section className="ruled mt-6" aria-label="Outgassing bake by its trace">
            <h2>Outgassing bake, by the metal’s own trace</h2>
            {outgassed && outgasRow && (
              <p className="m-0">
                <Verdict result={outgasResult(outgasRow.held_c, cureMetalC)}>
                  {outgasRow.held_c === null
                    ? `${outgasRow.channel}: not held 30 min at any heat`
                    : `${outgasRow.channel} held at ${withUnit(outgasRow.held_c, "temperature", units)} for 30 min`}
                </Verdict>{" "}
                <span className="small soft">
                  the cure that follows: {withUnit(cureMetalC, "temperature", units)}
                  {outgasRow.cure_metal_c !== cureMetalC &&
                    `; when it was made it was ${withUnit(outgasRow.cure_metal_c, "temperature", units)}`}{" "}
                  · {when(outgassed.base.happened_at, line.at, line.timeZone)}, {outgassed.by}
                </span>
              </p>
            )}
            {mayLog && <OutgasForm rack={rack.number} cureMetalC={cureMetalC} />}
          </section>
        )}
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
                      // By its speed it comes there later: nothing that happened yet.
                      due: p !== undefined && p.enteredAt > line.at,
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
        {(dryRow || mayLog) && (
          <section className="ruled mt-6" aria-label="Dry-off">
            <h2>
              Out of the dry-off{dryMinutes === null ? "" : `, ${dryMinutes.toFixed(0)} min in it`}
              {wet ? "; tubes and laps hold water" : ""}
            </h2>
            {dryRow && dryRecord && dried && (
              <p className="m-0">
                <Verdict result={dried.result}>
                  {dried.reasons.length === 0
                    ? "dry"
                    : dried.reasons.map((r) => dryOffReason(r, leastMinutes)).join("; ")}
                </Verdict>{" "}
                <span className="small soft">
                  {dryRow.air_c === null ? "" : `air ${withUnit(dryRow.air_c, "temperature", units)}, `}
                  {dryRow.metal_c === null ? "" : `metal ${withUnit(dryRow.metal_c, "temperature", units)}, `}
                  {dryRow.note ? `${dryRow.note}, ` : ""}
                  {when(dryRecord.base.happened_at, line.at, line.timeZone)}, {dryRecord.by}
                </span>
              </p>
            )}
            {mayLog && (
              <Fold
                className="mt-1"
                open={passages.some((p) => p.stage === "dry-off") && !dryRow}
                summary={dryRow ? "Look at it again" : "Look at the parts"}
              >
                <DryOffForm
                  rack={rack.number}
                  minutes={dryMinutes}
                  leastMinutes={leastMinutes}
                  holdsWater={wet}
                  boothMetalC={site.boothMetalC}
                />
              </Fold>
            )}
          </section>
        )}
        <section className="ruled mt-6" aria-label="Bad places on the metal">
          <h2>Bad places on the metal</h2>
          <div className="mt-2">
            <MetalMarks
              rack={rack.number}
              faces={rack.part.data.faces.map((f) => ({ ...f, spots: [] }))}
              marks={marks}
              mayLog={mayLog}
              attach={attachPhoto}
            />
          </div>
          {photos.length > 0 && <Photos photos={photos} />}
        </section>
        {mayLog && (
          <Fold className="mt-6" summary={<>Work nobody ordered</>} summaryClassName="min-h-11">
            <ExtraWorkForm rack={rack.number} usual={extraUsual} />
          </Fold>
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
