import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  affectedStretch,
  heatThrough,
  isHardCooling,
  OFF_OPEN_TAU_S,
  OFF_SHUT_TAU_S,
  ovenSurvey,
  placeOffC,
  planLoad,
  proofRate,
  shiftedAir,
  speedChangeEffects,
  stopEffects,
  throughConveyor,
} from "@/core/cure";
import { valueOrThrow } from "@/core/result";

const schedule = {
  points: [
    { metalC: 180, minutes: 20 },
    { metalC: 190, minutes: 15 },
    { metalC: 200, minutes: 10 },
  ],
  overbake: [{ metalC: 200, minutes: 40 }],
};
const air = { startC: 60, tauS: 140, program: [{ fromS: 0, airC: 205 }] };
const piece = (id: string, over: object = {}) => ({ id, section: { tauS: 300 }, schedule, startC: 20, ...over });

describe("an oven that is turned off", () => {
  const off = (tauS: number) => ({ ...air, program: [...air.program, { fromS: 1800, airC: 22, tauS }] });
  const at = (program: typeof air | ReturnType<typeof off>, s: number) => {
    const run = valueOrThrow(heatThrough(program, { tauS: 300, startC: 20 }, 5400, 10));
    return { air: run.air.tempC[s / 10] as number, metal: run.metal.tempC[s / 10] as number };
  };
  test("falls by its own time constant from what it was: shut slowly, open soon", () => {
    const before = at(off(OFF_SHUT_TAU_S), 1800).air;
    expect(at(off(OFF_SHUT_TAU_S), 3600).air).toBeCloseTo(22 + (before - 22) * Math.exp(-1800 / OFF_SHUT_TAU_S), 6);
    expect(at(off(OFF_OPEN_TAU_S), 3600).air).toBeCloseTo(22 + (before - 22) * Math.exp(-1800 / OFF_OPEN_TAU_S), 6);
    expect(at(off(OFF_OPEN_TAU_S), 3600).metal).toBeLessThan(at(off(OFF_SHUT_TAU_S), 3600).metal);
  });
  test("until then it is the same program, and the metal follows without a jump", () => {
    expect(at(off(OFF_SHUT_TAU_S), 1800)).toEqual(at(air, 1800));
    expect(Math.abs(at(off(OFF_SHUT_TAU_S), 1810).metal - at(off(OFF_SHUT_TAU_S), 1800).metal)).toBeLessThan(1);
  });
  test("what is left in it goes on curing, and is over-baked sooner shut than open", () => {
    const spoils = (tauS: number) =>
      valueOrThrow(
        planLoad({ ...air, program: [{ fromS: 0, airC: 22, tauS }], startC: 205 }, [
          piece("a", { startC: 204, earned: { index: 90, overbake: 60 } }),
        ]),
      ).pieces[0];
    expect(spoils(OFF_SHUT_TAU_S)?.readyS).not.toBeNull();
    expect(spoils(OFF_SHUT_TAU_S)?.spoilsS).not.toBeNull();
    expect(spoils(OFF_OPEN_TAU_S)?.index.at(-1)).toBeLessThan(spoils(OFF_SHUT_TAU_S)?.index.at(-1) ?? 0);
  });
  test("a time constant that is none is refused", () => {
    expect(heatThrough(off(-1), { tauS: 300, startC: 20 }, 600, 10)).toMatchObject({
      error: { kind: "bad-input", name: "tauS" },
    });
  });
});

describe("a place that is colder than the oven's own probe", () => {
  test("is the same program so much lower, and waits longer", () => {
    const cold = valueOrThrow(heatThrough(shiftedAir(air, -12), { tauS: 300, startC: 20 }, 3600, 10));
    const usual = valueOrThrow(heatThrough(air, { tauS: 300, startC: 20 }, 3600, 10));
    expect((usual.air.tempC.at(-1) ?? 0) - (cold.air.tempC.at(-1) ?? 0)).toBeCloseTo(12, 6);
    const ready = (airOffC: number) =>
      valueOrThrow(planLoad(air, [piece("a", { airOffC })], { leastIndex: 110 })).pieces[0]?.readyS ?? 0;
    expect(ready(-12)).toBeGreaterThan(ready(0) + 120);
    expect(ready(4)).toBeLessThan(ready(0));
    expect(ready(0)).toBe(valueOrThrow(planLoad(air, [piece("a")], { leastIndex: 110 })).pieces[0]?.readyS);
  });
  test("of two alike the one at the cold place is the slowest", () => {
    const plan = valueOrThrow(planLoad(air, [piece("warm"), piece("cold", { airOffC: -10 })], { leastIndex: 110 }));
    expect(plan.slowest).toBe("cold");
  });
  test("is known by the newest survey, whatever its letter's case; a place never surveyed counts as the oven", () => {
    const steady = (place: string, c: number) => ({
      place,
      trace: { timeS: [0, 60, 120, 180], tempC: [c, c, c, c] },
    });
    const survey = valueOrThrow(ovenSurvey([steady("A1", 190), steady("C3", 203)], 200, [0, 180]));
    expect(placeOffC(survey, "a1")).toBeCloseTo(-10, 9);
    expect(placeOffC(survey, " C3 ")).toBeCloseTo(3, 9);
    expect(placeOffC(survey, "B2")).toBe(0);
    expect(placeOffC(null, "A1")).toBe(0);
  });
});

