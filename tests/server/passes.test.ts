import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { asNew } from "@/core/plan";
import { openCase } from "@/server/causes/case-actions";
import { loadCase } from "@/server/causes/load-case";
import { recoatHold } from "@/server/coat/over-old-film";
import { storeEntry } from "@/server/entries/store-entry";
import { loadLine } from "@/server/line/load-line";
import { newId, now } from "@/server/now";
import type { RackVerdict } from "@/server/rack/judge-rack";
import { judgeRack } from "@/server/rack/judge-rack";
import { atPass, loadRack, type RackFile, type ThreadRecord } from "@/server/rack/load-rack";
import { evidenceFor, passesOf } from "@/server/rack/passes";
import { dispose } from "@/server/release/dispose";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { failureText } from "@/ui/words/failures";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { aCoat, entryAt, freshRack, seatFilm, stored } from "../support/entries";

const record = (kind: string, minute: number, details: object = {}): ThreadRecord =>
  ({
    base: { id: `${kind}-${minute}`, kind, happened_at: new Date(minute * 60_000) },
    details,
    supersededBy: null,
  }) as unknown as ThreadRecord;
const decided = (decision: string, minute: number) => record("disposition", minute, { disposition: [{ decision }] });
const ids = (records: readonly ThreadRecord[]) => records.map((r) => r.base.id);

describe("a thread cut at its decisions", () => {
  const coat1 = record("coat", 1);
  const coat2 = record("coat", 10);
  test("nothing on record is one empty pass", () => {
    expect(passesOf([])).toEqual([{ number: 1, after: null, records: [] }]);
  });
  test.each(["accept", "hold", "concession", "scrap"])("%s ends no pass", (decision) => {
    expect(passesOf([coat1, decided(decision, 5), coat2])).toHaveLength(1);
  });
  test.each(["scuff-and-recoat", "strip"])("%s begins another, and belongs to the one it ends", (decision) => {
    const passes = passesOf([coat1, decided(decision, 5), coat2]);
    expect(passes.map((p) => ids(p.records))).toEqual([["coat-1", "disposition-5"], ["coat-10"]]);
    expect(passes[1]?.after?.decision).toBe(decision);
  });
  test("a hold before a recoat stays in the first pass", () => {
    const passes = passesOf([coat1, decided("hold", 3), decided("scuff-and-recoat", 5)]);
    expect(passes.map((p) => p.records.length)).toEqual([3, 0]);
  });
  test("a recoat keeps what the metal saw before; a strip keeps nothing", () => {
    const blast = record("prep-step", 0);
    const recoated = passesOf([blast, coat1, decided("scuff-and-recoat", 5), coat2]);
    expect(ids(evidenceFor(recoated, 1))).toEqual(["prep-step-0", "coat-1", "disposition-5", "coat-10"]);
    const stripped = passesOf([blast, coat1, decided("strip", 5), coat2]);
    expect(ids(evidenceFor(stripped, 1))).toEqual(["coat-10"]);
    expect(ids(evidenceFor(stripped, 0))).toEqual(["prep-step-0", "coat-1", "disposition-5"]);
    const both = passesOf([blast, decided("strip", 2), coat1, decided("scuff-and-recoat", 5), coat2]);
    expect(ids(evidenceFor(both, 2))).toEqual(["coat-1", "disposition-5", "coat-10"]);
  });
});

