import { describe, expect, test } from "vitest";
import { individualsChart, runRules, trendingChart } from "@/core/control-charts";
import { valueOrThrow } from "@/core/result";
import { seededRandom, simulateConversionBath } from "@/core/simulated-line";

const DAY = 86_400_000;
const HOUR = 3_600_000;
/** A saw of so many teeth: up by the slope, back at each break. */
const saw = (teeth: number, length: number, slope: number, noise: (i: number) => number) => {
  const at = Array.from({ length: teeth * length }, (_, i) => i);
  return {
    hours: at.map((i) => 4 * i),
    values: at.map((i) => 5.2 + 4 * slope * (i % length) + noise(i)),
    breaks: at.filter((i) => i > 0 && i % length === 0),
  };
};
const noisy = (seed: number, sd: number) => {
  const random = seededRandom(seed);
  return () => random.normal(0, sd);
};

describe("run rules on a bath that moves by nature", () => {
  test("an ordinary bath of the simulated line is flagged in under 2 % of its checks; by flat limits it was one in seven", () => {
    const from = Date.UTC(2026, 9, 1);
    let [checks, flagged, flat] = [0, 0, 0];
    for (let seed = 0; seed < 20; seed++) {
      const bath = simulateConversionBath(seededRandom(seed), {
        fromMs: from,
        toMs: from + 26 * DAY,
        wrongAdditionMs: from + 900 * DAY,
        putRightMs: from + 901 * DAY,
      });
      const values = bath.checks.map((c) => c.ph);
      const breaks = bath.checks.flatMap((c, i) =>
        bath.events.some((e) => e.atMs > (bath.checks[i - 1]?.atMs ?? c.atMs) && e.atMs <= c.atMs) ? [i] : [],
      );
      const chart = valueOrThrow(
        trendingChart(
          bath.checks.map((c) => (c.atMs - from) / HOUR),
          values,
          breaks,
        ),
      );
      checks += values.length;
      flagged += new Set(Object.values(chart.runRules).flat()).size;
      const before = valueOrThrow(runRules(values, valueOrThrow(individualsChart(values)), breaks));
      flat += new Set(Object.values(before).flat()).size;
    }
    expect(flagged / checks).toBeLessThan(0.02);
    expect(flat / checks).toBeGreaterThan(0.1);
  });
  test("plain noise about many lines is flagged about as seldom as chance says", () => {
    const { hours, values, breaks } = saw(250, 8, 0.012, noisy(5, 0.015));
    const { runRules: met } = valueOrThrow(trendingChart(hours, values, breaks));
    const share = new Set(Object.values(met).flat()).size / values.length;
    expect(share).toBeGreaterThan(0.002);
    expect(share).toBeLessThan(0.02);
    // One in 370 is beyond three sigma; six of eight checks are judged.
    expect((met[1]?.length ?? 0) / values.length).toBeLessThan(0.006);
  });
  test("a check that jumps beside its line is flagged, and the line after it is not bent by it where its cause is known", () => {
    const { hours, values, breaks } = saw(6, 8, 0.012, noisy(6, 0.01));
    const jumped = values.map((v, i) => (i === 37 ? v + 0.12 : v));
    const chart = valueOrThrow(trendingChart(hours, jumped, breaks));
    expect(chart.runRules[1]).toContain(37);
    const known = valueOrThrow(
      trendingChart(
        hours,
        jumped,
        breaks,
        jumped.map((_, i) => i === 37),
      ),
    );
    expect(known.runRules[1]).toEqual([37]);
    expect(known.lines[4]?.slopePerHour).toBeCloseTo(0.012, 2);
  });
  test("the lines are those of each stretch; limits lie 2.66 mean ranges beside them", () => {
    const { hours, values, breaks } = saw(5, 6, 0.02, (i) => (i % 2 === 0 ? 0.01 : -0.01));
    const chart = valueOrThrow(trendingChart(hours, values, breaks));
    expect(chart.lines.map((l) => [l.fromIndex, l.toIndex])).toEqual([
      [0, 5],
      [6, 11],
      [12, 17],
      [18, 23],
      [24, 29],
    ]);
    expect(chart.lines[2]?.slopePerHour).toBeCloseTo(0.0197, 3);
    expect(chart.half).toBeCloseTo((2.66 * 2 * chart.sigma) / Math.sqrt(Math.PI), 9);
    expect(chart.leftOver.slice(0, 3)).toEqual([null, null, expect.any(Number)]);
  });
  test("a slope that is none of the usual is said, one of them is not", () => {
    const usual = saw(8, 6, 0.012, noisy(7, 0.01));
    expect(valueOrThrow(trendingChart(usual.hours, usual.values, usual.breaks)).unusualSlope).toBeNull();
    const steep = usual.values.map((v, i) => (i >= 42 ? v + 4 * 0.03 * (i - 42) : v));
    const found = valueOrThrow(trendingChart(usual.hours, steep, usual.breaks)).unusualSlope;
    expect(found?.slopePerHour).toBeGreaterThan(0.03);
    expect(found?.usualPerHour).toBeCloseTo(0.012, 2);
  });
  test("too few, no spread, times out of order and lengths that differ are refused by name", () => {
    expect(trendingChart([0, 1, 2], [5, 5.1, 5.2])).toMatchObject({ error: { kind: "too-few-values", need: 8 } });
    const straight = Array.from({ length: 20 }, (_, i) => i);
    expect(trendingChart(straight, straight)).toMatchObject({ error: { kind: "no-spread" } });
    expect(
      trendingChart(
        straight,
        straight.map(() => 5.2),
      ),
    ).toMatchObject({ error: { kind: "no-spread" } });
    expect(trendingChart([0, 2, 1], [5, 5, 5])).toMatchObject({ error: { kind: "times-out-of-order", index: 2 } });
    expect(trendingChart([0, 1], [5])).toMatchObject({ error: { kind: "lengths-differ" } });
    expect(trendingChart([], [])).toMatchObject({ error: { kind: "no-values" } });
    expect(trendingChart([0, 1], [5, Number.NaN])).toMatchObject({ error: { kind: "not-finite" } });
  });
});
