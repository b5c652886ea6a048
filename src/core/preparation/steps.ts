import { within } from "../limits";
import type { VerdictResult } from "../verdict";

export const prepSteps = [
  "strip",
  "seals-out",
  "degrease",
  "grind",
  "break-edges",
  "blast",
  "sand",
  "scuff",
  "look-over",
  "blow-off",
  "dust-tape",
  "solvent-wipe",
  "soluble-salt",
  "water-break",
  "prebake",
  "masks-in",
] as const;
export type PrepStep = (typeof prepSteps)[number];

/** What is measured at a step, in its canonical unit, and what no instrument reads beyond. A step not listed is done or not done. */
export const prepMeasures: {
  readonly [K in PrepStep]?: {
    readonly quantity: string;
    readonly unit: string;
    readonly bounds: readonly [number, number];
  };
} = {
  blast: { quantity: "blast profile", unit: "µm", bounds: [0, 400] },
  "look-over": { quantity: "damaged places", unit: "places", bounds: [0, 500] },
  "dust-tape": { quantity: "dust on tape", unit: "grade", bounds: [0, 5] },
  "soluble-salt": { quantity: "soluble salt", unit: "mg/m²", bounds: [0, 5000] },
  "water-break": { quantity: "water film holds", unit: "s", bounds: [0, 600] },
  prebake: { quantity: "metal at the hold", unit: "°C", bounds: [20, 400] },
};

/** A site's limits for prepared metal. Profile after ISO 8503, dust after ISO 8502-3, salt after ISO 8502-9. */
export type PreparationLimits = {
  readonly blastProfileUm: readonly [number, number];
  readonly dustTapeWorstGrade: number;
  readonly solubleSaltMgPerM2: number;
  readonly waterBreakHoldsS: number;
};

/** The window a step's value is held against; null bounds are open. Null where the step has no value to judge. */
export function prepWindow(
  step: PrepStep,
  limits: PreparationLimits,
  cureMetalC: number,
): { readonly lower: number | null; readonly upper: number | null } | null {
  switch (step) {
    case "blast":
      return { lower: limits.blastProfileUm[0], upper: limits.blastProfileUm[1] };
    case "look-over":
      // Broken welds and damage show on bare metal only, and cannot be mended under a coat.
      return { lower: null, upper: 0 };
    case "dust-tape":
      return { lower: null, upper: limits.dustTapeWorstGrade };
    case "soluble-salt":
      return { lower: null, upper: limits.solubleSaltMgPerM2 };
    case "water-break":
      return { lower: limits.waterBreakHoldsS, upper: null };
    case "prebake":
      // Gas must come out hotter than the cure that follows, or it comes out through the film.
      return { lower: cureMetalC, upper: null };
    default:
      return null;
  }
}

/**
 * A preparation step judged: not done is out, a value outside its window is out, done without a value asked for is
 * watch, and without any value to ask it is in.
 */
export function judgePrepStep(
  entry: { readonly step: PrepStep; readonly done: boolean; readonly value: number | null },
  limits: PreparationLimits,
  cureMetalC: number,
): VerdictResult {
  if (!entry.done) return "out";
  const window = prepWindow(entry.step, limits, cureMetalC);
  if (window === null) return "in";
  if (entry.value === null) return "watch";
  return within(entry.value, window.lower, window.upper) ? "in" : "out";
}

/**
 * The steps this metal and route call for, in working order: grease off and seals out before any blast or bake, gas out
 * before powder. In a recoat the old film is scuffed, not blasted. Source: shop practice, docs/methods.md.
 */
export function stepsAskedFor(input: {
  readonly substrate: string;
  readonly features: readonly string[];
  readonly stages: readonly string[];
  readonly recoat: boolean;
  /** How the metal came in; null where nobody said. */
  readonly condition?: { readonly oil: boolean; readonly weldSpatter: boolean; readonly oldCoating: string } | null;
}): readonly PrepStep[] {
  const { substrate, features, stages, recoat, condition = null } = input;
  const asked = new Set<PrepStep>(["blow-off", "solvent-wipe"]);
  // Oil comes off before anything abrasive touches the metal.
  if (!recoat && (condition?.oil || stages.includes("blast"))) asked.add("degrease");
  if (!recoat && condition && condition.oldCoating !== "none") asked.add("strip");
  if (!recoat && condition?.weldSpatter) asked.add("grind");
  if (features.includes("rubber-or-seals")) asked.add("seals-out");
  // Tumbling leaves a film of its compound: washed once more, and proved by a water film that holds.
  if (!recoat && features.includes("tumbled")) asked.add("degrease").add("water-break");
  if (recoat) asked.add("scuff");
  if (!recoat && stages.includes("blast")) {
    asked.add("blast");
    asked.add("dust-tape");
    asked.add("look-over");
  }
  if (!recoat && (features.includes("thermal-cut-edges") || features.includes("sharp-edges"))) asked.add("break-edges");
  // Heat-treated aluminium is not baked above its cure but where the plan says so.
  const gassy = substrate === "cast-iron" || substrate === "galvanised" || substrate === "cast-aluminium";
  const weakens = features.includes("heat-treated") && substrate === "cast-aluminium";
  if (stages.includes("prebake") || (gassy && !weakens)) asked.add("prebake");
  if (features.includes("fit-surface")) asked.add("masks-in");
  return prepSteps.filter((step) => asked.has(step));
}
