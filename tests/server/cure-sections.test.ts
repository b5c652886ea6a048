import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { loadLoad } from "@/server/cure/open-load";
import { pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { importFile } from "@/server/imports/import-file";
import { loadLine } from "@/server/line/load-line";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { recentRecords } from "@/server/search/recent";
import { sayRecord } from "@/ui/kinds/say-record";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, entityId, entryAt, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "maren");
const lead = person("lead", "ines");
const sections = ["Left", "Right"];
beforeAll(async () => {
  t = await testDatabase();
  for (const number of ["K100", "K101"]) await coatedRack(t, number, { at: ago(400) });
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

  const id = newId();
  const pull = () => pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, id, ago(42));
  expect(await pull()).toMatchObject({ ok: true });
  expect(await pull()).toMatchObject({ ok: true, already: true });
  const pulled = await loadLoad(t.app, operator, "lamps-1", "K-9", at);
  expect(pulled?.channels.map((c) => [c.name, c.medium])).toEqual([
    ["Left", "metal"],
    ["Right", "metal"],
  ]);
  // On the record each reading is told with its section; what was pulled is no correction that a shift must hear of.
  const told = await recentRecords(t.app, lead, at, 60, { rack: "K100" });
  expect(told.filter((r) => r.kind === "bake-event").map((r) => sayRecord(r, "metric"))).toContainEqual(
    expect.stringMatching(/^metal read by infrared, \d+ °C, Left$/),
  );
  const changes = await recentRecords(t.app, lead, at, 200, { changesSince: ago(120) });
  expect(changes.some((r) => r.kind === "bake")).toBe(false);
  const cure = await cureOf("K100");
  expect(cure).toMatchObject({ result: "out", grade: "measured" });
  expect(cure.bake?.decidingChannel).toBe("Right");
  expect(cure.bake?.channels.find((c) => c.name === "Left")?.index).toBeGreaterThan(110);
});

test("off with a section never read its cure is unknown, and the section is named", async () => {
  await stored(t, operator, ago(40), lit({ loadNo: "K-10", places: [{ rack: "K101", place: "" }] }));
  for (let m = 38; m >= 12; m -= 2) await reading(m, "Left", 195, { loadNo: "K-10" });
  const open = await loadLoad(t.app, operator, "lamps-1", "K-10", ago(10));
  await pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, newId(), ago(8));
  const cure = await cureOf("K101");
  expect(cure.result).toBe("unknown");
  expect(cure.bake?.unknownPlaces).toEqual(["Right"]);
});

