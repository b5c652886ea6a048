import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { additionL, forecastLimit, planAddition, valueAtPassage } from "@/core/bath";
import { crossCutGrade } from "@/core/bench";
import { changePoint, mannWhitney } from "@/core/comparison";
import { runRules } from "@/core/control-charts";
import { cureIndex, fitCureCurve, holdAt, judgeBake, requiredMinutes } from "@/core/cure";
import { creepFromChip, creepFromScribe, creepRating } from "@/core/field";
import { valueOrThrow } from "@/core/result";
import { acceptance, defectivesIn, operatingCurve, randomPlaces, samplingPlan } from "@/core/sampling";
import { simulateLine } from "@/core/simulated-line";
import { describeValues } from "@/core/statistics";
import { judgeNominal, judgeSpotArea } from "@/core/thickness";
import { parseNumber } from "@/core/units";

const um = fc.double({ min: 1, max: 400, noNaN: true });
const spots = fc.array(fc.array(um, { minLength: 3, maxLength: 5 }), { minLength: 3, maxLength: 12 });
const area = (values: number[][], scale = 1) => [
  {
    id: "a",
    spots: values.map((readings, i) => ({ id: String(i), readings: readings.map((v) => ({ valueUm: v * scale })) })),
  },
];

describe("film", () => {
  test("judging in another unit changes nothing", () => {
    fc.assert(
      fc.property(spots, fc.constantFrom(1, 2, 3, 4, 5) as fc.Arbitrary<1 | 2 | 3 | 4 | 5>, (values, level) => {
        const one = valueOrThrow(judgeSpotArea(area(values), { minUm: 60, maxUm: 90, level }));
        const scaled = valueOrThrow(judgeSpotArea(area(values, 10), { minUm: 600, maxUm: 900, level }));
        expect(scaled.accepted).toBe(one.accepted);
      }),
    );
  });
  test("the order of readings and spots does not matter", () => {
    fc.assert(
      fc.property(spots, (values) => {
        const one = valueOrThrow(judgeSpotArea(area(values), { minUm: 60, maxUm: 90, level: 3 }));
        const other = valueOrThrow(
          judgeSpotArea(area([...values].reverse().map((r) => [...r].reverse())), { minUm: 60, maxUm: 90, level: 3 }),
        );
        expect(other.accepted).toBe(one.accepted);
      }),
    );
  });
  test("a looser level never refuses what a stricter one accepts", () => {
    fc.assert(
      fc.property(spots, (values) => {
        const accepted = ([1, 2, 3, 4] as const).map(
          (level) => valueOrThrow(judgeSpotArea(area(values), { minUm: 60, maxUm: 90, level })).accepted,
        );
        accepted.forEach((a, i) => {
          if (a) for (const later of accepted.slice(i)) expect(later).toBe(true);
        });
      }),
    );
  });
  test("0.8 × 76.2 does not fail a 60.96; exactly a fifth below nominal does", () => {
    expect(
      valueOrThrow(
        judgeSpotArea(
          area([
            [60.96, 60.96, 60.96],
            [90, 90, 90],
            [90, 90, 90],
          ]),
          { minUm: 76.2, maxUm: 127, level: 3 },
        ),
      ).accepted,
    ).toBe(true);
    expect(valueOrThrow(judgeNominal([90, 100, 130, 130, 130], { nominalUm: 100 })).accepted).toBe(false);
  });
  test("nothing, NaN, negative and a crossed range are refused by name", () => {
    const rule = { minUm: 60, maxUm: 90, level: 3 } as const;
    expect(judgeSpotArea([], rule)).toMatchObject({ error: { kind: "no-areas" } });
    expect(judgeSpotArea(area([[]]), rule)).toMatchObject({ error: { kind: "no-readings" } });
    expect(judgeSpotArea(area([[Number.NaN]]), rule)).toMatchObject({ error: { kind: "not-finite" } });
    expect(judgeSpotArea(area([[-1]]), rule)).toMatchObject({ error: { kind: "negative" } });
    expect(judgeSpotArea(area([[70]]), { ...rule, maxUm: 50 })).toMatchObject({ error: { kind: "bad-requirement" } });
  });
  test("a reading left out stays on record and out of the mean", () => {
    const [judged] = valueOrThrow(
      judgeSpotArea(
        [
          {
            id: "a",
            spots: [
              {
                id: "1",
                readings: [
                  { valueUm: 70 },
                  { valueUm: 72 },
                  { valueUm: 74 },
                  { valueUm: 400, rejectedReason: "probe off the part" },
                ],
              },
            ],
          },
        ],
        { minUm: 60, maxUm: 90, level: 3 },
      ),
    ).areas;
    expect(judged?.spots[0]).toMatchObject({ meanUm: 72, used: 3, rejected: 1 });
  });
});

