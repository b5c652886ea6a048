import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { consumptionPer100M2, outStretches, parseMeterLine } from "@/core/bath";
import { valueOrThrow } from "@/core/result";

const window = { lower: 4.8, upper: 5.8 };
const points = (...values: number[]) => values.map((value, i) => ({ atMs: i * 10, value }));

describe("times out of window", () => {
  test("from the last good check to the next one, with the worst value and how many checks saw it", () => {
    expect(outStretches(points(5.2, 5.9, 6.2, 6.1, 5.3, 5.2), window)).toEqual([
      { fromMs: 0, firstOutMs: 10, toMs: 40, worst: 6.2, checksOut: 3 },
    ]);
  });
  test("from the first check on when none is known before; open when it is still out", () => {
    expect(outStretches(points(6, 5.2, 4.5), window)).toEqual([
      { fromMs: 0, firstOutMs: 0, toMs: 10, worst: 6, checksOut: 1 },
      { fromMs: 10, firstOutMs: 20, toMs: null, worst: 4.5, checksOut: 1 },
    ]);
  });
  test("the worst is the one furthest out, on whichever side", () => {
    expect(outStretches(points(5.9, 3.1, 6.2, 5), window)[0]?.worst).toBe(3.1);
  });
  test("a value at the limit is in; without a window nothing is out", () => {
    expect(outStretches(points(5.8, 4.8), window)).toEqual([]);
    expect(outStretches(points(1, 9), { lower: null, upper: null })).toEqual([]);
    expect(outStretches([], window)).toEqual([]);
  });
  test("every check that is out lies in exactly one stretch, and no good one in any", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 4, max: 7, noNaN: true }), { maxLength: 40 }), (values) => {
        const all = points(...values);
        const found = outStretches(all, window);
        expect(found.reduce((n, s) => n + s.checksOut, 0)).toBe(values.filter((v) => v < 4.8 || v > 5.8).length);
        for (const [i, s] of found.entries()) {
          expect(s.fromMs).toBeLessThanOrEqual(s.firstOutMs);
          const next = found[i + 1];
          if (next) expect(s.toMs ?? Number.POSITIVE_INFINITY).toBeLessThanOrEqual(next.fromMs);
        }
      }),
    );
  });
});

describe("a line of the bath meter", () => {
  const read = (line: string) => valueOrThrow(parseMeterLine(line));
  test.each([
    ["pH 5.31  47.2 C  66 uS/cm 25C", { ph: 5.31, temperature: 47.2, conductivity: 66, compensated: true }],
    ["PH5.3 47°C", { ph: 5.3, temperature: 47, compensated: false }],
    ["1.26 mS/cm 31.0 C", { conductivity: 1260, temperature: 31, compensated: false }],
    ["118 F", { compensated: false }],
    ["pH 11.2", { ph: 11.2, compensated: false }],
  ] as const)("%s", (line, expected) => {
    expect(read(line)).toMatchObject(expected);
  });
  test("°F is turned into °C", () => {
    expect(read("118 F").temperature).toBeCloseTo(47.78, 2);
  });
  test("what the conductivity was brought to is not taken for the bath's temperature", () => {
    expect(read("66 uS/cm 25C").temperature).toBeUndefined();
  });
  test("nothing, or something else, is refused", () => {
    expect(parseMeterLine("  ")).toMatchObject({ error: { kind: "empty" } });
    expect(parseMeterLine("unknown device")).toMatchObject({ error: { kind: "not-a-meter-line" } });
  });
});

describe("consumption", () => {
  test("36 L for 1,900 m² are 1.89 L per 100 m²; nothing used is none", () => {
    expect(valueOrThrow(consumptionPer100M2(36, 1900))).toBeCloseTo(1.8947, 4);
    expect(valueOrThrow(consumptionPer100M2(0, 10))).toBe(0);
  });
  test("before anything has passed it is not known; what cannot be is refused", () => {
    expect(consumptionPer100M2(36, 0)).toMatchObject({ error: { kind: "nothing-passed" } });
    for (const [litres, m2] of [
      [-1, 10],
      [Number.NaN, 10],
      [1, -10],
      [1, Number.NaN],
    ] as const)
      expect(consumptionPer100M2(litres, m2)).toMatchObject({ error: { kind: "bad-input" } });
  });
});
