import { ferrousStains, type PrepStep, prepMeasures, prepSteps } from "../preparation";
import type { Condition, PlannedPart } from "./part";
import type { CoatingSystem } from "./system";

/** A stage of the card: what is done, what it is set to, what proves it, and whether work waits for a signature. */
export type RouteStep = {
  readonly stage: "prepare" | "pretreat" | "coat" | "cure" | "test" | "release";
  readonly code: RouteCode;
  readonly parameters: readonly RouteParameter[];
  readonly checks: readonly RouteCheck[];
  readonly hold: boolean;
  /** The record that fulfils it, where one does: a preparation step, or a passage through a stage of the line. */
  readonly fulfilledBy:
    | { readonly kind: "prep-step"; readonly step: PrepStep }
    | { readonly kind: "passage"; readonly stage: string }
    | null;
};
export type RouteCode =
  | "hold-for-part"
  | "seals-out"
  | "test-old-coating"
  | "strip"
  | "degrease"
  | "grind"
  | "extra-wash"
  | "break-edges"
  | "blast"
  | "sand"
  | "look-over"
  | "blow-off"
  | "wash"
  | "conversion"
  | "rinse"
  | "dry-off"
  | "seam-seal"
  | "outgas-bake"
  | "solvent-wipe"
  | "masks-in"
  | "primer"
  | "gel-primer"
  | "cure-primer"
  | "scuff"
  | "top-coat"
  | "cure"
  | "plugs-out"
  | "film"
  | "adhesion"
  | "rub"
  | "hand-finish"
  | "lacquer"
  | "release"
  | "wipe-off"
  | "touch-up";
export type RouteParameter = {
  readonly name: string;
  readonly lower: number | null;
  readonly upper: number | null;
  readonly unit: string;
};
export type RouteCheck =
  | "profile"
  | "dust"
  | "water-film"
  | "contact-time"
  | "dry-inside"
  | "metal-temperature"
  | "earth"
  | "lot-in-date"
  | "film"
  | "cross-cut"
  | "rub"
  | "count-in"
  | "count-out"
  | "appearance"
  | "against-sample"
  | "layer-bond"
  | "pitting-told"
  | "lead-and-chromate"
  | "non-ferrous-media"
  | "makers-word-on-heat"
  | "less-voltage";

const range = (
  name: string,
  [lower, upper]: readonly [number | null, number | null],
  unit: string,
): RouteParameter => ({ name, lower, upper, unit });

/**
 * The route card made from the plan: stages in order with parameters, checks and hold points. Order holds by itself:
 * seals out before any heat, grease off and edges broken before the blast, gas out hotter than the cure that follows,
 * sealer after the wash and before powder.
 */