describe("how often cure is proven", () => {
  test.each([
    [[true, true, true], 1, { result: "in", proven: 3, sinceProven: 0 }],
    [[true, false, true], 1, { result: "watch", longestWithout: 1 }],
    [[true, true, false], 1, { result: "out", sinceProven: 1 }],
    [[true, false, false, true, false], 3, { result: "in", longestWithout: 2, sinceProven: 1 }],
    [[true, false, false, false, true], 3, { result: "watch", longestWithout: 3 }],
    [[], 1, { result: "unknown", loads: 0 }],
  ])("%j, one in %i", (proven, every, expected) => {
    expect(valueOrThrow(proofRate(proven as boolean[], every))).toMatchObject(expected);
  });
  test.each([0, 1.5, -1, Number.NaN])("one in %d is refused", (every) => {
    expect(proofRate([true], every)).toMatchObject({ error: { kind: "bad-input", name: "every" } });
  });
  test("asking less never makes it worse", () => {
    const order = { in: 0, watch: 1, out: 2, unknown: 3 };
    fc.assert(
      fc.property(
        fc.array(fc.boolean(), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 1, max: 10 }),
        (p, every) => {
          const [strict, loose] = [every, every + 1].map((e) => order[valueOrThrow(proofRate(p, e)).result]);
          return (loose as number) <= (strict as number);
        },
      ),
    );
  });
});

test("forced and cold air are hard on hot powder; still air and a chamber are not", () => {
  expect((["still-air", "chamber", "fan", "cold-air"] as const).map(isHardCooling)).toEqual([false, false, true, true]);
});

describe("a conveyor whose speed changes while it is full", () => {
  const zones = [
    { name: "gel", lengthM: 3, airC: 285, hWPerM2K: 42 },
    { name: "hold", lengthM: 28, airC: 206, hWPerM2K: 27 },
  ];
  const post = { id: "post", metal: "steel" as const, sectionMm: 6, schedule };
  const at = (speed: number, change?: { atM: number; toMPerMin: number }) =>
    valueOrThrow(throughConveyor(zones, post, speed, change ? { change } : {}));
  test("changed before it went in it is the new speed's run, after it was out the old one's", () => {
    expect(at(1.2, { atM: 0, toMPerMin: 2 }).index).toBeCloseTo(at(2).index, 9);
    expect(at(1.2, { atM: 31, toMPerMin: 2 }).index).toBeCloseTo(at(1.2).index, 9);
    expect(at(1.2, { atM: 10, toMPerMin: 1.2 }).dwellS).toBeCloseTo(at(1.2).dwellS, 9);
  });
  test("its time inside is that of both stretches", () => {
    expect(at(1.2, { atM: 10, toMPerMin: 2 }).dwellS).toBeCloseTo((10 / 1.2 + 21 / 2) * 60, 6);
  });
  test("faster, what had furthest to go is the shortest of cure; slower, it is over-baked", () => {
    const faster = valueOrThrow(speedChangeEffects(zones, post, 1, 3));
    for (let i = 1; i < faster.length; i++)
      expect(faster[i]?.index ?? 0).toBeGreaterThanOrEqual((faster[i - 1]?.index ?? 0) - 1e-9);
    const short = affectedStretch(faster, 1.5, (e) => e.index < 100);
    expect(short?.fromM).toBe(0);
    expect(short?.hangers).toBe(Math.ceil((short?.toM ?? 0) / 1.5));
    const slower = valueOrThrow(speedChangeEffects(zones, post, 1, 0.3));
    expect(affectedStretch(slower, 1.5, (e) => (e.overbake ?? 0) > 100)).not.toBeNull();
    expect(affectedStretch(slower, 1.5, (e) => e.index < 0)).toBeNull();
  });
  test("a speed that is none is refused, and a standstill is as it was", () => {
    expect(speedChangeEffects(zones, post, 1, 0)).toMatchObject({ error: { kind: "bad-input", name: "toMPerMin" } });
    const stopped = valueOrThrow(stopEffects(zones, post, 1.2, 0));
    for (const e of stopped) expect(e.index).toBeCloseTo(at(1.2).index, 9);
  });
});
