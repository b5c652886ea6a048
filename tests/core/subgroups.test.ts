import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { c4, d2, d3, extremesPerColumn, firstFrom, xbarRChart, xbarSChart } from "@/core/control-charts";
import { valueOrThrow } from "@/core/result";

describe("constants, worked out, as the tables print them", () => {
  test.each([
    // n, d2, d3, c4, A2, D3, D4, A3, B4
    [2, 1.128, 0.853, 0.7979, 1.88, 0, 3.267, 2.659, 3.267],
    [3, 1.693, 0.888, 0.8862, 1.023, 0, 2.575, 1.954, 2.568],
    [5, 2.326, 0.864, 0.94, 0.577, 0, 2.114, 1.427, 2.089],
    [7, 2.704, 0.833, 0.9594, 0.419, 0.076, 1.924, 1.182, 1.882],
    [10, 3.078, 0.797, 0.9727, 0.308, 0.223, 1.777, 0.975, 1.716],
  ])("n = %d", (n, tableD2, tableD3, tableC4, a2, lower, upper, a3, b4) => {
    expect(d2(n)).toBeCloseTo(tableD2, 3);
    expect(d3(n)).toBeCloseTo(tableD3, 2);
    expect(c4(n)).toBeCloseTo(tableC4, 4);
    expect(3 / (d2(n) * Math.sqrt(n))).toBeCloseTo(a2, 2);
    expect(Math.max(0, 1 - (3 * d3(n)) / d2(n))).toBeCloseTo(lower, 2);
    expect(1 + (3 * d3(n)) / d2(n)).toBeCloseTo(upper, 2);
    expect(3 / (c4(n) * Math.sqrt(n))).toBeCloseTo(a3, 2);
    expect(1 + (3 * Math.sqrt(1 - c4(n) ** 2)) / c4(n)).toBeCloseTo(b4, 2);
  });
});

describe("charts of subgroups", () => {
  const groups = [
    [5.1, 5.2, 5.3, 5.2],
    [5.0, 5.4, 5.2, 5.2],
    [5.3, 5.3, 5.1, 5.1],
  ];
  test("means, ranges and limits by hand", () => {
    const chart = valueOrThrow(xbarRChart(groups));
    expect(chart.means.map((m) => m.toFixed(3))).toEqual(["5.200", "5.200", "5.200"]);
    expect(chart.spreads.map((r) => r.toFixed(3))).toEqual(["0.200", "0.400", "0.200"]);
    expect(chart.meanSpread).toBeCloseTo(0.8 / 3, 9);
    expect(chart.upper).toBeCloseTo(5.2 + 0.729 * (0.8 / 3), 3);
    expect(chart.spreadUpper).toBeCloseTo(2.282 * (0.8 / 3), 2);
    expect(chart.spreadLower).toBe(0);
  });
  test("x̄–s agrees with x̄–R on σ for normal values", () => {
    const values = (seed: number) => {
      let s = seed;
      return () => {
        s = (s * 16807) % 2147483647;
        return s / 2147483647;
      };
    };
    const u = values(20_261_124);
    const normal = () => Math.sqrt(-2 * Math.log(u())) * Math.cos(2 * Math.PI * u());
    const many = Array.from({ length: 4000 }, () => Array.from({ length: 5 }, () => 10 + 2 * normal()));
    expect(valueOrThrow(xbarRChart(many)).sigma).toBeCloseTo(2, 1);
    expect(valueOrThrow(xbarSChart(many)).sigma).toBeCloseTo(2, 1);
  });
  test.each([
    [[[1, 2]], "too-few-values"],
    [[[1], [2]], "bad-subgroup"],
    [
      [
        [1, 2, 3],
        [1, 2],
      ],
      "subgroups-differ",
    ],
    [
      [
        [1, Number.NaN],
        [1, 2],
      ],
      "not-finite",
    ],
  ])("%j: %s", (input, kind) => {
    const chart = xbarRChart(input);
    expect(chart.ok ? null : chart.error.kind).toBe(kind);
  });
});

describe("a long series drawn in few points", () => {
  test("no extreme of any column is lost, order holds, and both neighbours are there", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 2, maxLength: 3000 }),
        fc.integer({ min: 1, max: 60 }),
        (values, columns) => {
          const times = values.map((_, i) => i);
          const [from, to] = [Math.floor(values.length / 4), Math.ceil((values.length * 3) / 4)];
          const kept = extremesPerColumn(times, values, from, to, columns);
          expect([...kept].sort((a, b) => a - b)).toEqual(kept);
          expect(new Set(kept).size).toBe(kept.length);
          const seen = values.slice(from, to);
          const drawn = kept.map((i) => values[i] as number);
          expect(Math.max(...drawn)).toBeGreaterThanOrEqual(Math.max(...seen));
          expect(Math.min(...drawn)).toBeLessThanOrEqual(Math.min(...seen));
          expect(kept[0]).toBe(Math.max(0, from - 1));
          expect(kept.length).toBeLessThanOrEqual(4 * columns + 10);
        },
      ),
    );
  });
  test("finding where a span begins", () => {
    expect(firstFrom([1, 3, 3, 7], 3)).toBe(1);
    expect(firstFrom([1, 3, 3, 7], 8)).toBe(4);
    expect(firstFrom([], 8)).toBe(0);
  });
});
