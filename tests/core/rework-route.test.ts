import { describe, expect, it } from "vitest";
import { type RouteCode, type RouteStep, reworkRoute } from "@/core/plan";

const step = (stage: RouteStep["stage"], code: RouteCode): RouteStep => ({
  stage,
  code,
  parameters: [],
  checks: [],
  hold: code === "release",
  fulfilledBy: null,
});
const card: readonly RouteStep[] = [
  step("prepare", "degrease"),
  step("prepare", "blast"),
  step("pretreat", "conversion"),
  step("pretreat", "dry-off"),
  step("coat", "primer"),
  step("cure", "gel-primer"),
  step("coat", "top-coat"),
  step("cure", "cure"),
  step("test", "film"),
  step("test", "adhesion"),
  step("release", "release"),
];
const codes = (steps: readonly RouteStep[]) => steps.map((s) => s.code);

describe("what a rework adds to a card", () => {
  it("of a recoat: scuffed, clean, one coat with the earth read and less voltage, cured, tested anew", () => {
    const steps = reworkRoute("scuff-and-recoat", card, { mostUm: 180 });
    expect(codes(steps)).toEqual([
      "scuff",
      "blow-off",
      "solvent-wipe",
      "top-coat",
      "cure",
      "film",
      "adhesion",
      "release",
    ]);
    const coat = steps.find((s) => s.code === "top-coat");
    expect(coat?.checks).toContain("less-voltage");
    expect(coat?.parameters).toContainEqual({ name: "film in all", lower: null, upper: 180, unit: "µm" });
  });
  it("of powder wiped off: its coats again, dried only where it was rinsed", () => {
    expect(codes(reworkRoute("wipe-off", card))).toEqual(["wipe-off", ...codes(card.slice(4))]);
    expect(codes(reworkRoute("wipe-off", card, { rinsed: true })).slice(0, 3)).toEqual([
      "wipe-off",
      "dry-off",
      "primer",
    ]);
  });
  it("of a strip: everything again", () => {
    expect(codes(reworkRoute("strip", card))).toEqual(["strip", ...codes(card)]);
  });
  it("of a touch-up: the list, and a release", () => {
    expect(codes(reworkRoute("touch-up", card))).toEqual(["touch-up", "release"]);
  });
});
