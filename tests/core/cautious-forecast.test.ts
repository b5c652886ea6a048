import { describe, expect, test } from "vitest";
import { cautiousForecast, forecastLimit } from "@/core/bath";
import { valueOrThrow } from "@/core/result";
import { seededRandom } from "@/core/statistics";

const hours = Array.from({ length: 10 }, (_, i) => 4 * i);
const climbing = (noise: (i: number) => number) => hours.map((h, i) => 5 + 0.012 * h + noise(i));
const random = seededRandom(17);
const plain = climbing(() => random.normal(0, 0.02));

describe("a forecast with its cautions", () => {
  test("has the plain line, and asks for a check no later than it", () => {
    const [own, line] = [
      valueOrThrow(cautiousForecast(hours, plain, 5.9, "upper", 0.01)),
      valueOrThrow(forecastLimit(hours, plain, 5.9, "upper")),
    ];
    expect(own.trend).toEqual(line.trend);
    expect(own.cautions).toMatchObject({ lastChecks: null, spreadOfMethod: false });
    if (own.forecast.kind !== "forecast" || line.forecast.kind !== "forecast") throw new Error("no forecast");
    expect(own.forecast.meetsAtHour).toBe(line.forecast.meetsAtHour);
    expect(own.forecast.checkByHour).toBeLessThan(line.forecast.checkByHour);
    expect(own.forecast.checkByHour).toBeGreaterThan(36);
    expect(own.at(own.forecast.checkByHour).bound).toBeCloseTo(5.9, 6);
  });
  test("three checks that happen to lie on a line are not trusted beyond what the method repeats", () => {
    const three = [
      [0, 4, 8],
      [5, 5.05, 5.1],
    ] as const;
    const bound = (repeats: number) =>
      valueOrThrow(cautiousForecast(three[0], three[1], 5.5, "upper", repeats)).at(12).bound;
    expect(valueOrThrow(cautiousForecast(three[0], three[1], 5.5, "upper", 0.02)).cautions.spreadOfMethod).toBe(true);
    expect(bound(0.02) - 5.15).toBeGreaterThan(0.1);
    expect(bound(0.04)).toBeGreaterThan(bound(0.02));
  });
  test("a line that bends is taken from its last stretch", () => {
    // Level for a day, then climbing.
    const bent = hours.map((h, i) => 5 + (h <= 16 ? 0 : 0.03 * (h - 16)) + (i % 2 ? 0.005 : -0.005));
    const found = valueOrThrow(cautiousForecast(hours, bent, 6.2, "upper", 0.01));
    expect(found.cautions.lastChecks).toBeLessThan(8);
    expect(found.trend.slopePerHour).toBeGreaterThan(0.025);
  });
  test("residuals that run together count for fewer checks", () => {
    const together = climbing((i) => 0.03 * Math.sin(0.8 * i));
    const found = valueOrThrow(cautiousForecast(hours, together, 5.9, "upper", 0.001));
    expect(found.cautions.worth).toBeLessThan(6);
    const apart = climbing((i) => (i % 2 ? 0.02 : -0.02));
    expect(valueOrThrow(cautiousForecast(hours, apart, 5.9, "upper", 0.001)).cautions.worth).toBe(10);
  });
  test("a slope that points away gives no time; what cannot be is refused by name", () => {
    expect(valueOrThrow(cautiousForecast(hours, plain, 4.5, "lower", 0.01)).forecast).toEqual({
      kind: "no-forecast",
      why: "points-away",
    });
    for (const [h, v, limit, repeats, kind] of [
      [[0, 1], [5, 5.1], 5.8, 0.01, "too-few-points"],
      [[1, 1, 1], [5, 5.1, 5.2], 5.8, 0.01, "equal-times"],
      [[0, 1, 2], [5, 5.1, Number.NaN], 5.8, 0.01, "not-finite"],
      [[0, 1, 2], [5, 5.1, 5.2], Number.NaN, 0.01, "bad-limit"],
      [[0, 1, 2], [5, 5.1, 5.2], 5.8, -1, "bad-input"],
    ] as const)
      expect(cautiousForecast(h, v, limit, "upper", repeats), kind).toMatchObject({ error: { kind } });
  });
  test("beyond the limit already, the check is due now", () => {
    const found = valueOrThrow(cautiousForecast(hours, plain, 5.2, "upper", 0.01)).forecast;
    expect(found).toMatchObject({ kind: "forecast", checkByHour: 36 });
  });
  test("on baths whose noise runs together and whose rate wanders, a check at that time is beyond in about one in twenty", () => {
    const own = seededRandom(99);
    let [tried, beyond] = [0, 0];
    while (tried < 600) {
      const rate = 0.006 + 0.012 * own.uniform();
      const sd = 0.015 + 0.02 * own.uniform();
      let drift = own.normal(0, sd);
      const noise = (hoursOn: number) => {
        const keep = Math.exp(-hoursOn / 5);
        drift = keep * drift + own.normal(0, sd * Math.sqrt(1 - keep ** 2));
        return drift + own.normal(0, sd / 3);
      };
      const values = hours.map((h) => 5 + rate * h + noise(4));
      const limit = 5 + rate * (36 + 8 + 40 * own.uniform());
      const found = cautiousForecast(hours, values, limit, "upper", 0.02);
      if (!found.ok || found.value.forecast.kind !== "forecast" || found.value.forecast.checkByHour <= 36) continue;
      tried++;
      const { checkByHour } = found.value.forecast;
      if (5 + rate * checkByHour + noise(checkByHour - 36) > limit) beyond++;
    }
    expect(beyond / tried).toBeGreaterThan(0.005);
    expect(beyond / tried).toBeLessThan(0.08);
  });
});
