import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { valueOrThrow } from "@/core/result";
import {
  adviseFilm,
  baseCorrection,
  checkGauge,
  overBuild,
  profileClass,
  readGaugeLine,
  strangeReading,
} from "@/core/thickness";

describe("a gauge against its shims", () => {
  const shim = (certifiedUm: number, readingsUm: number[], toleranceUm = 1) => ({
    certifiedUm,
    toleranceUm,
    readingsUm,
  });
  test("allows the root of the squares of both tolerances", () => {
    // Gauge 1 µm + 1 % of 250 = 3.5, shim 1.2: √(12.25 + 1.44) = 3.7.
    const judged = valueOrThrow(checkGauge([shim(250, [253.7, 253.7, 253.7], 1.2)], { um: 1, percent: 1 }));
    expect(judged.shims[0]?.allowedUm).toBeCloseTo(3.7, 9);
    expect(judged.holds).toBe(true);
    expect(valueOrThrow(checkGauge([shim(250, [253.71, 253.71, 253.71], 1.2)], { um: 1, percent: 1 })).holds).toBe(
      false,
    );
  });
  test("one that fails fails the gauge, low as well as high", () => {
    const judged = valueOrThrow(
      checkGauge([shim(50, [50, 51, 49]), shim(125, [118, 118, 118])], { um: 1, percent: 1 }),
    );
    expect(judged).toMatchObject({ holds: false });
    expect(judged.shims.map((s) => s.holds)).toEqual([true, false]);
    expect(judged.shims[1]?.errorUm).toBe(-7);
  });
  test.each([
    ["no shim", [], "no-shim"],
    ["two readings", [shim(50, [50, 50])], "too-few-readings"],
    ["a reading that is none", [shim(50, [50, 50, Number.NaN])], "bad-input"],
    ["a shim under nothing", [shim(-1, [50, 50, 50])], "bad-input"],
  ])("%s is refused", (_, shims, kind) => {
    expect(checkGauge(shims, { um: 1, percent: 1 })).toMatchObject({ ok: false, error: { kind } });
  });
});

describe("what the base metal adds", () => {
  const over = { bareUm: null, blasted: true, setOnSmooth: true, profile: "unknown" as const };
  test.each([
    ["fine", 10],
    ["medium", 25],
    ["coarse", 40],
    ["unknown", 25],
  ] as const)("a %s profile takes off %i µm where the gauge was set on smooth steel", (profile, um) => {
    expect(valueOrThrow(baseCorrection({ ...over, profile }))).toEqual({ kind: "by-profile", um, profile });
  });
  test("readings of one's own take its place: never both", () => {
    const bareUm = Array.from({ length: 10 }, (_, i) => 10 + i);
    expect(valueOrThrow(baseCorrection({ ...over, bareUm }))).toEqual({ kind: "base-readings", um: 14.5, n: 10 });
    expect(baseCorrection({ ...over, bareUm: bareUm.slice(1) })).toMatchObject({
      error: { kind: "too-few-readings", got: 9, need: 10 },
    });
    expect(baseCorrection({ ...over, bareUm: [...bareUm, Number.NaN] })).toMatchObject({
      error: { kind: "bad-input" },
    });
  });
  test("smooth metal, or a gauge set on the blasted part itself, wants nothing", () => {
    for (const plain of [
      { ...over, blasted: false },
      { ...over, setOnSmooth: false },
    ])
      expect(valueOrThrow(baseCorrection(plain))).toEqual({ kind: "none", um: 0 });
  });
  test("classes of a measured profile", () => {
    expect([null, 49.9, 50, 85, 85.1].map(profileClass)).toEqual(["unknown", "fine", "medium", "medium", "coarse"]);
  });
});

describe("what is done with a film", () => {
  const film = {
    result: "out" as const,
    thin: true,
    thick: false,
    cured: "cured" as const,
    meanUm: 50,
    mostUm: 150,
    leastCoatUm: 40,
  };
  test.each([
    [{ result: "in" as const, thin: false }, "accept", "in"],
    [{ result: "unknown" as const }, "hold", "few-readings"],
    [{ cured: "loose" as const }, "respray-before-cure", "thin-uncured"],
    [{ cured: "melted" as const }, "respray-before-cure", "thin-at-melt"],
    [{}, "scuff-and-recoat", "thin-cured"],
    [{ meanUm: 120 }, "strip", "thin-no-room"],
    [{ mostUm: null, meanUm: 400 }, "scuff-and-recoat", "thin-cured"],
    [{ thin: false, thick: true }, "hold", "thick-cured"],
    [{ thin: false, thick: true, cured: "loose" as const }, "respray-before-cure", "thick-uncured"],
    [{ thick: true }, "hold", "thick-and-thin"],
    [{ thick: true, cured: "loose" as const }, "respray-before-cure", "thick-and-thin"],
    [{ cured: "unknown" as const }, "hold", "unknown-cure"],
  ])("%o: %s, since %s", (over, decision, why) => {
    expect(adviseFilm({ ...film, ...over })).toEqual({ decision, why });
  });
});

