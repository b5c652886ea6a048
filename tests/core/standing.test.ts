import { describe, expect, test } from "vitest";
import { nextSteps, type StandingFacts, stageOfPassage, standingOf } from "@/core/line";

const HOUR = 3_600_000;
const hung: StandingFacts = {
  hungMs: 0,
  passage: null,
  decision: null,
  reworkedMs: null,
  touchedUpMs: null,
  route: ["blast", "conversion", "booth", "oven"],
  blastedMs: null,
  convertedMs: null,
  wipedMs: null,
  coat: null,
  bake: null,
  readings: 0,
  asked: 30,
  iso: null,
  worstIso: 1,
  rubbed: false,
  covered: [],
  testsDue: 0,
  defect: null,
};
const at = (over: Partial<StandingFacts>) => standingOf({ ...hung, ...over });
const passed = (stage: string, enteredH: number, leftH: number | null = null) => ({
  stage,
  enteredMs: enteredH * HOUR,
  leftMs: leftH === null ? null : leftH * HOUR,
});
const top = { layer: "top", atMs: 3 * HOUR };
const pulled = { closedMs: 4 * HOUR, pulledMs: 5 * HOUR, traced: true };
const out = { passage: passed("cool", 5), coat: top, bake: pulled };
const read = { ...out, readings: 30 };
const tested = { ...read, iso: 0, rubbed: true };

describe("where a rack stands, step by step along its way", () => {
  test.each([
    ["hung", {}, "prepare", "prepare", "running", "in", 0],
    ["in the blast room", { passage: passed("blast", 1) }, "prepare", "wash", "running", "in", 1],
    ["blasted, bare", { passage: passed("blast", 1, 2), blastedMs: 2 * HOUR }, "prepare", "wash", "bare", "in", 2],
    ["in the wash", { passage: passed("clean", 2), blastedMs: 2 * HOUR }, "pretreat", "wash", "running", "in", 2],
    [
      "washed",
      { passage: passed("dry-off", 2, 2.5), convertedMs: 2.4 * HOUR },
      "pretreat",
      "coat",
      "running",
      "in",
      2.5,
    ],
    ["in the booth", { passage: passed("booth", 3) }, "coat", "cure", "running", "in", 3],
    ["coated", { passage: passed("booth", 3), coat: top }, "coat", "cure", "running", "in", 3],
    [
      "in the oven",
      { passage: passed("oven", 4), coat: top, bake: { ...pulled, pulledMs: null } },
      "cure",
      "pull",
      "running",
      "in",
      4,
    ],
    ["out, without a trace", { ...out, bake: { ...pulled, traced: false } }, "test", "trace", "running", "unknown", 5],
    ["out, with its trace", out, "test", "film", "running", "unknown", 5],
    ["film in hand", { ...out, readings: 29 }, "test", "film", "film-open", "unknown", 5],
    ["film read", read, "test", "tests", "running", "unknown", 5],
    ["cut, not rubbed", { ...read, iso: 0 }, "test", "tests", "running", "unknown", 5],
    ["rubbed, not cut", { ...read, rubbed: true }, "test", "tests", "running", "unknown", 5],
    [
      "rubbed, cut by sample",
      { ...read, rubbed: true, covered: ["adhesion"] },
      "release",
      "release",
      "to-release",
      "in",
      5,
    ],
    [
      "cut and rubbed, the plan asks for more",
      { ...read, iso: 0, rubbed: true, testsDue: 1 },
      "test",
      "tests",
      "running",
      "unknown",
      5,
    ],
    ["all of it", tested, "release", "release", "to-release", "in", 5],
  ] as const)("%s", (_, over, stage, next, state, result, sinceH) => {
    expect(at(over as Partial<StandingFacts>)).toMatchObject({
      stage,
      next,
      state,
      result,
      nextSinceMs: sinceH * HOUR,
      goneMs: null,
    });
  });
  test("without a wash on its route it goes from the blast room to the booth", () => {
    expect(at({ route: ["blast", "booth", "oven"], passage: passed("blast", 1, 2), blastedMs: 2 * HOUR }).next).toBe(
      "coat",
    );
    expect(at({ route: [] }).next).toBe("coat");
  });
  test("a primer that was gelled waits for the coat over it", () => {
    expect(at({ ...out, coat: { layer: "primer", atMs: 3 * HOUR } })).toMatchObject({
      next: "coat",
      nextSinceMs: 5 * HOUR,
    });
    // A second coat after that bake waits for its own.
    expect(at({ ...out, coat: { layer: "top", atMs: 6 * HOUR } }).next).toBe("cure");
  });
  test("a load that nobody pulled on record is out where the rack is seen out", () => {
    const open = { ...pulled, pulledMs: null, traced: false };
    expect(at({ passage: passed("oven", 4, 5), coat: top, bake: open }).next).toBe("trace");
    expect(at({ passage: passed("cool", 5), coat: top, bake: open }).next).toBe("trace");
    expect(at({ passage: passed("oven", 3, 3.5), coat: top, bake: open }).next).toBe("pull");
    // By hand, with no load on record at all.
    expect(at({ passage: passed("oven", 4, 5), convertedMs: HOUR })).toMatchObject({ next: "trace", stage: "test" });
  });
  test("what is wrong is said before what comes next", () => {
    expect(at({ ...read, iso: 2 })).toMatchObject({ state: "adhesion-out", result: "out", heldBy: "adhesion" });
    expect(at({ ...read, iso: 1 })).toMatchObject({ heldBy: null });
    expect(at({ ...read, defect: "pinholes" })).toMatchObject({ state: "defect", result: "watch", heldBy: "defect" });
    expect(at({ ...read, defect: "pinholes", iso: 3 })).toMatchObject({ state: "adhesion-out" });
  });
});

