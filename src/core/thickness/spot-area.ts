import { atLeast, atMost, within } from "../limits";
import { err, ok, type Result } from "../result";
import { mean } from "../statistics/mean";
import type { VerdictResult } from "../verdict";
import { type Spot, type SpotMean, spotMeans } from "./readings";

export type RestrictionLevel = 1 | 2 | 3 | 4 | 5;
export const DEFAULT_RESTRICTION_LEVEL: RestrictionLevel = 3;

/** Spot limits as multiples of the specified minimum m and maximum M; null: no limit. Source: after SSPC-PA 2. */
const spotFactors: Record<RestrictionLevel, { readonly ofMin: number; readonly ofMax: number | null }> = {
  1: { ofMin: 1, ofMax: 1 },
  2: { ofMin: 1, ofMax: 1.2 },
  3: { ofMin: 0.8, ofMax: 1.2 },
  4: { ofMin: 0.8, ofMax: 1.5 },
  5: { ofMin: 0.8, ofMax: null },
};

export type SpotAreaRequirement = {
  readonly minUm: number;
  readonly maxUm: number | null;
  readonly level: RestrictionLevel;
};
export type JudgedSpot = SpotMean & { readonly result: "in" | "thin" | "thick" | "too-thin" | "too-thick" };
export type JudgedArea = {
  readonly id: string;
  readonly meanUm: number;
  readonly meanWithin: boolean;
  readonly spots: readonly JudgedSpot[];
  readonly unread: readonly string[];
  readonly accepted: boolean;
};
export type SpotAreaVerdict = {
  readonly kind: "spot-area-verdict";
  readonly result: VerdictResult;
  readonly accepted: boolean;
  readonly areas: readonly JudgedArea[];
  readonly spotLowestUm: number;
  readonly spotHighestUm: number | null;
  /** What decides, worst first; empty when everything lies inside the specified range. */
  readonly reasons: readonly SpotAreaReason[];
};
export type SpotAreaReason =
  | {
      readonly kind: "area-mean-low" | "area-mean-high";
      readonly area: string;
      readonly meanUm: number;
      readonly limitUm: number;
    }
  | {
      readonly kind: "spot-too-thin" | "spot-too-thick" | "spot-thin" | "spot-thick";
      readonly area: string;
      readonly spot: string;
      readonly meanUm: number;
      readonly limitUm: number;
    }
  | { readonly kind: "spot-unread"; readonly area: string; readonly spot: string }
  | {
      readonly kind: "few-readings";
      readonly area: string;
      readonly spot: string;
      readonly got: number;
      readonly need: number;
    };

/** The limits a spot mean must keep, µm, at this restriction level. */
export function spotLimits(requirement: SpotAreaRequirement): { lowestUm: number; highestUm: number | null } {
  const { ofMin, ofMax } = spotFactors[requirement.level];
  return {
    lowestUm: ofMin * requirement.minUm,
    highestUm: ofMax === null || requirement.maxUm === null ? null : ofMax * requirement.maxUm,
  };
}

/** Only one value specified and no sheet range: the range is ± 20 % of it. Source: after SSPC-PA 2. */
export const rangeFromSingleValue = (valueUm: number): { minUm: number; maxUm: number } => ({
  minUm: 0.8 * valueUm,
  maxUm: 1.2 * valueUm,
});

/**
 * Judges areas by their mean and their spots by the restriction level. Every area must pass; the area mean is
 * the unweighted mean of its spot means; single readings are not restricted. A planned spot without a reading
 * leaves the verdict unknown unless something already fails.
 * Failures: `no-areas`, `no-readings` (an area without any), `bad-requirement`, and those of `spotMeans`.
 * Source: after SSPC-PA 2.
 */
