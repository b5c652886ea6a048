import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { valueOrThrow } from "@/core/result";
import { capability, capabilityOf, describeValues, type Moments, summaryOf } from "@/core/statistics";

const momentsOf = (values: readonly number[]): Moments => ({
  n: values.length,
  sum: values.reduce((a, b) => a + b, 0),
  sumOfSquares: values.reduce((a, b) => a + b * b, 0),
});

describe("a summary from sums", () => {
  test("is what the values themselves give", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 5, max: 300, noNaN: true }), { minLength: 2, maxLength: 60 }), (values) => {
        const [own, sums] = [valueOrThrow(describeValues(values)), valueOrThrow(summaryOf(momentsOf(values)))];
        expect(sums.mean).toBeCloseTo(own.mean, 8);
        expect(sums.sampleSd ?? 0).toBeCloseTo(own.sampleSd ?? 0, 4);
      }),
    );
  });
  test("one value has no spread, none is refused, equal ones have a spread of nothing", () => {
    expect(valueOrThrow(summaryOf(momentsOf([70])))).toEqual({ n: 1, mean: 70, sampleSd: null, interval: null });
    expect(summaryOf(momentsOf([]))).toMatchObject({ error: { kind: "no-values" } });
    expect(valueOrThrow(summaryOf(momentsOf([70.1, 70.1, 70.1]))).sampleSd).toBeCloseTo(0, 5);
    expect(summaryOf({ n: 2, sum: Number.NaN, sumOfSquares: 1 })).toMatchObject({ error: { kind: "bad-input" } });
    expect(summaryOf({ n: 1.5, sum: 1, sumOfSquares: 1 })).toMatchObject({ error: { kind: "bad-input" } });
  });
});

describe("capability from a summary", () => {
  const values = Array.from({ length: 60 }, (_, i) => 75 + 6 * Math.sin(i * 2.3));
  test("is the capability of the values, with an interval round it", () => {
    const limits = { min: 60, max: 90 };
    const own = valueOrThrow(capability(values, limits));
    const found = valueOrThrow(capabilityOf(valueOrThrow(summaryOf(momentsOf(values))), limits));
    expect(found.ppk).toBeCloseTo(own.ppk, 9);
    expect(found.pp).toBeCloseTo(own.pp ?? 0, 9);
    expect(found.shareBelow).toBeCloseTo(own.shareBelowNormal ?? 0, 9);
    // Bissell by hand: 1.96 √(1/540 + Ppk²/118).
    const half = 1.959964 * Math.sqrt(1 / 540 + found.ppk ** 2 / 118);
    expect(found.ppkInterval[1] - found.ppk).toBeCloseTo(half, 9);
  });
  test("more values narrow it; one limit alone is that side alone", () => {
    const one = valueOrThrow(summaryOf(momentsOf(values)));
    const width = (n: number) => {
      const { ppkInterval } = valueOrThrow(capabilityOf({ ...one, n }, { min: 60, max: 90 }));
      return ppkInterval[1] - ppkInterval[0];
    };
    expect(width(600)).toBeLessThan(width(60));
    expect(valueOrThrow(capabilityOf(one, { min: 60, max: null }))).toMatchObject({ pp: null });
    expect(valueOrThrow(capabilityOf(one, { min: null, max: 90 })).shareBelow).toBeNull();
  });
  test.each([
    [{ min: null, max: null }, 60, "no-limits"],
    [{ min: 90, max: 60 }, 60, "limits-crossed"],
    [{ min: 60, max: 90 }, 24, "too-few-values"],
  ] as const)("%o of %i values: %s", (limits, n, kind) => {
    expect(capabilityOf({ n, mean: 75, sampleSd: 5, interval: null }, limits)).toMatchObject({ error: { kind } });
  });
  test("no spread is refused", () => {
    expect(capabilityOf({ n: 30, mean: 75, sampleSd: 0, interval: [75, 75] }, { min: 60, max: 90 })).toMatchObject({
      error: { kind: "no-spread" },
    });
  });
});
