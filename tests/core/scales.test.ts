import { describe, expect, test } from "vitest";
import { crossCutFromSquares, crossCutGrade, crossCutSpacingMm, judgePullOff, pullOffMPa } from "@/core/bench";
import {
  creepFromArea,
  creepFromChip,
  creepFromScribe,
  creepRateMmPerYear,
  creepRating,
  rustGrade,
} from "@/core/field";
import { valueOrThrow } from "@/core/result";
import { parseNumber } from "@/core/units";

describe("cross-cut, both scales by share removed", () => {
  test.each([
    [0, 0, "5B"],
    [0.1, 1, "4B"],
    [4.9, 1, "4B"],
    [5, 1, "3B"],
    [5.1, 2, "3B"],
    [15, 2, "3B"],
    [15.1, 3, "2B"],
    [35, 3, "2B"],
    [35.1, 4, "1B"],
    [65, 4, "1B"],
    [65.1, 5, "0B"],
    [100, 5, "0B"],
  ] as const)("%f %% removed: %i and %s", (share, iso, astmB) => {
    expect(valueOrThrow(crossCutGrade(share))).toMatchObject({ iso, astmB });
  });
  test.each([
    [0, 25, 0],
    [1, 25, 1],
    [2, 25, 2],
    [3, 25, 2],
    [4, 25, 3],
    [8, 25, 3],
    [9, 25, 4],
    [16, 25, 4],
    [17, 25, 5],
    [5, 100, 1],
    [6, 100, 2],
  ])("%i of %i squares: grade %i", (lost, squares, iso) => {
    expect(valueOrThrow(crossCutFromSquares(lost, squares)).iso).toBe(iso);
  });
  test("what cannot be counted is refused", () => {
    for (const [lost, squares] of [
      [26, 25],
      [-1, 25],
      [1, 0],
      [1, 24.5],
    ] as const)
      expect(crossCutFromSquares(lost, squares)).toMatchObject({ error: { kind: "bad-squares" } });
    for (const share of [-0.1, 100.1, Number.NaN])
      expect(crossCutGrade(share)).toMatchObject({ error: { kind: "bad-share" } });
  });
  test.each([
    [60, "hard", 1],
    [60, "soft", 2],
    [60.1, "hard", 2],
    [120, "hard", 2],
    [120.1, "hard", 3],
    [250, "soft", 3],
  ] as const)("%f µm on %s: cuts %i mm apart", (um, substrate, spacingMm) => {
    expect(valueOrThrow(crossCutSpacingMm(um, substrate))).toEqual({ method: "cross-cut", spacingMm });
  });
  test("over 250 µm it is the X-cut", () => {
    expect(valueOrThrow(crossCutSpacingMm(250.1, "hard"))).toEqual({ method: "x-cut" });
  });
});

describe("pull-off", () => {
  test("1570.8 N on a 20 mm dolly are 5 MPa", () => {
    expect(valueOrThrow(pullOffMPa({ forceN: 1570.796, dollyMm: 20 }))).toBeCloseTo(5, 4);
  });
  test("shares must add up; the glue's part decides what a low value says", () => {
    const pull = (stressMPa: number, gluePercent: number) =>
      judgePullOff({ stressMPa, requiredMPa: 5, adhesivePercent: 100 - gluePercent, cohesivePercent: 0, gluePercent });
    expect(valueOrThrow(pull(5, 100))).toBe("pass");
    expect(valueOrThrow(pull(4.9, 50))).toBe("no-result");
    expect(valueOrThrow(pull(4.9, 49))).toBe("fail");
    expect(
      judgePullOff({ stressMPa: 5, requiredMPa: 5, adhesivePercent: 50, cohesivePercent: 0, gluePercent: 49 }),
    ).toMatchObject({
      error: { kind: "shares-do-not-add", sum: 99 },
    });
  });
});

