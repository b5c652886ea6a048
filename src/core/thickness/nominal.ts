import { atLeast, atMost } from "../limits";
import { err, ok, type Result } from "../result";
import { checkValues, mean } from "../statistics/mean";
import type { VerdictResult } from "../verdict";

/** Maximum as a multiple of the nominal where none is agreed. Source: after ISO 19840. */
export const NOMINAL_DEFAULT_MAX_FACTOR = 3;

export type NominalReason =
  | { readonly kind: "mean-below-nominal"; readonly meanUm: number; readonly nominalUm: number }
  | {
      readonly kind: "spot-below-80-percent" | "spot-above-max";
      readonly spot: number;
      readonly valueUm: number;
      readonly limitUm: number;
    }
  | { readonly kind: "too-many-between-80-and-100-percent"; readonly count: number; readonly of: number };
export type NominalVerdict = {
  readonly kind: "nominal-verdict";
  readonly result: VerdictResult;
  readonly accepted: boolean;
  readonly meanUm: number;
  readonly countBetween80And100: number;
  readonly shareBetween80And100: number;
  readonly below80: readonly number[];
  readonly aboveMax: readonly number[];
  readonly maxUm: number;
  readonly repeatsAllowed: number;
  readonly reasons: readonly NominalReason[];
};

/**
 * Judges spot values by the nominal rule: mean ≥ N; every spot ≥ 0.8 N and ≤ X; fewer than 20 % of spots in
 * [0.8 N, N), decided on counts (fail when 5 k ≥ n). Failures: `no-values`, `not-finite`, `negative`,
 * `bad-requirement`. Source: after ISO 19840.
 */
export function judgeNominal(
  spotMeansUm: readonly number[],
  requirement: { readonly nominalUm: number; readonly maxUm?: number | null },
): Result<NominalVerdict> {
  const checked = checkValues(spotMeansUm);
  if (!checked.ok) return checked;
  const negative = spotMeansUm.findIndex((value) => value < 0);
  if (negative >= 0) return err({ kind: "negative", spot: negative, valueUm: spotMeansUm[negative] });
  const { nominalUm } = requirement;
  const maxUm = requirement.maxUm ?? NOMINAL_DEFAULT_MAX_FACTOR * nominalUm;
  if (!(nominalUm > 0) || !Number.isFinite(nominalUm) || !(maxUm > nominalUm))
    return err({ kind: "bad-requirement", nominalUm, maxUm });
  const lowest = 0.8 * nominalUm;
  const below80: number[] = [];
  const aboveMax: number[] = [];
  let between = 0;
  spotMeansUm.forEach((value, i) => {
    if (!atLeast(value, lowest)) below80.push(i);
    else if (!atLeast(value, nominalUm)) between++;
    if (!atMost(value, maxUm)) aboveMax.push(i);
  });
  const meanUm = mean(spotMeansUm);
  const n = spotMeansUm.length;
  const reasons: NominalReason[] = [];
  if (!atLeast(meanUm, nominalUm)) reasons.push({ kind: "mean-below-nominal", meanUm, nominalUm });
  for (const spot of below80)
    reasons.push({ kind: "spot-below-80-percent", spot, valueUm: spotMeansUm[spot] as number, limitUm: lowest });
  if (5 * between >= n) reasons.push({ kind: "too-many-between-80-and-100-percent", count: between, of: n });
  for (const spot of aboveMax)
    reasons.push({ kind: "spot-above-max", spot, valueUm: spotMeansUm[spot] as number, limitUm: maxUm });
  const accepted = reasons.length === 0;
  return ok({
    kind: "nominal-verdict",
    result: accepted ? (between > 0 ? "watch" : "in") : "out",
    accepted,
    meanUm,
    countBetween80And100: between,
    shareBetween80And100: between / n,
    below80,
    aboveMax,
    maxUm,
    repeatsAllowed: repeatsAllowed(n),
    reasons,
  });
}

/** Repeat measurements allowed where a reading failed: 1, 2, 3, 4, 6 for 5, 10, 15, 20, 30 readings; above that 20 %. */
export function repeatsAllowed(readings: number): number {
  if (readings > 30) return Math.floor(readings / 5);
  const steps: readonly [number, number][] = [
    [30, 6],
    [20, 4],
    [15, 3],
    [10, 2],
    [5, 1],
  ];
  return steps.find(([atLeastReadings]) => readings >= atLeastReadings)?.[1] ?? 0;
}
