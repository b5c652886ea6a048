import { describe, expect, test } from "vitest";
import { beforeAfter, earthChain, judgeSetting } from "@/core/coating";
import {
  creepFromArea,
  creepFromChip,
  creepFromScribe,
  creepRateMmPerYear,
  creepRating,
  rustGrade,
} from "@/core/field";
import { valueOrThrow } from "@/core/result";
import { parseNumber, parseUnit, type Quantity, quantities } from "@/core/units";

const value = <T>(r: { ok: true; value: T } | { ok: false; error: { kind: string } }) =>
  r.ok ? r.value : r.error.kind;

describe("field, at each limit of its scales", () => {
  // After ASTM D1654: at its upper limit a rating still stands, past it the next.
  test.each([
    [0, 10],
    [0.01, 9],
    [0.5, 9],
    [0.51, 8],
    [1, 8],
    [1.01, 7],
    [2, 7],
    [2.01, 6],
    [3, 6],
    [3.01, 5],
    [5, 5],
    [5.01, 4],
    [7, 4],
    [7.01, 3],
    [10, 3],
    [10.01, 2],
    [13, 2],
    [13.01, 1],
    [16, 1],
    [16.01, 0],
    [40, 0],
  ])("creep of %f mm is rated %i", (mm, rating) => expect(value(creepRating(mm))).toBe(rating));
  // After ISO 4628-3.
  test.each([
    [0, 0],
    [0.05, 1],
    [0.051, 2],
    [0.5, 2],
    [0.51, 3],
    [1, 3],
    [1.01, 4],
    [8, 4],
    [8.01, 5],
    [100, 5],
  ])("%f %% rusted is Ri %i", (share, grade) => expect(value(rustGrade(share))).toBe(grade));
  test("what is no share, width, scribe or time is refused by name", () => {
    for (const bad of [-0.1, 100.1, Number.NaN]) expect(value(rustGrade(bad))).toBe("bad-share");
    for (const bad of [-1, Number.NaN, Number.POSITIVE_INFINITY]) expect(value(creepRating(bad))).toBe("bad-input");
    expect(creepFromScribe([3, -1, 3], 1)).toEqual({ ok: false, error: { kind: "bad-width", index: 1, widthMm: -1 } });
    expect(value(creepFromScribe([], 1))).toBe("no-widths");
    expect(value(creepFromScribe([3], -1))).toBe("bad-input");
    expect(value(creepFromScribe([1, 1], 1.2))).toBe("narrower-than-scribe");
    expect(value(creepFromArea({ areaMm2: -1, lengthMm: 50, scribeMm: 0.5 }))).toBe("bad-input");
    expect(value(creepFromArea({ areaMm2: 10, lengthMm: 0, scribeMm: 0.5 }))).toBe("bad-input");
    expect(value(creepFromArea({ areaMm2: 20, lengthMm: 50, scribeMm: 0.5 }))).toBe("narrower-than-scribe");
    for (const years of [0, -1, Number.POSITIVE_INFINITY])
      expect(value(creepRateMmPerYear({ fromMm: 1, toMm: 2, years }))).toBe("times-out-of-order");
    expect(value(creepRateMmPerYear({ fromMm: -1, toMm: 2, years: 1 }))).toBe("bad-input");
  });
  test("half of what is wider than the scribe; a chip's whole width; six points for a rating, five for none", () => {
    expect(value(creepFromScribe([3, 5, 4, 4, 4, 4], 1))).toEqual({
      kind: "creep",
      creepMm: 1.5,
      n: 6,
      rating: 7,
      few: false,
    });
    expect(value(creepFromScribe([3, 5, 4, 4, 4], 1))).toEqual({
      kind: "creep",
      creepMm: 1.5,
      n: 5,
      rating: null,
      few: true,
    });
    expect(value(creepFromScribe([1, 1, 1, 1, 1, 1], 1))).toMatchObject({ creepMm: 0, rating: 10 });
    expect(value(creepFromChip([2, 4, 3, 3, 3, 3]))).toMatchObject({ creepMm: 3, rating: 6 });
    expect(value(creepFromArea({ areaMm2: 200, lengthMm: 50, scribeMm: 1 }))).toBe(1.5);
    expect(value(creepFromArea({ areaMm2: 50, lengthMm: 50, scribeMm: 1 }))).toBe(0);
    expect(value(creepRateMmPerYear({ fromMm: 1, toMm: 4, years: 1.5 }))).toBe(2);
    expect(value(creepRateMmPerYear({ fromMm: 4, toMm: 1, years: 1.5 }))).toBe(-2);
  });
});

