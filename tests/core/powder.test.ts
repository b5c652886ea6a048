import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  coverageM2PerKg,
  curedFromHeight,
  daysUsedUp,
  learnt,
  lotAge,
  onHand,
  orderOfUse,
  perPass,
  powderKg,
  topCoat,
  transferEfficiency,
  USUAL_CURED_SHARE,
  usedFromHopper,
} from "@/core/powder";
import { valueOrThrow } from "@/core/result";

describe("shelf life", () => {
  test("ten degrees over 25 double a day, cold does not lengthen it", () => {
    expect(valueOrThrow(daysUsedUp([{ days: 10, tempC: 35 }]))).toBeCloseTo(20, 12);
    expect(valueOrThrow(daysUsedUp([{ days: 10, tempC: 30 }]))).toBeCloseTo(10 * Math.SQRT2, 12);
    expect(valueOrThrow(daysUsedUp([{ days: 10, tempC: 5 }]))).toBe(10);
    expect(valueOrThrow(daysUsedUp([{ days: 10, tempC: 35 }], false))).toBe(10);
  });
  test("a warm month takes days off what is left, beyond its own", () => {
    expect(lotAge(540, 200)).toMatchObject({ value: { daysLeft: 340, warmDays: 0, readDays: 0 } });
    const warm = valueOrThrow(lotAge(540, 200, [{ days: 30, tempC: 35 }]));
    expect(warm.daysLeft).toBeCloseTo(310, 9);
    expect(valueOrThrow(lotAge(540, 200, [{ days: 30, tempC: 35 }], false)).daysLeft).toBe(340);
    expect(valueOrThrow(lotAge(100, 140)).daysLeft).toBe(-40);
  });
  test("more days in store than it is old, and what cannot be, are refused", () => {
    expect(lotAge(540, 10, [{ days: 30, tempC: 20 }])).toMatchObject({ error: { kind: "stored-longer-than-old" } });
    for (const bad of [
      lotAge(0, 1),
      lotAge(540, -1),
      daysUsedUp([{ days: -1, tempC: 20 }]),
      daysUsedUp([{ days: 1, tempC: 200 }]),
    ])
      expect(bad).toMatchObject({ ok: false, error: { kind: "bad-input" } });
  });
  test("the one that runs out first is used first; out of date and empty come last", () => {
    const lots = [
      { id: "fresh", daysLeft: 300, stockKg: 20 },
      { id: "old", daysLeft: -2, stockKg: 20 },
      { id: "empty", daysLeft: 5, stockKg: 0 },
      { id: "soon", daysLeft: 12, stockKg: null },
    ];
    expect(orderOfUse(lots).map((l) => l.id)).toEqual(["soon", "fresh", "empty", "old"]);
  });
  test("what is on hand is enough by what was weighed, short where all was, and not known where a lot was not", () => {
    const lot = (stockKg: number | null, daysLeft = 30) => ({ stockKg, daysLeft });
    expect(onHand(10, [lot(6), lot(4)])).toEqual({ kind: "enough", weighedKg: 10 });
    expect(onHand(10, [lot(6), lot(3)])).toEqual({ kind: "short", weighedKg: 9, byKg: 1 });
    expect(onHand(10, [lot(6), lot(null)])).toEqual({ kind: "not-known", weighedKg: 6, lotsNotWeighed: 1 });
    // The day it runs out a lot may still be used; the day after it counts for nothing, weighed or not.
    expect(onHand(10, [lot(10, 0)]).kind).toBe("enough");
    expect(onHand(10, [lot(10, -1), lot(null, -1)])).toEqual({ kind: "short", weighedKg: 0, byKg: 10 });
    expect(onHand(10, [])).toMatchObject({ kind: "short", byKg: 10 });
  });
});

