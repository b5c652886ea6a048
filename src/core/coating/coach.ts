import type { PreFlightItem } from "./pre-flight";
import type { CoatSituation, Setting } from "./set-up";

/** What the coach looks at: the part, the coat, what is set, what the pre-flight found off. */
export type CoachFacts = {
  readonly features: readonly string[];
  readonly cast: boolean;
  readonly situation: CoatSituation;
  readonly coatNo: number;
  readonly traits: readonly string[];
  readonly off: readonly PreFlightItem[];
  readonly values: Readonly<Partial<Record<Setting, number | null>>>;
  readonly windows: Readonly<Partial<Record<Setting, readonly [number | null, number | null]>>>;
  readonly recessKv: number | null;
  readonly lotDaysLeft: number | null;
  /** The outgassing bake of this metal is on record. */
  readonly outgassed: boolean;
  /** Voltage of the last coat like it, kV; null where none is known. */
  readonly lastKv: number | null;
};
/** What is changed first, and where to: a setting with a value, or a thing to be done. */
export type CoachMove =
  | { readonly kind: "set"; readonly setting: Setting; readonly to: number | null; readonly way: "up" | "down" }
  | {
      readonly kind: "do";
      readonly what:
        | "stop-for-draught"
        | "earth-first"
        | "strip-hooks"
        | "drain-and-filter"
        | "clean-down"
        | "scuff"
        | "other-lot"
        | "two-light-coats"
        | "outgas-first"
        | "warm-slowly"
        | "aim-into-the-corner"
        | "empty-to-mark"
        | "edge-by-hand"
        | "test-piece";
    };
export type CoachRisk = {
  readonly defect: string;
  readonly cause: string;
  /** Larger is likelier now; comparable within one list only. */
  readonly weight: number;
  readonly because: CoachBecause;
  readonly first: CoachMove;
};
export type CoachBecause =
  | { readonly kind: "off"; readonly item: PreFlightItem }
  | { readonly kind: "beyond"; readonly setting: Setting; readonly value: number; readonly limit: number }
  | {
      readonly kind: "fact";
      readonly fact:
        | "recess"
        | "recoat"
        | "casting"
        | "sharp-edge"
        | "high-flow"
        | "lot-old"
        | "thick-in-one"
        | "voltage-against-earth"
        | "hot"
        | "water-releasing";
    };

/** So many are shown: more is a list, not advice. */
export const RISKS_SHOWN = 3;

type Rule = (facts: CoachFacts) => CoachRisk | null;
const beyond = (
  facts: CoachFacts,
  setting: Setting,
  side: "lower" | "upper",
): { value: number; limit: number } | null => {
  const value = facts.values[setting];
  const limit = facts.windows[setting]?.[side === "lower" ? 0 : 1];
  if (value === null || value === undefined || limit === null || limit === undefined) return null;
  return (side === "upper" ? value > limit * (1 + 1e-9) : value < limit * (1 - 1e-9)) ? { value, limit } : null;
};
const off = (item: PreFlightItem, defect: string, cause: string, weight: number, first: CoachMove): Rule => {
  return (facts) =>
    facts.off.includes(item) ? { defect, cause, weight, because: { kind: "off", item }, first } : null;
};
const act = (what: Extract<CoachMove, { kind: "do" }>["what"]): CoachMove => ({ kind: "do", what });

/**
 * What goes wrong most likely, in the trade's usual order: the earth before any voltage, then air and powder, then the
 * gun. Weights are shop judgement, in the open in docs/methods.md; the record's own before and after decides.
 */
