import { err, ok, type Result } from "../result";
import { mean, sampleSd, studentTQuantile } from "../statistics";
import { checkValues } from "../statistics/mean";
import { D2_OF_TWO, INDIVIDUALS_FACTOR } from "./individuals";
import { type RunRuleHits, runRules } from "./run-rules";

/** Values left over from the trend that a spread is taken from; under these it is not known. */
const LEAST_LEFT_OVER = 8;
/** Stretches that say what slope is usual, and checks that make a slope. */
const LEAST_STRETCHES = 5;
const SLOPE_POINTS = 4;
/** A slope is unusual where so few of the usual ones would be, both sides together. */
const SLOPE_CONFIDENCE = 0.995;

/** The line of one stretch between changes: value and hour of its first and last check. */
export type StretchLine = {
  readonly fromIndex: number;
  readonly toIndex: number;
  readonly from: number;
  readonly to: number;
  readonly slopePerHour: number;
};
export type TrendingChart = {
  readonly kind: "trending-chart";
  /** What each value is over the line of the checks of its stretch before it, in terms of one check's spread; null for the first two. */
  readonly leftOver: readonly (number | null)[];
  readonly sigma: number;
  /** 2.66 · mean moving range of what is left over: the limits lie so far either side of a line. */
  readonly half: number;
  readonly lines: readonly StretchLine[];
  readonly runRules: RunRuleHits;
  /** The newest stretch's slope where it is none of the usual, per hour; null where it is, or is not known. */
  readonly unusualSlope: { readonly slopePerHour: number; readonly usualPerHour: number } | null;
};

/**
 * Run rules on a value that moves by nature between changes: judged on what is left over from the trend since the last
 * change, and the trend itself on its slope against what is usual. What is left over of a check is its distance from the
 * line through the checks of its stretch before it, over √(1 + 1/m + (h − h̄)²/Sxx), so that all have one spread and none
 * knows of the next (recursive residuals). Checks left out (their cause is known) are judged but bend no line.
 * Failures: those of `checkValues`, `lengths-differ`, `times-out-of-order`, `too-few-values`, `no-spread`.
 * Source: Brown, Durbin, Evans, J. R. Statist. Soc. B 37 (1975); Nelson (1984). O(n).
 */
export function trendingChart(
  hours: readonly number[],
  values: readonly number[],
  breaksBefore: readonly number[] = [],
  leftOut: readonly boolean[] = [],
): Result<TrendingChart> {
  const checked = checkValues(values);
  if (!checked.ok) return checked;
  if (hours.length !== values.length)
    return err({ kind: "lengths-differ", hours: hours.length, values: values.length });
  const back = hours.findIndex((h, i) => !Number.isFinite(h) || (i > 0 && h < (hours[i - 1] as number)));
  if (back >= 0) return err({ kind: "times-out-of-order", index: back, timeS: hours[back] });
  const breaks = new Set(breaksBefore);
  const leftOver: (number | null)[] = [];
  const lines: (StretchLine & { readonly points: number; readonly sxx: number })[] = [];
  let line = newLine();
  let fromIndex = 0;
  /** By its first check. */
  const stretchOf: number[] = [];
  const close = (toIndex: number) => {
    const fit = line.fit();
    if (fit && line.points() >= 3)
      lines.push({
        fromIndex,
        toIndex,
        from: fit.at(hours[fromIndex] as number),
        to: fit.at(hours[toIndex] as number),
        slopePerHour: fit.slope,
        points: line.points(),
        sxx: fit.sxx,
      });
  };
  for (const [i, value] of values.entries()) {
    if (breaks.has(i) && i > 0) {
      close(i - 1);
      line = newLine();
      fromIndex = i;
    }
    stretchOf.push(fromIndex);
    const hour = hours[i] as number;
    const fit = line.fit();
    leftOver.push(fit ? (value - fit.at(hour)) / fit.widening(hour) : null);
    if (!leftOut[i]) line.add(hour, value);
  }
  close(values.length - 1);
  const kept = leftOver.flatMap((w, i) => (w === null || leftOut[i] ? [] : [w]));
  if (kept.length < LEAST_LEFT_OVER) return err({ kind: "too-few-values", got: kept.length, need: LEAST_LEFT_OVER });
  const meanMovingRange = mean(kept.slice(1).map((w, i) => Math.abs(w - (kept[i] as number))));
  const sigma = meanMovingRange / D2_OF_TWO;
  // What is left of a straight line by rounding is no spread.
  const size = Math.max(...values.map(Math.abs));
  if (sigma <= 1e-12 * size) return err({ kind: "no-spread", value: mean(values) });
  const judged = leftOver.flatMap((w, i) => (w === null ? [] : [{ w, i, stretch: stretchOf[i] }]));
  const starts = judged.flatMap(({ stretch }, k) => (k > 0 && stretch !== judged[k - 1]?.stretch ? [k] : []));
  const found = runRules(
    judged.map(({ w }) => w),
    { centre: 0, sigma },
    starts,
  );
  if (!found.ok) return found;
  return ok({
    kind: "trending-chart",
    leftOver,
    sigma,
    half: INDIVIDUALS_FACTOR * meanMovingRange,
    lines: lines.map(({ points: _, sxx: __, ...own }) => own),
    runRules: Object.fromEntries(
      Object.entries(found.value).map(([rule, at]) => [rule, at.map((k) => judged[k]?.i ?? 0)]),
    ),
    unusualSlope: slopeOf(lines, values.length - 1, sigma),
  });
}

/** A least-squares line to which points are added one by one, its sums about the first so that no digits are lost. */
function newLine() {
  let [n, h0, v0, sh, sv, shh, shv] = [0, 0, 0, 0, 0, 0, 0];
  return {
    points: () => n,
    add(hour: number, value: number) {
      if (n === 0) [h0, v0] = [hour, value];
      const [h, v] = [hour - h0, value - v0];
      n++;
      sh += h;
      sv += v;
      shh += h * h;
      shv += h * v;
    },
    /** Null while there is no line: under two points, or all at one time. */
    fit() {
      const sxx = shh - (sh * sh) / n;
      if (n < 2 || !(sxx > 1e-12 * (shh || 1))) return null;
      const slope = (shv - (sh * sv) / n) / sxx;
      const centre = h0 + sh / n;
      const level = v0 + sv / n;
      const points = n;
      return {
        slope,
        sxx,
        at: (hour: number) => level + slope * (hour - centre),
        widening: (hour: number) => Math.sqrt(1 + 1 / points + (hour - centre) ** 2 / sxx),
      };
    },
  };
}

function slopeOf(
  lines: readonly { toIndex: number; slopePerHour: number; points: number; sxx: number }[],
  lastIndex: number,
  sigma: number,
): TrendingChart["unusualSlope"] {
  const newest = lines.at(-1);
  const before = lines.slice(0, -1).filter((l) => l.points >= SLOPE_POINTS);
  if (!newest || newest.toIndex !== lastIndex || newest.points < SLOPE_POINTS || before.length < LEAST_STRETCHES)
    return null;
  const slopes = before.map((l) => l.slopePerHour);
  const usual = mean(slopes);
  const k = slopes.length;
  const sd = Math.sqrt(sampleSd(slopes) ** 2 * (1 + 1 / k) + sigma ** 2 / newest.sxx);
  const far = studentTQuantile((1 + SLOPE_CONFIDENCE) / 2, k - 1) * sd;
  return Math.abs(newest.slopePerHour - usual) > far
    ? { slopePerHour: newest.slopePerHour, usualPerHour: usual }
    : null;
}
