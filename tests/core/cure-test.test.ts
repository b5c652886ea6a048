import { describe, expect, test } from "vitest";
import { cureTests, judgeCureTest, pencils } from "@/core/bench";
import { valueOrThrow } from "@/core/result";
import { cureTestName, cureTestValue } from "@/ui/words/bench";

const pencil = (name: (typeof pencils)[number]) => pencils.indexOf(name);

describe("tests beside the rub", () => {
  test("gloss is the mean of three or more, inside the sheet and what it may be off by", () => {
    expect(judgeCureTest("gloss-60", [60, 62], 52, 68)).toMatchObject({
      error: { kind: "too-few-readings", got: 2, need: 3 },
    });
    expect(valueOrThrow(judgeCureTest("gloss-60", [60, 62, 64], 52, 68))).toMatchObject({ value: 62, result: "in" });
    expect(valueOrThrow(judgeCureTest("gloss-60", [50, 51, 52], 52, 68)).result).toBe("out");
    // Met at the limit itself.
    expect(valueOrThrow(judgeCureTest("gloss-60", [52, 52, 52], 52, 68)).result).toBe("in");
  });
  test("a pencil is judged by its place among the pencils", () => {
    expect(valueOrThrow(judgeCureTest("pencil-hardness", [pencil("H")], pencil("F"), null)).result).toBe("in");
    expect(valueOrThrow(judgeCureTest("pencil-hardness", [pencil("HB")], pencil("F"), null)).result).toBe("out");
    expect(pencil("F")).toBeLessThan(pencil("H"));
    expect(judgeCureTest("pencil-hardness", [3.5], null, null)).toMatchObject({ error: { kind: "bad-input" } });
  });
  test("colour has a most, impact a least; without a limit a number is no verdict", () => {
    expect(valueOrThrow(judgeCureTest("colour", [2.7], null, 1)).result).toBe("out");
    expect(valueOrThrow(judgeCureTest("impact", [60], 25, null)).result).toBe("in");
    expect(valueOrThrow(judgeCureTest("bend", [5], null, null)).result).toBe("unknown");
  });
  test("what no instrument reads, and limits the wrong way round", () => {
    expect(judgeCureTest("colour", [], null, 1)).toMatchObject({ error: { kind: "too-few-readings" } });
    expect(judgeCureTest("impact", [-1], null, null)).toMatchObject({
      error: { kind: "beyond-instrument", value: -1 },
    });
    expect(judgeCureTest("gloss-60", [60, Number.NaN, 61], null, null)).toMatchObject({
      error: { kind: "beyond-instrument" },
    });
    expect(judgeCureTest("gloss-60", [60, 60, 60], 70, 50)).toMatchObject({ error: { kind: "bad-input" } });
  });
  test("each has its name, and its value as one says it", () => {
    for (const name of cureTests) expect(cureTestName[name].length).toBeGreaterThan(4);
    expect(cureTestValue("pencil-hardness", pencil("2H"))).toBe("2H");
    expect(cureTestValue("gloss-60", 61.24)).toBe("61.2 GU");
    expect(cureTestValue("colour", 0.4)).toBe("0.40 ΔE");
  });
});
