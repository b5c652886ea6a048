import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { judgeAgain } from "@/server/cure/judge-again";
import { layersOf } from "@/server/cure/layers";
import { likeBakes } from "@/server/cure/like-bakes";
import { loadLoad } from "@/server/cure/open-load";
import { pullLoad } from "@/server/entries/pull-load";
import { loadLine } from "@/server/line/load-line";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, entityId, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "maren");
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const coat = (rack: string, minutesAgo: number, coatNo: number, over: object) =>
  stored(t, operator, ago(minutesAgo), {
    kind: "coat",
    rack,
    coatNo,
    layer: "top",
    lot: "GR-505/2611-4",
    booth: "booth 1",
    kv: 70,
    currentUa: 20,
    gunAirKPa: 60,
    distanceMm: 220,
    earthMohm: 0.3,
    hookCycles: 1,
    sprayedHot: false,
    colourChangeBefore: false,
    reclaimPercent: 10,
    ...over,
  });
const closed = (rack: string, loadNo: string, minutesAgo: number, setPointC: number) =>
  stored(t, operator, ago(minutesAgo), {
    kind: "load",
    oven: "Oven 1",
    loadNo,
    timing: "metal-at-temperature",
    setPointC,
    places: [{ rack, place: "B2" }],
  });
const pulled = async (rack: string, loadNo: string, minutes: number, metalC: number, pulledAt: Date) => {
  const file = await loadLoad(t.app, operator, "oven-1", loadNo, pulledAt);
  const timeS = Array.from({ length: minutes * 6 + 1 }, (_, i) => i * 10);
  const trace = [{ name: rack, medium: "metal" as const, timeS, tempC: timeS.map(() => metalC) }];
  const outcome = await pullLoad(t.app, operator, { recordId: file?.recordId ?? "" }, newId(), pulledAt, trace);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.failure));
};

describe("a primer gelled before its top coat", () => {
  test("in the oven it is held against its gel, on the load's page and on Shift", async () => {
    await freshRack(t, "G100", { at: ago(400), primer: true });
    await coat("G100", 200, 1, { layer: "primer", lot: "GR-640/2611-4", system: "primer-gelled" });
    await closed("G100", "L-1", 180, 185);
    const file = await loadLoad(t.app, operator, "oven-1", "L-1", ago(175));
    expect(file?.racks[0]).toMatchObject({ gel: true, powder: "GR-640 Epoxy primer" });
    expect(file?.racks[0]?.schedule.points[0]).toEqual({ metalC: 150, minutes: 5 });
    expect(file?.racks[0]?.schedule.overbake).toEqual([{ metalC: 150, minutes: 12 }]);
    const open = (await loadLine(t.app, lead, ago(175))).bakes.find((b) => b.load === "L-1");
    expect(open?.racks).toEqual(["G100"]);
  });
  test("pulled it is gelled and no more: the rack's cure is still missing", async () => {
    await pulled("G100", "L-1", 6, 150, ago(170));
    const rack = await loadRack(t.app, lead, "G100");
    if (!rack) throw new Error("no rack");
    const verdict = judgeRack(rack, { passages: [], baths: [] });
    expect(verdict.missing.map((i) => i.item)).toContain("cure");
    expect(verdict.items.find((i) => i.item === "cure")).toMatchObject({
      result: "unknown",
      bake: null,
      failure: { kind: "only-gelled", gelled: "gelled" },
    });
    const [primer] = layersOf(rack);
    expect(primer).toMatchObject({ coatNo: 1, layer: "primer", powder: "GR-640 Epoxy primer", bakes: 1 });
    expect(primer?.gel?.state).toBe("gelled");
    expect(primer?.gel?.index).toBeCloseTo(120, 0);
  });
  test("with its top coat cured, each layer by its own sheet, all bakes it went through added up", async () => {
    await coat("G100", 150, 2, {});
    await closed("G100", "L-2", 140, 205);
    const top = await loadLoad(t.app, operator, "oven-1", "L-2", ago(139));
    expect(top?.racks[0]).toMatchObject({ gel: false, powder: expect.stringContaining("GR-505") });
    await pulled("G100", "L-2", 12, 200, ago(120));
    const rack = await loadRack(t.app, lead, "G100");
    if (!rack) throw new Error("no rack");
    const cure = judgeRack(rack, { passages: [], baths: [] }).items.find((i) => i.item === "cure");
    // Twelve minutes at 200 °C by the line through the sheet's three points, which asks 10.2 there.
    expect(cure?.item === "cure" && cure.bake?.decidingIndex).toBeCloseTo(117.3, 0);
    const [primer, finish] = layersOf(rack);
    expect(primer?.bakes).toBe(2);
    expect(primer?.index).toBeGreaterThan(117.3);
    expect(finish).toMatchObject({ coatNo: 2, layer: "top", bakes: 1, gel: null });
    expect(finish?.index).toBeCloseTo(117.3, 0);
  });
  test("left out of what compares full cures: other bakes of the part, and a sheet judged again", async () => {
    await freshRack(t, "G101", { at: ago(100) });
    const rack = await loadRack(t.app, lead, "G101");
    if (!rack) throw new Error("no rack");
    const alike = await likeBakes(t.app, lead, rack, at, 50);
    expect(alike.filter((b) => b.rack === "G100").map((b) => b.load)).toEqual(["L-2"]);
    expect(alike[0]?.trace.timeS.length).toBeGreaterThan(20);
    expect(alike[0]?.trace.timeS.length).toBeLessThan(700);
    const changed: string[] = [];
    for await (const step of judgeAgain(t.app, await entityId(t, "powder", "GR-505"), at))
      if (step.kind === "changed") changed.push(step.bake.load);
    expect(changed).toEqual([]);
  });
  test("without a coat on record a bake is by the job's powder", async () => {
    await stored(t, lead, ago(60), {
      kind: "load",
      oven: "Oven 1",
      loadNo: "L-3",
      timing: "metal-at-temperature",
      setPointC: 205,
      places: [{ rack: "G101", place: "B2" }],
      leftOut: "a dry run without powder",
    });
    const file = await loadLoad(t.app, operator, "oven-1", "L-3", ago(50));
    expect(file?.racks[0]).toMatchObject({ gel: false, powder: expect.stringContaining("GR-505") });
  });
});

