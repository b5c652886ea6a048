import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { bareLimitHours, hoursOfMargin } from "@/core/preparation";
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
