import { describe, expect, test } from "vitest";
import { decisions, isReleased, leaves, reworkOf, type StandingFacts, standingOf } from "@/core/line";
import type { Rates } from "@/core/plan";
import { madeStages, reworkCost, stagesEscaped } from "@/core/release";
import { rates as someRates } from "../support/rates";

const rates: Rates = {
  ...someRates,
  currency: "EUR",
  labourPerHour: 60,
  sprayM2PerHour: 10,
  sandM2PerHour: 5,
  stripM2PerHour: 2,
  stripPerM2: 9,
  blastM2PerHour: 8,
  washM2PerHour: 20,
  transferEfficiency: 0.6,
  powderLoss: 0.1,
};
const asked = {
  pieces: 4,
  areaM2: 0.5,
  filmUm: 80,
  powder: { specificGravity: 1.6, pricePerKg: 8 },
  rates,
  minutes: null,
} as const;
/** 2 m² × 80 µm × 1.6 g/cm³ = 0.256 kg on the parts; through 60 % and a tenth lost. */
const kg = 0.256 / 0.6 / 0.9;

describe("what can be decided", () => {
  test("what lets it go, what goes out with a paper, what goes back", () => {
    expect(decisions.filter(leaves)).toEqual(["accept", "concession", "downgrade", "scrap"]);
    expect(decisions.filter(isReleased)).toEqual(["accept", "concession", "downgrade"]);
    expect(decisions.filter((d) => reworkOf(d) !== null)).toEqual(["wipe-off", "scuff-and-recoat", "strip"]);
    expect([leaves(null), isReleased(undefined), reworkOf("nothing")]).toEqual([false, false, null]);
  });
});

describe("what rework costs", () => {
  test("wiped off: powder and spraying once more", () => {
    const cost = reworkCost({ ...asked, decision: "wipe-off" });
    expect(cost.ok && cost.value).toMatchObject({ currency: "EUR", hours: 0.2 });
    expect(cost.ok && cost.value.powderKg).toBeCloseTo(kg, 9);
    expect(cost.ok && cost.value.cost).toBeCloseTo(kg * 8 + 0.2 * 60, 9);
  });
  test("recoated: scuffed as well; stripped: taken off, blasted and washed as well", () => {
    const recoat = reworkCost({ ...asked, decision: "scuff-and-recoat" });
    expect(recoat.ok && recoat.value.hours).toBeCloseTo(2 / 10 + 2 / 5, 9);
    const strip = reworkCost({ ...asked, decision: "strip" });
    expect(strip.ok && strip.value.hours).toBeCloseTo(2 / 10 + 2 / 2 + 2 / 8 + 2 / 20, 9);
    expect(strip.ok && strip.value.cost).toBeCloseTo(kg * 8 + 1.55 * 60 + 2 * 9, 9);
  });
  test("minutes that somebody took stand for the reckoned hours; a touch-up sprays nothing", () => {
    const touched = reworkCost({ ...asked, decision: "touch-up", minutes: 15 });
    expect(touched).toMatchObject({ value: { powderKg: 0, hours: 0.25, cost: 15 } });
    expect(reworkCost({ ...asked, decision: "wipe-off", minutes: 0 })).toMatchObject({ value: { hours: 0 } });
  });
  test("minutes under nothing, or a part without area, are refused", () => {
    expect(reworkCost({ ...asked, decision: "strip", minutes: -1 })).toMatchObject({ error: { kind: "bad-input" } });
    expect(reworkCost({ ...asked, decision: "strip", areaM2: 0 })).toMatchObject({ error: { kind: "bad-input" } });
  });
});

describe("how far a fault got", () => {
  test("stages between where it was made and where it was found", () => {
    expect(stagesEscaped("coat", "coat")).toBe(0);
    expect(stagesEscaped("coat", "test")).toBe(2);
    expect(stagesEscaped("as-it-came", "prepare")).toBe(1);
    expect(stagesEscaped("pretreat", "field")).toBe(5);
  });
  test("not known where either is not, or where it was found before it can have been made", () => {
    expect([stagesEscaped(null, "test"), stagesEscaped("coat", null)]).toEqual([null, null]);
    expect(stagesEscaped("cure", "coat")).toBeNull();
    expect(stagesEscaped("elsewhere", "test")).toBeNull();
    expect(madeStages).toEqual(["as-it-came", "prepare", "pretreat", "coat", "cure", "test"]);
  });
});

describe("where a rack stands after it", () => {
  const facts: StandingFacts = {
    hungMs: 0,
    passage: null,
    decision: null,
    reworkedMs: null,
    touchedUpMs: null,
    route: ["blast", "booth"],
    blastedMs: 5,
    convertedMs: null,
    wipedMs: null,
    coat: null,
    bake: null,
    readings: 0,
    asked: 9,
    iso: null,
    worstIso: 1,
    rubbed: false,
    covered: [],
    testsDue: 0,
    defect: null,
  };
  test("wiped off: at the coat, to be coated again, its metal bare since the blast", () => {
    const after = standingOf({ ...facts, decision: { what: "wipe-off", atMs: 10 }, reworkedMs: 10 });
    expect(after).toMatchObject({
      stage: "coat",
      state: "to-coat-again",
      next: "coat-again",
      nextSinceMs: 10,
      bareSinceMs: 5,
      goneMs: null,
    });
  });
  test("to be touched up until it was; then it waits for what it waited for", () => {
    const decision = { what: "touch-up", atMs: 10 };
    const done = { ...facts, readings: 9, iso: 0, rubbed: true, coat: { layer: "top", atMs: 6 }, decision };
    expect(standingOf(done)).toMatchObject({
      state: "to-touch-up",
      next: "touch-up",
      stage: "release",
      result: "watch",
    });
    expect(standingOf({ ...done, touchedUpMs: 9 })).toMatchObject({ state: "to-touch-up" });
    expect(standingOf({ ...done, touchedUpMs: 10 })).toMatchObject({ state: "to-release", next: "release" });
  });
  test.each(["accept", "concession", "downgrade", "scrap"])("%s takes it off the line", (what) => {
    expect(standingOf({ ...facts, decision: { what, atMs: 10 } })).toMatchObject({ goneMs: 10, next: null });
  });
});
