import { err, ok, type Result } from "../result";
import { mean, studentTQuantile } from "../statistics";

export type LimitSide = "lower" | "upper";
export type BathTrend = {
  readonly kind: "bath-trend";
  readonly slopePerHour: number;
  readonly intercept: number;
  readonly residualSd: number;
  readonly n: number;
  readonly lastHour: number;
};
export type BathForecast =
  | {
      readonly kind: "forecast";
      readonly meetsAtHour: number /** Latest hour for the next check, never before the last one. */;
      readonly checkByHour: number;
    }
  | { readonly kind: "no-forecast"; readonly why: "points-away" };
export const TREND_LEAST_POINTS = 3;
export const PREDICTION_CONFIDENCE = 0.95;

/**
 * Least-squares line of a bath value on hours since the last addition, dump or recharge.
 * Failures: `lengths-differ`, `too-few-points`, `not-finite`, `equal-times`.
 */
export function fitTrend(hours: readonly number[], values: readonly number[]): Result<BathTrend> {
  if (hours.length !== values.length)
    return err({ kind: "lengths-differ", hours: hours.length, values: values.length });
  if (hours.length < TREND_LEAST_POINTS)
    return err({ kind: "too-few-points", got: hours.length, need: TREND_LEAST_POINTS });
  const index = [...hours, ...values].findIndex((x) => !Number.isFinite(x));
  if (index >= 0) return err({ kind: "not-finite", index: index % hours.length });
  const n = hours.length;
  const centreHour = mean(hours);
  const centreValue = mean(values);
  let sxx = 0;
  let sxy = 0;
  for (let i = 0; i < n; i++) {
    sxx += ((hours[i] as number) - centreHour) ** 2;
    sxy += ((hours[i] as number) - centreHour) * ((values[i] as number) - centreValue);
  }
  if (sxx === 0) return err({ kind: "equal-times", hour: hours[0] });
  const slopePerHour = sxy / sxx;
  const intercept = centreValue - slopePerHour * centreHour;
  const squares = values.reduce(
    (sum, value, i) => sum + (value - intercept - slopePerHour * (hours[i] as number)) ** 2,
    0,
  );
  return ok({
    kind: "bath-trend",
    slopePerHour,
    intercept,
    residualSd: Math.sqrt(squares / (n - 2)),
    n,
    lastHour: Math.max(...hours),
  });
}

/** Value on the trend line, with the one-sided 95 % prediction bound toward `side`, at an hour. */
export function predictAt(
  trend: BathTrend,
  hours: readonly number[],
  hour: number,
  side: LimitSide,
): { value: number; bound: number } {
  const centreHour = mean(hours);
  const sxx = hours.reduce((sum, h) => sum + (h - centreHour) ** 2, 0);
  const t = studentTQuantile(PREDICTION_CONFIDENCE, trend.n - 2);
  const half = t * trend.residualSd * Math.sqrt(1 + 1 / trend.n + (hour - centreHour) ** 2 / sxx);
  const value = trend.intercept + trend.slopePerHour * hour;
  return { value, bound: side === "lower" ? value - half : value + half };
}

/**
 * When the trend meets a limit, and the latest hour for the next check: when the one-sided 95 % prediction
 * bound (t, n − 2) first meets it, not before the last point. A slope that points away gives no forecast.
 * Failures: those of `fitTrend`, `bad-limit`.
 */
export function forecastLimit(
  hours: readonly number[],
  values: readonly number[],
  limit: number,
  side: LimitSide,
): Result<{ readonly trend: BathTrend; readonly forecast: BathForecast }> {
  if (!Number.isFinite(limit)) return err({ kind: "bad-limit", limit });
  const fitted = fitTrend(hours, values);
  if (!fitted.ok) return fitted;
  const trend = fitted.value;
  const toward = side === "lower" ? trend.slopePerHour < 0 : trend.slopePerHour > 0;
  if (!toward) return ok({ trend, forecast: { kind: "no-forecast", why: "points-away" } });
  const meetsAtHour = (limit - trend.intercept) / trend.slopePerHour;
  const beyond = (hour: number) => {
    const { bound } = predictAt(trend, hours, hour, side);
    return side === "lower" ? bound <= limit : bound >= limit;
  };
  let checkByHour = trend.lastHour;
  if (meetsAtHour > trend.lastHour && !beyond(trend.lastHour)) {
    let low = trend.lastHour;
    let high = meetsAtHour;
    for (let i = 0; i < 80; i++) {
      const middle = (low + high) / 2;
      if (beyond(middle)) high = middle;
      else low = middle;
    }
    checkByHour = high;
  }
  return ok({ trend, forecast: { kind: "forecast", meetsAtHour, checkByHour } });
}
