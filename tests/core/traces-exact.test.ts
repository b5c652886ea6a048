import { describe, expect, test } from "vitest";
import {
  checkTrace,
  deadFromS,
  findPullS,
  medianIntervalS,
  ovenSurvey,
  placeOffC,
  segmentsOf,
  type Trace,
  traceFaults,
  traceUntil,
} from "@/core/cure";
import { valueOrThrow } from "@/core/result";

const every = (s: number, temps: readonly (number | null)[]): Trace => ({
  timeS: temps.map((_, i) => i * s),
  tempC: temps,
});
const kind = (r: { ok: boolean; error?: { kind: string } }) => (r.ok ? "ok" : r.error?.kind);

describe("a trace is taken as it can be, at its very limits", () => {
  test.each([
    ["two samples", every(10, [20, 21]), "ok"],
    ["one sample", every(10, [20]), "no-samples"],
    ["as hot as a thermocouple means", every(10, [20, 1000]), "ok"],
    ["hotter", every(10, [20, 1000.1]), "beyond-instrument"],
    ["as cold", every(10, [-60, 20]), "ok"],
    ["colder", every(10, [-60.1, 20]), "beyond-instrument"],
    ["one moment twice", { timeS: [0, 0], tempC: [20, 21] }, "times-out-of-order"],
    ["backwards", { timeS: [0, 10, 9], tempC: [20, 21, 22] }, "times-out-of-order"],
    ["a time that is none", { timeS: [0, Number.NaN], tempC: [20, 21] }, "not-finite"],
    ["more times than temperatures", { timeS: [0, 1, 2], tempC: [20, 21] }, "lengths-differ"],
  ] as const)("%s", (_, trace, expected) => expect(kind(checkTrace(trace as Trace))).toBe(expected));
  test("the pair that is out of order is named", () => {
    expect(checkTrace({ timeS: [0, 10, 9], tempC: [20, 21, 22] })).toEqual({
      ok: false,
      error: { kind: "times-out-of-order", index: 2, previousS: 10, timeS: 9 },
    });
  });
  test("the median of the intervals: of odd many the middle, of even many between the two, of like ones that", () => {
    expect(medianIntervalS([0, 10, 20, 30])).toBe(10);
    expect(medianIntervalS([0, 10, 20, 50])).toBe(10);
    expect(medianIntervalS([0, 10, 30, 60, 100])).toBe(25);
  });
});

describe("gaps are never bridged", () => {
  test("three median intervals are still one stretch; anything longer is a gap", () => {
    const to = (s: number) =>
      segmentsOf({ timeS: [0, 10, 20, 30, 30 + s, 40 + s, 50 + s], tempC: [20, 30, 40, 50, 60, 70, 80] });
    expect(to(30).gaps).toEqual([]);
    expect(to(30).segments).toHaveLength(6);
    expect(to(30.1).gaps).toEqual([{ fromS: 30, toS: 60.1, fromC: 50, toC: 60 }]);
    expect(to(30.1).segments).toHaveLength(5);
  });
  test("missing samples open one when they last long enough, and the stretch after it says that it follows a break", () => {
    const short = segmentsOf(every(10, [20, null, null, 50, 60]));
    expect(short.gaps).toEqual([]);
    expect(short.segments.map((x) => [x.fromS, x.toS, x.afterBreak])).toEqual([
      [0, 30, true],
      [30, 40, false],
    ]);
    const long = segmentsOf(every(10, [20, 30, null, null, null, 60, 70, 80]));
    expect(long.gaps).toEqual([{ fromS: 10, toS: 50, fromC: 30, toC: 60 }]);
    expect(long.segments.map((x) => [x.fromS, x.toS, x.afterBreak])).toEqual([
      [0, 10, true],
      [50, 60, true],
      [60, 70, false],
    ]);
  });
});

