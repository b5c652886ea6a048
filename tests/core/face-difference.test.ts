import { describe, expect, it } from "vitest";
import { faceDifference } from "@/core/thickness";

describe("the film of one face beside another's", () => {
  it("is Welch's difference with its interval", () => {
    // Checked by hand: means 80 and 70, s² 10 and 40, n 5 and 5; df = 10²/(2²/4 + 8²/4) = 5.882, t = 2.459.
    const one = [76, 78, 80, 82, 84];
    const other = [62, 66, 70, 74, 78];
    const found = faceDifference(one, other);
    expect(found.ok).toBe(true);
    if (!found.ok) return;
    expect(found.value.diffUm).toBe(10);
    expect(found.value.interval[0]).toBeCloseTo(10 - 2.459 * Math.sqrt(10), 2);
    expect(found.value.interval[1]).toBeCloseTo(10 + 2.459 * Math.sqrt(10), 2);
    expect(found.value.toldApart).toBe(true);
  });
  it("is not told apart where the spots scatter more than the faces differ", () => {
    expect(faceDifference([60, 80, 100], [58, 79, 99])).toMatchObject({ value: { toldApart: false } });
  });
  it("wants two spots of each, and bears equal ones", () => {
    expect(faceDifference([70], [60, 61])).toMatchObject({ error: { kind: "too-few-values", got: 1, need: 2 } });
    expect(faceDifference([70, 70], [60, 60])).toMatchObject({ value: { diffUm: 10, interval: [10, 10] } });
  });
});
