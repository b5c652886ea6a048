import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { valueOrThrow } from "@/core/result";
import {
  capability,
  capabilityOf,
  describeValues,
  type NestedMoments,
  nestedSummaryOf,
  seededRandom,
} from "@/core/statistics";

const momentsOf = (groups: readonly (readonly number[])[]): NestedMoments => {
  const sum = (of: readonly number[]) => of.reduce((a, b) => a + b, 0);
  const mean = (of: readonly number[]) => sum(of) / of.length;
  return {
    groups: groups.length,
    n: sum(groups.map((g) => g.length)),
    sumOfMeans: sum(groups.map(mean)),
    sumOfSquaredMeans: sum(groups.map((g) => mean(g) ** 2)),
    sumOfInverseSizes: sum(groups.map((g) => 1 / g.length)),
    squaresWithin: sum(groups.flatMap((g) => g.map((v) => (v - mean(g)) ** 2))),
  };
};
const summaryOf = (groups: readonly (readonly number[])[]) => nestedSummaryOf(momentsOf(groups));
const alone = (values: readonly number[]) => values.map((v) => [v]);

describe("a summary of spots in racks", () => {
  test("on racks 3 µm apart with 3 µm within, 12 spots each, the 95 % interval holds 93 to 97 %", () => {
    const random = seededRandom(41);
    const tries = 4000;
    for (const racks of [4, 8, 20]) {
      let holds = 0;
      for (let i = 0; i < tries; i++) {
        const found = valueOrThrow(
          summaryOf(
            Array.from({ length: racks }, () => {
              const own = random.normal(75, 3);
              return Array.from({ length: 12 }, () => random.normal(own, 3));
            }),
          ),
        );
        const [from, to] = found.interval as [number, number];
        if (from <= 75 && 75 <= to) holds++;
      }
      expect(holds / tries, `${racks} racks`).toBeGreaterThan(0.93);
      expect(holds / tries, `${racks} racks`).toBeLessThan(0.97);
    }
  });
  test("tells the spread between racks and within one; both together are that of a spot", () => {
    const random = seededRandom(42);
    const found = valueOrThrow(
      summaryOf(
        Array.from({ length: 2000 }, (_, i) => {
          const own = random.normal(75, 3);
          return Array.from({ length: 5 + (i % 7) }, () => random.normal(own, 4));
        }),
      ),
    );
    expect(found.sdBetween).toBeCloseTo(3, 0);
    expect(found.sdWithin).toBeCloseTo(4, 0);
    expect(found.sampleSd).toBeCloseTo(5, 0);
    // Some two thousand racks tell the mean, not eighteen thousand spots.
    expect(found.counts?.forMean).toBeLessThan(6000);
  });
  test("by hand: two racks of 70, 72 and 80, 82", () => {
    const found = valueOrThrow(
      summaryOf([
        [70, 72],
        [80, 82],
      ]),
    );
    // Means 71 and 81: s² = 50; within 2; between 50 − 2/2 = 49; t(1) = 12.706.
    expect(found).toMatchObject({ n: 4, groups: 2, mean: 76 });
    expect(found.sdBetween).toBeCloseTo(7, 9);
    expect(found.sampleSd).toBeCloseTo(Math.sqrt(51), 9);
    expect(found.interval?.[1]).toBeCloseTo(76 + 12.7062 * 5, 3);
  });
  test("one rack says nothing of the others", () => {
    expect(valueOrThrow(summaryOf([[70, 72, 74]]))).toMatchObject({ interval: null, sdBetween: null, sdWithin: 2 });
  });
});

describe("a summary of values each alone", () => {
  test("is what the values themselves give", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 5, max: 300, noNaN: true }), { minLength: 2, maxLength: 60 }), (values) => {
        const [own, sums] = [valueOrThrow(describeValues(values)), valueOrThrow(summaryOf(alone(values)))];
        expect(sums.mean).toBeCloseTo(own.mean, 8);
        expect(sums.sampleSd ?? 0).toBeCloseTo(own.sampleSd ?? 0, 4);
      }),
    );
  });
  test("one value has no spread, none is refused, equal ones have a spread of nothing", () => {
    expect(valueOrThrow(summaryOf([[70]]))).toMatchObject({ n: 1, mean: 70, sampleSd: null, interval: null });
    expect(summaryOf([])).toMatchObject({ error: { kind: "no-values" } });
    expect(valueOrThrow(summaryOf(alone([70.1, 70.1, 70.1]))).sampleSd).toBeCloseTo(0, 5);
    const two = momentsOf([[70], [71]]);
    for (const wrong of [{ sumOfMeans: Number.NaN }, { n: 2.5 }, { groups: 0.5 }, { n: 1 }])
      expect(nestedSummaryOf({ ...two, ...wrong })).toMatchObject({ error: { kind: "bad-input" } });
  });
});

describe("capability from a summary", () => {
  const values = Array.from({ length: 60 }, (_, i) => 75 + 6 * Math.sin(i * 2.3));
  test("is the capability of the values, with an interval round it", () => {
    const limits = { min: 60, max: 90 };
    const own = valueOrThrow(capability(values, limits));
    const found = valueOrThrow(capabilityOf(valueOrThrow(summaryOf(alone(values))), limits));
    expect(found.ppk).toBeCloseTo(own.ppk, 9);
    expect(found.pp).toBeCloseTo(own.pp ?? 0, 9);
    expect(found.shareBelow).toBeCloseTo(own.shareBelowNormal ?? 0, 9);
    // Bissell by hand: 1.96 √(1/540 + Ppk²/118).
    const half = 1.959964 * Math.sqrt(1 / 540 + found.ppk ** 2 / 118);
    expect(found.ppkInterval[1] - found.ppk).toBeCloseTo(half, 9);
  });
  test("more values narrow it; one limit alone is that side alone", () => {
    const one = valueOrThrow(summaryOf(alone(values)));
    const width = (n: number) => {
      const { ppkInterval } = valueOrThrow(capabilityOf({ ...one, n, counts: null }, { min: 60, max: 90 }));
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