describe("dead channels", () => {
  const climbing = every(10, [20, 30, 40, 50, 60, 70, 80]);
  test("from the first of three samples without a number; two are none", () => {
    expect(deadFromS([{ trace: every(10, [20, 30, null, null, 60, 70, 80]) }])).toEqual([null]);
    expect(deadFromS([{ trace: every(10, [20, 30, null, null, null, 70, 80]) }])).toEqual([20]);
    expect(deadFromS([{ trace: every(10, [null, null, null, 50]) }])).toEqual([0]);
  });
  test("stuck while the air moves more than 20 °C, not at 20; metal has to pass it by so much", () => {
    const stuck = every(10, [20, 30, 30, 30, 60, 70, 80]);
    const other = (c: number) => every(10, [20, 30, 30 + c / 2, 30 + c, 60, 70, 80]);
    for (const medium of ["air", "metal"] as const) {
      expect(deadFromS([{ trace: stuck }, { trace: other(20), medium }])).toEqual([null, null]);
      expect(deadFromS([{ trace: stuck }, { trace: other(20.5), medium }])).toEqual([10, null]);
    }
    // Two like samples are no standing still.
    expect(deadFromS([{ trace: every(10, [20, 30, 30, 60, 70]) }, { trace: climbing }])[0]).toBeNull();
    // Alone, nothing says that it should have moved.
    expect(deadFromS([{ trace: every(10, [20, 20, 20, 20]) }])).toEqual([null]);
  });
  test.each([0, 1, 2, 3, 4, 5, 6, 7, 8, 9])(
    "a thin sheet at the set point, in whole degrees, is healthy while heavy metal climbs to it (%d)",
    (n) => {
      const at = (tauS: number) =>
        every(
          10,
          Array.from({ length: 360 }, (_, i) => Math.round(200 + n / 10 - 178 * Math.exp((-10 * i) / tauS))),
        );
      const air = every(
        10,
        Array.from({ length: 360 }, (_, i) => Math.round(200 + n / 10 - 140 * Math.exp((-10 * i) / 60))),
      );
      const [thin, heavy] = [at(90 + 3 * n), at(900 + 40 * n)];
      expect(
        deadFromS([
          { trace: air, medium: "air" },
          { trace: thin, medium: "metal" },
          { trace: heavy, medium: "metal" },
        ]),
      ).toEqual([null, null, null]);
      expect(deadFromS([{ trace: thin }, { trace: heavy }])).toEqual([null, null]);
    },
  );
  test("metal that stands while other metal is out and falls, or the air does, is stuck", () => {
    const stands = every(10, [20, 150, 200, 200, 200, 200]);
    const falls = (by: number) => every(10, [20, 150, 200, 195, 190, 200 - by]);
    expect(deadFromS([{ trace: stands }, { trace: falls(20) }])[0]).toBeNull();
    expect(deadFromS([{ trace: stands }, { trace: falls(20.5) }])[0]).toBe(20);
    expect(deadFromS([{ trace: stands }, { trace: falls(20.5), medium: "air" }])[0]).toBe(20);
  });
  test("the earlier of the two faults counts, and it may stick at the end", () => {
    expect(deadFromS([{ trace: every(10, [20, 20, 20, 20, null, null, null]) }, { trace: climbing }])).toEqual([
      0,
      null,
    ]);
    expect(deadFromS([{ trace: every(10, [20, 30, 40, 50, 50, 50, 50]) }, { trace: climbing }])).toEqual([30, null]);
  });
});

describe("up to a moment", () => {
  const trace = every(10, [20, 40, 60, 80]);
  test("a sample at it is kept, one beyond is met half-way", () => {
    expect(traceUntil(trace, 20)).toEqual({ timeS: [0, 10, 20], tempC: [20, 40, 60] });
    expect(traceUntil(trace, 25)).toEqual({ timeS: [0, 10, 20, 25], tempC: [20, 40, 60, 70] });
    expect(traceUntil(trace, 99)).toEqual(trace);
    expect(traceUntil(trace, -1)).toEqual({ timeS: [], tempC: [] });
  });
  test("no value is made up over a gap or beside a missing sample", () => {
    expect(traceUntil(every(10, [20, null, 60, 80]), 15)).toEqual({ timeS: [0, 10], tempC: [20, null] });
    expect(traceUntil(every(10, [20, 40, null, 80]), 15)).toEqual({ timeS: [0, 10], tempC: [20, 40] });
    expect(traceUntil({ timeS: [0, 10, 20, 60], tempC: [20, 40, 60, 80] }, 30)).toEqual({
      timeS: [0, 10, 20],
      tempC: [20, 40, 60],
    });
  });
});

