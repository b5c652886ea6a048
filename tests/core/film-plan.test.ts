import { describe, expect, test } from "vitest";
import { valueOrThrow } from "@/core/result";
import { filmPlan } from "@/core/sampling";

describe("what to read", () => {
  test.each([
    [8, 1, 5],
    [10, 1, 5],
    [25, 3, 15],
    [30, 3, 15],
    [60, 6, 15],
    [100, 10, 15],
    [120, 12, 20],
    [450, 45, 35],
  ])("%f m²: %i places of 10 m², %i spots by spot and area", (area, places, spots) => {
    const plan = valueOrThrow(filmPlan("spot-area", area, 7));
    expect(plan).toMatchObject({ places, spots });
    expect(plan.measured).toHaveLength(spots / 5);
    expect(new Set(plan.measured).size).toBe(plan.measured.length);
    expect(Math.min(...plan.measured)).toBeGreaterThanOrEqual(1);
    expect(Math.max(...plan.measured)).toBeLessThanOrEqual(places);
  });
  test("square feet keep their own round figures: 300 ft² is three places, not 27.9 m² of them", () => {
    const m2 = (ft2: number) => ft2 * 0.09290304;
    for (const [ft2, places, spots] of [
      [100, 1, 5],
      [300, 3, 15],
      [301, 4, 15],
      [1000, 10, 15],
      [1100, 11, 20],
    ] as const)
      expect(valueOrThrow(filmPlan("spot-area", m2(ft2), 7, { inFt2: true }))).toMatchObject({ places, spots });
  });
  test("the same seed chooses the same, another another", () => {
    const of = (seed: number) => valueOrThrow(filmPlan("spot-area", 450, seed)).measured;
    expect(of(7)).toEqual(of(7));
    expect(of(7)).not.toEqual(of(8));
  });
  test("for many pieces: as many as keep both risks, drawn without one twice", () => {
    const risks = { lot: 200, aql: 0.02, rql: 0.15, producerRisk: 0.05, consumerRisk: 0.1 };
    const { pieces } = valueOrThrow(filmPlan("nominal", 12, 7, { risks }));
    expect(pieces?.pull).toHaveLength(pieces?.n ?? 0);
    expect(new Set(pieces?.pull).size).toBe(pieces?.n);
    expect(pieces?.pAcceptAql).toBeGreaterThanOrEqual(0.95);
    expect(pieces?.pAcceptRql).toBeLessThanOrEqual(0.1);
    expect(Math.max(...(pieces?.pull ?? []))).toBeLessThanOrEqual(200);
  });
  test("what cannot be is refused", () => {
    expect(filmPlan("nominal", 0, 7)).toMatchObject({ error: { kind: "bad-area" } });
    expect(filmPlan("nominal", 1e9, 7)).toMatchObject({ error: { kind: "bad-area" } });
    expect(filmPlan("nominal", 10, 0.5)).toMatchObject({ error: { kind: "bad-input", name: "seed" } });
    const few = { lot: 6, aql: 0.02, rql: 0.05, producerRisk: 0.05, consumerRisk: 0.1 };
    expect(filmPlan("nominal", 10, 7, { risks: few })).toMatchObject({ error: { kind: "inspect-all" } });
  });
});