const curve = valueOrThrow(
  fitCureCurve([
    { metalC: 180, minutes: 20 },
    { metalC: 190, minutes: 15 },
    { metalC: 200, minutes: 10 },
  ]),
);
const flat = (c: number, minutes: number) => ({
  timeS: Array.from({ length: minutes * 6 + 1 }, (_, i) => i * 10),
  tempC: Array.from({ length: minutes * 6 + 1 }, () => c),
});

describe("cure", () => {
  test("the required time at a steady temperature earns exactly 100", () => {
    for (const c of [175, 180, 190, 200, 210]) {
      const minutes = 60;
      expect(valueOrThrow(cureIndex(flat(c, minutes), curve, 140)).index).toBeCloseTo(
        (100 * minutes) / requiredMinutes(curve, c),
        6,
      );
    }
  });
  test("hotter never earns less, and a trace cut in two earns the sum", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 20, max: 230, noNaN: true }), { minLength: 4, maxLength: 40 }),
        fc.integer({ min: 1, max: 38 }),
        (temps, at) => {
          const timeS = temps.map((_, i) => i * 10);
          const index = (t: number[], c: number[]) => valueOrThrow(cureIndex({ timeS: t, tempC: c }, curve, 140)).index;
          const whole = index(timeS, temps);
          expect(
            index(
              timeS,
              temps.map((c) => c + 5),
            ),
          ).toBeGreaterThanOrEqual(whole - 1e-9);
          const cut = Math.min(Math.max(1, at), temps.length - 2);
          expect(
            index(timeS.slice(0, cut + 1), temps.slice(0, cut + 1)) + index(timeS.slice(cut), temps.slice(cut)),
          ).toBeCloseTo(whole, 6);
        },
      ),
    );
  });
  test("a gap adds nothing and ends a stretch; filled hot it only bounds from above", () => {
    const timeS = [
      ...Array.from({ length: 31 }, (_, i) => i * 10),
      ...Array.from({ length: 31 }, (_, i) => 900 + i * 10),
    ];
    const trace = { timeS, tempC: timeS.map(() => 200) };
    const got = valueOrThrow(cureIndex(trace, curve, 140));
    expect(got.gaps).toEqual([{ fromS: 300, toS: 900 }]);
    expect(got.index).toBeCloseTo((100 * 10) / requiredMinutes(curve, 200), 6);
    expect(got.indexGapsFilledHot).toBeCloseTo((100 * 20) / requiredMinutes(curve, 200), 6);
    expect(valueOrThrow(holdAt(trace, 195))).toMatchObject({ totalS: 600, longestS: 300 });
  });
  test("air and dead channels never decide; without a live metal channel there is no verdict", () => {
    const hot = { name: "Air", medium: "air" as const, trace: flat(150, 30) };
    const dead = {
      name: "Dead",
      medium: "metal" as const,
      trace: { timeS: flat(0, 30).timeS, tempC: flat(0, 30).timeS.map((_, i) => (i > 20 ? null : 100 + i)) },
    };
    const good = { name: "Plate", medium: "metal" as const, trace: flat(200, 30) };
    const verdict = valueOrThrow(judgeBake([hot, dead, good], { points: [{ metalC: 200, minutes: 10 }] }));
    expect(verdict).toMatchObject({ decidingChannel: "Plate", result: "in", unknownPlaces: ["Dead"] });
    expect(judgeBake([hot], { points: [{ metalC: 200, minutes: 10 }] })).toMatchObject({
      error: { kind: "no-live-metal-channel" },
    });
  });
  test("times out of order, two times at one temperature and a slower hotter point are refused", () => {
    expect(cureIndex({ timeS: [0, 20, 10], tempC: [1, 2, 3] }, curve, 140)).toMatchObject({
      error: { kind: "times-out-of-order", index: 2 },
    });
    expect(
      fitCureCurve([
        { metalC: 180, minutes: 20 },
        { metalC: 180, minutes: 10 },
      ]),
    ).toMatchObject({ error: { kind: "two-times-at-one-temperature" } });
    expect(
      fitCureCurve([
        { metalC: 180, minutes: 10 },
        { metalC: 200, minutes: 20 },
      ]),
    ).toMatchObject({ error: { kind: "not-faster-when-hotter" } });
    expect(fitCureCurve([])).toMatchObject({ error: { kind: "no-points" } });
  });
});

