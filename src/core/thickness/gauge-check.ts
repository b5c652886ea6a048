import { err, ok, type Result } from "../result";
import { mean } from "../statistics";

/** A certified shim with what the gauge read on it. */
export type ShimReadings = {
  readonly certifiedUm: number;
  readonly toleranceUm: number;
  readonly readingsUm: readonly number[];
};
export type GaugeTolerance = { readonly um: number; readonly percent: number };
export type ShimJudged = {
  readonly certifiedUm: number;
  readonly meanUm: number;
  readonly errorUm: number;
  readonly allowedUm: number;
  readonly holds: boolean;
};
/** Readings wanted on a shim. */
export const SHIM_READINGS = 3;

/**
 * A gauge against its shims: for each, |mean − certified| ≤ √(gauge tolerance² + shim tolerance²), the gauge's tolerance
 * being its µm plus its share of the reading. One that fails puts every reading since the last good check in question.
 * Failures: `no-shim`, `too-few-readings` (shim, got, need), `bad-input`.
 */
export function checkGauge(
  shims: readonly ShimReadings[],
  tolerance: GaugeTolerance,
): Result<{ readonly holds: boolean; readonly shims: readonly ShimJudged[] }> {
  if (shims.length === 0) return err({ kind: "no-shim" });
  if (!(tolerance.um >= 0) || !(tolerance.percent >= 0))
    return err({ kind: "bad-input", name: "tolerance", value: tolerance.um });
  const judged: ShimJudged[] = [];
  for (const { certifiedUm, toleranceUm, readingsUm } of shims) {
    if (!(certifiedUm >= 0) || !Number.isFinite(certifiedUm))
      return err({ kind: "bad-input", name: "certifiedUm", value: certifiedUm });
    if (!(toleranceUm >= 0)) return err({ kind: "bad-input", name: "toleranceUm", value: toleranceUm });
    if (readingsUm.length < SHIM_READINGS)
      return err({ kind: "too-few-readings", shimUm: certifiedUm, got: readingsUm.length, need: SHIM_READINGS });
    const bad = readingsUm.find((r) => !Number.isFinite(r));
    if (bad !== undefined) return err({ kind: "bad-input", name: "readingUm", value: bad });
    const meanUm = mean(readingsUm);
    const gaugeUm = tolerance.um + (tolerance.percent / 100) * certifiedUm;
    const allowedUm = Math.sqrt(gaugeUm ** 2 + toleranceUm ** 2);
    const errorUm = meanUm - certifiedUm;
    judged.push({ certifiedUm, meanUm, errorUm, allowedUm, holds: Math.abs(errorUm) <= allowedUm * (1 + 1e-9) });
  }
  return ok({ holds: judged.every((s) => s.holds), shims: judged });
}
