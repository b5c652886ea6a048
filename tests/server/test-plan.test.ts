import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { dispose } from "@/server/release/dispose";
import { lookAgainOpen } from "@/server/release/look-again";
import { setupAt } from "@/server/setup/setup-data";
import { planStates } from "@/server/test-plan/plan-states";
import { saveTestPlan } from "@/server/test-plan/save-test-plan";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { failureText } from "@/ui/words/failures";
import { itemSentence } from "@/ui/words/verdict";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { aCoat, entryAt, freshRack, stored } from "../support/entries";
import { goodCut, provenRack } from "../support/proven";

let t: TestDatabase;
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
const operator = person("operator", "maren");
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

type Line = { test: string; every: string; n: number | null; first: boolean };
const anyWork = { customer: null, part: null, job: null, exposure: [] as string[] };
const data = (name: string, scope: object, lines: readonly Line[]) => ({
  name,
  scope: { ...anyWork, ...scope },
  lines,
  switching: { backAfter: 2, easeAfter: 3 },
  retired: false,
});
const save = (of: object) =>
  saveTestPlan(t.app, lead, { code: null, seen: null, reason: "how we test", data: of }, () => ago(500));
const line = (test: string, every: string, n: number | null = null, first = false): Line => ({ test, every, n, first });
const item = async (number: string, name: string) => {
  const rack = await loadRack(t.app, lead, number);
  if (!rack) throw new Error(`no rack ${number}`);
  const verdict = judgeRack(rack, await conditionsWhenPassed(t.app, [rack.id], rack.hungAt));
  const found = verdict.items.find((i) => i.item === name);
  if (!found) throw new Error(`${number} has no ${name}`);
  return found;
};
const standing = (number: string) =>
  t.app.selectFrom("rack_standing").selectAll().where("number", "=", number).executeTakeFirstOrThrow();
/** Racks of a part hung and coated one after the other. */
const coated = async (part: string, numbers: readonly string[], from: number) => {
  for (const [i, number] of numbers.entries()) {
    await freshRack(t, number, { part, at: ago(from - i * 2) });
    await stored(t, lead, ago(from - 1 - i * 2), { ...aCoat(), rack: number });
  }
};
const cut = (rack: string, minutes: number, lost = 0) =>
  stored(t, inspector, ago(minutes), { ...goodCut, rack, squaresLost: lost });
const asked = async (number: string, name = "adhesion") => (await item(number, name)).plan;

describe("a plan is put on record", () => {
  test.each([
    ["one rack in how many", data("a", {}, [line("rub", "nth")]), /one rack in how many/],
    ["a run that cannot wait", data("a", {}, [line("rub", "load", null, true)]), /lot, shift or job/],
    ["the same test twice", data("a", {}, [line("rub", "lot"), line("rub", "rack")]), /twice/],
    ["no test", data("a", {}, []), /one test/],
    ["a customer nobody knows", data("a", { customer: "C99" }, [line("rub", "lot")]), /C99/],
    ["a job nobody knows", data("a", { job: "J-NONE" }, [line("rub", "lot")]), /J-NONE/],
  ])("without %s it is refused, in words", async (_, of, words) => {
    const refused = await save(of);
    expect(refused.ok).toBe(false);
    if (!refused.ok) expect(failureText(refused.failure)).toMatch(words);
  });
});