describe("bath", () => {
  test("what was worked out to add gives what was asked for", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 500, max: 9000, noNaN: true }),
        fc.double({ min: 0.5, max: 3, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        fc.double({ min: 20, max: 100, noNaN: true }),
        (volumeL, from, rise, p) => {
          const { onTopL, levelKeptL } = valueOrThrow(
            additionL({ volumeL, fromPercent: from, toPercent: from + rise, concentratePercent: p }),
          );
          expect((volumeL * from + onTopL * p) / (volumeL + onTopL)).toBeCloseTo(from + rise, 9);
          expect(from + (levelKeptL * (p - from)) / volumeL).toBeCloseTo(from + rise, 9);
        },
      ),
    );
  });
  test("an addition over the product's limit is split and adds up; over the freeboard it is refused", () => {
    const base = {
      volumeL: 4000,
      fromPercent: 1,
      toPercent: 2,
      way: "level-kept" as const,
      stepL: 0.5,
      freeboardL: 30,
      maxSingleL: 15,
      titrationTolerancePercent: 0.1,
    };
    const plan = valueOrThrow(planAddition(base));
    expect(plan.dosesL.every((d) => d <= 15)).toBe(true);
    expect(plan.dosesL.reduce((a, b) => a + b)).toBeGreaterThanOrEqual(plan.neededL);
    expect(planAddition({ ...base, way: "on-top" })).toMatchObject({ error: { kind: "over-freeboard" } });
  });
  test("no forecast from two points, equal times, or a slope that points away", () => {
    expect(forecastLimit([0, 1], [5, 5.1], 5.8, "upper")).toMatchObject({ error: { kind: "too-few-points" } });
    expect(forecastLimit([1, 1, 1], [5, 5.1, 5.2], 5.8, "upper")).toMatchObject({ error: { kind: "equal-times" } });
    expect(valueOrThrow(forecastLimit([0, 1, 2], [5, 5.1, 5.2], 4.8, "lower")).forecast).toEqual({
      kind: "no-forecast",
      why: "points-away",
    });
  });
  test("a value at passage is never carried across an addition", () => {
    const hour = 3_600_000;
    const before = { atMs: 0, value: 5.6, recordId: "b" };
    const after = { atMs: 4 * hour, value: 5.2, recordId: "a" };
    const at = (atMs: number, eventsMs: number[]) => valueAtPassage({ atMs, before, after, eventsMs, roundHours: 4 });
    expect(at(2 * hour, [])).toMatchObject({ value: 5.4, how: "interpolated", grade: "measured" });
    expect(at(2 * hour, [hour])).toMatchObject({ value: 5.2, how: "held-after", sources: ["a"] });
    expect(at(2 * hour, [3 * hour])).toMatchObject({ value: 5.6, how: "held-before", sources: ["b"] });
    expect(valueAtPassage({ atMs: 30 * hour, before, after: null, eventsMs: [], roundHours: 4 })).toMatchObject({
      grade: "assumed",
      how: "last-value",
    });
    expect(valueAtPassage({ atMs: 0, before: null, after: null, eventsMs: [], roundHours: 4 })).toMatchObject({
      value: null,
      grade: "unknown",
    });
  });
});

