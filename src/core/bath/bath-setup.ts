import { err, ok, type Result } from "../result";
import { type BathParameter, type BathWindow, bathParameterBounds, bathParameters } from "./bath-window";
import { checkRecipe, type TitrationRecipes } from "./titration-recipe";

export const bathRoles = ["cleaner", "conversion", "rinse"] as const;
export type BathReaction = { readonly what: string; readonly recheckMinutes: number };
/** A bath as it is set up: what it holds, what is watched, how it is dosed. */
export type BathSetup = {
  readonly name: string;
  readonly stage: string;
  readonly role: (typeof bathRoles)[number];
  readonly volumeL: number;
  readonly freeboardL: number;
  /** The least amount that can be measured out, L. */
  readonly stepL: number;
  readonly maxSingleL: number | null;
  readonly roundHours: number;
  readonly windows: Readonly<Partial<Record<string, BathWindow & { readonly reaction?: BathReaction | null }>>>;
  readonly titrationFactorPercentPerMl: number | null;
  readonly recipes?: TitrationRecipes;
  readonly concentratePercent: number | null;
  readonly product: string;
  readonly targetPercent: number | null;
  readonly targetPh: number | null;
  readonly phChangePerLPerM3: number | null;
  readonly acidProduct: string;
  /** What else may go in: inhibitor, defoamer; names as on the drums. */
  readonly otherProducts?: readonly string[];
  /** Values that each product moves, by its name; the usual ones of its kind where it is not named. */
  readonly moves?: Readonly<Record<string, readonly BathParameter[]>>;
  readonly caution: string;
  readonly contactS: readonly [number, number] | null;
  /** Weight of the conversion coat asked for, g/m²; null where none is. */
  readonly weightGPerM2?: readonly [number, number] | null;
};

/** A bath's name in an address: “Tank 3” is `tank-3`. A code holds no hyphen, so that the way back is one. */
export const bathSlug = (code: string): string => code.toLowerCase().replaceAll(" ", "-");
export const codeOfSlug = (slug: string): string => slug.toLowerCase().replaceAll("-", " ");
/** Addresses of the wash that are no bath's. */
export const takenSlugs: readonly string[] = ["round", "set-up"];

/** Rounds further apart than this, h, are none. */
export const LONGEST_ROUND_HOURS = 168;
const LONGEST_RECHECK_MIN = 24 * 60;

/**
 * Whether a bath can be run as it is set up. Failure: `bad-bath` with the field, its value and why: sizes over zero,
 * limits in order and within what the instrument reads, watch lines inside them, targets inside their window.
 */
