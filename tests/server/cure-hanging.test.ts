import { afterAll, beforeAll, expect, test } from "vitest";
import { coolingOf } from "@/server/cure/cooling";
import { hangingRacks, loadLoad } from "@/server/cure/open-load";
import { pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { loadRack } from "@/server/rack/load-rack";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, entityId, entryAt, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "maren");
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
  await coatedRack(t, "H100", { at: ago(400) });
  await coatedRack(t, "H101", { at: ago(400), part: "MOORING-BASE", powder: "GR-210", customer: "C2" });
});
afterAll(() => t.drop());

const rackOf = async (number: string) => {
  const rack = await loadRack(t.app, lead, number);
  if (!rack) throw new Error(number);
  return rack;
};

test("racks as they hang: metal, heaviest section, mass of all pieces, faces; those of others are not there", async () => {
  const both = await hangingRacks(t.app, operator, ["H101", "H100", "nobody"], at);
  expect(both.map((r) => r.rack)).toEqual(["H100", "H101"]);
  expect(both[1]).toMatchObject({ metal: "steel", sectionMm: 25, massKg: 62, faces: ["Face"] });
  expect(await hangingRacks(t.app, operator, [], at)).toEqual([]);
  const otto = person("viewer", "otto", await entityId(t, "customer", "C1"));
  expect((await hangingRacks(t.app, otto, ["H100", "H101"], at)).map((r) => r.rack)).toEqual(["H100"]);
});

test("cooling counts from the pull: nothing before it, the heaviest last, a reading for all that hung together", async () => {
  expect(await coolingOf(t.app, await rackOf("H100"), at)).toBeNull();
  await stored(t, operator, ago(90), {
    kind: "load",
    oven: "Oven 1",
    loadNo: "H-1",
    timing: "door-close",
    setPointC: 205,
    places: ["H100", "H101"].map((rack) => ({ rack, place: "B2" })),
  });
  expect(await coolingOf(t.app, await rackOf("H100"), ago(60))).toBeNull();
  const open = await loadLoad(t.app, operator, "oven-1", "H-1", ago(60));
  await pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, newId(), ago(50));
  const [thin, heavy] = await Promise.all(
    ["H100", "H101"].map(async (n) => coolingOf(t.app, await rackOf(n), ago(40))),
  );
  expect(thin).toMatchObject({ state: "warm", grade: "assumed", load: "H-1", oven: "Oven 1" });
  expect(heavy?.nowC).toBeGreaterThan((thin?.nowC ?? 0) + 30);
  expect(heavy?.coolAt?.getTime()).toBeGreaterThan(thin?.coolAt?.getTime() ?? 0);
  // The plate takes hours; the seat is cool within one.
  expect(await coolingOf(t.app, await rackOf("H100"), at)).toMatchObject({ state: "cool" });
  expect(await coolingOf(t.app, await rackOf("H101"), at)).toMatchObject({ state: "warm" });
  // What was read is the piece that was read: a cool cover says nothing of the plate beside it.
  const cool = { kind: "bake-event", oven: "Oven 1", loadNo: "H-1", event: "cool", note: "" };
  await stored(t, operator, ago(4), { ...cool, valueC: 30, rack: "H100" });
  expect(await coolingOf(t.app, await rackOf("H100"), at)).toMatchObject({
    state: "cool",
    grade: "measured",
    nowC: 30,
  });
  expect(await coolingOf(t.app, await rackOf("H101"), at)).toMatchObject({ state: "warm", grade: "assumed" });
  await stored(t, operator, ago(3), { ...cool, valueC: 38, rack: "H101" });
  expect(await coolingOf(t.app, await rackOf("H101"), at)).toMatchObject({
    state: "cool",
    grade: "measured",
    nowC: 38,
  });
  // Said of no rack it is said of all.
  await stored(t, operator, ago(2), { ...cool, valueC: 36 });
  for (const number of ["H100", "H101"])
    expect(await coolingOf(t.app, await rackOf(number), at)).toMatchObject({ state: "cool", nowC: 36 });
  const file = await loadLoad(t.app, operator, "oven-1", "H-1", at);
  expect(file?.events.map((e) => e.rack)).toEqual(["H100", "H101", null]);
  // A person held to one customer is not told which of another's racks was read.
  const otto = person("viewer", "otto", await entityId(t, "customer", "C1"));
  const own = await loadLoad(t.app, otto, "oven-1", "H-1", at);
  expect(own?.events.map((e) => e.rack)).toEqual(["H100", null]);
  const stray = entryAt(ago(1), { ...cool, valueC: 36, rack: "H102" });
  await coatedRack(t, "H102", { at: ago(400) });
  expect(await storeEntry(t.app, operator, stray, at)).toMatchObject({
    failure: { kind: "rack-not-in-load", number: "H102", load: "H-1" },
  });
});
