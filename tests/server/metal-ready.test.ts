import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { storeEntry } from "@/server/entries/store-entry";
import { now } from "@/server/now";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { aCoat, entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const operator = person("operator", "maren");
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

describe("metal that is not ready for powder", () => {
  const step = (rack: string, name: string, minutes: number, how: object | null = null) =>
    stored(t, operator, ago(minutes), {
      kind: "prep-step",
      rack,
      step: name,
      done: true,
      value: null,
      note: "",
      how,
    });
  const coatOf = (rack: string, minutes: number, by = operator, over: object = {}) =>
    storeEntry(t.app, by, entryAt(ago(minutes), { ...aCoat(), rack, ...over }), at);
  test("bare past the limit wants cleaning again; mineral spirits half an hour; a lead may set it aside with a reason", async () => {
    await freshRack(t, "MR1", { at: ago(3000) });
    await step("MR1", "degrease", 2990);
    await step("MR1", "blast", 2980);
    expect(await coatOf("MR1", 60)).toMatchObject({
      failure: { kind: "metal-not-ready", number: "MR1", hold: { kind: "bare-too-long" } },
    });
    expect(await coatOf("MR1", 60, operator, { leftOut: "dry store, looked at" })).toMatchObject({
      failure: { kind: "role-refused" },
    });
    await step("MR1", "degrease", 50);
    await step("MR1", "solvent-wipe", 45, { solvent: "mineral spirits" });
    expect(await coatOf("MR1", 25)).toMatchObject({
      failure: { hold: { kind: "flash-off", solvent: "mineral spirits", minutes: 30 } },
    });
    expect(await coatOf("MR1", 14)).toMatchObject({ ok: true });
  });
  test("nor any oven while solvent is on it: an outgassing bake waits", async () => {
    await freshRack(t, "MR2", { at: ago(200) });
    await step("MR2", "solvent-wipe", 100, { solvent: "mineral spirits" });
    const timeS = Array.from({ length: 61 }, (_, i) => i * 60);
    const bake = (minutes: number) =>
      storeEntry(
        t.app,
        operator,
        entryAt(ago(minutes), {
          kind: "outgas",
          rack: "MR2",
          channels: [{ name: "Leg", medium: "metal", timeS, tempC: timeS.map((s) => Math.min(225, 20 + s)) }],
        }),
        at,
      );
    expect(await bake(80)).toMatchObject({ failure: { hold: { kind: "flash-off" } } });
    expect(await bake(69)).toMatchObject({ ok: true });
  });
  test("earth out or no draught means stop, until it is looked at again", async () => {
    await freshRack(t, "MR3", { at: ago(200) });
    const flight = (minutes: number, value: number) =>
      stored(t, operator, ago(minutes), {
        kind: "pre-flight",
        rack: "MR3",
        situation: "first-coat",
        sheet: null,
        lot: null,
        items: [{ item: "hook-part", how: "measured", value, good: null, note: "" }],
      });
    await flight(100, 40);
    expect(await coatOf("MR3", 90)).toMatchObject({ failure: { kind: "stop-first", items: ["hook-part"] } });
    await flight(80, 0.2);
    expect(await coatOf("MR3", 70)).toMatchObject({ ok: true });
  });
});
