import { within } from "@/core/limits";
import { washStages } from "@/core/line";
import { holdsWater, judgeDryOff, judgePrepStep, outgasResult, type PrepStep } from "@/core/preparation";
import { weakestGrade, worstResult } from "@/core/verdict";
import type { Conditions } from "../../trace/conditions";
import { askedSteps, hottestCureC } from "../asked-steps";
import type { RackFile } from "../load-rack";
import { sentBackFor } from "../passes";
import type { Judged } from "./common";

export type MetalItem =
  | (Judged & {
      readonly item: "steps";
      readonly asked: number;
      /** Not on record at all, left out with a reason, out of their windows. */
      readonly missing: readonly PrepStep[];
      readonly leftOut: readonly { readonly step: PrepStep; readonly why: string }[];
      readonly off: readonly PrepStep[];
    })
  | (Judged & { readonly item: "outgassing"; readonly heldC: number | null; readonly cureMetalC: number })
  | (Judged & {
      readonly item: "pretreatment";
      /** Stages of its route without a passage. */
      readonly notPassed: readonly string[];
      /** A value lay outside its window, not only near it. */
      readonly bathOut: boolean;
      readonly worst: {
        readonly bath: string;
        readonly parameter: string;
        readonly value: number | null;
        readonly lower: number | null;
        readonly upper: number | null;
      } | null;
    })
  | (Judged & {
      readonly item: "contact";
      readonly stage: string;
      /** Null while nobody saw it leave. */
      readonly seconds: number | null;
      readonly window: readonly [number, number];
    })
  | (Judged & {
      readonly item: "dry-off";
      readonly minutes: number | null;
      readonly leastMinutes: number | null;
      readonly reasons: readonly string[];
    });

/** What was done with the metal before powder: steps, gas, wash, time in each bath, dry-off; only what its route or metal asks for. */
export function metalItems(rack: RackFile, met: Conditions): MetalItem[] {
  return [...steps(rack), ...outgassing(rack), ...pretreatment(rack, met), ...contact(rack, met), ...dryOff(rack, met)];
}

function steps(rack: RackFile): MetalItem[] {
  const asked = askedSteps(rack);
  if (asked.length === 0) return [];
  // The newest record of each step over the same metal.
  const rows = rack.evidence.flatMap((r) => (r.details.prep_step ?? []).map((row) => ({ base: r.base, row })));
  const cureC = hottestCureC(rack);
  const judged = asked.map((step) => {
    const found = rows.findLast((x) => x.row.step === step);
    if (!found) return { step, found, result: "unknown" as const };
    if (!found.row.done) return { step, found, result: "watch" as const };
    return { step, found, result: judgePrepStep({ step, done: true, value: found.row.value }, rack.limits, cureC) };
  });
  const missing = judged.filter((j) => !j.found).map((j) => j.step);
  const off = judged.filter((j) => j.found?.row.done && j.result !== "in").map((j) => j.step);
  const leftOut = judged.flatMap((j) =>
    j.found && !j.found.row.done ? [{ step: j.step, why: j.found.row.note ?? "" }] : [],
  );
  const out = judged.some((j) => j.result === "out");
  return [
    {
      item: "steps",
      result: out ? "out" : missing.length > 0 ? "unknown" : worstResult(judged.map((j) => j.result)),
      grade: missing.length > 0 ? "unknown" : weakestGrade(judged.map((j) => j.found?.base.grade ?? "unknown")),
      sources: judged.flatMap((j) => j.found?.base.id ?? []),
      asked: asked.length,
      missing,
      leftOut,
      off,
    },
  ];
}

/** By its trace, where there is one; a bake noted by hand is a step among the others. */
function outgassing(rack: RackFile): MetalItem[] {
  const record = rack.evidence.findLast((r) => r.base.kind === "outgas");
  const row = record?.details.outgas?.[0];
  if (!record || !row) return [];
  // Held against the cure that follows now: the powder may have been changed since.
  const cureMetalC = hottestCureC(rack);
  return [
    {
      item: "outgassing",
      result: outgasResult(row.held_c, cureMetalC),
      grade: record.base.grade,
      sources: [record.base.id],
      heldC: row.held_c,
      cureMetalC,
    },
  ];
}

