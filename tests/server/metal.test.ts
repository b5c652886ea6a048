import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { chemicalStock, receiveChemical } from "@/server/baths/chemical-stock";
import { washProofs } from "@/server/baths/wash-proofs";
import { storeEntry } from "@/server/entries/store-entry";
import { now } from "@/server/now";
import { loadRack } from "@/server/rack/load-rack";
import { setupAt } from "@/server/setup/setup-data";
import { failureText } from "@/ui/words/failures";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entryAt, freshRack } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "rufus");
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());
const put = (minutes: number, entry: object, who = operator) =>
  storeEntry(t.app, who, entryAt(ago(minutes), entry), at);
const step = (rack: string, name: string, over: object = {}) => ({
  kind: "prep-step",
  rack,
  step: name,
  done: true,
  value: null,
  note: "",
  ...over,
});
const powderOf: Record<string, string> = { "LAMP-HEAD": "GR-815", "SHELTER-POST": "GR-210" };
const hang = async (part: string, number: string) => {
  await freshRack(t, number, { part, powder: powderOf[part] as string, at: ago(400) });
  return { number };
};
/** A trace: up to a heat, held for so many minutes, and down again; one sample a minute. */
const trace = (heldC: number, minutes: number) => {
  const tempC = [20, heldC / 2, ...Array.from({ length: minutes + 1 }, () => heldC), heldC / 2, 40];
  return { timeS: tempC.map((_, i) => i * 60), tempC };
};

describe("the order of the steps", () => {
  test("seals out before the outgassing bake, the bake before powder; left out with a reason it is on record", async () => {
    const rack = await hang("LAMP-HEAD", "M101");
    const coat = {
      kind: "coat",
      rack: rack.number,
      coatNo: 1,
      layer: "top",
      lot: "GR-815/2611-4",
      booth: "booth 1",
      kv: 70,
      currentUa: 20,
      gunAirKPa: 60,
      distanceMm: 200,
      earthMohm: 0.3,
      hookCycles: 1,
      sprayedHot: false,
      colourChangeBefore: false,
      reclaimPercent: 0,
    };
    const early = await put(90, coat);
    expect(early).toMatchObject({ failure: { kind: "step-out-of-order", first: "prebake" } });
    if (!early.ok) expect(failureText(early.failure)).toContain("Outgassing bake comes first");
    expect(await put(80, step(rack.number, "prebake", { done: false, note: "customer turned it down" }))).toMatchObject(
      {
        ok: true,
      },
    );
    expect(await put(70, coat)).toMatchObject({ ok: true });
  });
  test("the metal is looked over once it is blasted", async () => {
    const rack = await hang("SHELTER-POST", "M102");
    expect(await put(60, step(rack.number, "look-over", { value: 0 }))).toMatchObject({
      failure: { kind: "step-out-of-order", first: "blast" },
    });
    expect(await put(59.5, step(rack.number, "degrease"))).toMatchObject({ ok: true });
    expect(await put(59, step(rack.number, "blast", { value: 48 }))).toMatchObject({ ok: true });
    expect(await put(58, step(rack.number, "look-over", { value: 0 }))).toMatchObject({ ok: true });
  });
});

