import { describe, expect, it } from "vitest";
import {
  checkBlisters,
  creepStandardError,
  fieldRate,
  flakingGrade,
  forecastTo,
  glossRetention,
  judgeZone,
  lastRead,
  rustedLength,
  visitDue,
  type ZoneFound,
} from "@/core/field";

const day = (text: string) => new Date(`${text}T12:00:00Z`);
const nothing: ZoneFound = {
  soundByEye: null,
  creepMm: null,
  rustPercent: null,
  blisters: null,
  flakedPercent: null,
  tapeIso: null,
  seam: null,
  glossRetentionPercent: null,
  deltaE: null,
  chalk: null,
};

describe("ratings by the standards' scales", () => {
  it("flaking after ISO 4628-5, each limit within its grade", () => {
    const grades = [0, 0.1, 0.11, 0.3, 1, 1.01, 3, 3.5, 100].map((s) => flakingGrade(s));
    expect(grades.map((g) => g.ok && g.value)).toEqual([0, 1, 2, 2, 3, 4, 4, 5, 5]);
    expect(flakingGrade(101)).toMatchObject({ error: { kind: "bad-share" } });
  });
  it("blisters want a size where there are any", () => {
    expect(checkBlisters({ density: 0, size: 4 })).toEqual({ ok: true, value: { density: 0, size: null } });
    expect(checkBlisters({ density: 3, size: null })).toMatchObject({ error: { kind: "blisters-need-size" } });
    expect(checkBlisters({ density: 3, size: 1 })).toMatchObject({ error: { kind: "blisters-need-size" } });
    expect(checkBlisters({ density: 6, size: 3 })).toMatchObject({ error: { kind: "bad-input", name: "density" } });
  });
  it("gloss kept and seam rusted are shares of what there was", () => {
    expect(glossRetention(42, 84)).toEqual({ ok: true, value: 50 });
    expect(glossRetention(42, 0)).toMatchObject({ error: { kind: "bad-input", name: "beforeGu" } });
    expect(rustedLength(30, 600)).toEqual({ ok: true, value: 5 });
    expect(rustedLength(601, 600)).toMatchObject({ error: { kind: "longer-than-all" } });
  });
});

describe("two verdicts of a zone", () => {
  it("say nothing where nothing was looked at", () => {
    expect(judgeZone(nothing)).toEqual({ protection: "unknown", appearance: "unknown", judged: [] });
  });
  it("take a look by eye for what it is: sound, or to be watched, and never better than what was measured", () => {
    expect(judgeZone({ ...nothing, soundByEye: true }).protection).toBe("in");
    expect(judgeZone({ ...nothing, soundByEye: false }).protection).toBe("watch");
    expect(judgeZone({ ...nothing, soundByEye: true, rustPercent: 2 }).protection).toBe("out");
  });
  it("stand on the worst of what was looked at, each on its own side", () => {
    const rusty = judgeZone({ ...nothing, rustPercent: 0.02, creepMm: 0, glossRetentionPercent: 90 });
    expect(rusty).toMatchObject({ protection: "watch", appearance: "in" });
    expect(judgeZone({ ...nothing, creepMm: 4, chalk: 0 })).toMatchObject({ protection: "out", appearance: "in" });
    expect(judgeZone({ ...nothing, tapeIso: 0, glossRetentionPercent: 49 })).toMatchObject({
      protection: "in",
      appearance: "out",
    });
    expect(judgeZone({ ...nothing, seam: { rustedMm: 30, ofMm: 600 } }).protection).toBe("watch");
    expect(judgeZone({ ...nothing, blisters: { density: 3, size: 3 } }).protection).toBe("out");
  });
});

