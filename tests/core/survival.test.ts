import { describe, expect, it } from "vitest";
import { standsAfter, survival } from "@/core/field";
import { type AgeingStructure, aged } from "@/core/simulated-line";

describe("how long things stand", () => {
  // The published remission times of 21 patients under treatment, weeks; + still in remission (Freireich and others 1963).
  const times = "6 6 6 6+ 7 9+ 10 10+ 11+ 13 16 17+ 19+ 20+ 22 23 25+ 32+ 32+ 34+ 35+".split(" ");
  const followed = times.map((t) => ({ years: Number.parseFloat(t), failed: !t.endsWith("+") }));
  it("is Kaplan and Meier’s, as published", () => {
    const curve = survival(followed);
    if (!curve.ok) throw new Error("no curve");
    const { steps } = curve.value;
    expect(steps.map((s) => s.years)).toEqual([6, 7, 10, 13, 16, 22, 23]);
    const published = [0.857, 0.807, 0.753, 0.69, 0.627, 0.538, 0.448];
    for (const [i, s] of steps.entries()) expect(s.stands).toBeCloseTo(published[i] as number, 3);
    expect(steps.map((s) => s.atRisk)).toEqual([21, 17, 15, 12, 11, 7, 6]);
    expect(curve.value).toMatchObject({ n: 21, failed: 9, censored: 12, medianYears: 23, longestYears: 35 });
    // Its published 95 % at 10, by log-log.
    expect(steps[2]?.interval[0]).toBeCloseTo(0.503, 2);
    expect(steps[2]?.interval[1]).toBeCloseTo(0.889, 2);
  });
  it("says what stands after a time, and nothing beyond what was followed", () => {
    const curve = survival(followed);
    if (!curve.ok) throw new Error("no curve");
    expect(standsAfter(curve.value, 5)).toBe(1);
    expect(standsAfter(curve.value, 12)).toBeCloseTo(0.753, 3);
    expect(standsAfter(curve.value, 36)).toBeNull();
  });
  it("has no median while more than half stand, and no step where nothing failed", () => {
    expect(survival([{ years: 3, failed: false }])).toMatchObject({
      ok: true,
      value: { steps: [], medianYears: null },
    });
    expect(survival([])).toMatchObject({ error: { kind: "nothing-followed" } });
    expect(survival([{ years: -1, failed: true }])).toMatchObject({ error: { kind: "bad-input" } });
  });
});

describe("the make-believe of ageing", () => {
  const post: AgeingStructure = {
    seed: 3,
    blasted: true,
    primer: false,
    filmUm: 80,
    fading: 1,
    salt: 0.6,
    wet: 0.5,
    knocks: 1,
    sun: 0.8,
  };
  it("only gets worse with the years", () => {
    for (const kind of ["edge", "seam", "foot", "chip", "face", "sheltered"] as const)
      for (let y = 1; y <= 8; y++) {
        const [before, after] = [aged(post, { kind }, y - 1), aged(post, { kind }, y)];
        expect(after.creepMm).toBeGreaterThanOrEqual(before.creepMm);
        expect(after.rustPercent).toBeGreaterThanOrEqual(before.rustPercent);
        expect(after.glossGu).toBeLessThanOrEqual(before.glossGu);
      }
  });
  it("spares what was blasted and primed, what is sealed, and what the sun does not reach", () => {
    const at = (over: Partial<AgeingStructure>, kind: "edge" | "seam" | "face" | "sheltered", sealed = false) =>
      aged({ ...post, ...over }, { kind, sealed }, 5);
    expect(at({ primer: true }, "edge").creepMm).toBeLessThan(at({}, "edge").creepMm);
    expect(at({ blasted: false }, "edge").creepMm).toBeGreaterThan(at({}, "edge").creepMm);
    expect(at({}, "seam", true).seamRustedShare).toBeLessThan(at({}, "seam").seamRustedShare);
    expect(at({}, "sheltered").glossGu).toBeGreaterThan(at({}, "face").glossGu);
    expect(at({ fading: 0.4 }, "face").glossGu).toBeGreaterThan(at({}, "face").glossGu);
  });
});