describe("an outgassing bake by its trace", () => {
  test.each([
    [232, 34, "in", 232],
    [205, 34, "watch", 205],
    [190, 40, "out", 190],
  ])("metal at %d °C for %d min is %s", async (heldC, minutes, result, value) => {
    const number = `M2${result}`;
    await hang("LAMP-HEAD", number);
    const stored = await put(200, {
      kind: "outgas",
      rack: number,
      channels: [
        { name: "Hood", medium: "metal", ...trace(heldC, minutes) },
        { name: "Rear", medium: "metal", ...trace(heldC + 6, minutes) },
        { name: "Air", medium: "air", ...trace(150, minutes) },
      ],
    });
    expect(stored).toMatchObject({ ok: true });
    const rack = await loadRack(t.app, lead, number);
    const kept = rack?.latest.find((r) => r.base.kind === "outgas");
    expect(kept?.details.outgas?.[0]).toMatchObject({ result, channel: "Hood", cure_metal_c: 200 });
    expect(kept?.details.bake_channel).toHaveLength(3);
    const made = rack?.latest.find((r) => r.base.kind === "prep-step")?.details.prep_step?.[0];
    expect(made).toMatchObject({ step: "prebake", done: true });
    expect(Math.abs((made?.value ?? 0) - value)).toBeLessThan(0.2);
  });
  test("one that is too short to hold anything is no bake: the step is out, its trace stays", async () => {
    await hang("LAMP-HEAD", "M204");
    await put(200, { kind: "outgas", rack: "M204", channels: [{ name: "Hood", medium: "metal", ...trace(240, 12) }] });
    const rack = await loadRack(t.app, lead, "M204");
    const kept = rack?.latest.find((r) => r.base.kind === "outgas")?.details.outgas?.[0];
    expect(kept).toMatchObject({ result: "out", held_c: null });
    const made = rack?.latest.find((r) => r.base.kind === "prep-step")?.details.prep_step?.[0];
    expect(made).toMatchObject({ done: false, value: null });
    expect(made?.note).toContain("240 °C");
  });
  test("times that run back, and a load of air channels only, leave nothing behind", async () => {
    await hang("LAMP-HEAD", "M205");
    const bad = (channels: object[]) => put(100, { kind: "outgas", rack: "M205", channels });
    expect(await bad([{ name: "Hood", medium: "metal", timeS: [0, 60, 30], tempC: [20, 30, 40] }])).toMatchObject({
      failure: { kind: "times-out-of-order", channel: "Hood" },
    });
    expect(await bad([{ name: "Air", medium: "air", ...trace(230, 40) }])).toMatchObject({
      failure: { kind: "no-live-metal-channel" },
    });
    expect((await loadRack(t.app, lead, "M205"))?.thread).toEqual([]);
  });
});

describe("bad metal, drying, tested panels", () => {
  test("a mark stands with its decision and reason; without one, or on a face the part has not, it does not", async () => {
    await hang("SHELTER-POST", "M301");
    const mark = {
      kind: "metal-mark",
      rack: "M301",
      what: "pits",
      face: "A",
      x: 40,
      y: 80,
      decision: "go-on",
      reason: "inside the foot plate, customer told",
    };
    expect(await put(50, mark)).toMatchObject({ ok: true });
    expect(await put(50, { ...mark, reason: "" })).toMatchObject({ failure: { kind: "bad-entry", field: "reason" } });
    expect(await put(50, { ...mark, face: "Q" })).toMatchObject({ failure: { kind: "unknown-spot" } });
    expect(await put(50, { ...mark, x: 140 })).toMatchObject({ failure: { kind: "bad-entry" } });
  });
  test("a panel's salt spray wants hours and creep, and is not washed after it was tested", async () => {
    const panel = {
      kind: "panel-test",
      bath: "Tank 3",
      test: "salt-spray",
      washedAt: ago(60 * 24 * 22).toISOString(),
      squaresLost: null,
      squares: null,
      hours: 480,
      creepMm: 1.6,
      coating: "GR-505, 76 µm",
      note: "",
    };
    const inspector = person("inspector", "tomasz");
    expect(await put(30, panel, inspector)).toMatchObject({ ok: true });
    const bath = [...(await setupAt(t.app, "bath", at)).values()].find((b) => b.code === "Tank 3");
    const [seen] = bath ? (await washProofs(t.app, bath, at)).tests : [];
    expect(seen).toMatchObject({ hours: 480, creepMm: 1.6, iso: null });
    // A panel's adhesion by its squares, of 25 where nobody says; hours and creep are no part of it.
    const cut = {
      ...panel,
      test: "adhesion",
      washedAt: ago(60 * 24 * 21).toISOString(),
      squaresLost: 5,
      hours: null,
      creepMm: null,
    };
    expect(await put(28, cut, inspector)).toMatchObject({ ok: true });
    const adhesion = bath && (await washProofs(t.app, bath, at)).tests.find((x) => x.test === "adhesion");
    expect(adhesion).toMatchObject({ iso: 3, hours: null, creepMm: null });
    // What the bath read at the hour it was washed, from the checks around it.
    const ph = seen?.baths.find((b) => b.parameter === "ph");
    expect(["measured", "assumed"]).toContain(ph?.grade);
    expect(ph?.value).toBeGreaterThan(4.9);
    expect(ph?.value).toBeLessThan(5.9);
    expect(await put(30, { ...panel, creepMm: null }, inspector)).toMatchObject({ failure: { field: "creepMm" } });
    expect(await put(30, { ...panel, washedAt: ago(10).toISOString() }, inspector)).toMatchObject({
      failure: { kind: "bad-entry", field: "washed at" },
    });
    expect(await put(30, panel)).toMatchObject({ failure: { kind: "role-refused" } });
  });
});

