import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { contactTimeS } from "@/core/bath";
import { passagesFromSpeed } from "@/core/line";
import { valueOrThrow } from "@/core/result";
import { shiftAt } from "@/core/shifts";

const washer = [
  { stage: "clean", fromM: 0, lengthM: 2.4 },
  { stage: "conversion", fromM: 3.6, lengthM: 1.8 },
  { stage: "rinse", fromM: 6.6, lengthM: 1.2 },
];

describe("passages from the line's speed", () => {
  test("1.8 m at 1.2 m/min are 90 s, entered 3 min after the entrance", () => {
    const passages = valueOrThrow(passagesFromSpeed(1_000_000, 1.2, washer));
    expect(passages).toEqual([
      { stage: "clean", enteredMs: 1_000_000, leftMs: 1_120_000 },
      { stage: "conversion", enteredMs: 1_180_000, leftMs: 1_270_000 },
      { stage: "rinse", enteredMs: 1_330_000, leftMs: 1_390_000 },
    ]);
  });
  test("agree with the contact time of the same stage, at any speed", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 30, noNaN: true }), (speed) => {
        for (const [i, p] of valueOrThrow(passagesFromSpeed(0, speed, washer)).entries()) {
          const contact = contactTimeS({ stageLengthM: washer[i]?.lengthM ?? 0, lineSpeedMPerMin: speed });
          expect(Math.abs((p.leftMs - p.enteredMs) / 1000 - valueOrThrow(contact))).toBeLessThan(0.002);
        }
      }),
    );
  });
  test("come in order of the line, whatever order the stages are given in, and never overlap", () => {
    const turned = valueOrThrow(passagesFromSpeed(0, 2, [...washer].reverse()));
    expect(turned.map((p) => p.stage)).toEqual(["clean", "conversion", "rinse"]);
    for (let i = 1; i < turned.length; i++)
      expect(turned[i]?.enteredMs).toBeGreaterThanOrEqual(turned[i - 1]?.leftMs ?? Number.POSITIVE_INFINITY);
  });
  test("twice the speed halves every contact time", () => {
    const slow = valueOrThrow(passagesFromSpeed(0, 1, washer));
    const fast = valueOrThrow(passagesFromSpeed(0, 2, washer));
    for (const [i, p] of slow.entries())
      expect((p.leftMs - p.enteredMs) / 2).toBeCloseTo((fast[i]?.leftMs ?? 0) - (fast[i]?.enteredMs ?? 0), 6);
  });
  test.each([
    ["a standing line", 0, washer, { kind: "bad-input", name: "speedMPerMin", value: 0 }],
    ["a line going back", -1.2, washer, { kind: "bad-input", name: "speedMPerMin" }],
    ["a racing line", 31, washer, { kind: "bad-input", name: "speedMPerMin", value: 31 }],
    ["no number", Number.NaN, washer, { kind: "bad-input", name: "speedMPerMin" }],
    ["no stages", 1.2, [], { kind: "no-stages" }],
    [
      "a stage without length",
      1.2,
      [{ stage: "rinse", fromM: 0, lengthM: 0 }],
      { kind: "bad-input", name: "rinse length, m" },
    ],
    [
      "a stage before the entrance",
      1.2,
      [{ stage: "rinse", fromM: -1, lengthM: 2 }],
      { kind: "bad-input", name: "rinse from, m" },
    ],
    [
      "two stages in one place",
      1.2,
      [
        { stage: "clean", fromM: 0, lengthM: 3 },
        { stage: "rinse", fromM: 2, lengthM: 1 },
      ],
      { kind: "stages-overlap", first: "clean", second: "rinse" },
    ],
  ] as const)("%s is refused by name", (_, speed, stages, error) => {
    expect(passagesFromSpeed(0, speed, stages)).toMatchObject({ ok: false, error });
  });
  test("stages that touch do not overlap, in spite of floating point", () => {
    const touching = [
      { stage: "a", fromM: 0, lengthM: 0.1 + 0.2 },
      { stage: "b", fromM: 0.3, lengthM: 1 },
    ];
    expect(passagesFromSpeed(0, 1, touching).ok).toBe(true);
  });
});

describe("shifts", () => {
  const three = [
    { name: "Day", from: "06:00" },
    { name: "Late", from: "14:00" },
    { name: "Night", from: "22:00" },
  ];
  test.each([
    ["06:00", "Day", 0, 480],
    ["13:59", "Day", 479, 959],
    ["14:00", "Late", 0, 480],
    ["21:30", "Late", 450, 930],
    ["22:00", "Night", 0, 480],
    ["00:00", "Night", 120, 600],
    ["01:30", "Night", 210, 690],
    ["05:59", "Night", 479, 959],
  ])("at %s it is %s, %i min in; the one before began %i min ago", (time, name, minutesIn, previous) => {
    expect(valueOrThrow(shiftAt(time, three))).toEqual({ name, minutesIn, minutesSincePreviousBegan: previous });
  });
  test("do not mind the order they are set up in", () => {
    for (const time of ["03:00", "09:00", "15:00", "23:00"])
      expect(shiftAt(time, [...three].reverse())).toEqual(shiftAt(time, three));
  });
  test("of unequal length: the one before is as long as it was", () => {
    const two = [
      { name: "Early", from: "05:30" },
      { name: "Late", from: "17:00" },
    ];
    expect(valueOrThrow(shiftAt("06:00", two))).toEqual({
      name: "Early",
      minutesIn: 30,
      minutesSincePreviousBegan: 780,
    });
    expect(valueOrThrow(shiftAt("18:00", two))).toEqual({
      name: "Late",
      minutesIn: 60,
      minutesSincePreviousBegan: 750,
    });
  });
  test("a single one follows on itself", () => {
    expect(valueOrThrow(shiftAt("10:00", [{ name: "Only", from: "08:00" }]))).toEqual({
      name: "Only",
      minutesIn: 120,
      minutesSincePreviousBegan: 1560,
    });
  });
  test("bad set-up is named", () => {
    expect(shiftAt("10:00", [])).toMatchObject({ error: { kind: "no-shifts" } });
    expect(shiftAt("25:00", three)).toMatchObject({ error: { kind: "bad-time", text: "25:00" } });
    expect(shiftAt("10:00", [{ name: "x", from: "6" }])).toMatchObject({ error: { kind: "bad-time", text: "6" } });
    expect(shiftAt("10:00", [...three, { name: "Odd", from: "14:00" }])).toMatchObject({
      error: { kind: "shifts-start-together", at: "14:00" },
    });
  });
});