describe("units by their definitions", () => {
  // 1 in = 25.4 mm, 1 US gal = 3.785411784 L, 1 lb = 0.45359237 kg, 1 ft = 0.3048 m exactly; 1 psi = 6.894757 kPa.
  test.each([
    ["thickness", 25.4, 1],
    ["temperature", 100, 212],
    ["temperature", -40, -40],
    ["temperature", 0, 32],
    ["temperatureDifference", 100, 180],
    ["volume", 3.785411784, 1],
    ["area", 0.09290304, 1],
    ["mass", 0.45359237, 1],
    ["pressure", 6.894757, 1],
    ["creep", 25.4, 1],
    ["coatingWeight", 1, 92.903],
    ["conductivity", 62, 62],
  ] as const)("%s: %f is %f", (quantity, metric, us) => {
    const q = quantities[quantity as Quantity];
    expect(q.toUs(metric)).toBeCloseTo(us, quantity === "coatingWeight" ? 2 : 9);
    expect(q.fromUs(q.toUs(metric))).toBeCloseTo(metric, 9);
  });
  test.each([
    ["µm", "thickness", 72, 72],
    ["μm", "thickness", 72, 72],
    ["UM", "thickness", 72, 72],
    ["microns", "thickness", 72, 72],
    ["mil", "thickness", 3, 76.2],
    ["mils", "thickness", 3, 76.2],
    ["C", "temperature", 190, 190],
    ["deg C", "temperature", 190, 190],
    ["°F", "temperature", 374, 190],
    ["degF", "temperature", 374, 190],
    ["kPa", "pressure", 200, 200],
    ["bar", "pressure", 2, 200],
    ["psi", "pressure", 10, 68.94757],
    ["µS/cm", "conductivity", 62, 62],
    ["mS/cm", "conductivity", 0.062, 62],
  ] as const)("the word %s", (word, quantity, typed, canonical) => {
    const unit = valueOrThrow(parseUnit(word));
    expect(unit.quantity).toBe(quantity);
    expect(unit.toCanonical(typed)).toBeCloseTo(canonical, 9);
  });
  test("a word that is no unit is named", () =>
    expect(parseUnit("furlong")).toEqual({ ok: false, error: { kind: "unknown-unit", word: "furlong" } }));
});

describe("numbers as they are typed", () => {
  test.each([
    ["72", 72],
    ["-3.5", -3.5],
    ["+4", 4],
    ["3,5", 3.5],
    ["0,125", 0.125],
    ["1234,5", 1234.5],
    ["1.234,5", 1234.5],
    ["1,234.5", 1234.5],
    ["1,234,567", 1_234_567],
    ["\u22123", -3],
    ["1e3", 1000],
    [" 7 ", 7],
    [".5", 0.5],
    ["12,34", 12.34],
    ["0,5", 0.5],
    ["1234,567", 1234.567],
  ])("%s", (text, number) => expect(value(parseNumber(text))).toBe(number));
  test.each([
    ["1,233", "ambiguous-number"],
    ["-1,233", "ambiguous-number"],
    ["", "empty"],
    ["  ", "empty"],
    ["abc", "not-a-number"],
    ["1.2.3", "not-a-number"],
    ["1,23,456.0", "not-a-number"],
    ["--1", "not-a-number"],
    ["1e999", "not-a-number"],
    ["3.5mm", "not-a-number"],
  ])("%s is refused: %s", (text, kind) => expect(value(parseNumber(text))).toBe(kind));
  test("with its mark said, what could be two things is one", () => {
    expect([value(parseNumber("1,233", ".")), value(parseNumber("1,233", ","))]).toEqual([1233, 1.233]);
    expect(value(parseNumber("1.233", ","))).toBe(1233);
    expect(value(parseNumber("1.23", ","))).toBe("not-a-number");
    expect(parseNumber("1,233")).toMatchObject({ error: { readAs: ["1.233", "1233"] } });
  });
});

