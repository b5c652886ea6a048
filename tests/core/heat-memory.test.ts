import { describe, expect, test } from "vitest";
import { type HeatSeen, type HeatSetting, REMEMBERED_FROM_BAKES, rememberHeat } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { cholesky, seededRandom } from "@/core/statistics";

const setting = (over: Partial<HeatSetting> = {}): HeatSetting => ({
  plateMm: 5,
  loadShare: 0.3,
  overC: 20,
  airAtDoorC: 95,
  place: "",
  modelS: 1000,
  perC: 0.02,
  ...over,
});
/** An oven that is slower with more metal in it, and at one place: what the plain model leaves out. */
const truth = (s: HeatSetting) => s.modelS * Math.exp(0.15 + 0.4 * (s.loadShare ?? 0) + (s.place === "B" ? 0.2 : 0));
const bakes = (n: number, spread: number, seed = 3): HeatSeen[] => {
  const random = seededRandom(seed);
  return Array.from({ length: n }, (_, i) => {
    const s = setting({
      plateMm: 2 + 10 * random.uniform(),
      loadShare: random.uniform(),
      overC: 8 + 25 * random.uniform(),
      place: i % 3 === 0 ? "B" : "A",
      modelS: 400 + 1500 * random.uniform(),
      perC: 0.002,
    });
    return { ...s, measuredS: truth(s) * Math.exp(random.normal(0, spread)) };
  });
};

describe("what an oven's bakes teach of the next", () => {
  test("the load's mass and the place are learnt, from what the plain model was off by", () => {
    const memory = valueOrThrow(rememberHeat(bakes(60, 0.03)));
    for (const loadShare of [0.1, 0.5, 0.9])
      for (const place of ["A", "B"]) {
        const s = setting({ loadShare, place, perC: 0.002 });
        const { seconds, band, bakes: from } = memory?.foretell(s) ?? { seconds: 0, band: [0, 0], bakes: 0 };
        expect(Math.abs(seconds / truth(s) - 1), `${loadShare} at ${place}`).toBeLessThan(0.05);
        expect(band[0]).toBeLessThan(truth(s));
        expect(band[1]).toBeGreaterThan(truth(s));
        expect(from).toBe(60);
      }
  });
  test("nine in ten of the next lie in the band, and the band is no wider than it need be", () => {
    const memory = valueOrThrow(rememberHeat(bakes(60, 0.08)));
    const next = bakes(400, 0.08, 77);
    const told = next.map((s) => ({ s, f: memory?.foretell(s) }));
    const held = told.filter(({ s, f }) => f && s.measuredS >= f.band[0] && s.measuredS <= f.band[1]).length;
    expect(held / next.length).toBeGreaterThan(0.85);
    expect(held / next.length).toBeLessThan(0.96);
    for (const { f } of told) expect((f?.band[1] ?? 0) / (f?.band[0] ?? 1)).toBeLessThan(1.6);
  });
  test("what is far from all that was baked is told with a wider band; near the set point too", () => {
    const memory = valueOrThrow(rememberHeat(bakes(60, 0.05)));
    const wide = (over: Partial<HeatSetting>) => {
      const [from, to] = memory?.foretell(setting(over)).band ?? [1, 1];
      return to / from;
    };
    expect(wide({ plateMm: 60, loadShare: 3 })).toBeGreaterThan(1.2 * wide({}));
    expect(wide({ perC: 0.08 })).toBeGreaterThan(1.2 * wide({ perC: 0.005 }));
  });
  test("under ten bakes there is no memory; a load nobody weighed is told all the same; what is no time is refused", () => {
    expect(valueOrThrow(rememberHeat(bakes(REMEMBERED_FROM_BAKES - 1, 0.05)))).toBeNull();
    const memory = valueOrThrow(rememberHeat(bakes(REMEMBERED_FROM_BAKES, 0.05)));
    expect(memory?.foretell(setting({ loadShare: null })).seconds).toBeGreaterThan(500);
    for (const wrong of [{ measuredS: 0 }, { modelS: Number.NaN }, { plateMm: -1 }])
      expect(rememberHeat([...bakes(12, 0.05), { ...setting(), measuredS: 900, ...wrong }])).toMatchObject({
        error: { kind: "bad-input", name: Object.keys(wrong)[0] },
      });
  });
  test("the triangle: solves what it was made of, and refuses what has none", () => {
    const a = [
      [4, 2, 1],
      [2, 5, 3],
      [1, 3, 6],
    ];
    const factor = cholesky(a);
    const x = factor.solve([7, 10, 10]);
    for (const [i, row] of a.entries())
      expect(row.reduce((sum, v, j) => sum + v * (x[j] as number), 0)).toBeCloseTo([7, 10, 10][i] as number, 9);
    // 4 (30 − 9) − 2 (12 − 3) + (6 − 5) = 67.
    expect(Math.exp(factor.logDeterminant)).toBeCloseTo(67, 9);
    expect(() =>
      cholesky([
        [1, 2],
        [2, 1],
      ]),
    ).toThrow(RangeError);
  });
});
