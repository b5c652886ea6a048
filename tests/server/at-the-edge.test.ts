import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { nothingDone } from "@/core/plan";
import { entryFromShorthand } from "@/server/entries/from-shorthand";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { askedSteps } from "@/server/rack/asked-steps";
import { baseOf } from "@/server/rack/base-of";
import { judgeRack } from "@/server/rack/judge-rack";
import { lastHow } from "@/server/rack/last-how";
import { loadRack } from "@/server/rack/load-rack";
import { placesNoted } from "@/server/rack/places-noted";
import { dispose } from "@/server/release/dispose";
import { siteAt } from "@/server/setup/setup-data";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { aCoat, coatedRack, entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const inspector = person("inspector", "tomasz");
const lead = person("lead", "ines");
const pull = { dollyMm: 20, forceN: 1885, askedMPa: 5, onPanel: true };
const asksPullOff = { tests: [{ test: "pull-off", lower: 5, upper: null }] };

beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const tried = (rest: object, when = ago(20)) => storeEntry(t.app, inspector, entryAt(when, rest), at);
const judged = async (number: string) => {
  const rack = await loadRack(t.app, lead, number);
  if (!rack) throw new Error(number);
  return { rack, verdict: judgeRack(rack, await conditionsWhenPassed(t.app, [rack.id], rack.hungAt)) };
};
const accepted = async () => {
  const row = await t.app
    .selectFrom("rack")
    .innerJoin("record as r", "r.rack_id", "rack.id")
    .innerJoin("disposition as d", "d.record_id", "r.id")
    .where("d.decision", "=", "accept")
    .select("rack.number")
    .orderBy("rack.hung_at", "desc")
    .executeTakeFirstOrThrow();
  return row.number;
};

describe("entries at the edge of what they take", () => {
  beforeAll(async () => {
    await coatedRack(t, "X1", { at: ago(300) });
    await freshRack(t, "X2", { at: ago(300) });
  });
  const defect = { kind: "defect", rack: "X1", structure: null, defect: "orange-peel", face: "S", x: 4, y: 6 };
  test("pieces affected without how many were looked at are no contradiction; more than looked at are", async () => {
    const of = (affected: number | null, seen: number | null) =>
      tried({ ...defect, extentPercent: null, piecesAffected: affected, piecesSeen: seen, note: "" });
    expect(await of(3, null)).toMatchObject({ ok: true });
    expect(await of(null, 2)).toMatchObject({ ok: true });
    expect(await of(2, 2)).toMatchObject({ ok: true });
    expect(await of(3, 2)).toMatchObject({ failure: { kind: "more-affected-than-seen", affected: 3, seen: 2 } });
  });
  test("of several spots that are none, the first is named", async () => {
    const readings = ["S1", "Q7", "Q8"].map((spot) => ({ face: "S", spot, valueUm: 70, typed: "70" }));
    expect(
      await tried({ kind: "thickness", rack: "X1", source: "typed", typedUnit: "um", coatNo: 1, readings }),
    ).toMatchObject({ failure: { kind: "unknown-spot", spot: "Q7" } });
  });
  test("of several racks that are none, the first is named, were it the first of all", async () => {
    const load = { kind: "load", oven: "Oven 1", loadNo: "X-9", timing: "door-close", setPointC: 200 };
    for (const [racks, named] of [
      [["NONE1", "X1"], "NONE1"],
      [["X1", "NONE2", "NONE3"], "NONE2"],
    ] as const)
      expect(await tried({ ...load, places: racks.map((rack, i) => ({ rack, place: `A${i + 1}` })) })).toMatchObject({
        failure: { kind: "unknown-rack", number: named },
      });
  });
  test("a hopper heavier after than before is asked for what was added", async () => {
    const coat = (over: object) => tried({ ...aCoat(), rack: "X2", ...over }, ago(200));
    expect(await coat({ hopperBeforeKg: 14, hopperAfterKg: 15, hopperAddedKg: null })).toMatchObject({ ok: false });
    expect(await coat({ hopperBeforeKg: 14, hopperAfterKg: 12, hopperAddedKg: null })).toMatchObject({ ok: true });
  });
  test("a look before powder is measured where anything was, else by procedure, else nothing is known", async () => {
    const item = (over: object) => ({ item: "gloves", how: "skipped", value: null, good: null, note: "none", ...over });
    const measured = item({ item: "hook-part", how: "measured", value: 0.3, note: "" });
    const byProcedure = item({ how: "by-procedure", good: true, note: "" });
    for (const [items, grade] of [
      [[measured, byProcedure], "measured"],
      [[byProcedure, item({ item: "blotter" })], "by-procedure"],
      [[item({})], "unknown"],
    ] as const) {
      const id = await stored(t, inspector, ago(250), {
        kind: "pre-flight",
        rack: "X2",
        situation: "first-coat",
        sheet: "GR-505 booth 1",
        lot: "GR-505/2610-2",
        items,
      });
      const row = await t.app.selectFrom("record").select("grade").where("id", "=", id).executeTakeFirstOrThrow();
      expect(row.grade).toBe(grade);
    }
  });
  test("a rub on the entry line is held to fifty, or to as many as were rubbed", async () => {
    for (const [doubleRubs, limit] of [
      [30, 50],
      [50, 50],
      [60, 60],
    ] as const)
      expect(
        await entryFromShorthand(
          t.app,
          inspector,
          { kind: "solvent-rub", rack: "X1", doubleRubs, grade: 5 } as unknown as Parameters<
            typeof entryFromShorthand
          >[2],
          newId(),
          at.toISOString(),
        ),
      ).toMatchObject({ ok: true, value: { kind: "solvent-rub", doubleRubs, limit } });
  });
});

describe("what is asked, seen and taken off", () => {
  test("a plug to go in is asked for as a mask is; a hanging point is neither", async () => {
    const part = { name: "Lamp ring", substrate: "aluminium", thickestMm: 3, features: [], faces: [] };
    const asks = (kind: string) =>
      askedSteps({
        part: { data: { ...part, marks: [{ kind, face: "F", at: [1, 1], note: "" }], measures: null } },
        job: { plan: { system: nothingDone, condition: null, stages: [] } },
        passes: [{}],
        pass: 0,
        powder: { data: { schedule: [{ metalC: 190, minutes: 15 }] } },
        limits: { blastProfileUm: [35, 60] },
      } as unknown as Parameters<typeof askedSteps>[0]).includes("masks-in");
    expect(["mask", "plug", "hang", "rest"].map(asks)).toEqual([true, true, false, false]);
  });
  test("only what the door asks for holds it; a light place does not", async () => {
    await coatedRack(t, "X6", { at: ago(300) });
    const lamp = { kind: "lamp-check", rack: "X6", coatNo: 1, faces: ["S", "L"], plugsIn: null, note: "" };
    const spots = [{ face: "S", x: 20, y: 30, what: "light-left" }];
    await stored(t, inspector, ago(100), { ...lamp, spots, wiped: true, bumped: false });
    const load = { kind: "load", oven: "Oven 1", timing: "door-close", setPointC: 200 };
    const into = (loadNo: string, minutes: number) =>
      tried({ ...load, loadNo, places: [{ rack: "X6", place: "A1" }] }, ago(minutes));
    await stored(t, inspector, ago(90), { ...lamp, spots: [], wiped: true, bumped: true });
    const held = await into("X6-1", 80);
    expect(held).toMatchObject({ failure: { kind: "open-before-oven" } });
    expect(JSON.stringify(held)).toContain("bump");
    const closed = (what: string) =>
      tried({ kind: "item-closed", rack: "X6", what, seen: "whole, looked at" }, ago(70));
    // One that is not open is refused beside another that is.
    expect(await closed("seal-in")).toMatchObject({ failure: { kind: "not-open", what: "seal-in" } });
    expect(await closed("bump")).toMatchObject({ ok: true });
  });
  test("places noted stand once each, what was only wiped is none", () => {
    const spot = (x: number, what: string) => ({ face: "S", x, y: 1, what });
    const rack = {
      latest: [
        { details: {} },
        { details: { light_spot: [spot(1, "light-left"), spot(2, "wiped")] } },
        { details: { light_spot: [spot(1, "light-resprayed"), spot(3, "bump")] } },
      ],
    } as unknown as Parameters<typeof placesNoted>[0];
    expect(placesNoted(rack).map((p) => [p.x, p.what])).toEqual([
      [1, "light-resprayed"],
      [3, "bump"],
    ]);
  });
  test("a blast that was left out roughens nothing, nor does another step", async () => {
    const site = { ...(await siteAt(t.app, at)), gaugeSetOnSmooth: true };
    const of = (step: string, done: boolean) =>
      baseOf(
        [{ base: { kind: "prep-step" }, details: { prep_step: [{ step, done, value: 60 }] } }] as unknown as Parameters<
          typeof baseOf
        >[0],
        site,
      ).um;
    const plain = baseOf([], site).um;
    expect(of("blast", true)).toBeGreaterThan(plain);
    expect([of("blast", false), of("sand", true)]).toEqual([plain, plain]);
  });
  test("a lot and a set-up sheet are found however they are written, another's never", async () => {
    await freshRack(t, "X7", { at: ago(300) });
    const coat = (over: object) => tried({ ...aCoat(), rack: "X7", ...over }, ago(200));
    expect(await coat({ sheet: "GR-505 BOOTH 9" })).toMatchObject({
      failure: { kind: "unknown-set-up", what: "set-up sheet", name: "GR-505 BOOTH 9" },
    });
    expect(await coat({ lot: "gr-505/2611-9" })).toMatchObject({ failure: { what: "lot", name: "gr-505/2611-9" } });
    const made = await coat({ sheet: "gr-505 Booth 1", lot: "gr-505/2611-4" });
    expect(made).toMatchObject({ ok: true });
    const rack = await loadRack(t.app, lead, "X7");
    const { id } = await t.app
      .selectFrom("setup_entity")
      .select("id")
      .where("code", "=", "GR-505 booth 1")
      .executeTakeFirstOrThrow();
    expect(rack?.latest.findLast((r) => r.base.kind === "coat")?.details.coat?.[0]?.sheet_id).toBe(id);
  });
  test("a figure that nobody set a limit for is told and keeps nothing back; with one limit it is held to it", async () => {
    await coatedRack(t, "X8", { at: ago(300) });
    const item = async () => (await judged("X8")).verdict.items.find((i) => i.item === "test" && i.test === "gloss-60");
    const gloss = { kind: "cure-test", rack: "X8", test: "gloss-60", readings: [61, 62, 61], onPanel: true };
    await stored(t, inspector, ago(60), { ...gloss, lower: null, upper: null });
    const free = await item();
    expect(free === undefined || free.result === "in").toBe(true);
    await stored(t, inspector, ago(50), { ...gloss, lower: 70, upper: null });
    expect((await item())?.result).toBe("out");
  });
});

describe("tests repeated", () => {
  const item = async (number: string) =>
    (await judged(number)).verdict.items.find((i) => i.item === "test" && i.test === "pull-off");
  test("a pull whose glue gave way is no result, until another one speaks", async () => {
    await coatedRack(t, "X3", { asked: asksPullOff, at: ago(300) });
    expect(await item("X3")).toMatchObject({ result: "unknown", value: null });
    const glue = { adhesivePercent: 0, cohesivePercent: 0, gluePercent: 100 };
    await stored(t, inspector, ago(60), { kind: "pull-off", rack: "X3", ...pull, forceN: 900, ...glue });
    expect(await item("X3")).toMatchObject({ result: "unknown", noResult: true });
    const film = { adhesivePercent: 10, cohesivePercent: 90, gluePercent: 0 };
    await stored(t, inspector, ago(50), { kind: "pull-off", rack: "X3", ...pull, ...film });
    expect(await item("X3")).toMatchObject({ result: "in", noResult: false });
    await stored(t, inspector, ago(40), { kind: "pull-off", rack: "X3", ...pull, forceN: 900, ...film });
    expect(await item("X3")).toMatchObject({ result: "out", noResult: false });
  });
});

describe("the verdict of the whole", () => {
  test("one gap alone keeps a rack from being accepted, and is what limits it", async () => {
    const number = await accepted();
    const before = await judged(number);
    expect([before.verdict.result, before.verdict.out, before.verdict.missing]).toEqual(["in", [], []]);
    expect(before.verdict.limiting).toBeNull();
    await stored(t, inspector, ago(3), {
      kind: "defect",
      rack: number,
      structure: null,
      defect: "orange-peel",
      face: null,
      x: null,
      y: null,
      extentPercent: 10,
      piecesAffected: 1,
      piecesSeen: 2,
      note: "",
    });
    const { rack, verdict } = await judged(number);
    expect(verdict.out).toHaveLength(1);
    expect(verdict.missing).toEqual([]);
    expect(verdict.limiting).toBe(verdict.out[0]);
    const seen = rack.current.findLast((r) => r.base.kind === "disposition")?.base.id ?? null;
    const decide = (decision: string, conceded: number) =>
      dispose(t.app, lead, { id: newId(), rack: number, decision, note: "all in order", seen, conceded }, at);
    expect(await decide("accept", 0)).toMatchObject({
      failure: { kind: "accept-against-verdict", items: [verdict.out[0]?.item] },
    });
    expect(await decide("concession", 0)).toMatchObject({ failure: { kind: "concession-unseen", seen: 0 } });
  });
  test("steps all on record are as good as the weakest of them; one missing, and nothing of them is known", async () => {
    const steps = async (number: string) => (await judged(number)).verdict.items.find((i) => i.item === "steps");
    await freshRack(t, "X4", { stages: ["booth", "oven"], part: "FERRY-SEAT", at: ago(300) });
    const asked = await steps("X4");
    if (asked?.item !== "steps") throw new Error("no steps");
    expect(asked).toMatchObject({ result: "unknown", grade: "unknown" });
    for (const [i, step] of asked.missing.entries()) {
      await stored(t, inspector, ago(200 - i), {
        kind: "prep-step",
        rack: "X4",
        step,
        done: true,
        value: null,
        note: "",
      });
      expect((await steps("X4"))?.grade, step).toBe(i < asked.missing.length - 1 ? "unknown" : "by-procedure");
    }
    expect(await steps("X4")).toMatchObject({ missing: [], asked: asked.asked });
  });
});

test("how a step was done last is offered again for sixty days", async () => {
  await freshRack(t, "X5", { at: ago(70 * 1440) });
  const blasted = ago(65 * 1440);
  const offered = async (days: number) =>
    (await lastHow(t.app, new Date(blasted.getTime() + days * 86_400_000))).sand ?? null;
  const before = { kind: "prep-step", rack: "X5", step: "degrease", done: true, value: null, note: "" };
  await stored(t, inspector, new Date(blasted.getTime() - 60_000), before);
  await stored(t, inspector, blasted, {
    kind: "prep-step",
    rack: "X5",
    step: "sand",
    done: true,
    value: null,
    note: "",
    how: { grit: 120 },
  });
  const held = await Promise.all([0, 1, 59].map(offered));
  expect(held.every((how) => how !== null)).toBe(true);
  expect(await offered(61)).toBeNull();
});