describe("the gun, the booth and the earth", () => {
  test("a setting at its window's edge is in it, past it out; without one or unread it is not judged", () => {
    expect([60, 80, 59.9, 80.1].map((x) => judgeSetting(x, [60, 80]))).toEqual(["in", "in", "out", "out"]);
    expect([
      judgeSetting(5, [null, 80]),
      judgeSetting(500, [60, null]),
      judgeSetting(null, [60, 80]),
      judgeSetting(70, null),
    ]).toEqual(["in", "in", "unknown", "unknown"]);
  });
  test("links add up; at the limit it is in, past it out, with one unread unknown or out all the same", () => {
    expect(value(earthChain({ "lead-rack": 0.2, "rack-hook": 0.3, "hook-part": 0.5 }))).toEqual({
      totalMohm: 1,
      result: "in",
      worst: "hook-part",
      unread: [],
    });
    expect(value(earthChain({ "lead-rack": 0.2, "rack-hook": 0.31, "hook-part": 0.5 }))).toMatchObject({
      result: "out",
    });
    expect(value(earthChain({ "lead-rack": 0.2, "rack-hook": null }))).toEqual({
      totalMohm: 0.2,
      result: "unknown",
      worst: "lead-rack",
      unread: ["rack-hook", "hook-part"],
    });
    expect(value(earthChain({ "lead-rack": 2 }))).toMatchObject({ result: "out", unread: ["rack-hook", "hook-part"] });
    expect(value(earthChain({ "lead-rack": 0, "rack-hook": 0, "hook-part": 0 }))).toMatchObject({
      worst: null,
      result: "in",
    });
    expect(value(earthChain({ "lead-rack": 0.5, "rack-hook": 0, "hook-part": 0 }, 0.4))).toMatchObject({
      result: "out",
    });
    expect(value(earthChain({}))).toBe("no-link-read");
    expect(value(earthChain({ "hook-part": -1 }))).toBe("bad-input");
  });
  test("before and after: Welch's interval, helped only where the whole of it is nearer to the aim", () => {
    const [before, after] = [
      [90, 92, 94, 96],
      [72, 74, 76, 78],
    ];
    const moved = valueOrThrow(beforeAfter(before, after));
    expect(moved).toMatchObject({
      difference: -18,
      says: "moved",
      before: { mean: 93, n: 4 },
      after: { mean: 75, n: 4 },
    });
    // s² = 20/3 on both sides: standard error √(10/3) = 1.8257, six degrees, t = 2.4469.
    expect(moved.interval[0]).toBeCloseTo(-18 - 2.4469 * 1.825742, 3);
    expect(moved.interval[1]).toBeCloseTo(-18 + 2.4469 * 1.825742, 3);
    expect(valueOrThrow(beforeAfter(before, after, 75)).says).toBe("helped");
    expect(valueOrThrow(beforeAfter(after, before, 75)).says).toBe("made-worse");
    expect(valueOrThrow(beforeAfter([70, 80, 90], [71, 79, 91], 75)).says).toBe("cannot-tell");
    expect(valueOrThrow(beforeAfter([70, 80, 90], [71, 79, 91])).says).toBe("cannot-tell");
    expect(valueOrThrow(beforeAfter([70, 70], [80, 80]))).toMatchObject({ interval: [10, 10], says: "moved" });
    expect(beforeAfter([70], [80, 81])).toEqual({ ok: false, error: { kind: "too-few-values", got: 1, need: 2 } });
    expect(value(beforeAfter([70, Number.NaN], [80, 81]))).toBe("bad-input");
  });
});
