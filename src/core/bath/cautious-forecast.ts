import { err, ok, type Result } from "../result";
import { mean, studentTQuantile } from "../statistics";
import {
  type BathForecast,
  type BathTrend,
  fitTrend,
  type LimitSide,
  PREDICTION_CONFIDENCE,
  TREND_LEAST_POINTS,
} from "./trend";

/** Checks from which a bend can be told from noise, and fewest that a straight stretch is taken from. */
const BEND_LEAST_POINTS = 6;
const STRETCH_LEAST_POINTS = 5;
/** A bend is one where the quadratic term stands this far out, two-sided. */
const BEND_CONFIDENCE = 0.9;
/** A rate wanders: it may be so much of itself another by the time the line has run on as long as it was seen, 1 s.d. */
const RATE_WANDERS = 0.2;

export type CautiousForecast = {
  readonly trend: BathTrend;
  readonly forecast: BathForecast;
  /** What the plain line was not trusted in. */
  readonly cautions: {
    /** The line bent: only the last so many checks were taken. */
    readonly lastChecks: number | null;
    /** As many independent checks as those taken are worth, their residuals running together. */
    readonly worth: number;
    /** The residuals were smaller than the method repeats. */
    readonly spreadOfMethod: boolean;
  };
  /** Value on the line, with its one-sided 95 % bound, at an hour. */
  readonly at: (hour: number) => { readonly value: number; readonly bound: number };
};

/**
 * `forecastLimit` with the cautions a real bath asks for: where the line bends only its last straight stretch is taken;
 * residuals that run together count for fewer checks; their spread is never under the method's repeatability (same unit
 * as the values); and the rate is let wander ahead. A slope that points away, or is not told from none, gives no time.
 * Failures: those of `fitTrend`, `bad-limit`, `bad-input`. O(n²) at most.
 */
export function cautiousForecast(
  hours: readonly number[],
  values: readonly number[],
  limit: number,
  side: LimitSide,
  repeatability: number,
): Result<CautiousForecast> {
  if (!Number.isFinite(limit)) return err({ kind: "bad-limit", limit });
  if (!(repeatability >= 0) || !Number.isFinite(repeatability))
    return err({ kind: "bad-input", name: "repeatability", value: repeatability });
  const whole = fitTrend(hours, values);
  if (!whole.ok) return whole;
  const from = lastStraight(hours, values);
  const [h, v] = [hours.slice(from), values.slice(from)];
  const fitted = from === 0 ? whole : fitTrend(h, v);
  if (!fitted.ok) return fitted;
  const trend = fitted.value;
  const n = h.length;
  const centre = mean(h);
  const sxx = h.reduce((sum, x) => sum + (x - centre) ** 2, 0);
  const residuals = v.map((value, i) => value - trend.intercept - trend.slopePerHour * (h[i] as number));
  const together = runningTogether(residuals);
  const worth = Math.max(TREND_LEAST_POINTS, (n * (1 - together)) / (1 + together));
  // Residuals that run together look smaller about their line than they are about the truth.
  const own = trend.residualSd * Math.sqrt((n - 2) / Math.max(1, worth - 2));
  const sd = Math.max(own, repeatability);
  const t = studentTQuantile(PREDICTION_CONFIDENCE, Math.max(1, worth - 2));
  const spanH = trend.lastHour - (h[0] as number);
  const at = (hour: number) => {
    const ahead = Math.max(0, hour - trend.lastHour);
    const line = sd ** 2 * (1 + 1 / worth + ((hour - centre) ** 2 / sxx) * (n / worth));
    const wander = spanH > 0 ? (RATE_WANDERS * trend.slopePerHour * ahead) ** 2 * Math.min(4, ahead / spanH) : 0;
    const half = t * Math.sqrt(line + wander);
    const value = trend.intercept + trend.slopePerHour * hour;
    return { value, bound: side === "lower" ? value - half : value + half };
  };
  const cautions = {
    lastChecks: from > 0 ? n : null,
    worth,
    spreadOfMethod: repeatability > own,
  };
  const toward = side === "lower" ? trend.slopePerHour < 0 : trend.slopePerHour > 0;
  if (!toward) return ok({ trend, forecast: { kind: "no-forecast", why: "points-away" }, cautions, at });
  const meetsAtHour = (limit - trend.intercept) / trend.slopePerHour;
  const beyond = (hour: number) => (side === "lower" ? at(hour).bound <= limit : at(hour).bound >= limit);
  let checkByHour = trend.lastHour;
  if (meetsAtHour > trend.lastHour && !beyond(trend.lastHour)) {
    let [low, high] = [trend.lastHour, meetsAtHour];
    for (let i = 0; i < 60; i++) {
      const middle = (low + high) / 2;
      if (beyond(middle)) high = middle;
      else low = middle;
    }
    checkByHour = high;
  }
  return ok({ trend, forecast: { kind: "forecast", meetsAtHour, checkByHour }, cautions, at });
}

/** Where the last stretch begins that shows no bend: the oldest checks are let go while a quadratic term stands out. */
function lastStraight(hours: readonly number[], values: readonly number[]): number {
  let from = 0;
  while (hours.length - from >= BEND_LEAST_POINTS && bends(hours.slice(from), values.slice(from)))
    from = Math.min(hours.length - STRETCH_LEAST_POINTS, from + Math.max(1, Math.floor((hours.length - from) / 4)));
  return from;
}

/** Whether a quadratic term stands out: what is left of the square of time, once level and line are taken out, against the values. */
function bends(hours: readonly number[], values: readonly number[]): boolean {
  const scale = Math.max(...hours) - Math.min(...hours);
  if (!(scale > 0)) return false;
  const x = hours.map((hour) => (hour - (hours[0] as number)) / scale);
  const square = fitTrend(
    x,
    x.map((u) => u * u),
  );
  const line = fitTrend(x, values);
  if (!square.ok || !line.ok) return false;
  const left = (of: BathTrend, own: readonly number[]) =>
    own.map((value, i) => value - of.intercept - of.slopePerHour * (x[i] as number));
  const q = left(
    square.value,
    x.map((u) => u * u),
  );
  const e = left(line.value, values);
  const qq = q.reduce((sum, a) => sum + a * a, 0);
  const degrees = x.length - 3;
  if (!(qq > 0) || degrees < 1) return false;
  const term = q.reduce((sum, a, i) => sum + a * (e[i] as number), 0) / qq;
  const rest = e.reduce((sum, a, i) => sum + (a - term * (q[i] as number)) ** 2, 0);
  const se = Math.sqrt(rest / degrees / qq);
  return se === 0 ? term !== 0 : Math.abs(term / se) > studentTQuantile((1 + BEND_CONFIDENCE) / 2, degrees);
}

/** First-order correlation of residuals in time order, over what a fitted line makes of independent ones (about −1/n); nothing under nothing. */
function runningTogether(residuals: readonly number[]): number {
  const n = residuals.length;
  const squares = residuals.reduce((sum, r) => sum + r * r, 0);
  if (n < BEND_LEAST_POINTS || squares === 0) return 0;
  const lagged = residuals.slice(1).reduce((sum, r, i) => sum + r * (residuals[i] as number), 0);
  return Math.min(0.9, Math.max(0, lagged / squares + 2 / n));
}
