import {
  holdsWater,
  judgeDryOff,
  judgePrepStep,
  type MetalDecision,
  type MetalFault,
  type PreparationLimits,
  type PrepStep,
} from "@/core/preparation";
import type { UnitSystem } from "@/core/units";
import type { VerdictResult } from "@/core/verdict";
import type { RackVerdict } from "@/server/rack/judge-rack";
import type { RackFile, ThreadRecord } from "@/server/rack/load-rack";
import type { Conditions } from "@/server/trace/conditions";
import { clock, dateAndTime, minutesSeconds, span, when, withUnit } from "../format";
import { bathValue, parameterName } from "../words/baths";
import { decisionWords } from "../words/decisions";
import { dryOffReason, metalDecisionName, metalFaultName, prepFigure, prepStepName } from "../words/preparation";
import { itemSentence } from "../words/verdict";
import type { Bead } from "./thread";

/** What beads are made of: the rack as of one pass, judged, with what its set-up asks for. */
export type BeadsInput = {
  readonly rack: RackFile;
  readonly verdict: RackVerdict;
  readonly conditions: Conditions;
  readonly limits: PreparationLimits;
  readonly earthLimitMohm: number | null;
  readonly units: UnitSystem;
  readonly timeZone: string;
};
const of = (rack: RackFile, kind: string): ThreadRecord[] => rack.latest.filter((r) => r.base.kind === kind);
const stepOf = (record: ThreadRecord) => record.details.prep_step?.[0];

/**
 * One pass of a rack's thread, stage by stage. The first runs from quote to decision, with missing stages as beads of
 * their own: unknown, said as such. A later one branches off the decision that sent the rack back.
 */
export function beadsOf(input: BeadsInput): Bead[] {
  const { rack, timeZone } = input;
  const first = rack.pass === 0;
  const start = rack.passes[0]?.records[0]?.base.happened_at ?? rack.hungAt;
  const time: Timed = (at) => ({
    time: at ? (first ? clock(at, timeZone) : when(at, start, timeZone)) : "",
    ...(at && { atMs: at.getTime() }),
  });
  const beads = [
    ...(first ? [planBead(rack, timeZone)] : []),
    ...prepareBeads(input, time),
    ...washBeads(input, time),
    ...coatBeads(input, time),
    ...cureBeads(input, time),
    ...testBeads(input, time),
    releaseBead(input, time),
  ];
  return inTime(beads).map((bead) => ({ ...bead, key: `${rack.pass}:${bead.key}`, branch: rack.pass }));
}

/** When a bead was, as it is written and as it is ordered by. */
type Timed = (at: Date | undefined) => { readonly time: string; readonly atMs?: number };

/** A thread runs by time: what has a moment stands in its order, what is missing stays behind what it follows on the route. */
function inTime(beads: readonly Bead[]): Bead[] {
  let last = Number.NEGATIVE_INFINITY;
  return beads
    .map((bead, i) => {
      last = bead.atMs ?? last;
      return { bead, i, atMs: bead.atMs ?? last };
    })
    .sort((a, b) => a.atMs - b.atMs || a.i - b.i)
    .map(({ bead }) => bead);
}

/** What was agreed before the metal came in: what was turned down first, since that is what is asked for years later. */
function planBead(rack: RackFile, timeZone: string): Bead {
  const { plan } = rack.job;
  const declined = plan.offered.filter((o) => o.state === "declined");
  const taken = plan.offered.filter((o) => o.state === "taken");
  return {
    key: "plan",
    stage: "Plan",
    time: dateAndTime(rack.job.receivedAt, timeZone).split(",")[0] ?? "",
    href: `/jobs/${rack.job.number}`,
    result: declined.length > 0 ? "watch" : "in",
    grade: "measured",
    note: plan.version > 0 ? `plan ${plan.version}` : "",
    text: (
      <>
        {declined.map((o) => (
          <span key={o.what} className="block">
            {o.what} offered{o.pricePercent ? ` at +${o.pricePercent} %` : ""}, <b>declined</b> by {o.by} on {o.on};{" "}
            {o.risk}
          </span>
        ))}
        {declined.length === 0 && (
          <>
            Job {rack.job.number}: {rack.powder.code} {rack.powder.data.name}, {plan.primer ? "primed" : "one coat"}
            {taken.length > 0 ? `; taken: ${taken.map((o) => o.what.toLowerCase()).join(", ")}` : ""}
          </>
        )}
      </>
    ),
  };
}