export function judgeSpotArea(
  areas: readonly { readonly id: string; readonly spots: readonly Spot[] }[],
  requirement: SpotAreaRequirement,
): Result<SpotAreaVerdict> {
  const { minUm, maxUm, level } = requirement;
  if (!(minUm > 0) || !Number.isFinite(minUm) || (maxUm !== null && !(maxUm > minUm)) || !(level in spotFactors))
    return err({ kind: "bad-requirement", minUm, maxUm, level });
  if (areas.length === 0) return err({ kind: "no-areas" });
  const { lowestUm, highestUm } = spotLimits(requirement);
  const areaMaxUm = level === 5 ? null : maxUm;
  const judged: JudgedArea[] = [];
  for (const area of areas) {
    const measured = spotMeans(area.spots);
    if (!measured.ok) return err({ ...measured.error, area: area.id });
    const { means, unread } = measured.value;
    if (means.length === 0) return err({ kind: "no-readings", area: area.id });
    const meanUm = mean(means.map((spot) => spot.meanUm));
    const spots = means.map((spot): JudgedSpot => {
      if (!atLeast(spot.meanUm, lowestUm)) return { ...spot, result: "too-thin" };
      if (highestUm !== null && !atMost(spot.meanUm, highestUm)) return { ...spot, result: "too-thick" };
      if (!atLeast(spot.meanUm, minUm)) return { ...spot, result: "thin" };
      if (areaMaxUm !== null && !atMost(spot.meanUm, areaMaxUm)) return { ...spot, result: "thick" };
      return { ...spot, result: "in" };
    });
    const meanWithin = within(meanUm, minUm, areaMaxUm);
    const accepted = meanWithin && spots.every((spot) => !spot.result.startsWith("too-"));
    judged.push({ id: area.id, meanUm, meanWithin, spots, unread, accepted });
  }
  const reasons = judged.flatMap((area) => areaReasons(area, requirement, lowestUm, highestUm));
  const accepted = judged.every((area) => area.accepted);
  const unread = judged.some((area) => area.unread.length > 0);
  const noted = reasons.some(
    (reason) => reason.kind === "spot-thin" || reason.kind === "spot-thick" || reason.kind === "few-readings",
  );
  const result: VerdictResult = !accepted ? "out" : unread ? "unknown" : noted ? "watch" : "in";
  return ok({
    kind: "spot-area-verdict",
    result,
    accepted: accepted && !unread,
    areas: judged,
    spotLowestUm: lowestUm,
    spotHighestUm: highestUm,
    reasons,
  });
}

const reasonOrder: SpotAreaReason["kind"][] = [
  "area-mean-low",
  "area-mean-high",
  "spot-too-thin",
  "spot-too-thick",
  "spot-unread",
  "spot-thin",
  "spot-thick",
  "few-readings",
];

function areaReasons(
  area: JudgedArea,
  requirement: SpotAreaRequirement,
  lowestUm: number,
  highestUm: number | null,
): SpotAreaReason[] {
  const reasons: SpotAreaReason[] = [];
  const { minUm, maxUm } = requirement;
  if (!area.meanWithin) {
    const low = !atLeast(area.meanUm, minUm);
    reasons.push({
      kind: low ? "area-mean-low" : "area-mean-high",
      area: area.id,
      meanUm: area.meanUm,
      limitUm: low ? minUm : (maxUm as number),
    });
  }
  const limitOf = {
    "too-thin": lowestUm,
    "too-thick": highestUm ?? Number.POSITIVE_INFINITY,
    thin: minUm,
    thick: maxUm ?? Number.POSITIVE_INFINITY,
  };
  for (const spot of area.spots) {
    if (spot.result !== "in")
      reasons.push({
        kind: `spot-${spot.result}`,
        area: area.id,
        spot: spot.id,
        meanUm: spot.meanUm,
        limitUm: limitOf[spot.result],
      });
    if (spot.few) reasons.push({ kind: "few-readings", area: area.id, spot: spot.id, got: spot.used, need: 3 });
  }
  for (const spot of area.unread) reasons.push({ kind: "spot-unread", area: area.id, spot });
  return reasons.sort((a, b) => reasonOrder.indexOf(a.kind) - reasonOrder.indexOf(b.kind));
}
