import jstat from "jstat";
import { describe, expect, test } from "vitest";
import { cautiousForecast } from "@/core/bath";
import { valueOrThrow } from "@/core/result";
import { seededRandom } from "@/core/statistics";

// The same forecast worked out another way: by the normal equations, solved outright.

/** x of A x = b, by elimination with the largest pivot. */
function solved(a: readonly (readonly number[])[], b: readonly number[]): number[] {
  const m = a.map((row, i) => [...row, b[i] as number]);
  const n = b.length;
  for (let c = 0; c < n; c++) {
    const pivot = [...m.keys()].slice(c).sort((i, j) => Math.abs(m[j]?.[c] ?? 0) - Math.abs(m[i]?.[c] ?? 0))[0] ?? c;
    [m[c], m[pivot]] = [m[pivot] as number[], m[c] as number[]];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const by = (m[r]?.[c] as number) / (m[c]?.[c] as number);
      m[r] = (m[r] as number[]).map((v, k) => v - by * (m[c]?.[k] as number));
    }
  }
  return m.map((row, i) => (row[n] as number) / (row[i] as number));
}
/** Least squares on powers of x up to the degree: figures, residuals, and the inverse's last diagonal. */
function fitted(x: readonly number[], y: readonly number[], degree: number) {
  const powers = Array.from({ length: degree + 1 }, (_, p) => p);
  const moment = (p: number) => x.reduce((s, v) => s + v ** p, 0);
  const normal = powers.map((i) => powers.map((j) => moment(i + j)));
  const figures = solved(
    normal,
    powers.map((p) => x.reduce((s, v, i) => s + v ** p * (y[i] as number), 0)),
  );
  const residuals = y.map((v, i) => v - figures.reduce((s, c, p) => s + c * (x[i] as number) ** p, 0));
  const last = solved(
    normal,
    powers.map((p) => (p === degree ? 1 : 0)),
  ).at(-1) as number;
  return { figures, residuals, last };
}
const squares = (of: readonly number[]) => of.reduce((s, v) => s + v * v, 0);

function bends(h: readonly number[], v: readonly number[]): boolean {
  const [first, last] = [h[0] as number, h.at(-1) as number];
  const x = h.map((hour) => (hour - first) / (last - first));
  const { figures, residuals, last: inverse } = fitted(x, v, 2);
  const se = Math.sqrt((squares(residuals) / (h.length - 3)) * inverse);
  return Math.abs(figures[2] as number) / se > jstat.studentt.inv(0.95, h.length - 3);
}
function byHand(hours: readonly number[], values: readonly number[], limit: number, upper: boolean, repeats: number) {
  let from = 0;
  while (hours.length - from >= 6 && bends(hours.slice(from), values.slice(from)))
    from = Math.min(hours.length - 5, from + Math.max(1, Math.trunc((hours.length - from) / 4)));
  const [h, v] = [hours.slice(from), values.slice(from)];
  const n = h.length;
  const { figures, residuals } = fitted(h, v, 1);
  const [level, slope] = figures as [number, number];
  const ss = squares(residuals);
  const lagged = residuals.slice(1).reduce((s, r, i) => s + r * (residuals[i] as number), 0);
  const together = n < 6 ? 0 : Math.min(0.9, Math.max(0, lagged / ss + 2 / n));
  const worth = Math.max(3, (n * (1 - together)) / (1 + together));
  const own = Math.sqrt(ss / Math.max(1, worth - 2));
  const sd = Math.max(own, repeats);
  const middle = h.reduce((s, x) => s + x, 0) / n;
  const sxx = h.reduce((s, x) => s + (x - middle) ** 2, 0);
  const last = h.at(-1) as number;
  const bound = (hour: number) => {
    const ahead = Math.max(0, hour - last);
    const wander = (0.2 * slope * ahead) ** 2 * Math.min(4, ahead / (last - (h[0] as number)));
    const spread = sd ** 2 * (1 + 1 / worth + (hour - middle) ** 2 / sxx / (worth / n)) + wander;
    const half = jstat.studentt.inv(0.95, Math.max(1, worth - 2)) * Math.sqrt(spread);
    return level + slope * hour + (upper ? half : -half);
  };
  return { from, level, slope, worth, own, bound, last, meets: (limit - level) / slope };
}

