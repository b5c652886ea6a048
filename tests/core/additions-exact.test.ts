import { describe, expect, test } from "vitest";
import {
  additionL,
  dilutionL,
  learnResponse,
  outStretches,
  planAddition,
  questionAddition,
  sameProduct,
  splitDose,
} from "@/core/bath";
import { valueOrThrow } from "@/core/result";

const kind = (r: { ok: boolean; error?: { kind: string } }) => (r.ok ? "ok" : r.error?.kind);

describe("additions by hand", () => {
  // 1,000 L from 2 % to 3 % with a 50 % concentrate: on top 1000·1/47, with the level kept 1000·1/48.
  test("on top of a full tank, and with what is drained first", () => {
    const { onTopL, levelKeptL } = valueOrThrow(
      additionL({ volumeL: 1000, fromPercent: 2, toPercent: 3, concentratePercent: 50 }),
    );
    expect([onTopL, levelKeptL]).toEqual([1000 / 47, 1000 / 48]);
  });
  test.each([
    [{ volumeL: 0 }, "bad-input"],
    [{ volumeL: Number.POSITIVE_INFINITY }, "bad-input"],
    [{ fromPercent: -1 }, "bad-input"],
    [{ concentratePercent: 101 }, "bad-input"],
    [{ toPercent: 2 }, "nothing-to-add"],
    [{ toPercent: 1.9 }, "nothing-to-add"],
    [{ concentratePercent: 3 }, "concentrate-too-weak"],
    [{ concentratePercent: 3.1 }, "ok"],
    [{ concentratePercent: 100, fromPercent: 0 }, "ok"],
  ])("%o: %s", (over, expected) =>
    expect(kind(additionL({ volumeL: 1000, fromPercent: 2, toPercent: 3, concentratePercent: 50, ...over }))).toBe(
      expected,
    ),
  );
  test("too strong: drained and filled with water, or with weaker make-up, none included", () => {
    expect(valueOrThrow(dilutionL({ volumeL: 1000, fromPercent: 4, toPercent: 3 }))).toBe(250);
    expect(valueOrThrow(dilutionL({ volumeL: 1000, fromPercent: 4, toPercent: 3, makeUpPercent: 0 }))).toBe(250);
    expect(valueOrThrow(dilutionL({ volumeL: 1000, fromPercent: 4, toPercent: 3, makeUpPercent: 2 }))).toBe(500);
    expect(kind(dilutionL({ volumeL: 1000, fromPercent: 4, toPercent: 3, makeUpPercent: 3 }))).toBe(
      "make-up-too-strong",
    );
    expect(kind(dilutionL({ volumeL: 1000, fromPercent: 4, toPercent: 3, makeUpPercent: -1 }))).toBe(
      "make-up-too-strong",
    );
    expect(kind(dilutionL({ volumeL: 1000, fromPercent: 3, toPercent: 3 }))).toBe("nothing-to-dilute");
    expect(kind(dilutionL({ volumeL: 0, fromPercent: 4, toPercent: 3 }))).toBe("bad-input");
  });
  const plan = (over: object = {}) =>
    planAddition({
      volumeL: 1000,
      fromPercent: 2,
      toPercent: 3,
      concentratePercent: 50,
      way: "on-top",
      stepL: 0.5,
      freeboardL: 40,
      maxSingleL: null,
      titrationTolerancePercent: 0.1,
      ...over,
    });
  test("rounded up to the measure's step, in one dose where there is no most", () => {
    const one = valueOrThrow(plan());
    expect(one.neededL).toBeCloseTo(21.2766, 4);
    expect(one.dosesL).toEqual([21.5]);
    expect(one.expectedPercent).toBeCloseTo((1000 * 2 + 21.5 * 50) / 1021.5, 9);
    expect(one.expectedWithinPercent[0]).toBeCloseTo(one.expectedPercent - 0.1, 9);
    expect(one.expectedWithinPercent[1]).toBeCloseTo(one.expectedPercent + 0.1, 9);
    const kept = valueOrThrow(plan({ way: "level-kept" }));
    expect(kept.dosesL).toEqual([21]);
    expect(kept.expectedPercent).toBeCloseTo(2 + (21 * 48) / 1000, 9);
  });
  test("split where one would be more than may go in at once, into parts alike that the measure can give", () => {
    expect(valueOrThrow(plan({ maxSingleL: 10 })).dosesL).toEqual([7.5, 7, 7]);
    expect(valueOrThrow(plan({ maxSingleL: 21.5 })).dosesL).toEqual([21.5]);
    expect(valueOrThrow(plan({ maxSingleL: 21.4 })).dosesL).toEqual([11, 10.5]);
    expect(plan({ maxSingleL: 0.3 })).toMatchObject({ error: { kind: "measure-over-single", stepL: 0.5 } });
  });
  test("a dose in parts: 19.5 L of at most 7 L in half litres is three of 6.5, never 6.7", () => {
    expect(valueOrThrow(splitDose(19.5, 0.5, 7))).toEqual([6.5, 6.5, 6.5]);
    expect(valueOrThrow(splitDose(20, 0.5, 6.7))).toEqual([5, 5, 5, 5]);
    expect(valueOrThrow(splitDose(20, 0.5, 20))).toEqual([20]);
    expect(valueOrThrow(splitDose(0.3, 0.1, 0.2))).toEqual([0.2, 0.1]);
    for (const [total, step] of [
      [20, 0],
      [-1, 0.5],
      [Number.NaN, 0.5],
    ] as const)
      expect(splitDose(total, step, 5)).toMatchObject({ error: { kind: "bad-input" } });
  });
  test("what just fits the freeboard fits; a step more does not, but with the level kept", () => {
    expect(kind(plan({ freeboardL: 21.5 }))).toBe("ok");
    expect(plan({ freeboardL: 21.4 })).toEqual({
      ok: false,
      error: { kind: "over-freeboard", neededL: 21.5, freeboardL: 21.4 },
    });
    expect(kind(plan({ freeboardL: 0, way: "level-kept" }))).toBe("ok");
    expect(kind(plan({ stepL: 0 }))).toBe("bad-input");
  });
  test("what a bath answers to a litre, through the origin, from five additions on", () => {
    // Doses of 1, 2, 3, 4, 5 L/m³ that change by twice themselves, one of them by 1 more: slope (2·55 + 1)/55.
    const additions = [1, 2, 3, 4, 5].map((d) => ({ litres: d * 2, volumeL: 2000, change: 2 * d + (d === 1 ? 1 : 0) }));
    const learnt = valueOrThrow(learnResponse(additions));
    expect(learnt.changePerLPerM3).toBeCloseTo(111 / 55, 12);
    const slope = 111 / 55;
    const residual = [1, 2, 3, 4, 5].reduce((sum, d) => sum + (2 * d + (d === 1 ? 1 : 0) - slope * d) ** 2, 0) / 4;
    expect(learnt.standardError).toBeCloseTo(Math.sqrt(residual / 55), 12);
    expect(learnt.n).toBe(5);
    expect(learnResponse(additions.slice(1))).toEqual({
      ok: false,
      error: { kind: "too-few-additions", got: 4, need: 5 },
    });
    expect(kind(learnResponse(additions.map((a) => ({ ...a, litres: 0 }))))).toBe("no-dose");
  });
});