/** Steps of preparation: the blast with how long the metal stood bare, then every other step that is on record. */
function prepareBeads({ rack, conditions, limits, units }: BeadsInput, time: Timed): Bead[] {
  const beads: Bead[] = [];
  const hottest = Math.max(...rack.powder.data.schedule.map((p) => p.metalC));
  const judged = (record: ThreadRecord): VerdictResult => {
    const row = stepOf(record);
    return row
      ? judgePrepStep({ step: row.step as PrepStep, done: row.done, value: row.value }, limits, hottest)
      : "unknown";
  };
  const steps = of(rack, "prep-step");
  const blast = steps.findLast((r) => stepOf(r)?.step === "blast");
  const coat = of(rack, "coat")[0];
  const blastPass = conditions.passages.find(
    (p) => rack.latest.some((r) => r.base.id === p.recordId) && p.stage === "blast",
  );
  const bareFrom = blastPass?.enteredAt ?? blast?.base.happened_at;
  const bare = coat && bareFrom ? coat.base.happened_at.getTime() - bareFrom.getTime() : null;
  if (blast || rack.pass === 0)
    beads.push({
      key: "prepare",
      stage: "Prepare",
      ...time(blast?.base.happened_at),
      href: `/racks/${rack.number}/prepare`,
      result: blast ? judged(blast) : "unknown",
      grade: blast?.base.grade ?? "unknown",
      note: "",
      text: blast ? (
        stepOf(blast)?.done ? (
          <>
            Blasted; profile{" "}
            <b className="fig">
              {stepOf(blast)?.value == null ? "–" : withUnit(stepOf(blast)?.value ?? 0, "thickness", units)}
            </b>
            {bare !== null && (
              <>
                , bare <b className="fig">{span(bare)}</b>
              </>
            )}
          </>
        ) : (
          <>
            Blast <b>left out</b>: {stepOf(blast)?.note}
          </>
        )
      ) : (
        "Blast not recorded"
      ),
    });
  for (const record of of(rack, "metal-mark")) {
    const m = record.details.metal_mark?.[0];
    if (m)
      beads.push({
        key: record.base.id,
        stage: "Metal",
        ...time(record.base.happened_at),
        href: `/racks/${rack.number}/prepare`,
        result: m.decision === "do-again" ? "in" : "watch",
        grade: record.base.grade,
        note: "",
        text: (
          <>
            <b>{metalFaultName[m.what as MetalFault] ?? m.what}</b> on {m.face}:{" "}
            {metalDecisionName[m.decision as MetalDecision] ?? m.decision}; {m.reason}
          </>
        ),
      });
  }
  for (const record of steps) {
    const row = stepOf(record);
    if (!row || row.step === "blast") continue;
    const step = row.step as PrepStep;
    beads.push({
      key: record.base.id,
      stage: step === "prebake" ? "Outgas" : "Prepare",
      ...time(record.base.happened_at),
      href: `/racks/${rack.number}/prepare`,
      result: judged(record) === "out" && !row.done ? "watch" : judged(record),
      grade: record.base.grade,
      note: "",
      text: (
        <>
          {prepStepName[step] ?? row.step}
          {row.value !== null && (
            <>
              {" "}
              <b className="fig">{prepFigure(step, row.value, units)}</b>
            </>
          )}
          {!row.done && (
            <>
              {" "}
              <b>left out</b>
              {row.note ? `: ${row.note}` : ""}
            </>
          )}
        </>
      ),
    });
  }
  return beads;
}

function washBeads({ rack, verdict, conditions: all, units }: BeadsInput, time: Timed): Bead[] {
  const beads: Bead[] = [];
  const add = (bead: Bead) => beads.push(bead);
  const mine = new Set(rack.latest.map((r) => r.base.id));
  const conditions = { ...all, passages: all.passages.filter((p) => mine.has(p.recordId)) };
  const wash = conditions.passages.find((p) => p.stage === "conversion");
  const item = verdict.items.find((i) => i.item === "pretreatment");
  const dry = conditions.passages.find((p) => p.stage === "dry-off");
  const values = conditions.baths.map(
    (b) =>
      `${b.bath.split(" ").slice(0, 2).join(" ")} ${parameterName[b.parameter]} ${b.found.value === null ? "–" : bathValue(b.parameter, b.found.value, units)}`,
  );
  if (wash || rack.pass === 0)
    add({
      key: "pretreat",
      stage: "Pretreat",
      ...time(wash?.enteredAt),
      href: `/racks/${rack.number}/prepare`,
      result: item?.result ?? "unknown",
      grade: item?.grade ?? "unknown",
      note: dry?.seconds ? `dried ${minutesSeconds(dry.seconds)}` : "",
      text: wash ? (
        <>
          {values.slice(0, 3).join(", ")}
          {wash.seconds ? `; contact ${wash.seconds.toFixed(0)} s` : ""}
        </>
      ) : (
        "Wash not recorded"
      ),
    });
  for (const record of of(rack, "dry-off")) {
    const d = record.details.dry_off?.[0];
    if (!d) continue;
    const wet = holdsWater(rack.part.data.features);
    const limits = { leastMinutes: null, boothMetalC: Number.POSITIVE_INFINITY, holdsWater: wet };
    const judged = judgeDryOff(
      { minutes: null, metalC: d.metal_c, partsDry: d.parts_dry, hollowBlown: d.hollow_blown },
      limits,
    );
    add({
      key: record.base.id,
      stage: "Dry-off",
      ...time(record.base.happened_at),
      href: `/racks/${rack.number}/prepare`,
      result: judged.result,
      grade: record.base.grade,
      note: d.metal_c === null ? "" : `metal ${withUnit(d.metal_c, "temperature", units)}`,
      text:
        judged.reasons.length === 0
          ? wet
            ? "Dry, tubes and laps blown out"
            : "Out of the dry-off, dry"
          : judged.reasons.map((r) => dryOffReason(r, null)).join("; "),
    });
  }
  return beads;
}