describe("one rack in three", () => {
  beforeAll(async () => {
    expect(await save(data("Seats", { part: "FERRY-SEAT" }, [line("adhesion", "nth", 3)]))).toMatchObject({ ok: true });
    await coated("FERRY-SEAT", ["TP1", "TP2", "TP3", "TP4"], 300);
  });
  test("asks the first and the fourth, and the others wait for the first", async () => {
    expect(await asked("TP1")).toMatchObject({ asked: true, why: "first-of-unit", by: "open" });
    expect(await asked("TP2")).toMatchObject({ asked: false, by: "open", racks: ["TP1"] });
    expect(await asked("TP4")).toMatchObject({ asked: true, by: "open" });
    expect(await standing("TP1")).toMatchObject({ tests_due: ["adhesion"], sample_due: [] });
    expect(await standing("TP3")).toMatchObject({ tests_due: [], sample_due: ["adhesion"] });
    const said = itemSentence(await item("TP2", "adhesion"), "metric");
    expect(said.word).toBe("Waits for its sample");
    expect(said.text).toContain("rack TP1");
  });
  test("the first is in: the others stand by it, by procedure and no better", async () => {
    await cut("TP1", 200);
    expect(await item("TP1", "adhesion")).toMatchObject({ result: "in", grade: "measured", plan: { by: "itself" } });
    expect(await item("TP2", "adhesion")).toMatchObject({
      result: "in",
      grade: "by-procedure",
      plan: { by: "sample", racks: ["TP1"] },
    });
    expect(await standing("TP3")).toMatchObject({ sample_due: [] });
    expect(itemSentence(await item("TP2", "adhesion"), "metric").word).toBe("Holds, by sample");
    expect((await item("TP4", "adhesion")).result).toBe("unknown");
  });
  test("one that is tested itself stands by its own test", async () => {
    await cut("TP2", 190);
    expect(await item("TP2", "adhesion")).toMatchObject({ grade: "measured", plan: { by: "itself" } });
  });
  test("the fourth is out: the rest of its run is tested itself, and every rack is asked until two are good", async () => {
    await cut("TP4", 180, 9);
    await coated("FERRY-SEAT", ["TP5"], 170);
    expect(await asked("TP5")).toMatchObject({ asked: true, why: "tightened", level: "tightened" });
    await cut("TP5", 160);
    await coated("FERRY-SEAT", ["TP6"], 158);
    expect(await asked("TP6")).toMatchObject({ asked: true, level: "tightened" });
    await cut("TP6", 150);
    await coated("FERRY-SEAT", ["TP7", "TP8"], 148);
    expect(await asked("TP7")).toMatchObject({ asked: true, level: "normal", why: "first-of-unit" });
    expect(await asked("TP8")).toMatchObject({ asked: false, racks: ["TP7"] });
    const [plan] = [...(await setupAt(t.app, "test-plan", at)).values()].filter((p) => p.data.name === "Seats");
    if (!plan) throw new Error("no plan");
    expect((await planStates(t.app, [plan])).get(`${plan.id} adhesion`)).toMatchObject({ level: "normal", good: 0 });
  });
  test("a sample that turns out otherwise sends those that stood by it to be tested", async () => {
    const first = await cut("TP7", 140);
    expect((await item("TP8", "adhesion")).result).toBe("in");
    await stored(t, inspector, ago(140), {
      ...goodCut,
      rack: "TP7",
      squaresLost: 12,
      supersedes: { recordId: first, reason: "counted on the photo again" },
    });
    const told = await item("TP8", "adhesion");
    expect(told).toMatchObject({ result: "unknown", plan: { by: "sample-out", racks: ["TP7"] } });
    expect(itemSentence(told, "metric").text).toContain("was out");
    expect((await standing("TP8")).sample_due).toEqual(["adhesion"]);
  });
  test("one that is stripped and coated again is asked itself", async () => {
    await dispose(t.app, lead, { id: newId(), rack: "TP3", decision: "strip", note: "runs", seen: null }, ago(130));
    await stored(t, lead, ago(120), { ...aCoat(), rack: "TP3", leftOut: "stripped and blasted outside" });
    expect(await asked("TP3")).toMatchObject({ asked: true, why: "coated-again" });
  });
});

describe("a test that is left out", () => {
  const skip = (who: typeof lead, rack: string, reason: string) =>
    storeEntry(t.app, who, entryAt(ago(50), { kind: "test-skip", rack, test: "adhesion", reason }), at);
  test("is a lead's, with a reason that stands where the result would", async () => {
    await coated("FERRY-SEAT", ["TP20"], 100);
    expect(await skip(inspector, "TP20", "the tape ran out")).toMatchObject({
      ok: false,
      failure: { kind: "role-refused" },
    });
    expect(await skip(lead, "TP20", "no")).toMatchObject({ ok: false, failure: { kind: "bad-entry" } });
    expect(await skip(lead, "TP20", "the tape ran out")).toMatchObject({ ok: true });
    const told = await item("TP20", "adhesion");
    expect(told).toMatchObject({ result: "watch", grade: "unknown", plan: { by: "skipped" } });
    expect(itemSentence(told, "metric")).toMatchObject({ word: "Left out", text: /the tape ran out/ });
    expect((await standing("TP20")).tests_due).toEqual([]);
  });
  test("is refused where no plan asks it", async () => {
    await freshRack(t, "TP21", { part: "BOLLARD-COVER", at: ago(100) });
    const refused = await skip(lead, "TP21", "the tape ran out");
    expect(refused).toMatchObject({ ok: false, failure: { kind: "test-not-called" } });
    if (!refused.ok) expect(failureText(refused.failure)).toContain("TP21");
  });
});