describe("the pull where no door is on record", () => {
  test("where it begins to fall for good, by 5 °C or more", () => {
    expect(findPullS([every(60, [20, 26, 32, 38, 33])])).toBe(180);
    expect(findPullS([every(60, [20, 26, 32, 38, 33.5])])).toBeNull();
    expect(findPullS([every(10, [20, 100, 180, 190])])).toBeNull();
    expect(findPullS([])).toBeNull();
  });
  test("of several channels by their middle one; noise within 1 °C of the highest is still the hold", () => {
    const hold = [20, 100, 180, 190, 189.5, 189.2, 170, 150];
    expect(findPullS([every(10, hold)])).toBe(50);
    expect(
      findPullS([
        every(10, hold),
        every(
          10,
          hold.map((c) => c - 3),
        ),
        every(
          10,
          hold.map(() => 60),
        ),
      ]),
    ).toBe(50);
  });
  // Metal of so many seconds in air that is set from one temperature to another, then out into the hall.
  const baked = (tauS: number, program: readonly (readonly [airC: number, minutes: number])[]) => {
    let c = 22;
    return every(
      10,
      program.flatMap(([airC, minutes]) =>
        Array.from({ length: minutes * 6 }, () => {
          c += (airC - c) * (1 - Math.exp(-10 / tauS));
          return Math.round(c * 10) / 10;
        }),
      ),
    );
  };
  test.each([120, 300, 700])("a step down of the set point is no pull; the pull after it is (τ %d s)", (tauS) => {
    const down = [
      [205, 25],
      [180, 20],
    ] as const;
    expect(findPullS([baked(tauS, down)])).toBeNull();
    const pulled = findPullS([baked(tauS, [...down, [25, 10]])]);
    expect(pulled).toBeGreaterThanOrEqual(45 * 60 - 20);
    expect(pulled).toBeLessThanOrEqual(45 * 60 + 10);
  });
  test("a dip of the air is no pull: it comes back", () => {
    expect(
      findPullS([
        baked(150, [
          [205, 20],
          [120, 2],
          [205, 15],
        ]),
      ]),
    ).toBeNull();
  });
});

describe("a survey of an oven", () => {
  const place = (name: string, temps: readonly (number | null)[]) => ({ place: name, trace: every(60, temps) });
  const three = [
    place("A1", [20, 190, 192, 194, 150]),
    place("B2", [20, 200, 200, 200, 160]),
    place("C3", [20, 204, 206, 208, 170]),
  ];
  test("means over the hold, its ends included, with how far each is off, coldest, hottest and their spread", () => {
    expect(valueOrThrow(ovenSurvey(three, 200, [60, 180]))).toEqual({
      kind: "oven-survey",
      places: [
        { place: "A1", meanC: 192, offC: -8 },
        { place: "B2", meanC: 200, offC: 0 },
        { place: "C3", meanC: 206, offC: 6 },
      ],
      coldest: "A1",
      hottest: "C3",
      spreadC: 14,
      setPointC: 200,
      recoveryS: null,
      lowestAfterDoorC: null,
    });
  });
  test("recovered when the middle of the places is within 5 °C again; never under it is at once; not yet is not known", () => {
    const door = (temps: readonly number[]) => {
      const all = [
        place("A", [200, 200, 200, ...temps]),
        place("B", [200, 200, 200, ...temps]),
        place("C", [200, 200, 200, ...temps.map((t) => t - 40)]),
      ];
      const { recoveryS, lowestAfterDoorC } = valueOrThrow(ovenSurvey(all, 200, [0, 120], 180));
      return [recoveryS, lowestAfterDoorC];
    };
    expect(door([180, 190, 195, 199])).toEqual([120, 180]);
    expect(door([180, 190, 194.9, 199])).toEqual([180, 180]);
    expect(door([195, 196, 198])).toEqual([0, 195]);
    expect(door([180, 185, 190])).toEqual([null, 180]);
  });
  test.each([
    ["one place", [three[0]], 200, [60, 180], "too-few-places"],
    ["a hold of nothing", three, 200, [60, 60], "bad-hold"],
    ["a set point of nothing", three, 0, [60, 180], "bad-input"],
    ["a set point beyond any oven", three, 1000, [60, 180], "bad-input"],
    ["two samples in the hold", three, 200, [60, 120], "no-samples"],
    [
      "a place out of order",
      [three[0], { place: "X", trace: { timeS: [0, 0], tempC: [1, 2] } }],
      200,
      [60, 180],
      "times-out-of-order",
    ],
  ] as const)("refused: %s", (_, places, set, hold, expected) =>
    expect(kind(ovenSurvey(places as never, set, hold as never))).toBe(expected),
  );
  test("a place by its name however it is written; one it does not know is not off", () => {
    const survey = valueOrThrow(ovenSurvey(three, 200, [60, 180]));
    expect([placeOffC(survey, " a1 "), placeOffC(survey, "Z9"), placeOffC(null, "A1")]).toEqual([-8, 0, 0]);
  });
});