export function checkBath<T extends BathSetup>(bath: T): Result<T> {
  const bad = (field: string, value: unknown, why: string) => err({ kind: "bad-bath", field, value, why });
  const positive: [string, number | null][] = [
    ["volume, L", bath.volumeL],
    ["measure, L", bath.stepL],
    ["round, h", bath.roundHours],
    ["largest single dose, L", bath.maxSingleL],
    ["titration factor", bath.titrationFactorPercentPerMl],
    ["concentrate, %", bath.concentratePercent],
    ["target, %", bath.targetPercent],
  ];
  if (bath.name.trim() === "") return bad("name", bath.name, "is empty");
  for (const [field, value] of positive)
    if (value !== null && (!(value > 0) || !Number.isFinite(value))) return bad(field, value, "is not over 0");
  if (!(bath.freeboardL >= 0) || bath.freeboardL > bath.volumeL)
    return bad("freeboard, L", bath.freeboardL, "is not between 0 and the volume");
  if (bath.roundHours > LONGEST_ROUND_HOURS) return bad("round, h", bath.roundHours, "is over a week");
  if (bath.concentratePercent !== null && bath.concentratePercent > 100)
    return bad("concentrate, %", bath.concentratePercent, "is over 100");
  if (bath.targetPercent !== null && bath.targetPercent >= (bath.concentratePercent ?? 100))
    return bad("target, %", bath.targetPercent, "is not under the concentrate's own strength");
  if (bath.contactS && !(bath.contactS[0] > 0 && bath.contactS[0] < bath.contactS[1]))
    return bad("contact, s", bath.contactS.join(" to "), "is not a span over 0");
  const weight = bath.weightGPerM2 ?? null;
  if (weight && !(weight[0] >= 0 && weight[0] < weight[1]))
    return bad("coating weight, g/m²", weight.join(" to "), "is not a span");
  const watched = Object.entries(bath.windows);
  if (watched.length === 0) return bad("windows", "", "are none: name one value to be watched at least");
  for (const [parameter, window] of watched) {
    if (!(bathParameters as readonly string[]).includes(parameter) || !window)
      return bad(parameter, "", "is not a value known here");
    const refusal = checkWindow(parameter as BathParameter, window);
    if (refusal) return bad(`${parameter}, ${refusal.field}`, refusal.value, refusal.why);
  }
  for (const [parameter, recipe] of Object.entries(bath.recipes ?? {})) {
    if (!recipe) continue;
    if (!watched.some(([p]) => p === parameter))
      return bad(`titration of ${parameter}`, "", "is of a value that is not watched here");
    const checked = checkRecipe(recipe);
    if (!checked.ok) return checked;
  }
  const outside = (value: number | null, parameter: BathParameter): boolean => {
    const window = bath.windows[parameter];
    return (
      value !== null &&
      window !== undefined &&
      ((window.lower !== null && value < window.lower) || (window.upper !== null && value > window.upper))
    );
  };
  if (outside(bath.targetPercent, "concentration"))
    return bad("target, %", bath.targetPercent, "lies outside its window");
  if (outside(bath.targetPh, "ph")) return bad("target pH", bath.targetPh, "lies outside its window");
  return ok(bath);
}

function checkWindow(
  parameter: BathParameter,
  window: BathWindow & { readonly reaction?: BathReaction | null },
): { field: string; value: unknown; why: string } | null {
  const [least, most] = bathParameterBounds[parameter];
  const { lower, upper, watchLower = null, watchUpper = null, reaction, roundHours = null } = window;
  if (roundHours !== null && !(roundHours > 0 && roundHours <= LONGEST_ROUND_HOURS))
    return { field: "round, h", value: roundHours, why: "is not between 0 and a week" };
  for (const [field, value] of Object.entries({
    "lower limit": lower,
    "upper limit": upper,
    "lower watch line": watchLower,
    "upper watch line": watchUpper,
  }))
    if (value !== null && !(value >= least && value <= most))
      return { field, value, why: `is beyond what the instrument can read (${least} to ${most})` };
  if (lower === null && upper === null) return { field: "limits", value: "", why: "are none: set one at least" };
  if (lower !== null && upper !== null && lower >= upper)
    return { field: "lower limit", value: lower, why: `is not under the upper one (${upper})` };
  const inside = (value: number | null) =>
    value === null || ((lower === null || value >= lower) && (upper === null || value <= upper));
  if (!inside(watchLower)) return { field: "lower watch line", value: watchLower, why: "lies outside the limits" };
  if (!inside(watchUpper)) return { field: "upper watch line", value: watchUpper, why: "lies outside the limits" };
  if (watchLower !== null && watchUpper !== null && watchLower >= watchUpper)
    return { field: "lower watch line", value: watchLower, why: `is not under the upper one (${watchUpper})` };
  if (reaction) {
    if (reaction.what.trim() === "") return { field: "what to do when out", value: "", why: "is empty" };
    if (!(reaction.recheckMinutes >= 1 && reaction.recheckMinutes <= LONGEST_RECHECK_MIN))
      return { field: "check again after, min", value: reaction.recheckMinutes, why: "is not between 1 min and a day" };
  }
  return null;
}
