import { err, ok, type Result } from "../result";
import { checkValues } from "../statistics/mean";

/** With λ = 0.2, about 370 checks between false alarms. */
export const EWMA_LIMIT_SIGMAS = 2.86;

export type EwmaChart = {
  readonly kind: "ewma-chart";
  readonly values: readonly number[];
  readonly lower: readonly number[];
  readonly upper: readonly number[];
};

/**
 * Exponentially weighted moving average with exact time-varying limits; z₀ = centre.
 * Failures: `no-values`, `not-finite`, `bad-lambda` (0 < λ ≤ 1), `bad-sigma`. Source: Roberts, Technometrics 1 (1959).
 */
export function ewmaChart(
  values: readonly number[],
  chart: { readonly centre: number; readonly sigma: number; readonly lambda?: number; readonly limitSigmas?: number },
): Result<EwmaChart> {
  const checked = checkValues(values);
  if (!checked.ok) return checked;
  const { centre, sigma, lambda = 0.2, limitSigmas = EWMA_LIMIT_SIGMAS } = chart;
  if (!(lambda > 0 && lambda <= 1)) return err({ kind: "bad-lambda", lambda });
  if (!(sigma > 0) || !Number.isFinite(centre)) return err({ kind: "bad-sigma", sigma, centre });
  const smoothed: number[] = [];
  let last = centre;
  for (const value of values) {
    last = lambda * value + (1 - lambda) * last;
    smoothed.push(last);
  }
  const half = values.map(
    (_, i) => limitSigmas * sigma * Math.sqrt((lambda / (2 - lambda)) * (1 - (1 - lambda) ** (2 * (i + 1)))),
  );
  return ok({
    kind: "ewma-chart",
    values: smoothed,
    lower: half.map((h) => centre - h),
    upper: half.map((h) => centre + h),
  });
}