describe("stock of chemicals", () => {
  const left = async (code: string) => (await chemicalStock(t.app, at)).find((c) => c.code === code)?.leftL;
  test("an addition takes from the drum it names; what is over, out of date or of another product is asked or refused", async () => {
    const drum = { product: "Nitrite inhibitor", lot: "N-9", litres: 10, receivedOn: "2026-01-05", usableUntil: null };
    expect(await receiveChemical(t.app, operator, drum, at)).toEqual({ ok: true });
    expect(await receiveChemical(t.app, operator, drum, at)).toEqual({ ok: true });
    expect(await receiveChemical(t.app, operator, { ...drum, litres: 12 }, at)).toMatchObject({
      failure: { kind: "code-taken" },
    });
    const add = (over: object) => ({
      kind: "bath-event",
      bath: "Tank 3",
      event: "addition",
      product: "Nitrite inhibitor",
      amountL: 4,
      note: "",
      lot: "Nitrite inhibitor N-9",
      ...over,
    });
    expect(await put(20, add({}))).toMatchObject({ ok: true });
    expect(await left("Nitrite inhibitor N-9")).toBe(6);
    const over = await put(19, add({ amountL: 7 }));
    expect(over).toMatchObject({ failure: { kind: "addition-in-question", question: "more-than-left" } });
    if (!over.ok) expect(failureText(over.failure)).toContain("6 L left");
    expect(await put(18, add({ product: "Conversion make-up acid" }))).toMatchObject({
      failure: { kind: "another-drum" },
    });
    expect(await put(17, add({ lot: "N-404" }))).toMatchObject({ failure: { kind: "unknown-set-up" } });
    const old = { ...drum, lot: "N-1", usableUntil: "2026-02-01" };
    expect(await receiveChemical(t.app, operator, old, at)).toEqual({ ok: true });
    expect(await put(16, add({ lot: "Nitrite inhibitor N-1" }))).toMatchObject({
      failure: { kind: "addition-in-question", question: "drum-out-of-date" },
    });
    expect(await put(15, add({ amountL: 7, sure: true, note: "label says 20 L" }))).toMatchObject({ ok: true });
    expect(await left("Nitrite inhibitor N-9")).toBe(0);
  });
  test.each([
    [{ litres: 0 }, "litres"],
    [{ receivedOn: "yesterday" }, "receivedOn"],
    [{ usableUntil: "2025-01-01" }, "usable until"],
  ])("%o is refused by its name", async (over, field) => {
    const drum = { product: "Acid", lot: "X", litres: 5, receivedOn: "2026-01-05", usableUntil: null, ...over };
    expect(await receiveChemical(t.app, operator, drum, at)).toMatchObject({ failure: { kind: "bad-entry", field } });
  });
});