describe("small ones", () => {
  test("run rules do not see across a break, and refuse values that never vary", () => {
    const rising = Array.from({ length: 12 }, (_, i) => i);
    expect(valueOrThrow(runRules(rising, { centre: 5, sigma: 100 }))[3]?.length).toBe(7);
    expect(valueOrThrow(runRules(rising, { centre: 5, sigma: 100 }, [6]))[3]).toEqual([5, 11]);
    expect(runRules([1, 1, 1], { centre: 1, sigma: 0 })).toMatchObject({ error: { kind: "no-spread" } });
  });
  test("statistics shift with the values and never give NaN", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e4, max: 1e4, noNaN: true }), { minLength: 2, maxLength: 60 }),
        fc.integer({ min: -1000, max: 1000 }),
        (values, shift) => {
          const one = valueOrThrow(describeValues(values));
          const moved = valueOrThrow(describeValues(values.map((v) => v + shift)));
          expect(moved.mean).toBeCloseTo(one.mean + shift, 6);
          expect(moved.sampleSd ?? 0).toBeCloseTo(one.sampleSd ?? 0, 6);
          for (const v of Object.values(one)) if (typeof v === "number") expect(Number.isNaN(v)).toBe(false);
        },
      ),
    );
    expect(describeValues([])).toMatchObject({ error: { kind: "no-values" } });
    expect(describeValues([1, Number.NaN])).toMatchObject({ error: { kind: "not-finite", index: 1 } });
  });
  test("more removed is never a better grade; more creep never a better rating", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (a, b) => {
          const [low, high] = a < b ? [a, b] : [b, a];
          expect(valueOrThrow(crossCutGrade(low)).iso).toBeLessThanOrEqual(valueOrThrow(crossCutGrade(high)).iso);
          expect(valueOrThrow(creepRating(low))).toBeGreaterThanOrEqual(valueOrThrow(creepRating(high)));
        },
      ),
    );
    expect(valueOrThrow(creepFromChip([1, 2, 3]))).toMatchObject({ creepMm: 2, rating: null, few: true });
    expect(creepFromScribe([0.2, 0.2], 0.5)).toMatchObject({ error: { kind: "narrower-than-scribe" } });
    expect(crossCutGrade(101).ok).toBe(false);
  });
  test("numbers that could mean two things are asked about", () => {
    expect(parseNumber("1,233")).toMatchObject({ error: { kind: "ambiguous-number" } });
    expect(valueOrThrow(parseNumber("1.233,5"))).toBe(1233.5);
    expect(valueOrThrow(parseNumber("12,5"))).toBe(12.5);
    for (const text of ["", "seventy", "1.2.3", "1,23,4.5", "--4"]) expect(parseNumber(text).ok, text).toBe(false);
  });
  test("the simulated line: same seed, same data; another seed, other data", () => {
    const run = (seed: number) =>
      simulateLine({
        seed,
        fromMs: 0,
        toMs: 3 * 86_400_000,
        racksPerDay: 3,
        firstRackNumber: 1,
        products: [
          {
            key: "P",
            cast: false,
            powder: "X",
            targetUm: 70,
            faces: [{ face: "A", spots: ["A1"], effectUm: [0] }],
            pieces: 2,
            tauS: [{ channel: "c", tauS: 200 }],
            setPointC: 200,
            doorToPullS: 1500,
          },
        ],
        wrongAdditionMs: 1e15,
        putRightMs: 1e15,
        gassyDeliveryMs: 1e15,
      });
    expect(run(5)).toEqual(run(5));
    expect(run(5)).not.toEqual(run(6));
  });
});