export function routeCard(input: {
  readonly part: Pick<PlannedPart, "substrate" | "features" | "lapM">;
  readonly condition: Condition;
  readonly system: CoatingSystem;
  readonly cureMetalC: number;
  readonly cureMinutes: number;
  readonly blastProfileUm: readonly [number, number];
  readonly contactS: readonly [number, number] | null;
  readonly masks: number;
  /** Hand finishing after the cure: so many steps, and a lacquer over them. */
  readonly handSteps?: number;
}): readonly RouteStep[] {
  const { part, condition, system, cureMetalC, cureMinutes, blastProfileUm, contactS, masks, handSteps = 0 } = input;
  const out: RouteStep[] = [];
  const add = (
    stage: RouteStep["stage"],
    code: RouteCode,
    {
      parameters = [],
      checks = [],
      hold = false,
      step,
      passage,
    }: { parameters?: RouteParameter[]; checks?: RouteCheck[]; hold?: boolean; step?: PrepStep; passage?: string } = {},
  ) =>
    out.push({
      stage,
      code,
      parameters,
      checks,
      hold,
      fulfilledBy: step ? { kind: "prep-step", step } : passage ? { kind: "passage", stage: passage } : null,
    });
  const has = (f: PlannedPart["features"][number]) => part.features.includes(f);
  if (has("rubber-or-seals")) add("prepare", "seals-out", { step: "seals-out", hold: true });
  if (has("tumbled")) add("prepare", "extra-wash", { step: "degrease", checks: ["water-film"] });
  // What is not known is tested, or held and treated as lead and chromate, before it is blasted or burnt.
  if (condition.oldCoating === "unknown")
    add("prepare", "test-old-coating", { checks: ["lead-and-chromate"], hold: true });
  if (condition.oldCoating !== "none") add("prepare", "strip", { step: "strip" });
  // Oil comes off before anything abrasive touches the metal (SSPC-SP 1).
  if (system.preparation !== "wipe" && !has("tumbled")) add("prepare", "degrease", { step: "degrease" });
  if (condition.weldSpatter) add("prepare", "grind", { step: "grind" });
  if (system.breakEdges) add("prepare", "break-edges", { step: "break-edges" });
  if (system.preparation === "blast")
    add("prepare", "blast", {
      step: "blast",
      parameters: [range("profile", blastProfileUm, prepMeasures.blast?.unit ?? "µm")],
      checks: [
        "profile",
        "dust",
        ...(condition.rust === "C" || condition.rust === "D" ? (["pitting-told"] as const) : []),
        ...(ferrousStains(part.substrate) ? (["non-ferrous-media"] as const) : []),
      ],
      hold: condition.rust === "C" || condition.rust === "D",
    });
  if (system.preparation === "blast") add("prepare", "look-over", { step: "look-over" });
  if (system.preparation === "sand") add("prepare", "sand", { step: "sand" });
  add("prepare", "blow-off", { step: "blow-off" });
  if (system.pretreatment !== "none") {
    add("pretreat", "wash", { passage: "clean", checks: ["water-film"] });
    if (system.pretreatment !== "wash")
      add("pretreat", "conversion", {
        passage: "conversion",
        parameters: contactS ? [range("contact", contactS, "s")] : [],
        checks: ["contact-time"],
      });
    add("pretreat", "rinse", { passage: "rinse" });
    add("pretreat", "dry-off", {
      passage: "dry-off",
      checks: has("hollow-section") || part.lapM > 0 ? ["dry-inside"] : [],
    });
  } else add("prepare", "solvent-wipe", { step: "solvent-wipe" });
  if (system.outgas)
    add("prepare", "outgas-bake", {
      step: "prebake",
      parameters: [range("metal", [cureMetalC + 15, cureMetalC + 30], "°C"), range("hold", [30, null], "min")],
      checks: has("heat-treated") ? ["metal-temperature", "makers-word-on-heat"] : ["metal-temperature"],
      hold: has("heat-treated"),
    });
  if (system.sealSeams) add("prepare", "seam-seal", { parameters: [range("laps", [part.lapM, null], "m")] });
  if (masks > 0 || has("fit-surface"))
    add("prepare", "masks-in", {
      step: "masks-in",
      parameters: masks > 0 ? [range("pieces", [masks, masks], "")] : [],
      checks: ["count-in"],
    });
  if (system.primer !== "none") {
    add("coat", "primer", {
      parameters: system.primerUm ? [range("film", system.primerUm, "µm")] : [],
      checks: ["earth", "lot-in-date"],
      passage: "booth",
    });
    if (system.curing === "primer-gelled") add("cure", "gel-primer", { passage: "oven" });
    if (system.curing === "two-full-cures") {
      add("cure", "cure-primer", {
        parameters: [range("metal", [cureMetalC, null], "°C"), range("hold", [cureMinutes, null], "min")],
        checks: ["metal-temperature"],
        passage: "oven",
      });
      add("prepare", "scuff", { step: "scuff" });
    }
  }
  for (let coat = 1; coat <= system.coats; coat++) {
    if (coat > 1) add("prepare", "scuff", { step: "scuff" });
    add("coat", "top-coat", {
      parameters: [range("film", system.topUm, "µm")],
      checks: coat === 1 && system.primer === "none" ? ["earth", "lot-in-date"] : ["lot-in-date"],
      passage: "booth",
    });
    add("cure", "cure", {
      parameters: [range("metal", [cureMetalC, null], "°C"), range("hold", [cureMinutes, null], "min")],
      checks: ["metal-temperature"],
      passage: "oven",
    });
  }
  if (masks > 0) add("test", "plugs-out", { parameters: [range("pieces", [masks, masks], "")], checks: ["count-out"] });
  add("test", "film", { checks: ["film"] });
  add("test", "adhesion", { checks: ["cross-cut"] });
  add("test", "rub", { checks: ["rub"] });
  for (let step = 1; step <= handSteps; step++) add("test", "hand-finish", { checks: ["against-sample"] });
  // The bond of a lacquer on powder is tested like any other layer's.
  if (handSteps > 0) add("test", "lacquer", { checks: ["layer-bond"], hold: true });
  add("release", "release", { checks: ["appearance"], hold: true });
  return out;
}

/** Checks that are a record of their own, where the step they prove asks for them. */
const provedBy: Partial<Record<RouteCheck, PrepStep>> = { dust: "dust-tape", "water-film": "water-break" };

/**
 * The preparation a card asks of its racks up to the first powder, in working order: its steps, and what proves them on the
 * metal. A scuff between two coats is asked by the pass that it belongs to.
 */
export function preparationOf(card: readonly RouteStep[]): readonly PrepStep[] {
  const asked = new Set<PrepStep>();
  for (const { stage, fulfilledBy, checks } of card) {
    if (stage === "coat") break;
    if (stage !== "prepare" || fulfilledBy?.kind !== "prep-step") continue;
    asked.add(fulfilledBy.step);
    for (const check of checks) {
      const proof = provedBy[check];
      if (proof) asked.add(proof);
    }
  }
  return prepSteps.filter((step) => asked.has(step));
}

/** Stages of the line a rack must pass, in order, once each: what the trace and the findings ask of it. */
export const lineStagesOf = (route: readonly RouteStep[]): readonly string[] => [
  ...new Set(
    route.flatMap((s) =>
      s.fulfilledBy?.kind === "passage"
        ? [s.fulfilledBy.stage]
        : s.fulfilledBy?.step === "blast"
          ? ["blast"]
          : s.fulfilledBy?.step === "prebake"
            ? ["prebake"]
            : [],
    ),
  ),
];