test("of a mixed load a layer is by its rack's own probe, and air over-bakes nothing", async () => {
  await freshRack(t, "G200", { at: ago(400) });
  await coatedRack(t, "G201", { at: ago(400) });
  await coat("G200", 100, 1, {});
  await stored(t, operator, ago(90), {
    kind: "load",
    oven: "Oven 1",
    loadNo: "L-9",
    timing: "metal-at-temperature",
    setPointC: 205,
    places: ["G200", "G201"].map((rack) => ({ rack, place: "B2" })),
  });
  const open = await loadLoad(t.app, operator, "oven-1", "L-9", ago(80));
  const timeS = Array.from({ length: 73 }, (_, i) => i * 10);
  const flat = (name: string, medium: "air" | "metal", c: number) => ({
    name,
    medium,
    timeS,
    tempC: timeS.map(() => c),
  });
  const trace = [flat("Air", "air", 230), flat("G200", "metal", 200), flat("G201", "metal", 150)];
  await pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, newId(), ago(70), trace);
  const rack = await loadRack(t.app, lead, "G200");
  if (!rack) throw new Error("no rack");
  const [layer] = layersOf(rack);
  // Twelve minutes at 200 °C: over-bake 12 of its 40 minutes, not what the air at 230 would have done.
  expect(layer?.index).toBeCloseTo(117.3, 0);
  expect(layer?.overbakeIndex).toBeCloseTo(30, 0);
});

test("the demo's covers: one gelled as its sheet asks, one left too long, whose top coat lifts", async () => {
  const numbers = await t.app
    .selectFrom("rack")
    .innerJoin("job", "job.id", "rack.job_id")
    .select("rack.number")
    .where("job.number", "=", "J-419")
    .orderBy("rack.number")
    .execute();
  const states: (string | undefined)[] = [];
  for (const { number } of numbers) {
    const rack = await loadRack(t.app, lead, number);
    if (!rack) throw new Error(number);
    states.push(layersOf(rack)[0]?.gel?.state);
    const adhesion = judgeRack(rack, { passages: [], baths: [] }).items.find((i) => i.item === "adhesion");
    expect(adhesion?.result).toBe(states.at(-1) === "too-far" ? "out" : "in");
  }
  expect(states).toEqual(["gelled", "too-far"]);
});
