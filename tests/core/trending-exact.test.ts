import jstat from "jstat";
import { describe, expect, test } from "vitest";
import { trendingChart } from "@/core/control-charts";
import { valueOrThrow } from "@/core/result";
import { seededRandom } from "@/core/simulated-line";

/** The plain least-squares line of these points, worked out at once. */
function fitted(points: readonly (readonly [number, number])[]) {
  const n = points.length;
  const h = points.reduce((s, [x]) => s + x, 0) / n;
  const v = points.reduce((s, [, y]) => s + y, 0) / n;
  const sxx = points.reduce((s, [x]) => s + (x - h) ** 2, 0);
  const slope = points.reduce((s, [x, y]) => s + (x - h) * (y - v), 0) / sxx;
  return {
    slope,
    sxx,
    at: (x: number) => v + slope * (x - h),
    wide: (x: number) => Math.sqrt(1 + 1 / n + (x - h) ** 2 / sxx),
  };
}
/** Stretches of so many checks each, at uneven hours, of one slope and normal noise. */
function stretches(lengths: readonly number[], slope: number | ((k: number) => number), seed = 3) {
  const random = seededRandom(seed);
  const [hours, values, breaks]: [number[], number[], number[]] = [[], [], []];
  let at = 0;
  for (const [k, length] of lengths.entries()) {
    if (k > 0) breaks.push(hours.length);
    const own = typeof slope === "number" ? slope : slope(k);
    const began = at;
    for (let i = 0; i < length; i++) {
      hours.push(at);
      values.push(5 + own * (at - began) + random.normal(0, 0.02));
      at += 3 + (i % 3);
    }
  }
  return { hours, values, breaks };
}
const chartOf = ({ hours, values, breaks }: ReturnType<typeof stretches>, leftOut?: boolean[]) =>
  trendingChart(hours, values, breaks, leftOut);

describe("what is left over, beside lines worked out plainly", () => {
  const made = stretches([7, 3, 9, 6], 0.03);
  const starts = [0, ...made.breaks];
  const stretchOf = (i: number) => Math.max(...starts.filter((s) => s <= i));
  const leftOut = made.values.map((_, i) => i === 4 || i === 12);
  const before = (i: number) =>
    made.hours
      .map((h, j) => [h, made.values[j] as number] as const)
      .filter((_, j) => j < i && stretchOf(j) === stretchOf(i) && !leftOut[j]);

  test("each check's is over the line of its stretch before it; the first two of a stretch have none", () => {
    const chart = valueOrThrow(chartOf(made, leftOut));
    for (const [i, left] of chart.leftOver.entries()) {
      const points = before(i);
      if (points.length < 2) expect(left, `check ${i}`).toBeNull();
      else {
        const line = fitted(points);
        const hour = made.hours[i] as number;
        expect(left, `check ${i}`).toBeCloseTo(((made.values[i] as number) - line.at(hour)) / line.wide(hour), 10);
      }
    }
  });
  test("the spread is the mean moving range of those kept, over 1.128; limits 2.66 of it", () => {
    const chart = valueOrThrow(chartOf(made, leftOut));
    const kept = chart.leftOver.filter((w, i): w is number => w !== null && !leftOut[i]);
    const range = kept.slice(1).reduce((s, w, i) => s + Math.abs(w - (kept[i] as number)), 0) / (kept.length - 1);
    expect(chart.sigma).toBeCloseTo((range * Math.sqrt(Math.PI)) / 2, 10);
    expect(chart.half).toBeCloseTo(2.66 * range, 3);
  });
  test("a stretch of three checks has a line, one of two has none; its ends are where it was looked at", () => {
    const short = stretches([7, 2, 9, 3], 0.03);
    const chart = valueOrThrow(chartOf(short));
    expect(chart.lines.map((l) => [l.fromIndex, l.toIndex])).toEqual([
      [0, 6],
      [9, 17],
      [18, 20],
    ]);
    const line = fitted(short.hours.slice(9, 18).map((h, i) => [h, short.values[9 + i] as number] as const));
    expect(chart.lines[1]).toEqual({
      fromIndex: 9,
      toIndex: 17,
      from: expect.closeTo(line.at(short.hours[9] as number), 10),
      to: expect.closeTo(line.at(short.hours[17] as number), 10),
      slopePerHour: expect.closeTo(line.slope, 10),
    });
  });
  test("two checks at one moment are no line, and none comes to a figure that is no number", () => {
    const { values } = stretches([14], 0.01);
    const hours = values.map((_, i) => (i < 3 ? 8 : 8 + i));
    const chart = valueOrThrow(trendingChart(hours, values));
    expect(chart.leftOver.slice(0, 5)).toEqual([null, null, null, null, expect.any(Number)]);
    expect(chart.leftOver.slice(4).every((w) => Number.isFinite(w))).toBe(true);
    expect(
      trendingChart(
        values.map(() => 8),
        values,
      ),
    ).toMatchObject({ error: { kind: "too-few-values", got: 0 } });
  });
  test("far hours cost no digits", () => {
    const far = 4e5;
    const near = valueOrThrow(chartOf(made));
    const moved = valueOrThrow(
      trendingChart(
        made.hours.map((h) => h + far),
        made.values,
        made.breaks,
      ),
    );
    for (const [i, w] of near.leftOver.entries()) if (w !== null) expect(moved.leftOver[i]).toBeCloseTo(w, 8);
  });
});

