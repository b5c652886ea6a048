import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { coolingNow } from "@/core/cure";
import { valueOrThrow } from "@/core/result";

const hot = { pulledC: 200, sincePullS: 600, reading: null, tauS: 900, roomC: 20, handleBelowC: 40 };

describe("cooling after the pull", () => {
  test("in still air it is the closed form, and the time left is until it crosses the limit", () => {
    const now = valueOrThrow(coolingNow(hot));
    expect(now.nowC).toBeCloseTo(20 + 180 * Math.exp(-600 / 900), 9);
    expect(now).toMatchObject({ state: "warm", grade: "assumed" });
    // From the pull on: 900 ln(180 / 20) s until 40 °C.
    expect(now.coolInS + 600).toBeCloseTo(900 * Math.log(9), 9);
    const later = valueOrThrow(coolingNow({ ...hot, sincePullS: 600 + now.coolInS + 1 }));
    expect(later).toMatchObject({ state: "cool", coolInS: 0, grade: "assumed" });
  });
  test("a reading under the limit settles it, measured, however short the wait", () => {
    const read = valueOrThrow(coolingNow({ ...hot, sincePullS: 60, reading: { metalC: 40, agoS: 5 } }));
    expect(read).toEqual({ kind: "cooling", state: "cool", nowC: 40, grade: "measured", coolInS: 0 });
  });
  test("a reading over the limit is where the cooling is counted from", () => {
    const read = valueOrThrow(coolingNow({ ...hot, sincePullS: 5000, reading: { metalC: 90, agoS: 300 } }));
    expect(read.nowC).toBeCloseTo(20 + 70 * Math.exp(-300 / 900), 9);
    expect(read.state).toBe("warm");
  });
  test.each([
    [{ tauS: 0 }, "tauS"],
    [{ handleBelowC: 20 }, "handleBelowC"],
    [{ pulledC: Number.NaN }, "metalC"],
    [{ sincePullS: -1 }, "sinceS"],
  ])("%j is refused", (over, name) => {
    expect(coolingNow({ ...hot, ...over })).toMatchObject({ ok: false, error: { kind: "bad-input", name } });
  });
  test("it only ever cools", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 7200 }), fc.integer({ min: 1, max: 600 }), (sincePullS, more) => {
        const at = (s: number) => valueOrThrow(coolingNow({ ...hot, sincePullS: s }));
        return (
          at(sincePullS + more).nowC < at(sincePullS).nowC && at(sincePullS + more).coolInS <= at(sincePullS).coolInS
        );
      }),
      { numRuns: 80 },
    );
  });
});