function pretreatment(rack: RackFile, met: Conditions): MetalItem[] {
  const route = rack.job.plan.stages.filter((stage) => washStages.has(stage) && stage !== "dry-off");
  const passed = new Set(met.passages.map((p) => p.stage));
  const recoat = sentBackFor(rack) === "scuff-and-recoat";
  const notPassed = recoat ? [] : route.filter((stage) => !passed.has(stage));
  if (route.length === 0 && met.baths.length === 0) return [];
  const result = worstResult(met.baths.map((b) => b.result));
  const limiting = met.baths.find((b) => b.result === result) ?? met.baths[0];
  return [
    {
      // A bath out of its window is a reason to look, not by itself a failed piece: the tests on the film decide.
      item: "pretreatment",
      result: notPassed.length > 0 || met.baths.length === 0 ? "unknown" : result === "out" ? "watch" : result,
      grade: notPassed.length > 0 ? "unknown" : weakestGrade(met.baths.map((b) => b.found.grade)),
      sources: [...new Set(met.baths.flatMap((b) => b.found.sources))],
      notPassed,
      bathOut: result === "out",
      worst: limiting
        ? {
            bath: limiting.bath,
            parameter: limiting.parameter,
            value: limiting.found.value,
            lower: limiting.lower,
            upper: limiting.upper,
          }
        : null,
    },
  ];
}

/** Time in each bath that has a window for it, from both ends of the passage. */
function contact(_rack: RackFile, met: Conditions): MetalItem[] {
  const windows = new Map(met.baths.flatMap((b) => (b.contactS ? [[b.stage, b.contactS] as const] : [])));
  return [...windows].map(([stage, window]): MetalItem => {
    const passages = met.passages.filter((p) => p.stage === stage);
    const known = passages.filter((p) => p.seconds !== null);
    const off = known.find((p) => !within(p.seconds as number, window[0], window[1]));
    const unseen = passages.find((p) => p.seconds === null);
    const shown = off ?? unseen ?? known[0];
    return {
      item: "contact",
      result: off ? "out" : unseen || !shown ? "unknown" : "in",
      grade: !off && (unseen || !shown) ? "unknown" : weakestGrade(known.map((p) => p.grade)),
      sources: passages.map((p) => p.recordId),
      stage,
      seconds: shown?.seconds ?? null,
      window,
    };
  });
}

function dryOff(rack: RackFile, met: Conditions): MetalItem[] {
  const asked = rack.job.plan.stages.includes("dry-off");
  const record = rack.evidence.findLast((r) => r.base.kind === "dry-off");
  const row = record?.details.dry_off?.[0];
  const wet = holdsWater(rack.part.data.features);
  const passage = met.passages.findLast((p) => p.stage === "dry-off");
  if (!asked && !row) return [];
  const leastMinutes = wet ? rack.limits.dryOffHollowMinutes : rack.limits.dryOffMinutes;
  // Who looked at it out of the dry-off, or coated it, had it out by then, whatever was logged next.
  const outBy = passage
    ? rack.evidence
        .filter((r) => ["dry-off", "coat"].includes(r.base.kind) && r.base.happened_at > passage.enteredAt)
        .map((r) => (r.base.happened_at.getTime() - passage.enteredAt.getTime()) / 60_000)
    : [];
  const logged = passage?.seconds == null ? [] : [passage.seconds / 60];
  const minutes = logged.length + outBy.length === 0 ? null : Math.min(...logged, ...outBy);
  if (!record || !row) {
    // Its time alone says that it was long enough, by procedure; that it came out dry nobody looked at.
    const short = minutes !== null && !within(minutes, leastMinutes, null);
    return [
      {
        item: "dry-off",
        result: short ? "watch" : minutes === null || wet ? "unknown" : "in",
        grade: minutes === null || wet ? "unknown" : "by-procedure",
        sources: passage ? [passage.recordId] : [],
        minutes,
        leastMinutes,
        reasons: short ? ["too-short"] : [],
      },
    ];
  }
  const judged = judgeDryOff(
    { minutes, metalC: row.metal_c, partsDry: row.parts_dry, hollowBlown: row.hollow_blown },
    { leastMinutes, boothMetalC: rack.limits.boothMetalC, holdsWater: wet },
  );
  return [
    {
      item: "dry-off",
      result: judged.result,
      grade: record.base.grade,
      sources: [record.base.id, ...(passage ? [passage.recordId] : [])],
      minutes,
      leastMinutes,
      reasons: judged.reasons,
    },
  ];
}
