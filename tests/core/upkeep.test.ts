import { describe, expect, test } from "vitest";
import { filmToProfile, stepsAskedFor } from "@/core/preparation";
import { checkUpkeep, measureHolds, type UpkeepPlan, upkeepStages, upkeepStanding, usualUpkeep } from "@/core/upkeep";

const DAY = 86_400_000;
const plan: UpkeepPlan = {
  what: "Washer nozzles",
  stage: "pretreat",
  everyDays: 7,
  look: "",
  leadsTo: "",
  caution: "",
  hands: "line",
  measure: { name: "Blocked", unit: "", lower: null, upper: 0 },
};

describe("how an upkeep stands", () => {
  const at = (days: number, result: "in-order" | "put-right" | "not-in-order" = "in-order") =>
    upkeepStanding(7, { atMs: 0, result }, days * DAY);
  test.each([
    [0, "done", "in"],
    [6.2, "done", "in"],
    [6.4, "soon", "in"],
    [7, "soon", "in"],
    [7.01, "overdue", "watch"],
    [400, "overdue", "watch"],
  ] as const)("after %f of seven days: %s", (days, state, result) => {
    expect(at(days)).toMatchObject({ state, result, dueMs: 7 * DAY });
    expect(at(days, "put-right")).toEqual(at(days));
  });
  test("what was left not in order is out at once and stays so", () => {
    expect(at(0, "not-in-order")).toEqual({ state: "not-in-order", result: "out", dueMs: 0 });
    expect(at(90, "not-in-order").result).toBe("out");
  });
  test("never done is not known, not fine", () => {
    expect(upkeepStanding(7, null, DAY)).toEqual({ state: "never", result: "unknown", dueMs: null });
  });
});

describe("a plan of upkeep", () => {
  test("is taken when it can be kept", () => {
    expect(checkUpkeep(plan)).toEqual({ ok: true, value: plan });
    expect(checkUpkeep({ ...plan, measure: null }).ok).toBe(true);
  });
  test.each([
    ["interval", { everyDays: 0 }],
    ["interval", { everyDays: Number.NaN }],
    ["interval", { everyDays: 4000 }],
    ["what", { what: "  " }],
    ["measure", { measure: { name: "", unit: "%", lower: 1, upper: null } }],
    ["measure", { measure: { name: "Slope", unit: "%", lower: null, upper: null } }],
    ["measure", { measure: { name: "Slope", unit: "%", lower: 105, upper: 90 } }],
  ])("its %s is refused by name: %o", (field, over) => {
    expect(checkUpkeep({ ...plan, ...over })).toMatchObject({ ok: false, error: { kind: "bad-upkeep", field } });
  });
  test("a value holds at its limits and not beyond; nothing read is nothing judged", () => {
    const slope = { name: "Slope", unit: "%", lower: 90, upper: 105 };
    expect([89.9, 90, 105, 105.1].map((x) => measureHolds(slope, x))).toEqual([false, true, true, false]);
    expect(measureHolds(slope, null)).toBeNull();
    expect(measureHolds(null, 3)).toBeNull();
  });
  test("what is usual can be kept as it is, covers every stage, and names burners and interlocks for licensed people", () => {
    for (const usual of usualUpkeep) expect(checkUpkeep(usual).ok, usual.what).toBe(true);
    expect(new Set(usualUpkeep.map((u) => u.stage))).toEqual(new Set(upkeepStages));
    expect(new Set(usualUpkeep.map((u) => u.what)).size).toBe(usualUpkeep.length);
    for (const licensed of ["Oven burner and ventilation", "Oven interlocks and over-temperature trip"])
      expect(usualUpkeep.find((u) => u.what === licensed)?.hands).toBe("licensed");
  });
});

describe("film over profile", () => {
  test.each([
    [60, 70, 0.857, "out"],
    [60, 60, 1, "watch"],
    [60, 45, 1.333, "watch"],
    [90, 60, 1.5, "in"],
    [120, 40, 3, "in"],
  ])("%i µm over %i µm", (film, profile, ratio, result) => {
    const judged = filmToProfile(film, profile);
    expect(judged).toMatchObject({ ok: true, value: { result } });
    if (judged.ok) expect(judged.value.ratio).toBeCloseTo(ratio, 3);
  });
  test("a shop may ask for more, and nothing of either is refused", () => {
    expect(filmToProfile(90, 45, 2.5)).toMatchObject({ ok: true, value: { result: "watch" } });
    for (const [film, profile] of [
      [0, 40],
      [60, 0],
      [Number.NaN, 40],
      [60, Number.POSITIVE_INFINITY],
    ] as const)
      expect(filmToProfile(film, profile)).toMatchObject({ ok: false, error: { kind: "bad-input" } });
  });
});

test("tumbled parts are washed once more and proved by a water film; a recoat of them is not", () => {
  const asked = (features: string[], recoat: boolean) =>
    stepsAskedFor({ substrate: "cold-rolled-steel", features, stages: [], recoat });
  expect(asked(["tumbled"], false)).toEqual(expect.arrayContaining(["degrease", "water-break"]));
  expect(asked([], false)).not.toContain("water-break");
  expect(asked(["tumbled"], true)).not.toContain("degrease");
});