const rules: readonly Rule[] = [
  off("hook-part", "light-coverage", "poor-ground", 9, act("earth-first")),
  off("rack-hook", "light-coverage", "poor-ground", 9, act("earth-first")),
  off("lead-rack", "light-coverage", "poor-ground", 9, act("earth-first")),
  off("hooks-stripped", "light-coverage", "poor-ground", 7, act("strip-hooks")),
  off("blotter", "craters", "wet-air", 8, act("drain-and-filter")),
  off("air-dew-point", "craters", "wet-air", 7, act("drain-and-filter")),
  off("air-filter", "craters", "wet-air", 3, act("drain-and-filter")),
  off("compressor", "craters", "wet-air", 4, act("drain-and-filter")),
  off("scuffed", "adhesion-loss", "intercoat", 9, act("scuff")),
  off("colour-change", "inclusions", "cross-contamination", 7, act("clean-down")),
  off("powder-lot", "colour-shift", "powder-lot", 8, act("other-lot")),
  off("gloves", "craters", "hand-contact", 3, act("test-piece")),
  off("hopper-mark", "orange-peel", "output-too-high", 4, act("empty-to-mark")),
  off("cloud", "orange-peel", "output-too-high", 4, act("empty-to-mark")),
  (f) => {
    const over = beyond(f, "kv", "upper");
    return (
      over && {
        defect: "back-ionisation",
        cause: f.situation === "recoat" ? "recoat-insulation" : "overcharging",
        weight: f.situation === "recoat" ? 8 : 5,
        because: { kind: "beyond", setting: "kv", ...over },
        first: { kind: "set", setting: "kv", to: over.limit, way: "down" },
      }
    );
  },
  (f) => {
    const over = beyond(f, "gunAirKPa", "upper");
    return (
      over && {
        defect: "orange-peel",
        cause: "output-too-high",
        weight: 5,
        because: { kind: "beyond", setting: "gunAirKPa", ...over },
        first: { kind: "set", setting: "gunAirKPa", to: over.limit, way: "down" },
      }
    );
  },
  (f) => {
    const over = beyond(f, "boothAirMPerS", "upper");
    return (
      over && {
        defect: "light-coverage",
        cause: "booth-draught",
        weight: 7,
        because: { kind: "beyond", setting: "boothAirMPerS", ...over },
        first: { kind: "set", setting: "boothAirMPerS", to: over.limit, way: "down" },
      }
    );
  },
  (f) => {
    const under = beyond(f, "boothAirMPerS", "lower");
    // Powder in still air can explode: before any look at the film.
    return (
      under && {
        defect: "inclusions",
        cause: "booth-draught",
        weight: 20,
        because: { kind: "beyond", setting: "boothAirMPerS", ...under },
        first: act("stop-for-draught"),
      }
    );
  },
  (f) =>
    (f.off.includes("hook-part") || f.off.includes("rack-hook") || f.off.includes("lead-rack")) &&
    f.lastKv !== null &&
    (f.values.kv ?? 0) > f.lastKv
      ? {
          defect: "light-coverage",
          cause: "poor-ground",
          weight: 12,
          because: { kind: "fact", fact: "voltage-against-earth" },
          first: act("earth-first"),
        }
      : null,
  (f) => {
    const near = beyond(f, "distanceMm", "lower");
    return (
      near && {
        defect: "orange-peel",
        cause: "overcharging",
        weight: 4,
        because: { kind: "beyond", setting: "distanceMm", ...near },
        first: { kind: "set", setting: "distanceMm", to: near.limit, way: "up" },
      }
    );
  },
  (f) => {
    const over = beyond(f, "reclaimPercent", "upper");
    return (
      over && {
        defect: "orange-peel",
        cause: "powder-fines",
        weight: 3,
        because: { kind: "beyond", setting: "reclaimPercent", ...over },
        first: { kind: "set", setting: "reclaimPercent", to: over.limit, way: "down" },
      }
    );
  },
  (f) =>
    (f.values.metalC ?? 0) > (f.windows.metalC?.[1] ?? Number.POSITIVE_INFINITY)
      ? {
          defect: "orange-peel",
          cause: "hot-spray-overbuild",
          weight: 6,
          because: { kind: "fact", fact: "hot" },
          first: act("test-piece"),
        }
      : null,
  (f) =>
    f.situation === "recoat" || f.coatNo > 1
      ? {
          defect: "orange-peel",
          cause: "recoat-insulation",
          weight: 5,
          because: { kind: "fact", fact: "recoat" },
          first: { kind: "set", setting: "kv", to: f.recessKv, way: "down" },
        }
      : null,
  (f) =>
    f.features.includes("deep-recess")
      ? {
          defect: "light-coverage",
          cause: "faraday-recess",
          weight: 4,
          because: { kind: "fact", fact: "recess" },
          first:
            f.situation === "recess"
              ? act("aim-into-the-corner")
              : { kind: "set", setting: "kv", to: f.recessKv, way: "down" },
        }
      : null,
  (f) =>
    f.cast && !f.outgassed
      ? {
          defect: "pinholes",
          cause: "casting-gas",
          weight: 3.5,
          because: { kind: "fact", fact: "casting" },
          first: act("outgas-first"),
        }
      : null,
  (f) =>
    f.features.includes("sharp-edges") || f.features.includes("thermal-cut-edges")
      ? {
          defect: "edge-rust",
          cause: "edge-pull-back",
          weight: f.traits.includes("high-flow-powder") ? 4.5 : 2,
          because: { kind: "fact", fact: f.traits.includes("high-flow-powder") ? "high-flow" : "sharp-edge" },
          first: act("edge-by-hand"),
        }
      : null,
  (f) =>
    f.traits.includes("water-releasing-powder")
      ? {
          defect: "pinholes",
          cause: "powder-water-release",
          weight: 2.5,
          because: { kind: "fact", fact: "water-releasing" },
          first: act("two-light-coats"),
        }
      : null,
  (f) =>
    f.lotDaysLeft !== null && f.lotDaysLeft < 0
      ? {
          defect: "orange-peel",
          cause: "powder-aged",
          weight: 6,
          because: { kind: "fact", fact: "lot-old" },
          first: act("other-lot"),
        }
      : null,
];

/**
 * The few risks most likely now and what to change first for each, the likeliest leading; one of a kind: of two with the
 * same defect and cause the heavier stands. O(rules).
 */
export function coach(facts: CoachFacts): readonly CoachRisk[] {
  const found = new Map<string, CoachRisk>();
  for (const rule of rules) {
    const risk = rule(facts);
    if (!risk) continue;
    const key = `${risk.defect}/${risk.cause}`;
    const known = found.get(key);
    if (!known || risk.weight > known.weight) found.set(key, risk);
  }
  return [...found.values()].sort((a, b) => b.weight - a.weight).slice(0, RISKS_SHOWN);
}
