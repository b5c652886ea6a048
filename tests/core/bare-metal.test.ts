import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { bareLimitHours, flashOffHold, hoursOfMargin, type MetalReady, powderHold } from "@/core/preparation";
import { valueOrThrow } from "@/core/result";

const table = [
  { upToHumidityPercent: 80, hours: 2 },
  { upToHumidityPercent: 50, hours: 8 },
  { upToHumidityPercent: 65, hours: 4 },
];
const limit = (humidity: number | null, limits = table) => valueOrThrow(bareLimitHours(humidity, limits, 5));

describe("how long metal may stand bare", () => {
  test.each([
    [20, 8],
    [50, 8],
    [50.1, 4],
    [65, 4],
    [79, 2],
    [95, 2],
  ])("at %d % humidity: %d h", (humidity, hours) => {
    expect(limit(humidity)).toBe(hours);
  });
  test("without a reading or a table the site's usual hours stand", () => {
    expect(limit(null)).toBe(5);
    expect(limit(70, [])).toBe(5);
  });
  test("damper air never allows longer, in a table that falls", () => {
    const air = fc.double({ min: 0, max: 100, noNaN: true });
    fc.assert(
      fc.property(air, air, (a, b) => {
        expect(limit(Math.max(a, b))).toBeLessThanOrEqual(limit(Math.min(a, b)));
      }),
    );
  });
  test("a humidity that cannot be is refused", () => {
    for (const humidity of [-1, 101, Number.NaN])
      expect(bareLimitHours(humidity, table, 5)).toMatchObject({ error: { kind: "bad-input", name: "humidity, %" } });
  });
});

describe("how long the margin over the dew point lasts", () => {
  const evening = { metalC: 18, dewPointC: 12, leastMarginC: 3, fallCPerHour: 1.5 };
  const lasts = (over: Partial<typeof evening>) => valueOrThrow(hoursOfMargin({ ...evening, ...over }));
  test("3 °C to spare at 1.5 °C an hour last two hours", () => {
    expect(lasts({})).toBe(2);
  });
  test("none is left at the margin or under it; metal that does not cool keeps it", () => {
    expect(lasts({ metalC: 15 })).toBe(0);
    expect(lasts({ metalC: 10 })).toBe(0);
    expect(lasts({ fallCPerHour: 0 })).toBeNull();
    expect(lasts({ fallCPerHour: -2 })).toBeNull();
  });
  test("after that time the metal stands at the margin", () => {
    const near = fc.double({ min: 0, max: 30, noNaN: true });
    fc.assert(
      fc.property(near, near, fc.double({ min: 0.05, max: 5, noNaN: true }), (metalC, dewPointC, fallCPerHour) => {
        const hours = lasts({ metalC, dewPointC, fallCPerHour });
        if (hours) expect(metalC - hours * fallCPerHour - dewPointC).toBeCloseTo(3, 9);
      }),
    );
  });
  test("no number is refused by its name", () => {
    expect(hoursOfMargin({ ...evening, dewPointC: Number.NaN })).toMatchObject({
      error: { kind: "bad-input", name: "dewPointC" },
    });
  });
});

describe("what holds powder back", () => {
  const HOUR = 3_600_000;
  const MINUTE = 60_000;
  const limits = { flashOffMinutes: 10, bareHours: 4, unsealedHours: 24 };
  const ready = (over: Partial<MetalReady> = {}): MetalReady => ({
    wiped: null,
    blastedMs: null,
    cleanedMs: null,
    convertedMs: null,
    ...over,
  });
  test.each([
    [null, 10],
    ["acetone", 10],
    ["prep cleaner", 10],
    ["mineral spirits", 30],
  ])("a wipe with %s is left for %d min, for powder and for any oven", (solvent, minutes) => {
    const at = ready({ wiped: { atMs: 0, solvent } });
    for (const hold of [
      powderHold(at, minutes * MINUTE - 1, limits),
      flashOffHold(at, minutes * MINUTE - 1, limits.flashOffMinutes),
    ])
      expect(hold).toEqual({ kind: "flash-off", solvent, minutes, untilMs: minutes * MINUTE });
    expect(powderHold(at, minutes * MINUTE, limits)).toBeNull();
    expect(flashOffHold(at, minutes * MINUTE, limits.flashOffMinutes)).toBeNull();
    expect(flashOffHold(at, -1, limits.flashOffMinutes)).toBeNull();
  });
  test("bare metal past the limit asks to be cleaned again, and cleaned again it holds no longer", () => {
    const at = ready({ blastedMs: 0 });
    expect(powderHold(at, 4 * HOUR, limits)).toBeNull();
    expect(powderHold(at, 4.5 * HOUR, limits)).toEqual({ kind: "bare-too-long", hours: 4.5, limitHours: 4 });
    expect(powderHold({ ...at, cleanedMs: 3 * HOUR }, 6.9 * HOUR, limits)).toBeNull();
    expect(powderHold({ ...at, cleanedMs: 3 * HOUR }, 7.1 * HOUR, limits)).toMatchObject({ kind: "bare-too-long" });
    // Degreased before the blast says nothing of after it.
    expect(powderHold({ ...at, cleanedMs: -HOUR }, 4.5 * HOUR, limits)).toMatchObject({ hours: 4.5 });
    expect(powderHold(ready(), 1000 * HOUR, limits)).toBeNull();
  });
  test("under a conversion coat nothing is bare; unsealed it protects for its hours, and a blast after it begins anew", () => {
    const at = ready({ blastedMs: 0, convertedMs: HOUR });
    expect(powderHold(at, 25 * HOUR, limits)).toBeNull();
    expect(powderHold(at, 25.5 * HOUR, limits)).toEqual({ kind: "unsealed-too-long", hours: 24.5, limitHours: 24 });
    expect(powderHold({ ...at, blastedMs: 2 * HOUR }, 6.5 * HOUR, limits)).toMatchObject({ kind: "bare-too-long" });
  });
});
