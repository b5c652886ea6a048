import { describe, expect, it } from "vitest";
import { parseMeterLine } from "@/core/bath";
import { judgeCureTest, judgePullOff } from "@/core/bench";
import { mannWhitney } from "@/core/comparison";
import { ewmaChart } from "@/core/control-charts";
import { creepFromArea, rustGrade } from "@/core/field";
import { valueOrThrow } from "@/core/result";
import { filmPlan } from "@/core/sampling";
import { capability } from "@/core/statistics";

describe("a meter's line is read whole or refused, never cut", () => {
  it.each([
    ["pH 5,31 47,2 C", { ph: 5.31, temperature: 47.2 }],
    ["1,25 mS/cm", { conductivity: 1250 }],
    ["1 234 µS/cm", { conductivity: 1234 }],
    ["12 345,5 uS/cm 25C", { conductivity: 12_345.5, compensated: true }],
    ["pH 5.31  47.2 C  66 uS/cm 25C", { ph: 5.31, temperature: 47.2, conductivity: 66, compensated: true }],
    ["pH: 7", { ph: 7 }],
    ["-3 C", { temperature: -3 }],
    ["122 F", { temperature: 50 }],
  ])("%s", (line, expected) => {
    expect(valueOrThrow(parseMeterLine(line))).toMatchObject(expected);
  });
  it.each(["pH 5.3.1", "pH 5,31,2", "1,234,567 uS/cm", "pH 5.31 and 47", "66 uS/cm 12", "pH", "hello"])(
    "%s is refused",
    (line) => {
      expect(parseMeterLine(line)).toMatchObject({ ok: false, error: { kind: "not-a-meter-line" } });
    },
  );
});

describe("tests by what would be missed", () => {
  it("impact is its lowest blow: 5 among 40s does not meet 25", () => {
    expect(judgeCureTest("impact", [40, 40, 5], 25, null)).toMatchObject({
      ok: true,
      value: { value: 5, result: "out" },
    });
    expect(judgeCureTest("gloss-60", [60, 62, 64], 60, null)).toMatchObject({ value: { value: 62, result: "in" } });
  });
  it("shares that are no numbers are refused, at or over what is asked too", () => {
    const shares = { stressMPa: 6, requiredMPa: 5, adhesivePercent: Number.NaN, cohesivePercent: 100, gluePercent: 0 };
    expect(judgePullOff(shares)).toMatchObject({ ok: false, error: { kind: "bad-input", name: "adhesivePercent" } });
    expect(judgePullOff({ ...shares, adhesivePercent: -10, cohesivePercent: 110 })).toMatchObject({ ok: false });
    expect(judgePullOff({ ...shares, adhesivePercent: 0, stressMPa: Number.NaN })).toMatchObject({ ok: false });
  });
  it("a rust share at its bound counts as met, by more than rounding it does not", () => {
    for (const [share, grade] of [
      [0.05, 1],
      [0.5, 2],
      [1, 3],
      [8, 4],
    ] as const) {
      expect(valueOrThrow(rustGrade(share * (1 + 5e-10)))).toBe(grade);
      expect(valueOrThrow(rustGrade(share * 1.001))).toBe(grade + 1);
    }
  });
  it("creep by area just at the scribe's own width is none; under it, or without a width, refused", () => {
    expect(valueOrThrow(creepFromArea({ areaMm2: 3 * 0.1 * 10, lengthMm: 10, scribeMm: 0.3 }))).toBeCloseTo(0, 12);
    expect(creepFromArea({ areaMm2: 2, lengthMm: 10, scribeMm: 0.3 })).toMatchObject({ ok: false });
    expect(creepFromArea({ areaMm2: 20, lengthMm: 10, scribeMm: Number.NaN })).toMatchObject({
      ok: false,
      error: { kind: "bad-input", name: "scribeMm" },
    });
  });
});

describe("statistics at their edges", () => {
  it("full separation of any two group sizes has a p over nothing, and none is negative", () => {
    for (const [n1, n2] of [
      [3, 3],
      [5, 40],
      [12, 200],
      [20, 300],
    ] as const) {
      const low = Array.from({ length: n1 }, (_, i) => i);
      const high = Array.from({ length: n2 }, (_, i) => 1000 + i);
      const p = valueOrThrow(mannWhitney(low, high)).p;
      // Two of all the ways to choose n1 of n1 + n2.
      const lnWays = Array.from({ length: n1 }, (_, i) => Math.log((n2 + i + 1) / (i + 1))).reduce((a, b) => a + b, 0);
      expect(p).toBeGreaterThan(0);
      expect(Math.log(p) / (Math.log(2) - lnWays)).toBeCloseTo(1, 9);
    }
  });
  it("the two ways to add up a tail agree where they meet", () => {
    // U of 399 to 402 of groups of 20 and 41: either side of where tails are added one by one.
    const p = (u: number) => {
      const others = Array.from({ length: 41 }, (_, i) => i * 10 + 5);
      let left = u;
      const mine = Array.from({ length: 20 }, (_, i) => {
        const beats = Math.min(41, Math.ceil(left / (20 - i)));
        left -= beats;
        return beats * 10 + i / 100;
      });
      const test = valueOrThrow(mannWhitney(mine, others));
      expect(test.u).toBe(u);
      return test.p;
    };
    const [a, b, c] = [p(399), p(400), p(401)] as const;
    expect(b - a).toBeGreaterThan(0);
    expect((c - b) / (b - a)).toBeCloseTo(1, 1);
  });
  it("equal readings have no spread to be capable of, whatever rounding leaves", () => {
    const alike = Array.from({ length: 30 }, (_, i) => 0.1 * 3 + (i % 2) * 1e-16);
    expect(capability(alike, { min: 0.2, max: 0.4 })).toMatchObject({ ok: false, error: { kind: "no-spread" } });
  });
  it("an average that moves has its limits at 2.86 by default", () => {
    const chart = valueOrThrow(ewmaChart([1, 1, 1], { centre: 0, sigma: 1 }));
    expect(chart.upper[0]).toBeCloseTo(2.86 * 0.2, 12);
  });
});

describe("places to read are drawn by stratum", () => {
  it("three of the first hundred square metres, one of each further hundred or part", () => {
    for (let seed = 0; seed < 40; seed++) {
      const plan = valueOrThrow(filmPlan("spot-area", 555, seed));
      const stratum = (place: number) => Math.floor((place - 1) / 10);
      const counts = [0, 1, 2, 3, 4, 5].map((s) => plan.measured.filter((p) => stratum(p) === s).length);
      expect(counts).toEqual([3, 1, 1, 1, 1, 1]);
      expect(plan.spots).toBe(40);
    }
    expect(valueOrThrow(filmPlan("spot-area", 555, 7)).measured).toEqual(
      valueOrThrow(filmPlan("spot-area", 555, 7)).measured,
    );
  });
});
