import { err, ok, type Result } from "../result";
import { mean, sampleSd } from "../statistics";

export type TopCoat = {
  readonly topUm: number;
  readonly standardErrorUm: number;
  /** Under twice its standard error a layer cannot be told from none. */
  readonly toldApart: boolean;
  readonly by: "means" | "pairs";
};

/**
 * The top coat of a system: total less primer. With primer and total read at the same spots (`paired`, same length) its
 * standard error is that of the differences, otherwise √(s₁²/n₁ + s₂²/n₂). Failures: `too-few-values` (2 of each),
 * `pairs-differ` (counts), `bad-input`, `primer-over-total` (means).
 */
export function topCoat(totalUm: readonly number[], primerUm: readonly number[], paired: boolean): Result<TopCoat> {
  for (const values of [totalUm, primerUm]) {
    if (values.length < 2) return err({ kind: "too-few-values", got: values.length, need: 2 });
    const bad = values.find((v) => !(v >= 0) || !Number.isFinite(v));
    if (bad !== undefined) return err({ kind: "bad-input", name: "thicknessUm", value: bad });
  }
  if (paired && totalUm.length !== primerUm.length)
    return err({ kind: "pairs-differ", total: totalUm.length, primer: primerUm.length });
  const topUm = mean(totalUm) - mean(primerUm);
  if (topUm < 0) return err({ kind: "primer-over-total", totalUm: mean(totalUm), primerUm: mean(primerUm) });
  const standardErrorUm = paired
    ? sampleSd(totalUm.map((t, i) => t - (primerUm[i] ?? 0))) / Math.sqrt(totalUm.length)
    : Math.sqrt(sampleSd(totalUm) ** 2 / totalUm.length + sampleSd(primerUm) ** 2 / primerUm.length);
  return ok({ topUm, standardErrorUm, toldApart: topUm >= 2 * standardErrorUm, by: paired ? "pairs" : "means" });
}

/** What each pass still to come must lay down, µm: what is left to build over the passes left. Failures: `bad-input`, `built-already` (over). */
export function perPass(targetUm: number, builtUm: number, passesLeft: number): Result<number> {
  if (!(targetUm > 0)) return err({ kind: "bad-input", name: "targetUm", value: targetUm });
  if (!(builtUm >= 0)) return err({ kind: "bad-input", name: "builtUm", value: builtUm });
  if (!(passesLeft >= 1) || !Number.isInteger(passesLeft))
    return err({ kind: "bad-input", name: "passesLeft", value: passesLeft });
  const left = targetUm - builtUm;
  return left > 0 ? ok(left / passesLeft) : err({ kind: "built-already", overUm: -left });
}