describe("sampling and comparison", () => {
  test("a plan keeps both risks, and one piece fewer keeps not both", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 400 }),
        fc.integer({ min: 0, max: 4 }),
        fc.integer({ min: 8, max: 30 }),
        (lot, aqlPercent, rqlPercent) => {
          const risks = {
            lot,
            aql: aqlPercent / 100,
            rql: rqlPercent / 100,
            producerRisk: 0.05,
            consumerRisk: 0.1,
          };
          const plan = samplingPlan(risks);
          if (!plan.ok) return expect(plan.error.kind).toBe("inspect-all");
          const { n, c, pAcceptAql, pAcceptRql } = plan.value;
          expect(pAcceptAql).toBeGreaterThanOrEqual(0.95 - 1e-9);
          expect(pAcceptRql).toBeLessThanOrEqual(0.1 + 1e-9);
          const good = defectivesIn(lot, risks.aql);
          const bad = defectivesIn(lot, risks.rql);
          for (let fewer = 0; fewer <= c && fewer < n; fewer++)
            expect(
              acceptance(lot, good, n - 1, fewer) >= 0.95 - 1e-12 && acceptance(lot, bad, n - 1, fewer) <= 0.1 + 1e-12,
            ).toBe(false);
        },
      ),
      { numRuns: 60 },
    );
  });
  test("the operating curve falls, from certainty", () => {
    const curve = operatingCurve(200, { n: 40, c: 2 });
    expect(curve[0]?.pAccept).toBe(1);
    for (const [i, point] of curve.entries())
      if (i > 0) expect(point.pAccept).toBeLessThanOrEqual((curve[i - 1]?.pAccept ?? 1) + 1e-12);
  });
  test("places chosen at random are the same from the same seed, apart, and all equally likely", () => {
    expect(valueOrThrow(randomPlaces(90, 9, 7))).toEqual(valueOrThrow(randomPlaces(90, 9, 7)));
    const seen = new Array<number>(10).fill(0);
    for (let seed = 0; seed < 4000; seed++)
      for (const place of valueOrThrow(randomPlaces(10, 3, seed))) seen[place] = (seen[place] ?? 0) + 1;
    for (const count of seen) expect(Math.abs(count - 1200)).toBeLessThan(130);
    expect(randomPlaces(3, 4, 1)).toMatchObject({ ok: false });
  });
  test("swapping the groups turns δ and keeps p; a group against itself differs in nothing", () => {
    const values = fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 3, maxLength: 30 });
    fc.assert(
      fc.property(values, values, (a, b) => {
        const there = valueOrThrow(mannWhitney(a, b));
        const back = valueOrThrow(mannWhitney(b, a));
        expect(there.cliffsDelta).toBeCloseTo(-back.cliffsDelta, 9);
        expect(there.p).toBeCloseTo(back.p, 9);
        expect(valueOrThrow(mannWhitney(a, a)).cliffsDelta).toBeCloseTo(0, 9);
      }),
    );
  });
  test("a steady rate is no onset, a step up is, a step down is a change and none", () => {
    const periods = (rates: readonly number[]) => rates.map((defective) => ({ defective, inspected: 20 }));
    expect(valueOrThrow(changePoint(periods([2, 3, 2, 3, 2, 2, 3, 2, 3, 2]))).onset).toBe(false);
    expect(valueOrThrow(changePoint(periods([0, 1, 0, 1, 0, 1, 9, 8, 9, 9, 8])))).toMatchObject({
      onset: true,
      firstAffectedPeriod: 6,
    });
    expect(valueOrThrow(changePoint(periods([9, 8, 9, 9, 8, 0, 1, 0, 1, 0, 1])))).toMatchObject({
      onset: false,
      firstAffectedPeriod: 5,
    });
  });
});