describe("creep", () => {
  test("half of the mean width beyond the scribe", () => {
    expect(valueOrThrow(creepFromScribe([5, 5, 5, 5, 5, 5], 1)).creepMm).toBe(2);
    expect(valueOrThrow(creepFromScribe([1, 1, 1, 1, 1, 1], 1))).toMatchObject({ creepMm: 0, rating: 10 });
  });
  test("from a chip it is one-sided: the width itself", () => {
    expect(valueOrThrow(creepFromChip([2, 4, 3, 3, 2, 4])).creepMm).toBe(3);
  });
  test("by area, the same as by width for an even band", () => {
    expect(valueOrThrow(creepFromArea({ areaMm2: 250, lengthMm: 50, scribeMm: 1 }))).toBeCloseTo(2, 12);
  });
  test("under six points there is a mean but no rating", () => {
    expect(valueOrThrow(creepFromScribe([3, 3, 3, 3, 3], 1))).toMatchObject({ creepMm: 1, rating: null, few: true });
    expect(valueOrThrow(creepFromScribe([3, 3, 3, 3, 3, 3], 1))).toMatchObject({ rating: 8, few: false });
  });
  test.each([
    [0, 10],
    [0.4, 9],
    [0.5, 9],
    [0.6, 8],
    [1, 8],
    [1.1, 7],
    [2, 7],
    [2.1, 6],
    [3, 6],
    [3.1, 5],
    [5, 5],
    [5.1, 4],
    [7, 4],
    [7.1, 3],
    [10, 3],
    [10.1, 2],
    [13, 2],
    [13.1, 1],
    [16, 1],
    [16.1, 0],
  ])("%f mm is rated %i", (mm, rating) => {
    expect(valueOrThrow(creepRating(mm))).toBe(rating);
  });
  test("a rate needs time that runs forward", () => {
    expect(valueOrThrow(creepRateMmPerYear({ fromMm: 1, toMm: 4, years: 1.5 }))).toBe(2);
    expect(creepRateMmPerYear({ fromMm: 1, toMm: 4, years: 0 })).toMatchObject({
      error: { kind: "times-out-of-order" },
    });
    expect(creepRateMmPerYear({ fromMm: -1, toMm: 4, years: 1 })).toMatchObject({ error: { kind: "bad-input" } });
  });
});

describe("rust", () => {
  test.each([
    [0, 0],
    [0.01, 1],
    [0.05, 1],
    [0.06, 2],
    [0.5, 2],
    [0.6, 3],
    [1, 3],
    [1.1, 4],
    [8, 4],
    [8.1, 5],
    [100, 5],
  ])("%f %% of the face: Ri %i", (share, grade) => {
    expect(valueOrThrow(rustGrade(share))).toBe(grade);
  });
});

describe("typed numbers", () => {
  test.each([
    ["72", 72],
    ["72.5", 72.5],
    ["72,5", 72.5],
    [" 72 ", 72],
    ["-4", -4],
    ["−4", -4],
    ["+4", 4],
    ["1.234,5", 1234.5],
    ["1,234.5", 1234.5],
    ["1,234,567", 1234567],
    ["0,125", 0.125],
    ["12e2", 1200],
    ["1,2345", 1.2345],
  ])("“%s” is %d", (text, value) => {
    expect(parseNumber(text)).toEqual({ ok: true, value });
  });
  test("one comma before three digits could be either, and is asked about unless the mark is known", () => {
    expect(parseNumber("1,233")).toMatchObject({ error: { kind: "ambiguous-number", readAs: ["1.233", "1233"] } });
    expect(parseNumber("1,233", ".")).toEqual({ ok: true, value: 1233 });
    expect(parseNumber("1,233", ",")).toEqual({ ok: true, value: 1.233 });
    expect(parseNumber("1.233", ",")).toEqual({ ok: true, value: 1233 });
  });
  test.each(["", "  ", "seven", "1.2.3", "1,23,4", "--4", "4-", "0x10", "1e", "Infinity", "NaN", "12 34", "½"])(
    "“%s” is no number",
    (text) => {
      expect(parseNumber(text).ok).toBe(false);
    },
  );
});
