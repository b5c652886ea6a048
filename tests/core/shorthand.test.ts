import { describe, expect, test } from "vitest";
import { valueOrThrow } from "@/core/result";
import { parseShorthand } from "@/core/shorthand";

describe("shop shorthand", () => {
  test("thickness by spot, with units of its own", () => {
    expect(valueOrThrow(parseShorthand("rack 1042 dft a3 72 75 71"))).toMatchObject({
      kind: "thickness",
      rack: "1042",
      spot: "A3",
      readings: [{ valueUm: 72 }, { valueUm: 75 }, { valueUm: 71 }],
    });
    expect(valueOrThrow(parseShorthand("dft b1 3mil"))).toMatchObject({ readings: [{ valueUm: 76.2, typed: "3mil" }] });
    expect(valueOrThrow(parseShorthand("2.9", "us"))).toMatchObject({
      kind: "thickness",
      spot: null,
      readings: [{ valueUm: 73.66 }],
    });
  });
  test("what a gauge types: a number, with or without its unit", () => {
    for (const text of ["72.1", "72.1 um", "72.1um", "72,1"])
      expect(valueOrThrow(parseShorthand(text))).toMatchObject({ kind: "thickness", readings: [{ valueUm: 72.1 }] });
  });
  test("a bath check, °F turned into °C", () => {
    expect(valueOrThrow(parseShorthand("tank 3 ph 5.1 at 48C"))).toMatchObject({
      kind: "bath-check",
      tank: "Tank 3",
      values: [
        { parameter: "ph", value: 5.1 },
        { parameter: "temperature", value: 48 },
      ],
    });
    const us = valueOrThrow(parseShorthand("T3 temp 125F titr 8.4"));
    expect(us.kind === "bath-check" && us.values[0]?.value).toBeCloseTo(51.667, 3);
  });
  test("pull, passage, cross-cut, rub, go-to", () => {
    expect(valueOrThrow(parseShorthand("oven 2 pull"))).toEqual({ kind: "oven-pull", oven: "2" });
    expect(valueOrThrow(parseShorthand("rack 1042 in booth"))).toEqual({
      kind: "passage",
      rack: "1042",
      stage: "booth",
    });
    expect(valueOrThrow(parseShorthand("rack 1042 cut 2/25"))).toMatchObject({ squaresLost: 2, squares: 25 });
    expect(valueOrThrow(parseShorthand("rack 1042 rub 5"))).toMatchObject({ grade: 5, doubleRubs: 50 });
    expect(valueOrThrow(parseShorthand("1042"))).toEqual({ kind: "go-to", word: "1042" });
    expect(valueOrThrow(parseShorthand("tank 3"))).toEqual({ kind: "go-to", word: "tank 3" });
    expect(valueOrThrow(parseShorthand("t3"))).toEqual({ kind: "go-to", word: "t3" });
  });
  test("what is not understood is named", () => {
    expect(parseShorthand("")).toMatchObject({ ok: false, error: { kind: "empty" } });
    expect(parseShorthand("rack 1042 dft a3 7two")).toMatchObject({
      ok: false,
      error: { kind: "unknown-unit", word: "two" },
    });
    expect(parseShorthand("rack 1042 dft a3 -4")).toMatchObject({ ok: false, error: { kind: "negative" } });
    expect(parseShorthand("rack 1042 in kitchen")).toMatchObject({
      ok: false,
      error: { kind: "expected", got: "kitchen" },
    });
    expect(parseShorthand("tank 3 ph 51")).toMatchObject({
      ok: false,
      error: { kind: "beyond-instrument", value: 51 },
    });
    expect(parseShorthand("tank 3 cond 1,233")).toMatchObject({ ok: false, error: { kind: "ambiguous-number" } });
  });
});