test("a section on a load in an oven is refused", async () => {
  await coatedRack(t, "K102", { at: ago(300) });
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

describe("a recorder's file for a rack that is under lamps", () => {
  const file = (rack: string, startedAt: Date, over: Record<string, string> = {}) => {
    const form = new FormData();
    const rows = Array.from({ length: 60 }, (_, i) => {
      const c = (tau: number) => (200 - 180 * Math.exp((-i * 20) / tau)).toFixed(1);
      const s = i * 20;
      return `0:${String(Math.floor(s / 60)).padStart(2, "0")}:${String(s % 60).padStart(2, "0")},${c(100)},${c(240)}`;
    });
    form.set("file", new File([`Elapsed,Air (C),Seat (C)\n${rows.join("\n")}\n`], "oven.csv"));
    for (const [key, value] of Object.entries({
      store: "yes",
      sure: "yes",
      rack,
      startedAt: startedAt.toISOString(),
      ...over,
    }))
      form.set(key, value);
    return form;
  };
  const inspector = person("inspector", "tomasz");
  test("is a bake of its own: it does not become the trace of its sections", async () => {
    await coatedRack(t, "K110", { at: ago(300) });
    await stored(t, operator, ago(120), lit({ loadNo: "K-20", places: [{ rack: "K110", place: "" }] }));
    expect(await importFile(t.app, inspector, file("K110", ago(118)), at)).toMatchObject({ ok: true, stored: 60 });
    const open = await loadLoad(t.app, operator, "lamps-1", "K-20", at);
    expect(open).toMatchObject({ pulledAt: null, channels: [], sections });
    const bakes = await t.app
      .selectFrom("bake_place")
      .innerJoin("bake", "bake.record_id", "bake_place.record_id")
      .innerJoin("rack", "rack.id", "bake_place.rack_id")
      .select(["bake.load_no", "bake.sections"])
      .where("rack.number", "=", "K110")
      .execute();
    expect(bakes).toHaveLength(2);
    expect(bakes.find((b) => b.load_no !== "K-20")?.sections).toBeNull();
  });
  test("without an oven named it is an oven's, never the lamps'", async () => {
    await coatedRack(t, "K111", { at: ago(300) });
    expect(await importFile(t.app, inspector, file("K111", ago(100)), at)).toMatchObject({ ok: true, stored: 60 });
    const row = await t.app
      .selectFrom("bake_place")
      .innerJoin("bake", "bake.record_id", "bake_place.record_id")
      .innerJoin("rack", "rack.id", "bake_place.rack_id")
      .innerJoin("setup_entity", "setup_entity.id", "bake.oven_id")
      .select("setup_entity.code")
      .where("rack.number", "=", "K111")
      .executeTakeFirstOrThrow();
    expect(row.code).toMatch(/^Oven/);
    await coatedRack(t, "K112", { at: ago(300) });
    expect(await importFile(t.app, inspector, file("K112", ago(40), { oven: "Oven 9" }), at)).toMatchObject({
      ok: false,
      failure: { kind: "unknown-oven-name", name: "Oven 9" },
    });
  });
});

describe("who may", () => {
  const viewer = person("viewer", "otto");
  test("a viewer neither lights lamps, reads a section nor turns them off", async () => {
    await coatedRack(t, "K120", { at: ago(300) });
    const input = entryAt(ago(9), lit({ loadNo: "K-30", places: [{ rack: "K120", place: "" }] }));
    expect(await storeEntry(t.app, viewer, input, at)).toMatchObject({ failure: { kind: "role-refused" } });
    await stored(t, operator, ago(9), lit({ loadNo: "K-30", places: [{ rack: "K120", place: "" }] }));
    const read = entryAt(ago(8), {
      kind: "bake-event",
      oven: "Lamps 1",
      loadNo: "K-30",
      event: "infrared",
      valueC: 190,
      section: "Left",
      note: "",
    });
    expect(await storeEntry(t.app, viewer, read, at)).toMatchObject({ failure: { kind: "role-refused" } });
    const open = await loadLoad(t.app, operator, "lamps-1", "K-30", at);
    expect(await pullLoad(t.app, viewer, { recordId: open?.recordId ?? "" }, newId(), at)).toMatchObject({
      failure: { kind: "role-refused" },
    });
    expect((await loadLoad(t.app, operator, "lamps-1", "K-30", at))?.pulledAt).toBeNull();
  });
  test("a reading sent twice is one reading", async () => {
    const input = entryAt(ago(7), {
      kind: "bake-event",
      oven: "Lamps 1",
      loadNo: "K-30",
      event: "infrared",
      valueC: 191,
      section: "Right",
      note: "",
    });
    const outcomes = await Promise.all([1, 2, 3].map(() => storeEntry(t.app, operator, input, at)));
    expect(outcomes.every((o) => o.ok)).toBe(true);
    const file = await loadLoad(t.app, operator, "lamps-1", "K-30", at);
    expect(file?.events.filter((e) => e.section === "Right")).toHaveLength(1);
  });
  test("in the oven of a customer's rack another customer's person sees nothing of it", async () => {
    const other = person("viewer", "otto", await entityId(t, "customer", "C3"));
    expect(await loadLoad(t.app, other, "lamps-1", "K-30", at)).toBeNull();
    expect((await loadLine(t.app, other, at)).bakes.some((b) => b.load === "K-30")).toBe(false);
  });
});

test("the demo's gate: three sections cured, the foot of the right leaf short", async () => {
  const file = await loadLoad(t.app, lead, "lamps-1", "K-1", at);
  const cure = await cureOf(file?.racks[0]?.rack ?? "");
  expect(cure.result).toBe("out");
  expect(cure.bake?.decidingChannel).toBe("Right leaf, foot");
  expect(cure.bake?.channels.filter((c) => c.index >= 100)).toHaveLength(3);
});
