import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { valueOrThrow } from "@/core/result";
import {
  howManySpots,
  judgeMeasuringAreas,
  judgeNominal,
  judgeSpotArea,
  type RestrictionLevel,
  type Spot,
  spotLimits,
  spotMeans,
} from "@/core/thickness";

const spot = (id: string, ...values: number[]): Spot => ({ id, readings: values.map((valueUm) => ({ valueUm })) });
/** Four spots that keep the area's mean at 75 whatever the fifth is. */
const areaWith = (um: number): Spot[] => {
  const rest = (75 * 5 - um) / 4;
  return [spot("X", um, um, um), ...["1", "2", "3", "4"].map((id) => spot(id, rest, rest, rest))];
};
const judge = (spots: readonly Spot[], level: RestrictionLevel, minUm = 60, maxUm: number | null = 90) =>
  valueOrThrow(judgeSpotArea([{ id: "a", spots }], { minUm, maxUm, level }));

describe("spot and area rule, 60 to 90 µm", () => {
  // What a single spot may be at each level: 0.8 × 60 = 48, 1.2 × 90 = 108, 1.5 × 90 = 135.
  test.each([
    [1, 60, true],
    [1, 59.9, false],
    [1, 90, true],
    [1, 90.1, false],
    [2, 60, true],
    [2, 59.9, false],
    [2, 108, true],
    [2, 108.1, false],
    [3, 48, true],
    [3, 47.9, false],
    [3, 108, true],
    [3, 108.1, false],
    [4, 48, true],
    [4, 47.9, false],
    [4, 135, true],
    [4, 135.1, false],
    [5, 48, true],
    [5, 47.9, false],
    [5, 250, true],
  ] as const)("level %i: a spot of %f µm is allowed: %s", (level, um, allowed) => {
    const { lowestUm, highestUm } = spotLimits({ minUm: 60, maxUm: 90, level });
    expect(um >= lowestUm && (highestUm === null || um <= highestUm)).toBe(allowed);
    if (um <= 200) expect(judge(areaWith(um), level).accepted).toBe(allowed);
  });
  test.each([
    [60, true, "in"],
    [59.99, false, "out"],
    [90, true, "in"],
    [90.01, false, "out"],
    [75, true, "in"],
  ] as const)("an even film of %f µm: accepted %s", (um, accepted, result) => {
    const verdict = judge(
      ["1", "2", "3", "4", "5"].map((id) => spot(id, um, um, um)),
      3,
    );
    expect([verdict.accepted, verdict.result]).toEqual([accepted, result]);
  });
  test("no maximum: only thin can fail", () => {
    expect(
      judge(
        ["1", "2", "3", "4", "5"].map((id) => spot(id, 400, 400, 400)),
        3,
        60,
        null,
      ).accepted,
    ).toBe(true);
    expect(
      judge(
        ["1", "2", "3", "4", "5"].map((id) => spot(id, 59, 59, 59)),
        3,
        60,
        null,
      ).accepted,
    ).toBe(false);
  });
  test("a thin spot that is allowed is a watch, with its number", () => {
    const verdict = judge(areaWith(50), 3);
    expect(verdict.result).toBe("watch");
    expect(verdict.reasons[0]).toMatchObject({ kind: "spot-thin", spot: "X", meanUm: 50, limitUm: 60 });
  });
  test("reasons come worst first", () => {
    const verdict = judge(
      [
        spot("thin", 40, 40, 40),
        spot("low", 55, 55, 55),
        spot("a", 70, 70, 70),
        spot("b", 70, 70, 70),
        spot("c", 70, 70, 70),
      ],
      3,
    );
    expect(verdict.reasons.map((r) => r.kind)).toEqual(["spot-too-thin", "spot-thin"]);
  });
  test("an area's mean is of its spots, not of its readings", () => {
    const verdict = judge([spot("1", 50, 50, 50, 50, 50, 50), spot("2", 90, 90, 90)], 5);
    expect(verdict.areas[0]?.meanUm).toBe(70);
  });
  test("every area must pass by itself", () => {
    const even = (um: number) => ["1", "2", "3", "4", "5"].map((id) => spot(id, um, um, um));
    const verdict = valueOrThrow(
      judgeSpotArea(
        [
          { id: "thin", spots: even(50) },
          { id: "thick", spots: even(80) },
        ],
        { minUm: 60, maxUm: 90, level: 3 },
      ),
    );
    expect(verdict.accepted).toBe(false);
    expect(verdict.areas.map((a) => a.accepted)).toEqual([false, true]);
    expect(verdict.reasons[0]).toMatchObject({ kind: "area-mean-low", area: "thin" });
  });
  test("an unread spot leaves it open, unless it already fails", () => {
    const even = ["1", "2", "3", "4"].map((id) => spot(id, 75, 75, 75));
    expect(judge([...even, spot("5")], 3).result).toBe("unknown");
    expect(judge([...even, spot("5"), spot("6", 30, 30, 30)], 3).result).toBe("out");
  });
  test("adding film to every spot never turns thin into thinner", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 30, max: 110, noNaN: true }), { minLength: 5, maxLength: 5 }),
        fc.double({ min: 0.1, max: 40, noNaN: true }),
        (means, more) => {
          const spots = (add: number) => means.map((um, i) => spot(String(i), um + add, um + add, um + add));
          const thin = (add: number) =>
            judge(spots(add), 3).reasons.filter((r) => r.kind.includes("thin") || r.kind === "area-mean-low").length;
          expect(thin(more)).toBeLessThanOrEqual(thin(0));
        },
      ),
    );
  });
});

