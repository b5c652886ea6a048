import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { entryFromShorthand } from "@/server/entries/from-shorthand";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { lastHow } from "@/server/rack/last-how";
import { loadRack } from "@/server/rack/load-rack";
import { dispose } from "@/server/release/dispose";
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