describe("decisions", () => {
  const decided = (what: string, over: Partial<StandingFacts> = {}) =>
    at({ ...tested, ...over, decision: { what, atMs: 9 * HOUR } });
  test.each(["accept", "concession", "scrap"])("%s takes it off the line", (what) => {
    expect(decided(what)).toMatchObject({ goneMs: 9 * HOUR, next: null });
  });
  test("a hold keeps it there, however long, for a lead", () => {
    expect(decided("hold")).toMatchObject({
      goneMs: null,
      stage: "release",
      state: "held",
      result: "out",
      next: "decide",
      nextSinceMs: 9 * HOUR,
      heldBy: "decision",
    });
    expect(decided("hold", { iso: 2 })).toMatchObject({ state: "held", heldBy: "adhesion" });
    expect(decided("hold", { iso: 1, defect: "pinholes" })).toMatchObject({ state: "held", heldBy: "defect" });
    expect(decided("hold", { iso: 2, worstIso: 2 })).toMatchObject({ heldBy: "decision" });
  });
  test.each([
    ["scuff-and-recoat", "recoat", "to-recoat"],
    ["strip", "strip", "to-strip"],
  ])("%s sends it back to prepare", (what, next, state) => {
    const back = at({ decision: { what, atMs: 9 * HOUR }, reworkedMs: 9 * HOUR });
    expect(back).toMatchObject({
      goneMs: null,
      stage: "prepare",
      next,
      state,
      result: "watch",
      passage: "sent back",
      sinceMs: 9 * HOUR,
      nextSinceMs: 9 * HOUR,
    });
    // On its way again it stands where it is.
    expect(
      at({ decision: { what, atMs: 9 * HOUR }, reworkedMs: 9 * HOUR, passage: passed("booth", 10) }),
    ).toMatchObject({ stage: "coat", next: "cure" });
  });
});

test("clocks run from the metal: bare until it is coated, unsealed from the conversion, wet from the wipe", () => {
  const facts = { blastedMs: HOUR, convertedMs: 2 * HOUR, wipedMs: 2.5 * HOUR, passage: passed("dry-off", 2, 3) };
  expect(at(facts)).toMatchObject({ bareSinceMs: HOUR, unsealedSinceMs: 2 * HOUR, wipedMs: 2.5 * HOUR });
  expect(at({ ...facts, coat: top })).toMatchObject({ bareSinceMs: null, unsealedSinceMs: null, wipedMs: null });
});

test("since: out of the last passage, else into it, else sent back, else hung; open while in it", () => {
  expect(at({ passage: passed("blast", 1, 2) })).toMatchObject({ sinceMs: 2 * HOUR, open: false });
  expect(at({ passage: passed("blast", 1) })).toMatchObject({ sinceMs: HOUR, open: true });
  expect(at({})).toMatchObject({ sinceMs: 0, open: false, passage: "hung" });
});

test("every stage of a passage is one of the line, and every step has been seen above", () => {
  for (const [passage, stage] of Object.entries(stageOfPassage))
    expect(at({ passage: passed(passage, 1) }).passage, stage).toBe(passage);
  expect(nextSteps).toHaveLength(14);
});