describe("over-build", () => {
  const rack = { areaM2: 10, meanUm: 90, specificGravity: 1.6, pricePerKg: 8 };
  test("is powder above the target, losses included", () => {
    // 10 m² × 15 µm × 1.6 × 10⁻³ / 0.6 = 0.4 kg.
    const found = valueOrThrow(overBuild([rack], 75, 0.6));
    expect(found.kg).toBeCloseTo(0.4, 12);
    expect(found.money).toBeCloseTo(3.2, 12);
  });
  test("what lies under the target is not set against it; a price unknown leaves the money unknown", () => {
    const found = valueOrThrow(overBuild([rack, { ...rack, meanUm: 60 }], 75, 0.6));
    expect(found.kg).toBeCloseTo(0.4, 12);
    expect(found).toMatchObject({ areaM2: 20, shareOver: 0.5 });
    expect(valueOrThrow(overBuild([{ ...rack, pricePerKg: null }], 75, 0.6)).money).toBeNull();
    expect(valueOrThrow(overBuild([], 75, 0.6))).toMatchObject({ kg: 0, shareOver: 0, racks: 0 });
  });
  test.each([
    [[{ ...rack, areaM2: 0 }], 75, 0.6],
    [[rack], 0, 0.6],
    [[rack], 75, 0],
    [[rack], 75, 1.01],
  ])("bad input is refused", (racks, target, efficiency) => {
    expect(overBuild(racks, target, efficiency)).toMatchObject({ ok: false, error: { kind: "bad-input" } });
  });
});

describe("a line of a gauge", () => {
  test.each([
    ["74.2 um", 74.2],
    ["74,2 µm", 74.2],
    ["2.92 mil", 2.92 * 25.4],
    ["#17 74.2 um", 74.2],
    ["17: 74.2", 74.2],
    ["3; 80", 80],
    ["74.2", 74.2],
    ["  81um  ", 81],
  ])("“%s” is %f µm", (line, um) => {
    expect(valueOrThrow(readGaugeLine(line)).valueUm).toBeCloseTo(um, 9);
  });
  test("a bare number is in the unit the gauge is set to", () => {
    expect(valueOrThrow(readGaugeLine("3.0", "mil")).valueUm).toBeCloseTo(76.2, 9);
  });
  test.each(["", "OVER", "----", "74.2 psi", "1 234 um", "74.2 73.1", "<b>74</b>"])("“%s” is not one", (line) => {
    expect(readGaugeLine(line)).toMatchObject({ ok: false, error: { kind: "not-a-gauge-line" } });
  });
  test("under nothing and beyond any film are refused by what they are", () => {
    expect(readGaugeLine("-4 um")).toMatchObject({ ok: false });
    expect(readGaugeLine("10001 um")).toMatchObject({ error: { kind: "beyond-any-film" } });
    expect(readGaugeLine("500 mil")).toMatchObject({ error: { kind: "beyond-any-film" } });
  });
  test("never throws, whatever comes down the wire", () => {
    fc.assert(fc.property(fc.string(), (text) => void readGaugeLine(text)));
  });
});

describe("a reading unlike its neighbours", () => {
  const usual = [72, 75, 71, 78, 74];
  test.each([
    [2.9, { kind: "unit-jump", slip: "mil-as-um" }],
    [1880, { kind: "unit-jump", slip: "um-as-mil" }],
    [0.2, { kind: "off-the-part" }],
    [400, { kind: "far-off", usualUm: 74 }],
    [12, { kind: "far-off", usualUm: 74 }],
  ])("%f among 71 to 78: %o", (value, strange) => {
    expect(strangeReading(value, usual)).toMatchObject(strange);
  });
  test("is not asked about while it looks like them, or while nothing is usual yet", () => {
    for (const value of [30, 74, 140, 280]) expect(strangeReading(value, usual)).toBeNull();
    expect(strangeReading(2.9, [72, 75])).toBeNull();
  });
  test("a batch all in mil is not asked about among itself", () => {
    const mil = [2.9, 3.0, 2.8, 3.1];
    expect(strangeReading(2.7, mil)).toBeNull();
  });
});
