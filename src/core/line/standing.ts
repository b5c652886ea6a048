import type { VerdictResult } from "../verdict";
import { leaves, type Rework, reworkOf } from "./decisions";
import { washStages } from "./order";

export const railStages = ["plan", "prepare", "pretreat", "coat", "cure", "test", "release", "field"] as const;
export type RailStage = (typeof railStages)[number];
/** Where on the line each passage is. */
export const stageOfPassage: Readonly<Record<string, RailStage>> = {
  blast: "prepare",
  prebake: "prepare",
  clean: "pretreat",
  "clean-rinse": "pretreat",
  conversion: "pretreat",
  rinse: "pretreat",
  seal: "pretreat",
  "final-rinse": "pretreat",
  "dry-off": "pretreat",
  booth: "coat",
  oven: "cure",
  cool: "test",
};

export const rackStates = [
  "held",
  "adhesion-out",
  "defect",
  "to-coat-again",
  "to-recoat",
  "to-strip",
  "to-touch-up",
  "film-open",
  "bare",
  "to-release",
  "running",
] as const;
export type RackState = (typeof rackStates)[number];

export type HeldBy = "decision" | "adhesion" | "defect";

/** What a rack waits for, in the order of its way. */
export const nextSteps = [
  "prepare",
  "wash",
  "coat",
  "cure",
  "pull",
  "trace",
  "film",
  "tests",
  "release",
  "decide",
  "coat-again",
  "recoat",
  "strip",
  "touch-up",
] as const;
export type NextStep = (typeof nextSteps)[number];

/** What is on record of a rack since it last began its way; moments in ms. */
export type StandingFacts = {
  readonly hungMs: number;
  /** The newest passage. */
  readonly passage: { readonly stage: string; readonly enteredMs: number; readonly leftMs: number | null } | null;
  /** The newest decision on the whole of it, and when it was sent back last. */
  readonly decision: { readonly what: string; readonly atMs: number } | null;
  readonly reworkedMs: number | null;
  /** When places of it were touched up last. */
  readonly touchedUpMs: number | null;
  /** Stages of its route as it was planned. */
  readonly route: readonly string[];
  readonly blastedMs: number | null;
  readonly convertedMs: number | null;
  readonly wipedMs: number | null;
  /** The newest coat's layer and when it went on. */
  readonly coat: { readonly layer: string; readonly atMs: number } | null;
  /** The newest bake it rode in. */
  readonly bake: { readonly closedMs: number; readonly pulledMs: number | null; readonly traced: boolean } | null;
  readonly readings: number;
  readonly asked: number;
  /** Cross-cut grade and the worst that is accepted. */
  readonly iso: number | null;
  readonly worstIso: number;
  readonly rubbed: boolean;
  /** Tests that a plan lets it stand by another rack for, or that were left out with a reason; and how many it still asks. */
  readonly covered: readonly string[];
  readonly testsDue: number;
  readonly defect: string | null;
};

export type Standing = {
  readonly stage: RailStage;
  /** The passage it stands in or came out of. */
  readonly passage: string;
  readonly sinceMs: number;
  /** Still in that passage. */
  readonly open: boolean;
  readonly state: RackState;
  readonly result: VerdictResult;
  readonly next: NextStep | null;
  /** Since when that is due. */
  readonly nextSinceMs: number;
  /** What it is held for: what is wrong on record, else a decision to hold alone; null where nothing holds it. */
  readonly heldBy: HeldBy | null;
  readonly bareSinceMs: number | null;
  readonly unsealedSinceMs: number | null;
  readonly wipedMs: number | null;
  /** When a decision took it off the line; null while it is on it. */
  readonly goneMs: number | null;
};

/**
 * Where a rack stands and what it waits for, from its records alone. A decision that lets it go (accept, concede, downgrade,
 * scrap) takes it off the line, and nothing else does: not its age, not how many others there are.
 */
