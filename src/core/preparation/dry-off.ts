import { atMost, within } from "../limits";
import type { VerdictResult } from "../verdict";

/** What was seen of a rack out of the dry-off; null where it was not looked at. */
export type DryOff = {
  readonly minutes: number | null;
  readonly metalC: number | null;
  readonly partsDry: boolean;
  /** Tubes, laps and hollow sections blown out or turned and drained. */
  readonly hollowBlown: boolean | null;
};
export type DryOffLimits = {
  readonly leastMinutes: number | null;
  /** Metal hotter than this at the booth takes too much powder, °C. */
  readonly boothMetalC: number;
  /** The part holds water: tubes, laps. */
  readonly holdsWater: boolean;
};
/** Whether a part keeps water out of a washer: tubes, boxes, open laps. */
export const holdsWater = (features: readonly string[]): boolean =>
  features.some((f) => f === "hollow-section" || f === "open-lap-seam" || f === "no-drain-holes");

export type DryOffReason = "damp" | "hollow-not-blown" | "hollow-not-looked-at" | "too-short" | "too-hot-for-the-booth";

/**
 * A dry-off: damp, or water-holding sections not blown out, is out; too short a time, not looked at, or metal too hot for
 * the booth is watch. Source: water left under a film boils out in the cure; docs/methods.md.
 */
export function judgeDryOff(
  dry: DryOff,
  limits: DryOffLimits,
): { readonly result: VerdictResult; readonly reasons: readonly DryOffReason[] } {
  const reasons: DryOffReason[] = [];
  if (!dry.partsDry) reasons.push("damp");
  if (limits.holdsWater && dry.hollowBlown === false) reasons.push("hollow-not-blown");
  if (limits.holdsWater && dry.hollowBlown === null) reasons.push("hollow-not-looked-at");
  if (dry.minutes !== null && !within(dry.minutes, limits.leastMinutes, null)) reasons.push("too-short");
  if (dry.metalC !== null && !atMost(dry.metalC, limits.boothMetalC)) reasons.push("too-hot-for-the-booth");
  const out = reasons.includes("damp") || reasons.includes("hollow-not-blown");
  return { result: out ? "out" : reasons.length > 0 ? "watch" : "in", reasons };
}

/** Places of bad metal found before powder, as a lead decides on them. */
export const metalFaults = ["pits", "scale", "old-coating", "rust", "edge-skin"] as const;
export type MetalFault = (typeof metalFaults)[number];
export const metalDecisions = ["go-on", "texture", "do-again", "ask-customer"] as const;
export type MetalDecision = (typeof metalDecisions)[number];