/** Bath values at uneven hours: straight, bent, wandering, and a few only. */
function made(seed: number) {
  const random = seededRandom(seed);
  const n = 3 + Math.floor(random.uniform() * 18);
  const bend = seed % 3 === 0 ? 0.002 * random.uniform() : 0;
  const keep = seed % 4 === 1 ? 0.8 : 0;
  const down = seed % 2 === 1;
  let [hour, drift] = [100 * random.uniform(), 0];
  const [hours, values]: [number[], number[]] = [[], []];
  for (let i = 0; i < n; i++) {
    hours.push(hour);
    drift = keep * drift + random.normal(0, 0.03);
    const on = hour - (hours[0] as number);
    values.push(5 + (down ? -1 : 1) * (0.012 * on + bend * on * on) + drift);
    hour += 2 + 4 * random.uniform();
  }
  return { hours, values, upper: !down, limit: down ? 3.6 : 6.4, repeats: seed % 5 === 0 ? 0.08 : 0.001 };
}

describe("against the same worked out by the normal equations", () => {
  const seeds = Array.from({ length: 120 }, (_, i) => i);
  test("line, checks taken, their worth, bound and time are the same on 120 made-up baths", () => {
    const seen = { bent: 0, together: 0, ofMethod: 0, foretold: 0, shortWander: 0, longWander: 0, few: 0 };
    for (const seed of seeds) {
      const { hours, values, upper, limit, repeats } = made(seed);
      const of = byHand(hours, values, limit, upper, repeats);
      const found = valueOrThrow(cautiousForecast(hours, values, limit, upper ? "upper" : "lower", repeats));
      const said = `bath ${seed}`;
      expect(found.trend.slopePerHour, said).toBeCloseTo(of.slope, 9);
      expect(found.trend.intercept, said).toBeCloseTo(of.level, 7);
      expect(found.cautions.lastChecks, said).toBe(of.from > 0 ? hours.length - of.from : null);
      expect(found.cautions.worth, said).toBeCloseTo(of.worth, 6);
      expect(found.cautions.spreadOfMethod, said).toBe(repeats > of.own);
      for (const on of [-3, 0, 2, 30, 400]) {
        expect(found.at(of.last + on).bound, `${said} at ${on}`).toBeCloseTo(of.bound(of.last + on), 6);
        expect(found.at(of.last + on).value, said).toBeCloseTo(of.level + of.slope * (of.last + on), 7);
      }
      const toward = upper ? of.slope > 0 : of.slope < 0;
      expect(found.forecast.kind, said).toBe(toward ? "forecast" : "no-forecast");
      if (found.forecast.kind === "forecast") {
        const { meetsAtHour, checkByHour } = found.forecast;
        expect(meetsAtHour, said).toBeCloseTo(of.meets, 4);
        const over = (at: number) => (upper ? of.bound(at) >= limit : of.bound(at) <= limit);
        if (over(of.last) || of.meets <= of.last) expect(checkByHour, said).toBe(of.last);
        else {
          // The bound is met there: not yet a minute before.
          expect(of.bound(checkByHour), said).toBeCloseTo(limit, 6);
          expect(over(checkByHour - 1 / 60), said).toBe(false);
        }
        seen.foretold++;
      }
      seen.bent += Number(of.from > 0);
      seen.together += Number(of.worth < hours.length - of.from - 0.1);
      seen.ofMethod += Number(repeats > of.own);
      seen.few += Number(hours.length < 6);
    }
    for (const kind of ["bent", "together", "ofMethod", "foretold", "few"] as const)
      expect(seen[kind], kind).toBeGreaterThan(5);
  });
  test("values that follow a square outright bend; level ones and those at two moments do not", () => {
    const hours = [0, 4, 8, 12, 16, 20, 24];
    const square = valueOrThrow(
      cautiousForecast(
        hours,
        hours.map((h) => 5 + 0.001 * h * h),
        9,
        "upper",
        0.01,
      ),
    );
    expect(square.cautions.lastChecks).toBe(5);
    const level = valueOrThrow(
      cautiousForecast(
        hours,
        hours.map(() => 5),
        9,
        "upper",
        0.01,
      ),
    );
    expect(level.cautions).toEqual({ lastChecks: null, worth: 7, spreadOfMethod: true });
    expect(level.forecast).toEqual({ kind: "no-forecast", why: "points-away" });
    const two = valueOrThrow(cautiousForecast([0, 0, 0, 4, 4, 4], [5, 5.1, 5.2, 5, 5.2, 5.4], 9, "upper", 0.01));
    expect(two.cautions.lastChecks).toBeNull();
  });
  test("a method said to repeat exactly is taken at its word; less than nothing and no number are refused", () => {
    const exact = valueOrThrow(cautiousForecast([0, 4, 8], [5, 5.05, 5.1], 5.5, "upper", 0));
    expect(exact.cautions.spreadOfMethod).toBe(false);
    for (const repeats of [-1e-9, Number.NaN, Number.POSITIVE_INFINITY])
      expect(cautiousForecast([0, 4, 8], [5, 5.05, 5.1], 5.5, "upper", repeats)).toMatchObject({
        error: { kind: "bad-input", name: "repeatability" },
      });
  });
});