describe("stretches out of window", () => {
  const window = { lower: 5, upper: 6, watchLower: null, watchUpper: null };
  const points = (...values: number[]) => values.map((value, i) => ({ atMs: i, value }));
  test("from the last good check to the next good one, with the value furthest out", () => {
    expect(outStretches(points(5.5, 6.2, 6.9, 6.4, 5.6, 5.5), window)).toEqual([
      { fromMs: 0, firstOutMs: 1, toMs: 4, worst: 6.9, checksOut: 3 },
    ]);
    expect(outStretches(points(6.2, 4.1, 5.5, 4.9), window)).toEqual([
      { fromMs: 0, firstOutMs: 0, toMs: 2, worst: 4.1, checksOut: 2 },
      { fromMs: 2, firstOutMs: 3, toMs: null, worst: 4.9, checksOut: 1 },
    ]);
    expect(outStretches(points(5, 6, 5.5), window)).toEqual([]);
  });
});

describe("what is asked of an addition", () => {
  const bath = {
    concentrate: "Zinaphos 20",
    acid: "Make-up acid",
    others: ["Defoamer K"],
    freeboardL: 60,
    maxSingleL: 20,
    targetPercent: 2.5,
    targetPh: 5.2,
  };
  const dose = {
    product: "Zinaphos 20",
    litres: 5,
    bath,
    elsewhere: [{ bath: "Tank 1", product: "Alkaline 7" }],
    advisedL: 5,
    percent: 2,
    ph: 5.4,
  };
  const asked = (over: object = {}) => valueOrThrow(questionAddition({ ...dose, ...over })).map((q) => q.question);
  test("nothing of what is as reckoned", () => expect(asked()).toEqual([]));
  test.each([
    [{ product: "Alkaline 7" }, ["wrong-product"]],
    [{ product: "zinaphos" }, []],
    [{ product: "Defoamer K", litres: 19 }, []],
    [{ litres: 24.9, bath: { ...bath, maxSingleL: null } }, []],
    [{ litres: 25, bath: { ...bath, maxSingleL: null } }, ["tenfold"]],
    [{ percent: 2.5 }, []],
    [{ percent: 2.6 }, ["wrong-direction"]],
    [{ product: "Make-up acid", ph: 5.2 }, []],
    [{ product: "Make-up acid", ph: 5.1 }, ["wrong-direction"]],
    [{ litres: 20 }, []],
    [{ litres: 20.1 }, ["over-single"]],
    [{ litres: 60, advisedL: 60, bath: { ...bath, maxSingleL: null } }, []],
    [{ litres: 60.1, advisedL: 60, bath: { ...bath, maxSingleL: null } }, ["over-freeboard"]],
    [{ drum: { lot: "D1", leftL: 5, usableUntil: "2026-11-28" }, today: "2026-11-28" }, []],
    [{ drum: { lot: "D1", leftL: 5, usableUntil: "2026-11-27" }, today: "2026-11-28" }, ["drum-out-of-date"]],
    [{ drum: { lot: "D1", leftL: 4.9, usableUntil: null }, today: "2026-11-28" }, ["more-than-left"]],
    [{ advisedL: null, litres: 19 }, []],
    [{ percent: null, ph: null }, []],
  ])("%o: %o", (over, questions) => expect(asked(over)).toEqual(questions));
  test("a product that belongs elsewhere is said to, with what is known here", () => {
    expect(valueOrThrow(questionAddition({ ...dose, product: "Alkaline 7" }))).toEqual([
      {
        question: "wrong-product",
        product: "Alkaline 7",
        belongsTo: "Tank 1",
        known: ["Zinaphos 20", "Make-up acid", "Defoamer K"],
      },
    ]);
    expect(valueOrThrow(questionAddition({ ...dose, product: "Nobody's" }))).toMatchObject([{ belongsTo: null }]);
    for (const litres of [0, -1, Number.NaN]) expect(kind(questionAddition({ ...dose, litres }))).toBe("bad-input");
  });
  test("a name is another's where every word of the shorter stands in the longer", () => {
    expect([
      sameProduct("Zinaphos", "ZINAPHOS 20"),
      sameProduct("Zinaphos 30", "Zinaphos 20"),
      sameProduct("", "Zinaphos"),
    ]).toEqual([true, false, false]);
  });
});
