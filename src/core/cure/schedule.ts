import { err, ok, type Result } from "../result";
import { mean } from "../statistics/mean";
import { cToKelvin } from "../units";

/** One point of a powder's sheet: metal temperature, °C, and the minutes at it. */
export type SchedulePoint = { readonly metalC: number; readonly minutes: number };
/** Taken where a sheet gives one point only; said on the verdict, and a site can change it. */
export const ASSUMED_ACTIVATION_KJ_PER_MOL = 80;
export const GAS_CONSTANT_J_PER_MOL_K = 8.314;
/** Cure counts from this far under the sheet's lowest temperature unless the powder says otherwise. */
export const DEFAULT_ONSET_BELOW_SHEET_C = 40;
/** Beyond this distance from the sheet's points a required time is an extrapolation, and flagged. */
export const EXTRAPOLATION_C = 15;

/** ln t (min) = a + B/T (K). */
export type CureCurve = {
  readonly kind: "cure-curve";
  readonly a: number;
  readonly b: number;
  readonly basis: "sheet-points" | "assumed-activation-energy" | "cure-curve-slope";
  readonly lowestC: number;
  readonly highestC: number;
};

/** Failures: `no-points`, `bad-point` with the point. */
function checkPoints(points: readonly SchedulePoint[]): Result<readonly SchedulePoint[]> {
  if (points.length === 0) return err({ kind: "no-points" });
  const wrong = points.find(
    (p) => !(p.minutes > 0) || !Number.isFinite(p.minutes) || !(p.metalC > -273.15) || !Number.isFinite(p.metalC),
  );
  return wrong ? err({ kind: "bad-point", metalC: wrong.metalC, minutes: wrong.minutes }) : ok(points);
}

/**
 * Cure curve through a powder's schedule: least squares of ln t on 1/T(K); one point takes the activation energy as
 * an assumption (kJ/mol). Failures: `no-points`, `bad-point`, `two-times-at-one-temperature`,
 * `not-faster-when-hotter` (B ≤ 0).
 * @example fitCureCurve([{ metalC: 180, minutes: 20 }, { metalC: 190, minutes: 15 }, { metalC: 200, minutes: 10 }]) // b ≈ 7420.57
 */
export function fitCureCurve(
  points: readonly SchedulePoint[],
  activationKJPerMol = ASSUMED_ACTIVATION_KJ_PER_MOL,
): Result<CureCurve> {
  const checked = checkPoints(points);
  if (!checked.ok) return checked;
  for (const [i, point] of points.entries()) {
    const twin = points.slice(0, i).find((other) => other.metalC === point.metalC);
    if (twin)
      return err({
        kind: "two-times-at-one-temperature",
        metalC: point.metalC,
        minutes: [twin.minutes, point.minutes],
      });
  }
  const lowestC = Math.min(...points.map((p) => p.metalC));
  const highestC = Math.max(...points.map((p) => p.metalC));
  const first = points[0] as SchedulePoint;
  if (points.length === 1) {
    const b = (activationKJPerMol * 1000) / GAS_CONSTANT_J_PER_MOL_K;
    if (!(b > 0) || !Number.isFinite(b)) return err({ kind: "bad-activation-energy", activationKJPerMol });
    return ok({
      kind: "cure-curve",
      a: Math.log(first.minutes) - b / cToKelvin(first.metalC),
      b,
      basis: "assumed-activation-energy",
      lowestC,
      highestC,
    });
  }
  const x = points.map((p) => 1 / cToKelvin(p.metalC));
  const y = points.map((p) => Math.log(p.minutes));
  const xMean = mean(x);
  const yMean = mean(y);
  const b =
    x.reduce((sum, xi, i) => sum + (xi - xMean) * ((y[i] as number) - yMean), 0) /
    x.reduce((sum, xi) => sum + (xi - xMean) ** 2, 0);
  if (!(b > 0)) return err({ kind: "not-faster-when-hotter", b });
  return ok({ kind: "cure-curve", a: yMean - b * xMean, b, basis: "sheet-points", lowestC, highestC });
}

/** Over-bake curve; a single over-bake point takes the slope of the cure curve. Failures: those of `fitCureCurve`. */
export function fitOverbakeCurve(points: readonly SchedulePoint[], cure: CureCurve): Result<CureCurve> {
  const first = points[0];
  if (points.length !== 1 || !first) return fitCureCurve(points);
  const checked = checkPoints(points);
  if (!checked.ok) return checked;
  return ok({
    kind: "cure-curve",
    a: Math.log(first.minutes) - cure.b / cToKelvin(first.metalC),
    b: cure.b,
    basis: "cure-curve-slope",
    lowestC: first.metalC,
    highestC: first.metalC,
  });
}

/** Minutes required at a metal temperature, °C. */
export const requiredMinutes = (curve: CureCurve, metalC: number): number =>
  Math.exp(curve.a + curve.b / cToKelvin(metalC));

/** More than 15 °C outside the sheet's points. */
export const isExtrapolated = (curve: CureCurve, metalC: number): boolean =>
  metalC < curve.lowestC - EXTRAPOLATION_C || metalC > curve.highestC + EXTRAPOLATION_C;