function coatBeads({ rack, earthLimitMohm }: BeadsInput, time: Timed): Bead[] {
  const beads: Bead[] = [];
  const add = (bead: Bead) => beads.push(bead);
  for (const record of of(rack, "coat")) {
    const c = record.details.coat?.[0];
    if (c)
      add({
        key: record.base.id,
        stage: "Coat",
        ...time(record.base.happened_at),
        href: `/racks/${rack.number}/coat`,
        result:
          c.earth_mohm === null || earthLimitMohm === null ? "unknown" : c.earth_mohm > earthLimitMohm ? "out" : "in",
        grade: record.base.grade,
        note: "",
        text: (
          <>
            {c.layer === "primer" ? "Primer" : `${rack.powder.code} ${rack.powder.data.name}`}
            {c.coat_no > 1 ? `, coat ${c.coat_no}` : ""}, {c.booth}
            {c.kv !== null && (
              <>
                , <b className="fig">{c.kv} kV</b>
              </>
            )}
            {c.earth_mohm !== null && (
              <>
                , earth <span className="fig">{c.earth_mohm} MΩ</span>
              </>
            )}
          </>
        ),
      });
  }
  return beads;
}

function cureBeads({ rack, verdict, units }: BeadsInput, time: Timed): Bead[] {
  const root = `/racks/${rack.number}`;
  const cure = verdict.items.find((i) => i.item === "cure");
  const bake = of(rack, "bake").at(-1);
  if (!cure || (!bake && rack.pass > 0)) return [];
  return [
    {
      key: "cure",
      stage: "Cure",
      ...time(bake?.base.happened_at),
      href: bake ? `${root}/cure` : null,
      result: cure.result,
      grade: cure.grade,
      note: bake?.details.bake_place?.[0]
        ? bake.details.bake?.[0]?.sections
          ? "under lamps"
          : `place ${bake.details.bake_place.find((p) => p.rack_id === rack.id)?.place}`
        : "",
      text: itemSentence(cure, units).text,
    },
  ];
}

function testBeads({ rack, verdict, units }: BeadsInput, time: Timed): Bead[] {
  const root = `/racks/${rack.number}`;
  const beads: Bead[] = [];
  const add = (bead: Bead) => beads.push(bead);
  for (const name of ["film", "adhesion", "rub"] as const) {
    const found = verdict.items.find((i) => i.item === name);
    if (!found || (rack.pass > 0 && found.sources.length === 0)) continue;
    const record = rack.latest.find((r) => r.base.id === found.sources[0]);
    add({
      key: name,
      stage: name === "film" ? "Film" : name === "adhesion" ? "Adhesion" : "Rub",
      ...time(record?.base.happened_at),
      href: name === "film" ? `${root}/thickness` : `${root}/bench`,
      result: found.result,
      grade: found.grade,
      note: "",
      text: itemSentence(found, units).text,
    });
  }
  for (const record of of(rack, "defect")) {
    const d = record.details.defect?.[0];
    if (d)
      add({
        key: record.base.id,
        stage: "Defect",
        ...time(record.base.happened_at),
        href: `${root}/release`,
        result: "out",
        grade: record.base.grade,
        note: d.pieces_affected !== null ? `${d.pieces_affected} of ${d.pieces_seen ?? "?"}` : "",
        text: (
          <>
            <b>{d.defect.replaceAll("-", " ")}</b>
            {d.face ? ` on ${d.face}` : ""}
            {d.note ? `: ${d.note}` : ""}
          </>
        ),
      });
  }
  return beads;
}

function releaseBead({ rack }: BeadsInput, time: Timed): Bead {
  const root = `/racks/${rack.number}`;
  const decided = [...of(rack, "disposition")].reverse()[0];
  const row = decided?.details.disposition?.[0];
  return {
    key: "release",
    stage: "Release",
    ...time(decided?.base.happened_at),
    href: `${root}/release`,
    result: row ? (row.decision === "accept" || row.decision === "concession" ? "in" : "out") : "unknown",
    grade: decided ? "measured" : "unknown",
    note: "",
    text: row ? (
      <>
        <b>{decisionWords[row.decision] ?? row.decision}</b> by {row.signed_name}: {row.note}
      </>
    ) : (
      "No decision yet"
    ),
  };
}