export function standingOf(facts: StandingFacts): Standing {
  const { passage, decision, bake, coat, readings, asked } = facts;
  const goneMs = decision && leaves(decision.what) ? decision.atMs : null;
  const held = decision?.what === "hold";
  const toTouchUp =
    decision?.what === "touch-up" && !(facts.touchedUpMs !== null && facts.touchedUpMs >= decision.atMs);
  const sentBack = facts.reworkedMs !== null && passage === null && coat === null && !held;
  const rework = reworkOf(decision?.what);
  const due = toTouchUp ? { step: "touch-up" as const, sinceMs: decision.atMs } : nextOf(facts, sentBack);
  const stage: RailStage = sentBack
    ? rework === "wipe-off"
      ? "coat"
      : "prepare"
    : held || toTouchUp || due.step === "release"
      ? "release"
      : due.step === "trace" || due.step === "film" || due.step === "tests"
        ? "test"
        : bake && bake.pulledMs === null
          ? "cure"
          : passage
            ? passage.stage === "oven" && passage.leftMs !== null
              ? "test"
              : (stageOfPassage[passage.stage] ?? "prepare")
            : "prepare";
  const adhesionOut = (facts.iso ?? 0) > facts.worstIso;
  const bareSinceMs = facts.blastedMs !== null && !coat ? facts.blastedMs : null;
  const state: RackState = sentBack
    ? sentTo[rework ?? "scuff-and-recoat"].state
    : held
      ? "held"
      : toTouchUp
        ? "to-touch-up"
        : adhesionOut
          ? "adhesion-out"
          : facts.defect
            ? "defect"
            : readings > 0 && readings < asked
              ? "film-open"
              : stage === "release"
                ? "to-release"
                : bareSinceMs !== null && passage?.leftMs !== null
                  ? "bare"
                  : "running";
  const result: VerdictResult =
    state === "held" || state === "adhesion-out"
      ? "out"
      : state === "defect" || sentBack || toTouchUp
        ? "watch"
        : due.step === "trace" || due.step === "film" || due.step === "tests"
          ? "unknown"
          : "in";
  return {
    stage,
    passage: passage?.stage ?? (sentBack ? "sent back" : "hung"),
    sinceMs: passage?.leftMs ?? passage?.enteredMs ?? facts.reworkedMs ?? facts.hungMs,
    open: passage !== null && passage.leftMs === null,
    state,
    result,
    next: goneMs === null ? due.step : null,
    nextSinceMs: due.sinceMs,
    heldBy: adhesionOut ? "adhesion" : facts.defect ? "defect" : held ? "decision" : null,
    bareSinceMs,
    unsealedSinceMs: coat ? null : facts.convertedMs,
    wipedMs: coat ? null : facts.wipedMs,
    goneMs,
  };
}

/** What a decision to rework sends it to. */
const sentTo: Readonly<Record<Rework, { readonly state: RackState; readonly next: NextStep }>> = {
  "wipe-off": { state: "to-coat-again", next: "coat-again" },
  "scuff-and-recoat": { state: "to-recoat", next: "recoat" },
  strip: { state: "to-strip", next: "strip" },
};

/** The step that is due, and since when. */
function nextOf(facts: StandingFacts, sentBack: boolean): { readonly step: NextStep; readonly sinceMs: number } {
  const { passage, decision, bake, coat } = facts;
  if (decision?.what === "hold") return { step: "decide", sinceMs: decision.atMs };
  if (sentBack)
    return {
      step: sentTo[reworkOf(decision?.what) ?? "scuff-and-recoat"].next,
      sinceMs: facts.reworkedMs ?? facts.hungMs,
    };
  const baked = bake && (!coat || bake.closedMs >= coat.atMs) ? bake : null;
  if (baked && baked.pulledMs === null && !cameOut(passage, baked.closedMs))
    return { step: "pull", sinceMs: baked.closedMs };
  if (baked || facts.readings > 0) {
    const outMs = baked?.pulledMs ?? passage?.leftMs ?? passage?.enteredMs ?? facts.hungMs;
    // A primer that was gelled waits for the coat over it.
    if (coat?.layer === "primer" && facts.readings === 0) return { step: "coat", sinceMs: outMs };
    if (baked && !baked.traced) return { step: "trace", sinceMs: outMs };
    if (facts.readings < facts.asked) return { step: "film", sinceMs: outMs };
    const open = (test: string, done: boolean) => !done && !facts.covered.includes(test);
    if (open("adhesion", facts.iso !== null) || open("rub", facts.rubbed) || facts.testsDue > 0)
      return { step: "tests", sinceMs: outMs };
    return { step: "release", sinceMs: outMs };
  }
  const left = passage?.leftMs ?? passage?.enteredMs ?? facts.hungMs;
  if (coat || passage?.stage === "booth") return { step: "cure", sinceMs: coat?.atMs ?? left };
  if (passage?.stage === "oven" || passage?.stage === "cool") return { step: "trace", sinceMs: left };
  const toWash = facts.route.some((stage) => washStages.has(stage)) && facts.convertedMs === null;
  if (!passage) return { step: facts.route.length > 0 || toWash ? "prepare" : "coat", sinceMs: facts.hungMs };
  if (washStages.has(passage.stage) && !toWash) return { step: "coat", sinceMs: left };
  return { step: toWash ? "wash" : "coat", sinceMs: left };
}

/** A load pulled by hand where its bake does not say so: the rack is on record as out of the oven. */
const cameOut = (passage: StandingFacts["passage"], closedMs: number): boolean =>
  passage !== null &&
  ((passage.stage === "oven" && passage.leftMs !== null && passage.leftMs > closedMs) ||
    (passage.stage === "cool" && passage.enteredMs > closedMs));
