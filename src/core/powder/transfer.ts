import { err, ok, type Result } from "../result";
import { mean, sampleSd, studentTQuantile } from "../statistics";

/** Figures learnt from fewer than this are shown, and not yet relied on. */
export const LEARNT_FROM = 5;

/**
 * Powder that stayed on the parts over powder that left the hopper: area × film × specific gravity × 10⁻³ / kg. Failures:
 * `bad-input` (anything not over 0), `more-on-than-used` (over 1: a weight, area or film is wrong).
 */
export function transferEfficiency(input: {
  readonly areaM2: number;
  readonly thicknessUm: number;
  readonly specificGravity: number;
  readonly usedKg: number;
}): Result<number> {
  for (const [name, value] of Object.entries(input))
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-input", name, value });
  const onKg = input.areaM2 * input.thicknessUm * input.specificGravity * 1e-3;
  const share = onKg / input.usedKg;
  return share > 1 + 1e-9 ? err({ kind: "more-on-than-used", onKg, usedKg: input.usedKg }) : ok(Math.min(1, share));
}

/** Powder used by the hopper's weights, kg; what was filled in between counts. Failures: `bad-input`, `hopper-gained` (before, after, added). */
export function usedFromHopper(beforeKg: number, afterKg: number, addedKg = 0): Result<number> {
  for (const [name, value] of Object.entries({ beforeKg, afterKg, addedKg }))
    if (!(value >= 0) || !Number.isFinite(value)) return err({ kind: "bad-input", name, value });
  const used = beforeKg + addedKg - afterKg;
  return used > 0 ? ok(used) : err({ kind: "hopper-gained", beforeKg, afterKg, addedKg });
}

export type Learnt = {
  readonly kind: "learnt";
  readonly mean: number;
  readonly sd: number | null;
  readonly n: number;
  /** 95 % interval of the mean; null for a single one. */
  readonly interval: readonly [number, number] | null;
  /** Enough of them to rely on. */
  readonly relied: boolean;
};

/** A figure learnt from past work: mean with its 95 % t interval and how many it rests on. Failures: `too-few-values`, `bad-input`. */
export function learnt(values: readonly number[]): Result<Learnt> {
  if (values.length === 0) return err({ kind: "too-few-values", got: 0, need: 1 });
  const bad = values.find((v) => !Number.isFinite(v));
  if (bad !== undefined) return err({ kind: "bad-input", name: "value", value: bad });
  const n = values.length;
  const m = mean(values);
  const sd = n > 1 ? sampleSd(values) : null;
  const half = sd === null ? null : (studentTQuantile(0.975, n - 1) * sd) / Math.sqrt(n);
  return ok({
    kind: "learnt",
    mean: m,
    sd,
    n,
    interval: half === null ? null : [m - half, m + half],
    relied: n >= LEARNT_FROM,
  });
}

/** Where no pair was read yet: a dry layer of powder melts to about this share of its height. Flagged as assumed. */
export const USUAL_CURED_SHARE = 0.6;

/**
 * Cured film from the height of the loose powder, µm: height × ratio, the ratio learnt from paired readings of that
 * powder; ± two standard deviations of the ratio where it is learnt. Failures: `bad-input` and those of `learnt`.
 */
export function curedFromHeight(
  heightUm: number,
  pairs: readonly { readonly heightUm: number; readonly curedUm: number }[],
): Result<{
  readonly curedUm: number;
  readonly range: readonly [number, number] | null;
  readonly ratio: number;
  readonly n: number;
  readonly grade: "measured" | "assumed";
}> {
  if (!(heightUm > 0) || !Number.isFinite(heightUm))
    return err({ kind: "bad-input", name: "heightUm", value: heightUm });
  for (const p of pairs)
    if (!(p.heightUm > 0) || !(p.curedUm > 0))
      return err({ kind: "bad-input", name: "pair", value: p.heightUm > 0 ? p.curedUm : p.heightUm });
  if (pairs.length === 0)
    return ok({ curedUm: heightUm * USUAL_CURED_SHARE, range: null, ratio: USUAL_CURED_SHARE, n: 0, grade: "assumed" });
  const found = learnt(pairs.map((p) => p.curedUm / p.heightUm));
  if (!found.ok) return found;
  const { mean: ratio, sd, n, relied } = found.value;
  return ok({
    curedUm: heightUm * ratio,
    range: sd === null ? null : [heightUm * Math.max(0, ratio - 2 * sd), heightUm * (ratio + 2 * sd)],
    ratio,
    n,
    grade: relied ? "measured" : "assumed",
  });
}
