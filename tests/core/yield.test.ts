import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { againstWhole, firstPass, pareto } from "@/core/yield";

const of = (passed: number, racks: number) => {
  const r = firstPass(passed, racks);
  if (!r.ok) throw new Error(r.error.kind);
  return r.value;
};
describe("first-pass yield", () => {
  test("is the share passed, with Wilson's interval", () => {
    const y = of(81, 263);
    // Newcombe, Statistics in Medicine 17 (1998), table I: 81 of 263, score method without correction.
    expect(y.interval[0]).toBeCloseTo(0.2553, 4);
    expect(y.interval[1]).toBeCloseTo(0.3662, 4);
    expect(y.share).toBeCloseTo(81 / 263, 12);
    expect(of(0, 20).interval[0]).toBe(0);
    expect(of(20, 20).interval[1]).toBe(1);
  });
  test("of no racks is not 0 and not 1; counts that cannot be are refused", () => {
    expect(firstPass(0, 0)).toMatchObject({ ok: false, error: { kind: "no-racks" } });
    for (const [passed, racks] of [
      [3, 2],
      [-1, 2],
      [1.5, 2],
      [Number.NaN, 2],
      [1, -2],
    ] as const)
      expect(firstPass(passed, racks)).toMatchObject({ ok: false, error: { kind: "not-so-many", passed, racks } });
  });
  test("a group is told apart only where its interval leaves the whole out", () => {
    const whole = of(900, 1000);
    expect(againstWhole(of(1, 2), whole)).toBe("not-told-apart");
    expect(againstWhole(of(50, 100), whole)).toBe("lower");
    expect(againstWhole(of(400, 400), whole)).toBe("higher");
    expect(againstWhole(whole, whole)).toBe("not-told-apart");
  });
});

test("causes stand by how often, their shares add up to all", () => {
  expect(pareto([])).toEqual([]);
  fc.assert(
    fc.property(fc.array(fc.record({ id: fc.nat(), count: fc.nat(500) }), { maxLength: 30 }), (causes) => {
      const sorted = pareto(causes);
      expect(sorted).toHaveLength(causes.filter((c) => c.count > 0).length);
      for (const [i, c] of sorted.entries()) {
        expect(c.count).toBeLessThanOrEqual(sorted[i - 1]?.count ?? Number.POSITIVE_INFINITY);
        expect(c.upTo).toBeCloseTo(
          sorted.slice(0, i + 1).reduce((sum, x) => sum + x.share, 0),
          9,
        );
      }
      if (sorted.length > 0) expect(sorted.at(-1)?.upTo).toBeCloseTo(1, 9);
    }),
  );
});
