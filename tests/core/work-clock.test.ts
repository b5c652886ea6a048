import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { valueOrThrow } from "@/core/result";
import { hoursWithin, momentAfter, type WorkWeek, workDays, workHoursBetween } from "@/core/shifts";

/** Monday to Saturday, 06:00 to 22:00, in a zone with summer time. */
const week: WorkWeek = { timeZone: "Europe/London", startsAt: "06:00", hoursPerDay: 16, days: [1, 2, 3, 4, 5, 6] };
const countedOn = (from: string, hours: number, edge: "begins" | "ends" = "begins", w = week) =>
  valueOrThrow(momentAfter(new Date(from), hours, w, edge)).toISOString();
const between = (from: string, to: string, w = week) => valueOrThrow(workHoursBetween(new Date(from), new Date(to), w));

describe("working days", () => {
  test("the one under way is cut to what is left of it, Sunday is not one", () => {
    // 20 November 2026 is a Friday.
    const days = valueOrThrow(workDays(new Date("2026-11-20T20:00:00Z"), 3, week));
    expect(days.map((d) => [d.from.toISOString(), d.to.toISOString()])).toEqual([
      ["2026-11-20T20:00:00.000Z", "2026-11-20T22:00:00.000Z"],
      ["2026-11-21T06:00:00.000Z", "2026-11-21T22:00:00.000Z"],
      ["2026-11-23T06:00:00.000Z", "2026-11-23T22:00:00.000Z"],
    ]);
  });
  test("one that began last evening still runs after midnight", () => {
    const nights: WorkWeek = { ...week, startsAt: "22:00", hoursPerDay: 8, days: [1, 2, 3, 4, 5] };
    const [first] = valueOrThrow(workDays(new Date("2026-11-21T02:00:00Z"), 1, nights));
    expect(first?.to.toISOString()).toBe("2026-11-21T06:00:00.000Z");
  });
  test("06:00 stays 06:00 when the clocks change", () => {
    // Summer time ends on 25 October 2026, a Sunday.
    const all: WorkWeek = { ...week, days: [1, 2, 3, 4, 5, 6, 7] };
    const days = valueOrThrow(workDays(new Date("2026-10-24T00:00:00Z"), 3, all));
    expect(days.map((d) => d.from.toISOString())).toEqual([
      "2026-10-24T05:00:00.000Z",
      "2026-10-25T06:00:00.000Z",
      "2026-10-26T06:00:00.000Z",
    ]);
    const spring = valueOrThrow(workDays(new Date("2027-03-28T00:00:00Z"), 1, all));
    expect(spring[0]?.from.toISOString()).toBe("2027-03-28T05:00:00.000Z");
  });
});

describe("hours of work", () => {
  test("between two moments: nights and Sundays do not count", () => {
    expect(between("2026-11-20T20:00:00Z", "2026-11-23T07:30:00Z")).toBeCloseTo(2 + 16 + 1.5, 9);
    expect(between("2026-11-22T08:00:00Z", "2026-11-22T20:00:00Z")).toBe(0);
    expect(between("2026-11-20T20:00:00Z", "2026-11-19T20:00:00Z")).toBe(0);
  });
  test("counted on: a day's last hour ends that evening, and the next work begins in the morning", () => {
    expect(countedOn("2026-11-20T20:00:00Z", 1)).toBe("2026-11-20T21:00:00.000Z");
    expect(countedOn("2026-11-20T20:00:00Z", 2, "ends")).toBe("2026-11-20T22:00:00.000Z");
    expect(countedOn("2026-11-20T20:00:00Z", 2)).toBe("2026-11-21T06:00:00.000Z");
    expect(countedOn("2026-11-20T20:00:00Z", 18)).toBe("2026-11-23T06:00:00.000Z");
  });
  test("from a moment outside working hours it begins with the next", () => {
    expect(countedOn("2026-11-22T12:00:00Z", 0)).toBe("2026-11-23T06:00:00.000Z");
  });
  test("there and back again is the same hour", () => {
    const from = new Date("2026-03-20T09:17:00Z");
    fc.assert(
      fc.property(fc.double({ min: 0, max: 900, noNaN: true }), fc.constantFrom("begins", "ends"), (hours, edge) => {
        const to = valueOrThrow(momentAfter(from, hours, week, edge));
        expect(valueOrThrow(workHoursBetween(from, to, week))).toBeCloseTo(hours, 4);
      }),
      { numRuns: 60 },
    );
  });
  test("many moments against one list of days agree with each by itself", () => {
    const from = new Date("2026-11-20T20:00:00Z");
    const days = valueOrThrow(workDays(from, 40, week));
    for (const d of [0, 1, 3, 9, 30]) {
      const to = new Date(from.getTime() + d * 86_400_000 + 5_000_000);
      expect(hoursWithin(days, to)).toBeCloseTo(valueOrThrow(workHoursBetween(from, to, week)), 9);
    }
  });
  test("a week that does not work, a start that is no time, hours that cannot be: refused", () => {
    const from = new Date();
    for (const bad of [{ days: [] }, { days: [0] }, { days: [8] }, { hoursPerDay: 0 }, { hoursPerDay: 25 }])
      expect(workDays(from, 1, { ...week, ...bad })).toMatchObject({ error: { kind: "no-working-time" } });
    expect(workHoursBetween(from, from, { ...week, startsAt: "6" })).toMatchObject({ error: { kind: "bad-time" } });
    for (const hours of [-1, Number.NaN, Number.POSITIVE_INFINITY])
      expect(momentAfter(from, hours, week, "ends")).toMatchObject({ error: { kind: "bad-hours" } });
  });
});
