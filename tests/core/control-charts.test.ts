import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { ewmaChart, individualsChart, type RunRule, runRules } from "@/core/control-charts";
import { valueOrThrow } from "@/core/result";

const unit = { centre: 0, sigma: 1 };
const hits = (z: readonly number[], breaks: readonly number[] = []) => valueOrThrow(runRules(z, unit, breaks));

describe("each run rule is met, and only just", () => {
  // A window that meets the rule at its last point, and one that misses by a hair.
  const cases: [RunRule, string, number[], number[]][] = [
    [1, "one beyond 3σ", [0.1, 3.01], [0.1, 3]],
    [1, "on the other side too", [-0.1, -3.2], [-0.1, -3]],
    [2, "nine in a row on one side", Array(9).fill(0.4), [...Array(8).fill(0.4), 0]],
    [2, "nine below", Array(9).fill(-0.2), [...Array(4).fill(-0.2), 0.1, ...Array(4).fill(-0.2)]],
    [3, "six in a row rising", [-1, -0.6, -0.2, 0.2, 0.6, 1], [-1, -0.6, -0.2, 0.2, 0.2, 1]],
    [3, "six in a row falling", [1, 0.5, 0.2, 0, -0.4, -0.9], [1, 0.5, 0.2, 0, 0.1, -0.9]],
    [
      4,
      "fourteen alternating",
      Array.from({ length: 14 }, (_, i) => (i % 2 ? 0.3 : -0.3)),
      Array.from({ length: 14 }, (_, i) => (i === 13 ? -0.3 : i % 2 ? 0.3 : -0.3)),
    ],
    [5, "two of three beyond 2σ on one side", [2.1, 0, 2.2], [2.1, 0, 2]],
    [5, "not one on each side", [-2.1, 0, -2.5], [2.1, 0, -2.2]],
    [6, "four of five beyond 1σ on one side", [1.1, 1.2, 0, 1.3, 1.4], [1.1, 1.2, 0, 1, 1.4]],
    [7, "fifteen within 1σ", Array.from({ length: 15 }, (_, i) => (i % 3) * 0.4 - 0.4), [...Array(14).fill(0.1), 1]],
    [
      8,
      "eight beyond 1σ on either side",
      [1.1, -1.2, 1.3, -1.1, 1.5, -1.6, 1.2, -1.1],
      [1.1, -1.2, 1.3, -1, 1.5, -1.6, 1.2, -1.1],
    ],
  ];
  test.each(cases)("rule %i: %s", (rule, _, met, missed) => {
    expect(hits(met)[rule]).toContain(met.length - 1);
    expect(hits(missed)[rule] ?? []).not.toContain(missed.length - 1);
  });
  test("a window that spans an addition is not judged", () => {
    const nine = Array(9).fill(0.4);
    expect(hits(nine)[2]).toEqual([8]);
    for (let b = 1; b < 9; b++) expect(hits(nine, [b])[2], `break before ${b}`).toBeUndefined();
    expect(hits([...nine, ...nine], [9])[2]).toEqual([8, 17]);
  });
  test("turning the chart upside down meets the same rules", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -4, max: 4, noNaN: true }), { minLength: 1, maxLength: 40 }), (z) => {
        expect(hits(z.map((v) => -v))).toEqual(hits(z));
      }),
    );
  });
  test("a bad centre or spread is refused", () => {
    expect(runRules([1, 2], { centre: 0, sigma: 0 })).toMatchObject({ error: { kind: "no-spread" } });
    expect(runRules([1, 2], { centre: 0, sigma: -1 })).toMatchObject({ error: { kind: "bad-sigma" } });
    expect(runRules([1, 2], { centre: Number.NaN, sigma: 1 })).toMatchObject({ error: { kind: "bad-sigma" } });
    expect(runRules([], unit)).toMatchObject({ error: { kind: "no-values" } });
    expect(runRules([1, Number.NaN], unit)).toMatchObject({ error: { kind: "not-finite", index: 1 } });
  });
});

