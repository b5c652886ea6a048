import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { fitCureCurve, gelSchedule, gelState, heatingRate, judgeBake, judgeClimb, requiredMinutes } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { seededRandom, simulateBake } from "@/core/simulated-line";

const points = [
  { metalC: 180, minutes: 20 },
  { metalC: 190, minutes: 15 },
  { metalC: 200, minutes: 10 },
];
const target = { metalC: 150, leastMin: 5, mostMin: 12 };
const flat = (metalC: number, minutes: number, name = "Cover") => ({
  name,
  medium: "metal" as const,
  trace: {
    timeS: Array.from({ length: minutes * 6 + 1 }, (_, i) => i * 10),
    tempC: Array.from({ length: minutes * 6 + 1 }, () => metalC),
  },
});

describe("a gelled primer", () => {
  const schedule = valueOrThrow(gelSchedule(target, points));
  test("five minutes at its own heat are just gelled, twelve are as far as it may go", () => {
    const just = valueOrThrow(judgeBake([flat(150, 5)], schedule));
    expect(just.decidingIndex).toBeCloseTo(100, 6);
    expect(gelState(just)).toBe("gelled");
    expect(gelState(valueOrThrow(judgeBake([flat(150, 4)], schedule)))).toBe("short");
    expect(gelState(valueOrThrow(judgeBake([flat(150, 12)], schedule)))).toBe("gelled");
    expect(gelState(valueOrThrow(judgeBake([flat(150, 13)], schedule)))).toBe("too-far");
  });
  test("hotter metal gels sooner, by the slope of the primer's own cure", () => {
    const curve = valueOrThrow(fitCureCurve(points));
    const share = requiredMinutes(curve, 170) / requiredMinutes(curve, 150);
    const needed = 5 * share;
    const index = valueOrThrow(judgeBake([flat(170, 5)], schedule)).decidingIndex;
    expect(index).toBeCloseTo((100 * 5) / needed, 4);
  });
  test("the slowest place decides that it is gelled, the hottest that it went too far; air decides nothing", () => {
    const air = { ...flat(230, 13, "Air"), medium: "air" as const };
    expect(gelState(valueOrThrow(judgeBake([air, flat(150, 6), flat(150, 4, "Foot")], schedule)))).toBe("short");
    expect(gelState(valueOrThrow(judgeBake([air, flat(150, 6), flat(150, 14, "Top")], schedule)))).toBe("too-far");
    expect(gelState(valueOrThrow(judgeBake([air, flat(150, 6)], schedule)))).toBe("gelled");
  });
  test("a trace in an oven: eight and a half minutes at 185 °C gel 2 mm, eleven at 205 go too far", () => {
    const bake = (setPointC: number, minutes: number) =>
      valueOrThrow(
        judgeBake(
          simulateBake(seededRandom(3), {
            setPointC,
            pieces: [{ channel: "Cover", tauS: 131 }],
            doorToPullS: minutes * 60,
            intervalS: 10,
            coolS: 400,
            startC: 20,
          }),
          schedule,
        ),
      );
    expect(gelState(bake(185, 8.5))).toBe("gelled");
    expect(gelState(bake(205, 11))).toBe("too-far");
    expect(gelState(bake(165, 6))).toBe("short");
  });
  test.each([
    ["no range", { ...target, mostMin: 5 }, {}],
    ["not over nothing", { ...target, leastMin: 0 }, {}],
    ["without an end", { ...target, mostMin: Number.POSITIVE_INFINITY }, {}],
    ["as long as the whole cure", { metalC: 200, leastMin: 5, mostMin: 10.5 }, { metalC: 200 }],
  ])("%s is refused", (_, gel, more) => {
    expect(gelSchedule(gel, points)).toMatchObject({ ok: false, error: { kind: "bad-gel", ...more } });
  });
  test("without points there is no slope", () => {
    expect(gelSchedule(target, [])).toMatchObject({ error: { kind: "no-points" } });
  });
  test("more minutes never lead back to gelled from too far, nor from gelled to short", () => {
    const order = { short: 0, gelled: 1, "too-far": 2 };
    fc.assert(
      fc.property(fc.integer({ min: 140, max: 175 }), fc.integer({ min: 2, max: 20 }), (metalC, minutes) => {
        const at = (m: number) => order[gelState(valueOrThrow(judgeBake([flat(metalC, m)], schedule)))];
        return at(minutes) <= at(minutes + 1);
      }),
      { numRuns: 60 },
    );
  });
});

describe("the climb as powder melts", () => {
  const trace = (perMin: number) => ({
    timeS: Array.from({ length: 60 }, (_, i) => i * 20),
    tempC: Array.from({ length: 60 }, (_, i) => Math.min(200, 20 + (perMin * i) / 3)),
  });
  test("is held against both bounds of the sheet", () => {
    const rate = heatingRate(trace(15)) ?? 0;
    expect(rate).toBeCloseTo(15, 1);
    expect(judgeClimb(rate, [10, 60])).toEqual({ ok: true, value: "usual" });
    expect(judgeClimb(rate, [16, 60])).toEqual({ ok: true, value: "slow" });
    expect(judgeClimb(rate, [5, 12])).toEqual({ ok: true, value: "fast" });
    expect(judgeClimb(10, [10, 60])).toEqual({ ok: true, value: "usual" });
  });
  test.each([[[0, 60]], [[60, 10]], [[10, 10]]] as [[number, number]][])("bounds %j are refused", (bounds) => {
    expect(judgeClimb(15, bounds)).toMatchObject({ ok: false, error: { kind: "bad-input", name: "climb" } });
  });
  test("a rate that is no number is refused", () => {
    expect(judgeClimb(Number.NaN, [10, 60])).toMatchObject({ error: { name: "rateCPerMin" } });
  });
});