describe("transfer efficiency", () => {
  test("is powder on the parts over powder that left the hopper", () => {
    // 10.4 m² at 75 µm and 1.6: 1.248 kg on the parts.
    expect(
      valueOrThrow(transferEfficiency({ areaM2: 10.4, thicknessUm: 75, specificGravity: 1.6, usedKg: 2.08 })),
    ).toBeCloseTo(0.6, 12);
    expect(valueOrThrow(usedFromHopper(12.4, 10.32))).toBeCloseTo(2.08, 12);
    expect(valueOrThrow(usedFromHopper(5, 9, 6))).toBeCloseTo(2, 12);
  });
  test("undoes what the job's quantity worked out", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 500, noNaN: true }),
        fc.double({ min: 20, max: 300, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        (areaM2, thicknessUm, share) => {
          const job = { areaM2, thicknessUm, specificGravity: 1.6 };
          const usedKg = valueOrThrow(powderKg({ ...job, transferEfficiency: share, loss: 0 }));
          expect(valueOrThrow(transferEfficiency({ ...job, usedKg }))).toBeCloseTo(share, 9);
        },
      ),
    );
    expect(valueOrThrow(coverageM2PerKg({ specificGravity: 1.6, thicknessUm: 75 }))).toBeCloseTo(8.333, 3);
  });
  test("more on the parts than was used, a hopper that gained, and nothing are refused with the figures", () => {
    expect(transferEfficiency({ areaM2: 10, thicknessUm: 75, specificGravity: 1.6, usedKg: 1 })).toMatchObject({
      error: { kind: "more-on-than-used", usedKg: 1 },
    });
    expect(usedFromHopper(10, 12)).toMatchObject({ error: { kind: "hopper-gained" } });
    expect(usedFromHopper(-1, 0)).toMatchObject({ error: { kind: "bad-input" } });
    expect(transferEfficiency({ areaM2: 0, thicknessUm: 75, specificGravity: 1.6, usedKg: 1 })).toMatchObject({
      error: { name: "areaM2" },
    });
  });
  test("is relied on from five, with its interval", () => {
    // Mean 0.6, s = 0.0158…, t(4) = 2.776: ± 0.01963.
    const five = valueOrThrow(learnt([0.58, 0.59, 0.6, 0.61, 0.62]));
    expect(five).toMatchObject({ n: 5, relied: true });
    expect(five.interval?.[1]).toBeCloseTo(0.6 + 0.01963, 4);
    expect(valueOrThrow(learnt([0.6]))).toMatchObject({ n: 1, sd: null, interval: null, relied: false });
    expect(learnt([])).toMatchObject({ error: { kind: "too-few-values" } });
  });
});

describe("loose powder to cured film", () => {
  test("by the ratio of its own pairs; without any it is assumed and says so", () => {
    expect(valueOrThrow(curedFromHeight(120, []))).toMatchObject({
      ratio: USUAL_CURED_SHARE,
      grade: "assumed",
      n: 0,
      range: null,
    });
    const pairs = [0.6, 0.62, 0.64, 0.62, 0.62].map((r) => ({ heightUm: 100, curedUm: 100 * r }));
    const found = valueOrThrow(curedFromHeight(120, pairs));
    expect(found).toMatchObject({ n: 5, grade: "measured" });
    expect(found.curedUm).toBeCloseTo(74.4, 9);
    expect(found.range?.[0]).toBeLessThan(74.4);
    expect(valueOrThrow(curedFromHeight(120, pairs.slice(0, 2))).grade).toBe("assumed");
    expect(curedFromHeight(0, pairs)).toMatchObject({ error: { kind: "bad-input" } });
    expect(curedFromHeight(100, [{ heightUm: 0, curedUm: 60 }])).toMatchObject({ error: { kind: "bad-input" } });
  });
});

describe("layers", () => {
  test("the top coat is total less primer, with the error of the difference", () => {
    // s² = 2.5 on each side, n = 5: √(0.5 + 0.5) = 1.
    const apart = valueOrThrow(topCoat([120, 121, 122, 123, 124], [58, 59, 60, 61, 62], false));
    expect(apart).toMatchObject({ topUm: 62, toldApart: true, by: "means" });
    expect(apart.standardErrorUm).toBeCloseTo(1, 12);
    const paired = valueOrThrow(topCoat([120, 121, 122, 123, 124], [58, 59, 60, 61, 62], true));
    expect(paired).toMatchObject({ topUm: 62, standardErrorUm: 0, by: "pairs" });
    expect(valueOrThrow(topCoat([61, 62, 63], [60, 62, 62], false)).toldApart).toBe(false);
  });
  test.each([
    [[1], [1, 2], false, "too-few-values"],
    [[1, 2, 3], [1, 2], true, "pairs-differ"],
    [[50, 50], [60, 60], false, "primer-over-total"],
    [[Number.NaN, 2], [1, 1], false, "bad-input"],
  ])("refused: %o over %o", (total, primer, paired, kind) => {
    expect(topCoat(total, primer, paired)).toMatchObject({ ok: false, error: { kind } });
  });
  test("each pass lays down its share of what is left", () => {
    expect(valueOrThrow(perPass(90, 30, 2))).toBe(30);
    expect(perPass(90, 95, 1)).toMatchObject({ error: { kind: "built-already", overUm: 5 } });
    expect(perPass(90, 0, 0)).toMatchObject({ error: { kind: "bad-input" } });
  });
});
