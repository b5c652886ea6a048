import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { now } from "@/server/now";
import { filmLayers, filmSets, leftToBuild } from "@/server/rack/film-layers";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { dispose } from "@/server/release/dispose";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { freshRack, seatFilm, stored } from "../support/entries";

let t: TestDatabase;
const inspector = person("inspector", "tomasz");
const lead = person("lead", "ines");
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const read = (rack: string, minutes: number, um: number, faces = "SL") =>
  stored(t, inspector, ago(minutes), {
    kind: "thickness",
    rack,
    source: "typed",
    typedUnit: "um",
    coatNo: 1,
    sure: true,
    readings: seatFilm(um).filter((r) => faces.includes(r.face)),
  });
const coat = (rack: string, minutes: number, coatNo: number, layer: "primer" | "top") =>
  stored(t, inspector, ago(minutes), {
    kind: "coat",
    rack,
    coatNo,
    layer,
    lot: layer === "primer" ? "GR-640/2611-4" : "GR-505/2610-2",
    booth: "booth 1",
    kv: 70,
    currentUa: null,
    gunAirKPa: null,
    distanceMm: null,
    earthMohm: 0.3,
    hookCycles: null,
    sprayedHot: null,
    colourChangeBefore: null,
    reclaimPercent: null,
  });
const rackFile = async (number: string) => {
  const rack = await loadRack(t.app, inspector, number);
  if (!rack) throw new Error("no rack");
  return rack;
};
const nothing = { passages: [], baths: [] };
const filmOf = (rack: Awaited<ReturnType<typeof rackFile>>) => {
  const film = judgeRack(rack, nothing).items.find((i) => i.item === "film");
  return film?.item === "film" ? film : null;
};
const standingOf = async (number: string) =>
  t.app.selectFrom("rack_standing").select(["readings", "asked"]).where("number", "=", number).executeTakeFirst();

describe("film by layer and in all", () => {
  test("a primer's reading is no reading of the film in all: after the top coat that is unread again", async () => {
    await freshRack(t, "LY1", { at: ago(590), primer: true });
    await coat("LY1", 500, 1, "primer");
    await read("LY1", 480, 62);
    expect(filmOf(await rackFile("LY1"))).toMatchObject({ result: "in", film: { read: 10 } });
    expect(await standingOf("LY1")).toEqual({ readings: 30, asked: 30 });
    expect(leftToBuild(await rackFile("LY1"), 75)?.map((um) => Math.round(um * 10) / 10)).toEqual([13, 6.5, 4.3]);
    await coat("LY1", 400, 2, "top");
    const open = await rackFile("LY1");
    expect(filmOf(open)).toMatchObject({ result: "unknown", film: null, sources: [] });
    expect(await standingOf("LY1")).toEqual({ readings: 0, asked: 30 });
    expect(filmLayers(open)).toMatchObject({ underSpots: 10, top: null });
    expect(leftToBuild(open, 60)).toEqual([]);
  });
  test("the top coat alone is told spot by spot, and judged in all", async () => {
    await read("LY1", 300, 85);
    const rack = await rackFile("LY1");
    expect(filmSets(rack)).toHaveLength(1);
    expect(filmOf(rack)).toMatchObject({ result: "in", film: { meanUm: 85 } });
    expect(filmLayers(rack)?.top).toMatchObject({ ok: true, value: { topUm: 23, by: "pairs", toldApart: true } });
    expect(filmLayers(rack)?.underUm).toBeCloseTo(62, 9);
  });
  test("a recoat lies over the film of the pass before; one that reads less says so", async () => {
    await freshRack(t, "LY2", { at: ago(590), primer: true });
    await coat("LY2", 500, 1, "top");
    await read("LY2", 450, 58);
    const sent = await dispose(
      t.app,
      lead,
      { id: crypto.randomUUID(), rack: "LY2", decision: "scuff-and-recoat", note: "thin all over", seen: null },
      () => ago(300),
    );
    expect(sent).toMatchObject({ ok: true });
    expect(leftToBuild(await rackFile("LY2"), 75)?.[0]).toBeCloseTo(17, 9);
    await stored(t, inspector, ago(210), {
      kind: "prep-step",
      rack: "LY2",
      step: "scuff",
      done: true,
      value: null,
      note: "",
    });
    await coat("LY2", 200, 2, "top");
    expect(filmLayers(await rackFile("LY2"))).toMatchObject({ underSpots: 10, top: null });
    await read("LY2", 100, 50, "S");
    expect(filmLayers(await rackFile("LY2"))?.top).toMatchObject({ ok: false, error: { kind: "primer-over-total" } });
  });
  test("without anything read under it there are no layers to tell", async () => {
    await freshRack(t, "LY3", { at: ago(590), primer: true });
    await coat("LY3", 500, 1, "top");
    await read("LY3", 450, 70);
    expect(filmLayers(await rackFile("LY3"))).toBeNull();
  });
});