describe("what is wrong with a trace", () => {
  const heats = (tau: number, n = 90, to = 200, from = 20) =>
    every(
      20,
      Array.from({ length: n }, (_, i) => to - (to - from) * Math.exp((-i * 20) / tau)),
    );
  const channel = (name: string, medium: "air" | "metal", trace: Trace) => ({ name, medium, trace });
  test("nothing, of an honest one", () => {
    expect(
      traceFaults([
        channel("Air", "air", heats(100)),
        channel("Thin", "metal", heats(260)),
        channel("Thick", "metal", heats(420)),
      ]),
    ).toEqual([]);
  });
  test("a step no metal makes, with where; the air may fall as the door opens", () => {
    const jumped = (c: number) => {
      const t = heats(260);
      return { ...t, tempC: t.tempC.map((x, i) => (i === 40 ? (x ?? 0) + c : x)) };
    };
    const faults = (metal: Trace, air = heats(100)) =>
      traceFaults([channel("Air", "air", air), channel("Thin", "metal", metal), channel("Thick", "metal", heats(420))]);
    expect(faults(jumped(59))).toEqual([]);
    expect(faults(jumped(120))).toMatchObject([{ kind: "absurd-rate", channel: "Thin", atS: 800 }]);
    expect(faults(jumped(-120))).toMatchObject([{ kind: "absurd-rate", channel: "Thin", atS: 800 }]);
    const door = heats(100);
    expect(faults(heats(260), { ...door, tempC: door.tempC.map((x, i) => (i >= 60 ? (x ?? 0) - 90 : x)) })).toEqual([]);
  });
  test("a probe that hangs in the air, and plugs changed over", () => {
    expect(
      traceFaults([
        channel("Air", "air", heats(100)),
        channel("Loose", "metal", heats(108)),
        channel("Thick", "metal", heats(420)),
      ]),
    ).toMatchObject([{ kind: "heats-like-air", channel: "Loose" }]);
    expect(
      traceFaults([
        channel("Air", "air", heats(420)),
        channel("One", "metal", heats(100)),
        channel("Two", "metal", heats(300)),
      ]),
    ).toMatchObject([{ kind: "changed-over", channel: "Air", with: "One" }]);
  });
  test("a file in Fahrenheit read as Celsius is offered as such, by its sheet", () => {
    const fahrenheit = (tau: number) => heats(tau, 90, 392, 70);
    const sheet = { points: [{ metalC: 190, minutes: 15 }], overbake: [], onsetC: null } as never;
    expect(
      traceFaults(
        [
          channel("Air", "air", fahrenheit(100)),
          channel("Thin", "metal", fahrenheit(260)),
          channel("Thick", "metal", fahrenheit(420)),
        ],
        sheet,
      ),
    ).toMatchObject([{ kind: "fahrenheit-as-celsius" }]);
  });
});
