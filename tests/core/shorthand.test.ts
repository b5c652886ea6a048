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
    for (const text of ["oven 2 pull 478", "oven 2 478 pull", "oven 2 load 478 pull"])
      expect(valueOrThrow(parseShorthand(text)), text).toEqual({ kind: "oven-pull", oven: "2", loadNo: "478" });
    expect(valueOrThrow(parseShorthand("oven 2 478 door open"))).toMatchObject({ event: "door-opened", loadNo: "478" });
    expect(valueOrThrow(parseShorthand("oven 2 load 478 1031"))).toMatchObject({ kind: "oven-load", racks: ["1031"] });
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

describe("shorthand of the line", () => {
  const read = (text: string, units: "metric" | "us" = "metric") => valueOrThrow(parseShorthand(text, units));
  test.each([
    ["rack 1042 blast 52", { step: "blast", value: 52 }],
    ["rack 1042 blast 52um", { step: "blast", value: 52 }],
    ["rack 1042 profile 48", { step: "blast", value: 48 }],
    ["rack 1042 blast", { step: "blast", value: null }],
    ["rack 1042 dust 1", { step: "dust-tape", value: 1 }],
    ["rack 1042 salt 12", { step: "soluble-salt", value: 12 }],
    ["rack 1042 salt 12mg/m²", { step: "soluble-salt", value: 12 }],
    ["rack 1042 wipe", { step: "solvent-wipe", value: null }],
    ["rack 1042 scuff", { step: "scuff", value: null }],
    ["rack 1042 prebake 228C", { step: "prebake", value: 228 }],
    ["RACK 1042 BLOW", { step: "blow-off", value: null }],
  ])("%s", (text, expected) => {
    expect(read(text)).toEqual({ kind: "prep-step", rack: "1042", ...expected });
  });
  test("mil and °F where the person reads so, and where they say so", () => {
    expect(read("rack 1 blast 2", "us")).toMatchObject({ value: 50.8 });
    expect(read("rack 1 blast 2mil")).toMatchObject({ value: 50.8 });
    const bake = read("rack 1 prebake 440F");
    expect(bake.kind === "prep-step" && bake.value).toBeCloseTo(226.67, 2);
  });
  test.each([
    ["rack 1042 wash", null],
    ["rack 1042 wash 1.2", 1.2],
    ["rack 1042 wash 1,4m/min", 1.4],
  ])("%s goes through the washer", (text, speedMPerMin) => {
    expect(read(text)).toEqual({ kind: "line-run", rack: "1042", speedMPerMin });
  });
  test("feet a minute become metres", () => {
    const typed = read("rack 1042 wash 4ft/min");
    expect(typed.kind === "line-run" && typed.speedMPerMin).toBeCloseTo(1.2192, 9);
    const usual = read("rack 1042 wash 4", "us");
    expect(usual.kind === "line-run" && usual.speedMPerMin).toBeCloseTo(1.2192, 9);
  });
  test("air of the hall", () => {
    expect(read("air 18C 62% metal 17C dew -24C")).toEqual({
      kind: "conditions",
      values: [
        { quantity: "air-temperature", value: 18 },
        { quantity: "humidity", value: 62 },
        { quantity: "metal-temperature", value: 17 },
        { quantity: "compressed-air-dew-point", value: -24 },
      ],
    });
    const us = read("air 68", "us");
    expect(us.kind === "conditions" && us.values[0]?.value).toBeCloseTo(20, 9);
  });
  test("a load and its racks", () => {
    expect(read("oven 1 load 412 1046 1047")).toEqual({
      kind: "oven-load",
      oven: "1",
      loadNo: "412",
      racks: ["1046", "1047"],
    });
    expect(read("oven 1 load 412 racks 1046")).toMatchObject({ racks: ["1046"] });
  });
  test.each([
    ["rack 1042 blast 5200", { kind: "beyond-instrument", parameter: "blast profile", most: 400 }],
    ["rack 1042 dust 7", { kind: "beyond-instrument", most: 5 }],
    ["rack 1042 blast 52C", { kind: "expected" }],
    ["rack 1042 blast rough", { kind: "expected", what: "blast profile" }],
    ["rack 1042 wipe 3", { kind: "not-understood", word: "3", at: 4 }],
    ["rack 1042 wash fast", { kind: "expected", got: "fast" }],
    ["air damp", { kind: "expected", got: "damp" }],
    ["air 120%", { kind: "beyond-instrument", parameter: "humidity", value: 120 }],
    ["air 18um", { kind: "expected", got: "18um" }],
    ["oven 1 load 412", { kind: "expected", got: "412" }],
    ["rack 1042 polish 3", { kind: "not-understood", word: "polish", at: 3 }],
  ])("“%s” says what is wrong", (text, error) => {
    expect(parseShorthand(text)).toMatchObject({ ok: false, error });
  });
});

describe("the load in an oven", () => {
  test.each([
    ["oven 1 melted", { event: "melted", valueC: null }],
    ["oven 1 glossy", { event: "melted", valueC: null }],
    ["oven 1 door open", { event: "door-opened", valueC: null }],
    ["Oven 1 DOOR shut", { event: "door-shut", valueC: null }],
    ["oven 1 closed", { event: "door-shut", valueC: null }],
    ["oven 1 touched", { event: "touched-up", valueC: null }],
    ["oven 1 off", { event: "heat-off", valueC: null }],
    ["oven 1 set 200C", { event: "set-point", valueC: 200 }],
    ["oven 1 set to 200 C", { event: "set-point", valueC: 200 }],
    ["oven 1 metal 187,5", { event: "infrared", valueC: 187.5 }],
  ])("%s", (text, expected) => {
    expect(valueOrThrow(parseShorthand(text))).toEqual({ kind: "oven-event", oven: "1", ...expected });
  });
  test("in the person's own unit where none is typed", () => {
    expect(valueOrThrow(parseShorthand("oven 1 metal 392", "us"))).toMatchObject({ valueC: 200 });
    expect(valueOrThrow(parseShorthand("oven 1 metal 200C", "us"))).toMatchObject({ valueC: 200 });
  });
  test.each([
    ["oven 1 burning", { kind: "expected", what: "what happens in the oven" }],
    ["oven 1 melted twice", { kind: "expected" }],
    ["oven 1 set", { kind: "expected", what: "a temperature" }],
    ["oven 1 set hot", { kind: "expected", what: "a temperature" }],
    ["oven 1 metal 187 bar", { kind: "expected" }],
    ["oven 1 metal 900C", { kind: "beyond-instrument", parameter: "metal temperature", value: 900 }],
  ])("%s is said back with what is", (text, error) => {
    expect(parseShorthand(text)).toMatchObject({ ok: false, error });
  });
  test("the key that leads to the line is no part of what is said", () => {
    expect(valueOrThrow(parseShorthand("/oven 1 melted"))).toMatchObject({ kind: "oven-event", event: "melted" });
    expect(valueOrThrow(parseShorthand("/1042"))).toEqual({ kind: "go-to", word: "1042" });
    expect(parseShorthand("/")).toMatchObject({ error: { kind: "empty" } });
  });
  test("pull and load stay what they were", () => {
    expect(valueOrThrow(parseShorthand("oven 2 pull"))).toEqual({ kind: "oven-pull", oven: "2" });
    expect(valueOrThrow(parseShorthand("oven 1 load 412 1046"))).toMatchObject({ kind: "oven-load", racks: ["1046"] });
    expect(valueOrThrow(parseShorthand("oven 1"))).toMatchObject({ kind: "go-to" });
  });
});