describe("a rack that goes through twice", () => {
  let t: TestDatabase;
  const at = now();
  const earlier = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
  const lead = person("lead", "ines");
  const inspector = person("inspector", "tomasz");
  beforeAll(async () => {
    t = await testDatabase();
  });
  afterAll(() => t.drop());
  const get = async (number: string): Promise<RackFile> => {
    const rack = await loadRack(t.app, lead, number);
    if (!rack) throw new Error(number);
    return rack;
  };
  const judged = async (number: string): Promise<RackVerdict> => {
    const rack = await get(number);
    return judgeRack(rack, await conditionsWhenPassed(t.app, [rack.id], at));
  };
  const item = (verdict: RackVerdict, name: string) => verdict.items.find((i) => i.item === name);
  const decide = async (number: string, decision: string, when = at) => {
    const rack = await get(number);
    const seen = rack.current.findLast((r) => r.base.kind === "disposition")?.base.id ?? null;
    return dispose(t.app, lead, { id: newId(), rack: number, decision, note: "for the test", seen }, when);
  };
  const film = (rack: string, um: number, minutesAgo: number, coatNo = 1) =>
    stored(t, inspector, earlier(minutesAgo), {
      kind: "thickness",
      rack,
      source: "typed",
      typedUnit: "um",
      coatNo,
      readings: seatFilm(um),
    });
  const cut = (rack: string, squaresLost: number, minutesAgo: number) =>
    stored(t, inspector, earlier(minutesAgo), {
      kind: "cross-cut",
      rack,
      squaresLost,
      squares: 25,
      spacingMm: 2,
      onPanel: true,
    });

  test("recoat: the thin film is out in the first pass, and no longer judged in the second", async () => {
    await freshRack(t, "P100", { at: earlier(400) });
    await stored(t, inspector, earlier(390), { kind: "passage", rack: "P100", stage: "blast" });
    await film("P100", 42, 300);
    await cut("P100", 0, 290);
    expect(item(await judged("P100"), "film")).toMatchObject({ result: "out" });
    expect(await decide("P100", "scuff-and-recoat", earlier(280))).toMatchObject({ ok: true });
    const fresh = await judged("P100");
    for (const name of ["film", "cure", "adhesion"])
      expect(item(fresh, name), name).toMatchObject({ result: "unknown" });
    expect(fresh.missing.map((i) => i.item)).toEqual(expect.arrayContaining(["film", "cure", "adhesion"]));
    await film("P100", 76, 60, 2);
    await cut("P100", 0, 50);
    const again = await judged("P100");
    expect(item(again, "film")).toMatchObject({ result: "in" });
    expect(item(again, "adhesion")).toMatchObject({ result: "in", iso: 0 });
    const first = atPass(await get("P100"), 0);
    expect(item(judgeRack(first, { passages: [], baths: [] }), "film")).toMatchObject({ result: "out" });
    expect(first.latest.some((r) => r.base.kind === "passage")).toBe(true);
  });
  test("powder over the old film: scuffed, its earth read and with no more voltage than before, or set aside by a lead", async () => {
    await freshRack(t, "P110", { at: earlier(400) });
    await stored(t, inspector, earlier(395), { ...aCoat(), rack: "P110" });
    await decide("P110", "scuff-and-recoat", earlier(300));
    const coat = (who: typeof lead, over: object, minutes = 200) =>
      storeEntry(t.app, who, entryAt(earlier(minutes), { ...aCoat(), rack: "P110", coatNo: 2, ...over }), at);
    expect(await coat(inspector, { earthMohm: null, kv: null })).toMatchObject({
      failure: { kind: "recoat-not-ready", number: "P110", asks: ["scuff", "earth", "voltage"] },
    });
    await stored(t, inspector, earlier(250), {
      kind: "prep-step",
      rack: "P110",
      step: "scuff",
      done: true,
      value: null,
      note: "",
    });
    const refused = await coat(inspector, { kv: 85 });
    expect(refused).toMatchObject({ failure: { asks: ["voltage-reduced"] } });
    if (!refused.ok)
      expect(failureText(refused.failure)).toBe(
        "Rack P110 goes over an old film, which still asks for: no more than 70 kV by its coat before, and 85 kV was typed.",
      );
    expect(await coat(inspector, { kv: 85, leftOut: "the lead said so" })).toMatchObject({
      failure: { kind: "role-refused", needs: "release" },
    });
    expect(await coat(inspector, { kv: 60 }, 240)).toMatchObject({ ok: true });
    expect(await coat(lead, { kv: 85, coatNo: 3, leftOut: "an even coat, tried on a panel" }, 180)).toMatchObject({
      ok: true,
    });
  });
  test("an old film that is not the shop’s own and was not taken off asks for a tape test on it and a photo", async () => {
    await freshRack(t, "P111", { at: earlier(400) });
    const rack = await get("P111");
    const old = {
      ...rack,
      job: { ...rack.job, plan: { ...rack.job.plan, condition: { ...asNew, oldCoating: "unknown" as const } } },
    };
    const of = { layer: "top", at, kv: 60, earthMohm: 0.3, sheetKv: null };
    expect(recoatHold(old, of)).toMatchObject({ kind: "recoat-not-ready", asks: ["scuff", "tape-test", "photo"] });
    expect(recoatHold(rack, of)).toBeNull();
  });
  test("while it waits it stands at Prepare, to be done again; its old readings are not in the count", async () => {
    await freshRack(t, "P101", { at: earlier(400) });
    await stored(t, inspector, earlier(395), { ...aCoat(), rack: "P101" });
    await stored(t, inspector, earlier(390), { kind: "passage", rack: "P101", stage: "oven" });
    await film("P101", 40, 300);
    await decide("P101", "scuff-and-recoat", earlier(200));
    const on = (await loadLine(t.app, lead, at)).racks.find((r) => r.number === "P101");
    expect(on).toMatchObject({ stage: "prepare", what: "to-recoat", readings: 0, result: "watch" });
    await stored(t, inspector, earlier(100), { kind: "passage", rack: "P101", stage: "booth" });
    expect((await loadLine(t.app, lead, at)).racks.find((r) => r.number === "P101")).toMatchObject({
      stage: "coat",
      what: "running",
    });
  });
  test("strip: the wash of the first pass is not the second's", async () => {
    await freshRack(t, "P102", { at: earlier(400), stages: ["blast", "conversion", "booth", "oven"] });
    await stored(t, inspector, earlier(380), { kind: "line-run", rack: "P102", line: "Washer 1", speedMPerMin: 1.2 });
    expect(item(await judged("P102"), "pretreatment")?.result).not.toBe("unknown");
    await decide("P102", "strip", earlier(300));
    expect(item(await judged("P102"), "pretreatment")).toMatchObject({ result: "unknown", grade: "unknown" });
    expect((await loadLine(t.app, lead, at)).racks.find((r) => r.number === "P102")).toMatchObject({
      stage: "prepare",
      what: "to-strip",
    });
    await stored(t, inspector, earlier(200), { kind: "line-run", rack: "P102", line: "Washer 1", speedMPerMin: 1.2 });
    expect(item(await judged("P102"), "pretreatment")?.result).not.toBe("unknown");
  });
  test("a proof that is missing outweighs a watch; what is out outweighs both", async () => {
    await freshRack(t, "P105", { at: earlier(400) });
    await film("P105", 62, 300);
    await stored(t, inspector, earlier(290), {
      kind: "thickness",
      rack: "P105",
      source: "typed",
      typedUnit: "um",
      coatNo: 1,
      readings: [50, 50, 50].map((valueUm) => ({ face: "S", spot: "S1", valueUm, typed: "50" })),
    });
    const verdict = await judged("P105");
    expect(item(verdict, "film")?.result).toBe("watch");
    expect(verdict).toMatchObject({ result: "unknown" });
    expect(verdict.missing.map((i) => i.item)).toEqual(expect.arrayContaining(["cure", "adhesion"]));
    await cut("P105", 20, 280);
    expect(await judged("P105")).toMatchObject({ result: "out", limiting: { item: "adhesion" } });
  });
  test("a recoat keeps its wash", async () => {
    await freshRack(t, "P103", { at: earlier(400), stages: ["blast", "conversion", "booth", "oven"] });
    await stored(t, inspector, earlier(380), { kind: "line-run", rack: "P103", line: "Washer 1", speedMPerMin: 1.2 });
    await decide("P103", "scuff-and-recoat", earlier(300));
    expect(item(await judged("P103"), "pretreatment")?.result).not.toBe("unknown");
  });
  test("a defect seen before the recoat is traced in the first pass, after it in the second", async () => {
    await freshRack(t, "P104", { at: earlier(400) });
    await film("P104", 130, 350);
    const peel = (minutesAgo: number) =>
      stored(t, inspector, earlier(minutesAgo), {
        kind: "defect",
        rack: "P104",
        structure: null,
        defect: "orange-peel",
        face: null,
        x: null,
        y: null,
        extentPercent: 30,
        piecesAffected: 1,
        piecesSeen: 2,
        note: "",
      });
    const before = await peel(340);
    await decide("P104", "scuff-and-recoat", earlier(330));
    await film("P104", 75, 200, 2);
    const after = await peel(190);
    const filmHigh = async (defectRecordId: string) => {
      const opened = await openCase(t.app, lead, { defectRecordId, zone: "Seat" }, at);
      const number = opened.ok && opened.href ? (opened.href.split("/").pop() as string) : "";
      return (await loadCase(t.app, lead, number))?.established.find((f) => f.finding === "film-high")?.state;
    };
    expect(await filmHigh(before)).toBe("present");
    expect(await filmHigh(after)).toBe("absent");
  });
  test("the demo's twice-coated rack was thin, and is in after its second coat", async () => {
    const { number } = await t.app
      .selectFrom("disposition")
      .innerJoin("record", "record.id", "disposition.record_id")
      .innerJoin("rack", "rack.id", "record.rack_id")
      .select("rack.number")
      .where("decision", "=", "scuff-and-recoat")
      .where("rack.number", "not like", "P%")
      .executeTakeFirstOrThrow();
    const rack = await get(number);
    expect(rack.passes).toHaveLength(2);
    expect(item(judgeRack(atPass(rack, 0), { passages: [], baths: [] }), "film")?.result).toBe("out");
    const second = await judged(number);
    expect(item(second, "film")?.result).not.toBe("out");
    expect(item(second, "cure")).toMatchObject({ result: "in" });
    expect(second.missing).toEqual([]);
  });
});