describe("nominal rule, 80 µm", () => {
  const nominal = (values: readonly number[], maxUm: number | null = null) =>
    valueOrThrow(judgeNominal(values, { nominalUm: 80, maxUm }));
  test("mean at the nominal and nothing under 80 % of it passes", () => {
    expect(nominal([80, 80, 80, 80, 80]).accepted).toBe(true);
    expect(nominal([64, 100, 90, 85, 85, 85]).accepted).toBe(true);
  });
  test("a spot under 64 fails it, at 64 not", () => {
    expect(nominal([63.9, 100, 100, 100, 100, 100]).reasons[0]).toMatchObject({
      kind: "spot-below-80-percent",
      spot: 0,
      limitUm: 64,
    });
    expect(nominal([64, 100, 100, 100, 100, 100]).accepted).toBe(true);
  });
  test("fewer than a fifth may lie between 64 and 80: one of six may, one of five may not", () => {
    expect(nominal([70, 90, 90, 90, 90, 90]).accepted).toBe(true);
    const verdict = nominal([70, 90, 90, 90, 90]);
    expect(verdict.accepted).toBe(false);
    expect(verdict.reasons.some((r) => r.kind === "too-many-between-80-and-100-percent")).toBe(true);
  });
  test("three times the nominal is the most where none is agreed", () => {
    expect(nominal([80, 80, 80, 80, 240]).accepted).toBe(true);
    expect(nominal([80, 80, 80, 80, 241]).aboveMax).toEqual([4]);
    expect(nominal([80, 80, 80, 80, 121], 120).accepted).toBe(false);
  });
  test("a mean just under it fails, whatever the spots", () => {
    expect(nominal([79, 80, 80, 80, 80, 80]).reasons.some((r) => r.kind === "mean-below-nominal")).toBe(true);
  });
});

describe("how many spots", () => {
  test.each([
    [0.5, 5, 5],
    [1, 5, 5],
    [2.9, 5, 10],
    [10, 5, 15],
    [10.1, 10, 20],
    [25, 15, 20],
    [30, 15, 20],
    [60, 15, 30],
    [100, 15, 30],
    [101, 20, 40],
    [200, 20, 40],
    [250, 25, 50],
  ])("on %f m²: %i by spot and area, %i by nominal", (areaM2, spotArea, nominal) => {
    expect(valueOrThrow(howManySpots(areaM2))).toEqual({ spotArea, nominal });
  });
  test("no area, no number", () => {
    for (const bad of [0, -1, Number.NaN, Number.POSITIVE_INFINITY])
      expect(howManySpots(bad)).toMatchObject({ error: { kind: "bad-area" } });
  });
});

describe("means and areas", () => {
  test("what is left out is counted and out of the mean", () => {
    const means = valueOrThrow(
      spotMeans([
        { id: "1", readings: [{ valueUm: 70 }, { valueUm: 400, rejectedReason: "on a weld" }, { valueUm: 74 }] },
        spot("2"),
      ]),
    );
    expect(means.means).toMatchObject([{ id: "1", meanUm: 72, used: 2, rejected: 1, few: true }]);
    expect(means.unread).toEqual(["2"]);
  });
  test("measuring areas: five or more, mean at least m, none under 0.8 m", () => {
    const areas = (...means: number[]) => means.map((um) => [um, um, um]);
    expect(valueOrThrow(judgeMeasuringAreas(areas(60, 60, 60, 60, 60), 60)).accepted).toBe(true);
    expect(valueOrThrow(judgeMeasuringAreas(areas(48, 72, 60, 60, 60), 60)).accepted).toBe(true);
    expect(valueOrThrow(judgeMeasuringAreas(areas(47.9, 80, 60, 60, 60), 60)).below80).toEqual([0]);
    expect(valueOrThrow(judgeMeasuringAreas(areas(59, 60, 60, 60, 60), 60)).accepted).toBe(false);
    expect(judgeMeasuringAreas(areas(60, 60, 60, 60), 60)).toMatchObject({ error: { kind: "too-few-areas", got: 4 } });
  });
});