describe("individuals chart", () => {
  test("by hand: 10, 12, 11, 13 has a mean moving range of 5/3", () => {
    const chart = valueOrThrow(individualsChart([10, 12, 11, 13]));
    expect(chart.centre).toBe(11.5);
    expect(chart.meanMovingRange).toBeCloseTo(5 / 3, 12);
    expect(chart.upperControlLimit).toBeCloseTo(11.5 + (2.66 * 5) / 3, 12);
    expect(chart.lowerControlLimit).toBeCloseTo(11.5 - (2.66 * 5) / 3, 12);
    expect(chart.movingRangeUpperLimit).toBeCloseTo((3.267 * 5) / 3, 12);
    expect(chart.sigma).toBeCloseTo(5 / 3 / 1.1283791670955126, 9);
  });
  test("points left out count neither in the centre nor in a range to them", () => {
    const chart = valueOrThrow(individualsChart([10, 12, 90, 11, 13], [false, false, true, false, false]));
    expect(chart.centre).toBe(11.5);
    // Ranges 10→12 and 11→13; none to or from the 90, and none across it.
    expect(chart.meanMovingRange).toBe(2);
  });
  test("a stretch out of its window no longer widens the limits it is held against", () => {
    const bath = [5.2, 5.25, 5.22, 5.28, 5.24, 6.1, 6.05, 6.12, 5.21, 5.26, 5.23];
    const out = bath.map((v) => v > 5.8);
    const all = valueOrThrow(individualsChart(bath));
    const clean = valueOrThrow(individualsChart(bath, out));
    expect(clean.upperControlLimit).toBeLessThan(5.45);
    expect(all.upperControlLimit).toBeGreaterThan(5.8);
  });
  test("leaving none out changes nothing; leaving all out is refused", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 2, maxLength: 30 }),
        (values) => {
          expect(
            individualsChart(
              values,
              values.map(() => false),
            ),
          ).toEqual(individualsChart(values));
          expect(
            individualsChart(
              values,
              values.map(() => true),
            ),
          ).toMatchObject({ error: { kind: "too-few-values", got: 0 } });
        },
      ),
    );
  });
  test("no two kept neighbours: no range to take", () => {
    expect(individualsChart([1, 2, 3], [false, true, false])).toMatchObject({
      error: { kind: "too-few-values", got: 2 },
    });
  });
  test("scales and shifts with the values", () => {
    const values = [4, 7, 5, 9, 6, 8];
    const base = valueOrThrow(individualsChart(values));
    const moved = valueOrThrow(individualsChart(values.map((v) => 3 * v + 10)));
    expect(moved.centre).toBeCloseTo(3 * base.centre + 10, 9);
    expect(moved.sigma).toBeCloseTo(3 * base.sigma, 9);
    expect(moved.upperControlLimit).toBeCloseTo(3 * base.upperControlLimit + 10, 9);
  });
});

describe("EWMA", () => {
  test("by hand, λ 0.2: weights and exact limits of the first two points", () => {
    const chart = valueOrThrow(ewmaChart([1, 2], { centre: 0, sigma: 1, lambda: 0.2, limitSigmas: 2.7 }));
    expect(chart.values[0]).toBeCloseTo(0.2, 12);
    expect(chart.values[1]).toBeCloseTo(0.56, 12);
    const limit = (i: number) => 2.7 * Math.sqrt((0.2 / 1.8) * (1 - 0.8 ** (2 * i)));
    expect(chart.upper[0]).toBeCloseTo(limit(1), 9);
    expect(chart.upper[1]).toBeCloseTo(limit(2), 9);
    expect(chart.lower[1]).toBeCloseTo(-limit(2), 9);
  });
  test("a steady value is met in the end, and the limits widen to their end value", () => {
    const chart = valueOrThrow(ewmaChart(Array(80).fill(3), unit));
    expect(chart.values.at(-1)).toBeCloseTo(3, 6);
    for (let i = 1; i < 80; i++) expect(chart.upper[i]).toBeGreaterThanOrEqual(chart.upper[i - 1] ?? 0);
    expect(chart.upper.at(-1)).toBeCloseTo(2.86 * Math.sqrt(0.2 / 1.8), 6);
  });
});