describe("runs are judged within a stretch", () => {
  /** A gentle saw whose left-overs are known signs: built so that each check lies so far over its line. */
  const built = (wanted: readonly (readonly number[])[]) => {
    const [hours, values, breaks]: [number[], number[], number[]] = [[], [], []];
    for (const stretch of wanted) {
      if (hours.length > 0) breaks.push(hours.length);
      const points: [number, number][] = [];
      for (const [i, w] of [Number.NaN, Number.NaN, ...stretch].entries()) {
        const hour = hours.length * 4;
        const value = i < 2 ? 5 : fitted(points).at(hour) + w * fitted(points).wide(hour);
        points.push([hour, value]);
        hours.push(hour);
        values.push(value);
      }
    }
    return valueOrThrow(trendingChart(hours, values, breaks));
  };
  const side = [0.01, 0.03, 0.02, 0.01, 0.03];
  test("nine on one side in one stretch are a run; four and five in two are none", () => {
    const quiet = [-0.03, 0.03, -0.02, 0.02, -0.03, 0.02];
    const one = built([quiet, [...side, ...side.slice(0, 4)]]);
    expect(one.runRules[2]?.length).toBeGreaterThan(0);
    expect(one.runRules[2]?.at(-1)).toBe(8 + 2 + 9 - 1);
    const two = built([quiet, side, side]);
    expect(two.runRules[2] ?? []).toEqual([]);
  });
  test("what was built is what is left over", () => {
    const wanted = [0.02, -0.03, 0.01, 0.04, -0.02, 0.03, -0.01, 0.02];
    for (const [i, w] of wanted.entries()) expect(built([wanted]).leftOver[i + 2]).toBeCloseTo(w, 10);
  });
});

describe("how much it takes", () => {
  test("eight left over are enough, seven are too few; those left out are not counted", () => {
    expect(valueOrThrow(chartOf(stretches([10], 0.02))).leftOver).toHaveLength(10);
    expect(chartOf(stretches([9], 0.02))).toMatchObject({ error: { kind: "too-few-values", got: 7, need: 8 } });
    expect(
      chartOf(stretches([10], 0.02), [false, false, false, false, false, true, false, false, false, false]),
    ).toMatchObject({ error: { kind: "too-few-values", got: 7 } });
  });
  test("an hour that goes back or is no number is named; the first may be any, and two may be one", () => {
    const { values } = stretches([12], 0.02);
    const hours = values.map((_, i) => i - 5);
    expect(trendingChart(hours, values).ok).toBe(true);
    expect(trendingChart(hours.with(4, hours[3] as number), values).ok).toBe(true);
    expect(trendingChart(hours.with(4, -4).with(9, -9), values)).toMatchObject({
      error: { kind: "times-out-of-order", index: 4, timeS: -4 },
    });
    expect(trendingChart(hours.with(0, Number.NaN), values)).toMatchObject({ error: { index: 0 } });
    expect(trendingChart(hours.with(1, -6), values)).toMatchObject({ error: { index: 1 } });
  });
});

describe("the newest slope, beside the spread it is held to", () => {
  const usual = (k: number) => 0.03 + 0.002 * ((k % 3) - 1);
  /** The slope at which the newest stretch is just unusual, by the plain sums. */
  const edge = (made: ReturnType<typeof stretches>, sigma: number) => {
    const starts = [0, ...made.breaks, made.hours.length];
    const lines = starts.slice(0, -1).map((s, k) => {
      const e = starts[k + 1] as number;
      return fitted(made.hours.slice(s, e).map((h, i) => [h, made.values[s + i] as number] as const));
    });
    const newest = lines.at(-1) as ReturnType<typeof fitted>;
    const slopes = lines.slice(0, -1).map((l) => l.slope);
    const k = slopes.length;
    const mean = slopes.reduce((s, x) => s + x, 0) / k;
    const variance = slopes.reduce((s, x) => s + (x - mean) ** 2, 0) / (k - 1);
    const sd = Math.sqrt(variance * (1 + 1 / k) + sigma ** 2 / newest.sxx);
    return { mean, slope: newest.slope, far: jstat.studentt.inv(0.9975, k - 1) * sd };
  };
  const lengths = [6, 6, 6, 6, 6, 6, 6];
  test("over 99.5 % of the usual, both sides together, and not under", () => {
    const said = Array.from({ length: 60 }, (_, i) => {
      const last = -0.03 + 0.002 * i;
      const made = stretches(lengths, (k) => (k === 6 ? last : usual(k)), 11);
      const chart = valueOrThrow(chartOf(made));
      const { mean, slope, far } = edge(made, chart.sigma);
      expect(chart.unusualSlope !== null, `newest slope ${last}`).toBe(Math.abs(slope - mean) > far);
      if (chart.unusualSlope)
        expect(chart.unusualSlope).toEqual({
          slopePerHour: expect.closeTo(slope, 10),
          usualPerHour: expect.closeTo(mean, 10),
        });
      return chart.unusualSlope !== null;
    });
    // It is said at both ends, and not between: each edge is crossed once.
    expect(said.filter((s, i) => i > 0 && s !== said[i - 1])).toEqual([false, true]);
  });
  const steep = (made: number[]) =>
    valueOrThrow(chartOf(stretches(made, (k) => (k === made.length - 1 ? 0.3 : usual(k))))).unusualSlope;
  test("five stretches of four checks say what is usual; four stretches, or three checks, do not", () => {
    expect(steep([4, 4, 4, 4, 4, 4])).not.toBeNull();
    expect(steep([4, 4, 4, 4, 4])).toBeNull();
    expect(steep([4, 4, 4, 4, 3, 4])).toBeNull();
    expect(steep([4, 4, 4, 4, 4, 3])).toBeNull();
  });
  test("a slope is the newest's only while the newest stretch has a line", () => {
    expect(steep([6, 6, 6, 6, 6, 6])).not.toBeNull();
    const ended = stretches([6, 6, 6, 6, 6, 6, 2], (k) => (k === 5 ? 0.3 : usual(k)));
    expect(valueOrThrow(chartOf(ended)).unusualSlope).toBeNull();
  });
});