describe("how fast it grows", () => {
  const from = { at: day("2024-06-01"), value: 1, standardError: 0.1 };
  const to = { at: day("2026-06-01"), value: 3, standardError: 0.1 };
  it("is the difference a year with the interval of both readings", () => {
    const rate = fieldRate(from, to);
    if (!rate.ok) throw new Error("no rate");
    expect(rate.value.rate).toBeCloseTo(2 / (730 / 365.25), 6);
    expect(rate.value.interval[1] - rate.value.rate).toBeCloseTo((1.96 * Math.hypot(0.1, 0.1)) / (730 / 365.25), 3);
    expect(rate.value.grows).toBe(true);
  });
  it("is not said of readings under ninety days apart, nor backwards", () => {
    expect(fieldRate(from, { ...to, at: day("2024-08-20") })).toMatchObject({ error: { kind: "too-soon", days: 80 } });
    expect(fieldRate(to, from)).toMatchObject({ error: { kind: "times-out-of-order" } });
  });
  it("foretells a range to a limit, and nothing where it is not told from standing still", () => {
    const told = forecastTo(5, from, to);
    if (!told.ok) throw new Error("nothing foretold");
    expect(told.value.years[0]).toBeLessThan(2);
    expect(told.value.years[1]).toBeGreaterThan(2);
    expect(forecastTo(2, from, to)).toMatchObject({ error: { kind: "beyond-already", value: 3 } });
    expect(forecastTo(5, from, { ...to, value: 1.1 })).toMatchObject({ error: { kind: "not-growing" } });
    expect(forecastTo(5, { ...from, standardError: 0.6 }, { ...to, value: 2.9 })).toMatchObject({ ok: true });
  });
  it("takes the error of a creep from its widths, half of it from a scribe", () => {
    expect(creepStandardError([2, 4, 6], false)).toBeCloseTo(2 / Math.sqrt(3), 9);
    expect(creepStandardError([2, 4, 6], true)).toBeCloseTo(1 / Math.sqrt(3), 9);
    expect(creepStandardError([2], false)).toBe(0);
  });
});

describe("when it is looked at next", () => {
  const facts = { since: day("2022-03-31"), lastVisit: null, trouble: false, risky: false, promisedYears: null };
  const on = (over: Partial<Parameters<typeof visitDue>[0]>) => {
    const due = visitDue({ ...facts, ...over });
    return `${due.at.toISOString().slice(0, 10)} ${due.why}`;
  };
  it("is in its first, third and fifth year, then every second", () => {
    expect(on({})).toBe("2023-03-31 first-year");
    expect(on({ lastVisit: day("2023-04-02") })).toBe("2025-03-31 third-year");
    expect(on({ lastVisit: day("2025-01-10") })).toBe("2027-03-31 fifth-year");
    expect(on({ lastVisit: day("2027-05-01") })).toBe("2029-03-31 later");
  });
  it("stays due until it was seen, however late", () => {
    expect(on({ lastVisit: day("2022-06-01") })).toBe("2023-03-31 first-year");
  });
  it("comes in half the time where risk is high, half a year after trouble, and in the year before a promise ends", () => {
    expect(on({ risky: true })).toBe("2022-09-30 first-year");
    expect(on({ lastVisit: day("2023-04-02"), trouble: true })).toBe("2023-10-02 trouble");
    expect(on({ lastVisit: day("2023-04-02"), promisedYears: 2 })).toBe("2025-03-31 third-year");
    expect(on({ lastVisit: day("2025-04-02"), promisedYears: 5 })).toBe("2026-03-31 promise");
  });
  it("is at once where nobody knows since when it stands and nobody looked", () => {
    expect(on({ since: null })).toBe("1970-01-01 never-seen");
    expect(on({ since: null, lastVisit: day("2025-04-02") })).toBe("2027-04-02 later");
  });
});

describe("what was read last", () => {
  const day = (n: number) => new Date(Date.UTC(2026, 0, n));
  const reads = (c: { readonly mm: number | null }) => c.mm !== null;
  it("is of the newest visit that read it, by whoever read it there", () => {
    const captures = [
      { at: day(400), mm: null },
      { at: day(30), mm: 3 },
      { at: day(29), mm: null },
      { at: day(29), mm: 4 },
      { at: day(1), mm: 9 },
    ];
    expect(lastRead(captures, reads)).toEqual({ at: day(30), of: [captures[1], captures[3]] });
  });
  it("is nothing where nobody ever read it", () => {
    expect(lastRead([{ at: day(1), mm: null }], reads)).toBeNull();
    expect(lastRead([], reads)).toBeNull();
  });
});
