import { v7 as uuidv7 } from "uuid";
import { afterAll, beforeAll, expect, test } from "vitest";
import { loadLoad } from "@/server/cure/open-load";
import { pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { loadLine } from "@/server/line/load-line";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = new Date();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "maren");
const lead = person("lead", "ines");
const sections = ["Left", "Right"];
beforeAll(async () => {
  t = await testDatabase();
  for (const number of ["K100", "K101"]) await freshRack(t, number, { at: ago(400) });
});
afterAll(() => t.drop());

const lit = (over: object = {}) => ({
  kind: "load",
  oven: "Lamps 1",
  loadNo: "K-9",
  timing: "door-close",
  setPointC: 205,
  places: [{ rack: "K100", place: "" }],
  sections,
  ...over,
});
const reading = (minutesAgo: number, section: string | null, valueC: number, over: object = {}) =>
  storeEntry(
    t.app,
    operator,
    entryAt(ago(minutesAgo), {
      kind: "bake-event",
      oven: "Lamps 1",
      loadNo: "K-9",
      event: "infrared",
      valueC,
      emissivity: 0.95,
      aim: "coated-part",
      section,
      note: "",
      ...over,
    }),
    at,
  );
const cureOf = async (number: string) => {
  const rack = await loadRack(t.app, lead, number);
  if (!rack) throw new Error(number);
  const item = judgeRack(rack, { passages: [], baths: [] }).items.find((i) => i.item === "cure");
  if (item?.item !== "cure") throw new Error("no cure");
  return item;
};

test.each([
  ["without its sections", { sections: null }, { kind: "sections-missing", oven: "Lamps 1" }],
  [
    "with two pieces",
    {
      places: [
        { rack: "K100", place: "" },
        { rack: "K101", place: "" },
      ],
    },
    { kind: "lamps-one-rack", count: 2 },
  ],
  ["with a section twice", { sections: ["Left", "left"] }, { kind: "bad-entry", field: "sections" }],
  ["with no section in its list", { sections: [] }, { kind: "bad-entry", field: "sections" }],
])("a load under lamps %s is refused", async (_, over, failure) => {
  expect(await storeEntry(t.app, operator, entryAt(ago(90), lit(over)), at)).toMatchObject({ ok: false, failure });
});

test("lit, read section by section, off: judged by its sections, the one cut short named", async () => {
  await stored(t, operator, ago(90), lit());
  const open = await loadLoad(t.app, operator, "lamps-1", "K-9", ago(89));
  expect(open).toMatchObject({ sections, timing: "section-by-section", pulledAt: null });
  const before = (await loadLine(t.app, lead, ago(88))).bakes.find((b) => b.load === "K-9");
  expect(before).toMatchObject({ index: null, oven: "Lamps 1" });

  expect(await reading(86, "Side", 190)).toMatchObject({ failure: { kind: "unknown-section", section: "Side" } });
  expect(await reading(86, null, 190)).toMatchObject({ failure: { kind: "section-missing" } });
  for (let m = 86; m >= 60; m -= 2) expect(await reading(m, "Left", 195)).toMatchObject({ ok: true });
  // On the lamp's own reflector: kept, not relied on.
  expect(await reading(59, "Left", 240, { aim: "rack" })).toMatchObject({ ok: true });

  // Left is through, Right never read: not cured, whatever the index of the one says.
  const half = (await loadLine(t.app, lead, ago(58))).bakes.find((b) => b.load === "K-9");
  expect(half?.index).toBeGreaterThan(110);
  expect(half?.cured).toBe(false);
  for (let m = 50; m >= 44; m -= 2) expect(await reading(m, "Right", 190)).toMatchObject({ ok: true });

  const id = uuidv7();
  const pull = () => pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, id, ago(42));
  expect(await pull()).toMatchObject({ ok: true });
  expect(await pull()).toMatchObject({ ok: true, already: true });
  const pulled = await loadLoad(t.app, operator, "lamps-1", "K-9", at);
  expect(pulled?.channels.map((c) => [c.name, c.medium])).toEqual([
    ["Left", "metal"],
    ["Right", "metal"],
  ]);
  const cure = await cureOf("K100");
  expect(cure).toMatchObject({ result: "out", grade: "measured" });
  expect(cure.bake?.decidingChannel).toBe("Right");
  expect(cure.bake?.channels.find((c) => c.name === "Left")?.index).toBeGreaterThan(110);
});

test("off with a section never read its cure is unknown, and the section is named", async () => {
  await stored(t, operator, ago(40), lit({ loadNo: "K-10", places: [{ rack: "K101", place: "" }] }));
  for (let m = 38; m >= 12; m -= 2) await reading(m, "Left", 195, { loadNo: "K-10" });
  const open = await loadLoad(t.app, operator, "lamps-1", "K-10", ago(10));
  await pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, uuidv7(), ago(8));
  const cure = await cureOf("K101");
  expect(cure.result).toBe("unknown");
  expect(cure.bake?.unknownPlaces).toEqual(["Right"]);
});

test("a section on a load in an oven is refused", async () => {
  await freshRack(t, "K102", { at: ago(300) });
  await stored(t, operator, ago(30), {
    kind: "load",
    oven: "Oven 1",
    loadNo: "K-11",
    timing: "door-close",
    setPointC: 205,
    places: [{ rack: "K102", place: "A1" }],
    sections,
  });
  expect((await loadLoad(t.app, operator, "oven-1", "K-11", at))?.sections).toBeNull();
  expect(await reading(20, "Left", 190, { oven: "Oven 1", loadNo: "K-11" })).toMatchObject({
    failure: { kind: "unknown-section" },
  });
});

test("the demo's gate: three sections cured, the foot of the right leaf short", async () => {
  const file = await loadLoad(t.app, lead, "lamps-1", "K-1", at);
  const cure = await cureOf(file?.racks[0]?.rack ?? "");
  expect(cure.result).toBe("out");
  expect(cure.bake?.decidingChannel).toBe("Right leaf, foot");
  expect(cure.bake?.channels.filter((c) => c.index >= 100)).toHaveLength(3);
});
