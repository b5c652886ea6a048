import { err, ok, type Result } from "../result";

/** A structure or zone followed so long: until it failed, or until it was seen last and had not. */
export type Followed = { readonly years: number; readonly failed: boolean };
export type SurvivalStep = {
  readonly years: number;
  readonly atRisk: number;
  readonly failed: number;
  /** Share that stands yet, 0–1, with 95 % by Greenwood’s variance on the log-log scale. */
  readonly stands: number;
  readonly interval: readonly [number, number];
};
export type SurvivalCurve = {
  readonly n: number;
  readonly failed: number;
  readonly censored: number;
  readonly steps: readonly SurvivalStep[];
  /** Years after which half do not stand; null while more than half do. */
  readonly medianYears: number | null;
  /** The longest that anything was followed. */
  readonly longestYears: number;
};

const Z95 = 1.959963984540054;

/**
 * How long things stand, from some that failed and some that had not when they were seen last (Kaplan–Meier). Failures:
 * `nothing-followed`, `bad-input` (years under nothing). O(n log n). Source: Kaplan and Meier 1958; interval by Greenwood’s
 * variance, log-log (Kalbfleisch and Prentice).
 */
export function survival(all: readonly Followed[]): Result<SurvivalCurve> {
  if (all.length === 0) return err({ kind: "nothing-followed" });
  const bad = all.find((f) => !(f.years >= 0) || !Number.isFinite(f.years));
  if (bad) return err({ kind: "bad-input", name: "years", value: bad.years });
  const sorted = [...all].sort((a, b) => a.years - b.years || Number(b.failed) - Number(a.failed));
  const steps: SurvivalStep[] = [];
  let stands = 1;
  let greenwood = 0;
  for (let i = 0; i < sorted.length; ) {
    const years = (sorted[i] as Followed).years;
    let [failed, left] = [0, i];
    while (left < sorted.length && (sorted[left] as Followed).years === years) {
      if ((sorted[left] as Followed).failed) failed++;
      left++;
    }
    const atRisk = sorted.length - i;
    if (failed > 0) {
      stands *= 1 - failed / atRisk;
      greenwood += failed / (atRisk * (atRisk - failed));
      steps.push({ years, atRisk, failed, stands, interval: interval(stands, greenwood) });
    }
    i = left;
  }
  const failed = sorted.filter((f) => f.failed).length;
  return ok({
    n: sorted.length,
    failed,
    censored: sorted.length - failed,
    steps,
    medianYears: steps.find((s) => s.stands <= 0.5)?.years ?? null,
    longestYears: (sorted.at(-1) as Followed).years,
  });
}

/** 95 % of a share that stands, on the log-log scale: it never leaves 0 to 1. */
function interval(stands: number, greenwood: number): readonly [number, number] {
  if (stands <= 0) return [0, 0];
  if (stands >= 1) return [1, 1];
  const se = Math.sqrt(greenwood) / Math.abs(Math.log(stands));
  return [stands ** Math.exp(Z95 * se), stands ** Math.exp(-Z95 * se)];
}

/** Share that stands yet after so many years; null beyond what anything was followed. */
export function standsAfter(curve: SurvivalCurve, years: number): number | null {
  if (years > curve.longestYears) return null;
  return curve.steps.filter((s) => s.years <= years).at(-1)?.stands ?? 1;
}