describe("the first of a lot, before the rest", () => {
  const coat = (rack: string, minutes: number, over: object = {}, who = operator) =>
    storeEntry(t.app, who, entryAt(ago(minutes), { ...aCoat(), rack, ...over }), at);
  test("holds the others until it is tested and good, or a lead says why not", async () => {
    expect(await save(data("Covers", { part: "BOLLARD-COVER" }, [line("rub", "lot", null, true)]))).toMatchObject({
      ok: true,
    });
    for (const n of ["TF1", "TF2", "TF3"])
      await freshRack(t, n, { part: "BOLLARD-COVER", stages: ["booth", "oven"], at: ago(90) });
    expect(await coat("TF1", 89)).toMatchObject({ ok: true });
    const refused = await coat("TF2", 88);
    expect(refused).toMatchObject({ ok: false, failure: { kind: "first-piece-first", first: "TF1", out: false } });
    if (!refused.ok) expect(failureText(refused.failure)).toContain("rack TF1 is not tested yet");
    expect(await coat("TF2", 87, { leftOut: "the customer waits at the gate" })).toMatchObject({
      ok: false,
      failure: { kind: "role-refused" },
    });
    expect(await coat("TF2", 86, { leftOut: "the customer waits at the gate" }, lead)).toMatchObject({ ok: true });
    const rub = {
      kind: "solvent-rub",
      rack: "TF1",
      doubleRubs: 50,
      limit: 50,
      grade: 5,
      knownCuredGrade: null,
      onPanel: true,
    };
    await stored(t, inspector, ago(80), rub);
    expect(await coat("TF3", 79)).toMatchObject({ ok: true });
    expect((await item("TF3", "rub")).plan).toMatchObject({ by: "sample", racks: ["TF1"] });
  });
});

describe("by load, and two at once", () => {
  test("one of each oven load is asked as the load goes in", async () => {
    expect(await save(data("Gates", { part: "PIER-GATE" }, [line("gloss-60", "load")]))).toMatchObject({ ok: true });
    for (const n of ["TL1", "TL2", "TL3"]) {
      await freshRack(t, n, { part: "PIER-GATE", powder: "GR-210", stages: ["booth", "oven"], at: ago(75) });
      await stored(t, lead, ago(74), { ...aCoat("GR-210"), rack: n });
    }
    const load = (no: string, racks: readonly string[], minutes: number) =>
      stored(t, inspector, ago(minutes), {
        kind: "load",
        oven: "Oven 1",
        loadNo: no,
        timing: "door-close",
        setPointC: 205,
        places: racks.map((rack) => ({ rack, place: "" })),
      });
    await load("TL-A", ["TL1", "TL2"], 60);
    const plans = [await asked("TL1", "test"), await asked("TL2", "test")];
    expect(plans.map((p) => p?.asked).sort()).toEqual([false, true]);
    expect((await loadRack(t.app, lead, "TL3"))?.calls.size).toBe(0);
  });
  test("of two racks of a lot coated at once one is asked", async () => {
    expect(await save(data("Panels", { part: "TEST-PANEL" }, [line("adhesion", "shift")]))).toMatchObject({ ok: true });
    for (const n of ["TW1", "TW2", "TW3", "TW4"])
      await freshRack(t, n, { part: "TEST-PANEL", stages: ["booth", "oven"], at: ago(40) });
    const made = await Promise.all(
      ["TW1", "TW2", "TW3", "TW4"].map((rack) =>
        storeEntry(t.app, operator, entryAt(ago(39), { ...aCoat(), rack }), at),
      ),
    );
    for (const one of made) expect(one).toMatchObject({ ok: true });
    const plans = await Promise.all(["TW1", "TW2", "TW3", "TW4"].map((n) => asked(n)));
    expect(plans.filter((p) => p?.asked)).toHaveLength(1);
  });
});

describe("a release by sample", () => {
  test("is signed with its sample named, and looked at again when the sample turns out otherwise", async () => {
    // Two racks of one job with everything in but the cut; the first of them is cut.
    await freshRack(t, "TR0", { part: "FERRY-SEAT", at: ago(450) });
    expect(
      await save(data("Of a job", { customer: "C1", part: "FERRY-SEAT" }, [line("adhesion", "shift")])),
    ).toMatchObject({
      ok: true,
    });
    await provenRack(t, "TR1", ago, {}, { cut: false });
    await provenRack(t, "TR2", ago, {}, { cut: false });
    const first = await cut("TR1", 100);
    expect(await item("TR2", "adhesion")).toMatchObject({ plan: { by: "sample", racks: ["TR1"] } });
    const accept = { id: newId(), rack: "TR2", decision: "accept", note: "as planned", seen: null };
    expect(await dispose(t.app, lead, accept, ago(90))).toMatchObject({ ok: true });
    const { id } = await t.app.selectFrom("rack").select("id").where("number", "=", "TR2").executeTakeFirstOrThrow();
    expect(await lookAgainOpen(t.app, id)).toBe(false);
    await stored(t, inspector, ago(100), {
      ...goodCut,
      rack: "TR1",
      squaresLost: 12,
      supersedes: { recordId: first, reason: "counted on the photo again" },
    });
    expect(await lookAgainOpen(t.app, id)).toBe(true);
  });
});
