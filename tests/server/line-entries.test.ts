import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { valueOrThrow } from "@/core/result";
import { parseShorthand } from "@/core/shorthand";
import { entryFromShorthand } from "@/server/entries/from-shorthand";
import { pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { importFile } from "@/server/imports/import-file";
import { airBefore } from "@/server/line/air";
import { lastGoodCoat } from "@/server/line/last-good-coat";
import { loadLine } from "@/server/line/load-line";
import { nextLoadNumber } from "@/server/line/next-load";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const earlier = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "maren");
const inspector = person("inspector", "tomasz");
const viewer = person("viewer");
beforeAll(async () => {
  t = await testDatabase();
  for (const number of ["L100", "L101", "L102", "L103", "L104", "L105"])
    await freshRack(t, number, { at: earlier(300) });
  await stored(t, operator, earlier(290), { ...coat, rack: "L105" });
});
afterAll(() => t.drop());
const put = (who: typeof operator, rest: object, when = at) => storeEntry(t.app, who, entryAt(when, rest), at);
const count = async () =>
  Number(
    (
      await t.app
        .selectFrom("record")
        .select(({ fn }) => fn.countAll<string>().as("n"))
        .executeTakeFirstOrThrow()
    ).n,
  );

const coat = {
  kind: "coat",
  rack: "L100",
  coatNo: 1,
  layer: "top",
  lot: "GR-505/2610-2",
  booth: "booth 1",
  kv: 70,
  currentUa: 22,
  gunAirKPa: 60,
  distanceMm: null,
  earthMohm: 0.4,
  hookCycles: 2,
  sprayedHot: false,
  colourChangeBefore: false,
  reclaimPercent: 20,
};

describe("a step of preparation", () => {
  test("is stored with its measure and unit; without one it is by procedure", async () => {
    const blast = { kind: "prep-step", rack: "L100", step: "blast", done: true, value: 48, note: "" };
    expect(await put(operator, blast)).toMatchObject({ failure: { kind: "step-out-of-order", first: "degrease" } });
    await stored(t, operator, earlier(210), { ...blast, step: "degrease", value: null });
    await stored(t, operator, earlier(200), {
      kind: "prep-step",
      rack: "L100",
      step: "blast",
      done: true,
      value: 48,
      note: "",
    });
    await stored(t, operator, earlier(190), {
      kind: "prep-step",
      rack: "L100",
      step: "blow-off",
      done: true,
      value: null,
      note: "",
    });
    const rack = await loadRack(t.app, operator, "L100");
    expect(rack?.latest.map((r) => [r.base.grade, r.details.prep_step?.[0]])).toMatchObject([
      ["by-procedure", { step: "degrease", value: null, unit: null }],
      ["measured", { step: "blast", value: 48, unit: "µm" }],
      ["by-procedure", { step: "blow-off", value: null, unit: null }],
    ]);
  });
  test.each([
    ["left out without a reason", { step: "blast", done: false, value: null, note: "" }, "note"],
    ["a value on a step that has none", { step: "scuff", done: true, value: 3, note: "" }, "value"],
    ["a profile beyond any tape", { step: "blast", done: true, value: 900, note: "" }, "value"],
    ["a dust grade of 6", { step: "dust-tape", done: true, value: 6, note: "" }, "value"],
    ["a step nobody knows", { step: "polish", done: true, value: null, note: "" }, "step"],
    ["a value as text", { step: "blast", done: true, value: "48", note: "" }, "value"],
  ])("%s is refused at its field", async (_, step, field) => {
    const before = await count();
    expect(await put(operator, { kind: "prep-step", rack: "L100", ...step })).toMatchObject({
      ok: false,
      failure: { kind: "bad-entry", field },
    });
    expect(await count()).toBe(before);
  });
  test("a correction supersedes with its reason; the first stays", async () => {
    const first = await stored(t, operator, earlier(180), {
      kind: "prep-step",
      rack: "L101",
      step: "dust-tape",
      done: true,
      value: 4,
      note: "",
    });
    await stored(t, operator, earlier(170), {
      kind: "prep-step",
      rack: "L101",
      step: "dust-tape",
      done: true,
      value: 1,
      note: "",
      supersedes: { recordId: first, reason: "read the wrong card" },
    });
    const rack = await loadRack(t.app, operator, "L101");
    expect(rack?.thread).toHaveLength(2);
    expect(rack?.latest.map((r) => r.details.prep_step?.[0]?.value)).toEqual([1]);
  });
});

describe("air", () => {
  test("each reading is a record of its own; the newest of each counts; dew point and margin follow", async () => {
    await stored(t, operator, earlier(600), {
      kind: "conditions",
      place: "hall",
      values: [{ quantity: "humidity", value: 30 }],
    });
    await stored(t, operator, earlier(30), {
      kind: "conditions",
      place: "hall",
      values: [
        { quantity: "air-temperature", value: 25 },
        { quantity: "humidity", value: 60 },
        { quantity: "metal-temperature", value: 18 },
      ],
    });
    const air = await airBefore(t.app, at);
    expect(air.dewPointC).toBeCloseTo(16.7, 1);
    expect(air.marginC).toBeCloseTo(1.3, 1);
    expect(air.readings.find((r) => r.quantity === "humidity")).toMatchObject({
      value: 60,
      by: "Maren Stile",
      place: "hall",
    });
  });
  test("what is older than half a day says nothing; the future nothing either", async () => {
    const then = new Date("2020-03-01T12:00:00Z");
    await stored(t, operator, then, {
      kind: "conditions",
      place: "hall",
      values: [{ quantity: "humidity", value: 55 }],
    });
    expect((await airBefore(t.app, new Date("2020-03-02T01:00:00Z"))).readings).toEqual([]);
    expect((await airBefore(t.app, new Date("2020-03-01T11:59:00Z"))).readings).toEqual([]);
    expect((await airBefore(t.app, new Date("2020-03-01T12:30:00Z"))).dewPointC).toBeNull();
  });
  test("one quantity twice, none at all, and 120 % are refused whole", async () => {
    const before = await count();
    for (const [values, failure] of [
      [
        [
          { quantity: "humidity", value: 50 },
          { quantity: "humidity", value: 51 },
        ],
        { kind: "value-given-twice" },
      ],
      [[], { kind: "bad-entry", field: "values" }],
      [[{ quantity: "humidity", value: 120 }], { kind: "bad-entry" }],
      [[{ quantity: "mood", value: 1 }], { kind: "bad-entry" }],
    ] as const)
      expect(await put(operator, { kind: "conditions", place: "hall", values })).toMatchObject({ ok: false, failure });
    expect(await count()).toBe(before);
  });
  test("the same entry sent ten times at once is stored once, all of it", async () => {
    const before = await count();
    const entry = entryAt(at, {
      kind: "conditions",
      place: "hall",
      values: [
        { quantity: "air-temperature", value: 21 },
        { quantity: "humidity", value: 44 },
      ],
    });
    const outcomes = await Promise.all(Array.from({ length: 10 }, () => storeEntry(t.app, operator, entry, at)));
    expect(outcomes.every((o) => o.ok)).toBe(true);
    expect(new Set(outcomes.map((o) => o.ok && o.recordId)).size).toBe(1);
    expect(await count()).toBe(before + 2);
  });
  test("the same key with other values is refused whole", async () => {
    const entry = entryAt(at, { kind: "conditions", place: "hall", values: [{ quantity: "humidity", value: 41 }] });
    expect(await storeEntry(t.app, operator, entry, at)).toMatchObject({ ok: true, already: false });
    const before = await count();
    const other = {
      ...entry,
      values: [
        { quantity: "air-temperature", value: 20 },
        { quantity: "humidity", value: 42 },
      ],
    };
    expect(await storeEntry(t.app, operator, other, at)).toMatchObject({
      ok: false,
      failure: { kind: "key-conflict" },
    });
    expect(await count()).toBe(before);
  });
});

describe("a coat", () => {
  test("is stored with lot, gun and earth, and the last accepted one is offered for the next", async () => {
    await stored(t, operator, earlier(60), coat);
    const rack = await loadRack(t.app, operator, "L100");
    expect(rack?.latest.find((r) => r.base.kind === "coat")?.details.coat?.[0]).toMatchObject({
      coat_no: 1,
      kv: 70,
      earth_mohm: 0.4,
      reclaim_percent: 20,
    });
    if (!rack) throw new Error("rack");
    const last = await lastGoodCoat(t.app, rack, at);
    expect(last?.label).toMatch(/^rack \d+, the last accepted$/);
    expect(last?.kv).toBeGreaterThan(0);
  });
  test("nothing read at the gun is by procedure, not measured", async () => {
    const id = await stored(t, operator, earlier(50), { ...coat, rack: "L101", kv: null, earthMohm: null });
    const record = await t.app.selectFrom("record").select("grade").where("id", "=", id).executeTakeFirstOrThrow();
    expect(record.grade).toBe("by-procedure");
  });
  test("metal read hotter than the booth takes is hot-applied, whatever was ticked", async () => {
    const hot = async (metalC: number | null, sprayedHot: boolean | null) => {
      const id = await stored(t, operator, earlier(45), { ...coat, rack: "L101", metalC, sprayedHot });
      const row = await t.app.selectFrom("coat").selectAll().where("record_id", "=", id).executeTakeFirstOrThrow();
      return [row.sprayed_hot, row.metal_c];
    };
    expect(await hot(182, false)).toEqual([true, 182]);
    expect(await hot(31, false)).toEqual([false, 31]);
    expect(await hot(null, true)).toEqual([true, null]);
  });
  test.each([
    ["another powder's lot", { lot: "GR-210/2610-2" }, { kind: "wrong-powder", asked: "GR-505" }],
    ["a lot nobody has", { lot: "GR-505/9999" }, { kind: "unknown-set-up", what: "lot" }],
    ["a top coat as primer", { layer: "primer" }, { kind: "not-a-primer" }],
    ["coat 0", { coatNo: 0 }, { kind: "bad-entry", field: "coatNo" }],
    ["a million volts", { kv: 1000 }, { kind: "bad-entry", field: "kv" }],
    ["earth under zero", { earthMohm: -1 }, { kind: "bad-entry", field: "earthMohm" }],
    ["reclaim over all", { reclaimPercent: 101 }, { kind: "bad-entry", field: "reclaimPercent" }],
    ["no such rack", { rack: "9999" }, { kind: "unknown-rack", number: "9999" }],
  ])("%s is refused by name", async (_, over, failure) => {
    expect(await put(operator, { ...coat, ...over })).toMatchObject({ ok: false, failure });
  });
});

describe("through the washer by its speed", () => {
  test("passages follow, by procedure, and the baths they met with them", async () => {
    await stored(t, operator, earlier(240), { kind: "line-run", rack: "L102", line: "washer 1", speedMPerMin: 1.2 });
    const rack = await loadRack(t.app, operator, "L102");
    const conditions = await conditionsWhenPassed(t.app, [rack?.id ?? ""], at);
    expect(conditions.passages.map((p) => [p.stage, p.seconds, p.grade])).toEqual([
      ["clean", 120, "by-procedure"],
      ["conversion", 90, "by-procedure"],
      ["rinse", 60, "by-procedure"],
      ["dry-off", 600, "by-procedure"],
    ]);
    expect(conditions.baths.length).toBeGreaterThan(2);
  });
  test("a retry is the same four passages", async () => {
    const entry = entryAt(earlier(120), { kind: "line-run", rack: "L103", line: "Washer 1", speedMPerMin: 1 });
    expect(await storeEntry(t.app, operator, entry, at)).toMatchObject({ ok: true, already: false });
    const before = await count();
    expect(await storeEntry(t.app, operator, entry, at)).toMatchObject({ ok: true, already: true });
    expect(await count()).toBe(before);
  });
  test("a standing line, an unknown one, and a correction of all at once are refused", async () => {
    const run = { kind: "line-run", rack: "L103", line: "Washer 1", speedMPerMin: 1.2 };
    expect(await put(operator, { ...run, speedMPerMin: 0 })).toMatchObject({ failure: { kind: "bad-entry" } });
    expect(await put(operator, { ...run, line: "Washer 9" })).toMatchObject({ failure: { kind: "unknown-set-up" } });
    expect(await put(operator, { ...run, supersedes: { recordId: newId(), reason: "no" } })).toMatchObject({
      failure: { kind: "correct-one-by-one" },
    });
  });
});

describe("a load", () => {
  const load = (over: object = {}) => ({
    kind: "load",
    oven: "oven 1",
    loadNo: "900",
    timing: "flow-out",
    setPointC: 205,
    places: [
      { rack: "L100", place: "B2" },
      { rack: "L101", place: "" },
    ],
    ...over,
  });
  test("goes in, stands on Shift without a metal temperature, and its racks are in the oven", async () => {
    await stored(t, operator, earlier(3), load());
    const line = await loadLine(t.app, operator, at);
    const open = line.bakes.find((b) => b.load === "900");
    expect(open).toMatchObject({ racks: ["L100", "L101"], index: null, pullAt: null, result: "unknown" });
    for (const number of ["L100", "L101"]) expect(line.racks.find((r) => r.number === number)?.stage).toBe("cure");
    const rack = await loadRack(t.app, operator, "L100");
    if (!rack) throw new Error("rack");
    const cure = judgeRack(rack, { passages: [], baths: [] }).items.find((i) => i.item === "cure");
    expect(cure).toMatchObject({
      result: "unknown",
      grade: "by-procedure",
      failure: { kind: "no-live-metal-channel" },
    });
    expect(await nextLoadNumber(t.app, at)).toBe("901");
  });
  test("a rack cannot be in two loads, nor twice in one", async () => {
    expect(await put(operator, load({ loadNo: "901" }))).toMatchObject({
      ok: false,
      failure: { kind: "rack-in-oven", load: "900" },
    });
    expect(
      await put(
        operator,
        load({
          places: [
            { rack: "L104", place: "" },
            { rack: "L104", place: "A" },
          ],
        }),
      ),
    ).toMatchObject({
      failure: { kind: "value-given-twice", parameter: "rack L104" },
    });
  });
  test.each([
    ["an unknown oven", { oven: "oven 9" }, { kind: "unknown-oven-name" }],
    ["no racks", { places: [] }, { kind: "bad-entry", field: "places" }],
    [
      "a stray rack",
      {
        places: [
          { rack: "L104", place: "" },
          { rack: "NONE", place: "" },
        ],
      },
      { kind: "unknown-rack", number: "NONE" },
    ],
    [
      "a set point of 20 °C",
      { setPointC: 20, places: [{ rack: "L104", place: "" }] },
      { kind: "bad-entry", field: "setPointC" },
    ],
    [
      "a timing nobody uses",
      { timing: "by smell", places: [{ rack: "L104", place: "" }] },
      { kind: "bad-entry", field: "timing" },
    ],
  ])("%s is refused, and no passage is left behind", async (_, over, failure) => {
    const before = await count();
    expect(await put(operator, load({ loadNo: "902", ...over }))).toMatchObject({ ok: false, failure });
    expect(await count()).toBe(before);
  });
  test("its trace comes later: the file completes the load, places and timing kept", async () => {
    const trace = [
      "time,Seat,Leg,Air",
      ...Array.from(
        { length: 41 },
        (_, i) => `${i * 12},${Math.min(205, 20 + i * 8)},${Math.min(200, 20 + i * 6)},${Math.min(210, 60 + i * 12)}`,
      ),
    ].join("\n");
    const form = new FormData();
    form.set("file", new File([trace], "load900.csv"));
    form.set("rack", "L100");
    form.set("unit", "degC");
    form.set("startedAt", earlier(2).toISOString());
    form.set("store", "yes");
    expect(await importFile(t.app, inspector, form, at)).toMatchObject({ ok: true, already: false });
    for (const number of ["L100", "L101"]) {
      const rack = await loadRack(t.app, operator, number);
      const bakes = rack?.thread.filter((r) => r.base.kind === "bake") ?? [];
      expect(bakes).toHaveLength(2);
      expect(bakes[1]?.base).toMatchObject({ supersedes: bakes[0]?.base.id, reason: "Trace added" });
      expect(bakes[1]?.details.bake?.[0]).toMatchObject({ load_no: "900", timing: "flow-out", set_point_c: 205 });
      expect(bakes[1]?.details.bake_place).toHaveLength(2);
      expect(bakes[1]?.details.bake_channel?.map((c) => c.name)).toEqual(["Seat", "Leg", "Air"]);
    }
  });
  test("pulled by its button: closed once, its racks cool; a second press is the same pull", async () => {
    const open = (await loadLine(t.app, operator, at)).bakes.find((b) => b.load === "900");
    const id = newId();
    expect(await pullLoad(t.app, viewer, { recordId: open?.recordId ?? "" }, id, at)).toMatchObject({
      failure: { kind: "role-refused" },
    });
    const presses = await Promise.all(
      [1, 2, 3].map(() => pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, id, at)),
    );
    expect(presses.every((p) => p.ok)).toBe(true);
    const line = await loadLine(t.app, operator, at);
    expect(line.bakes.find((b) => b.load === "900")).toBeUndefined();
    for (const number of ["L100", "L101"]) {
      const rack = await loadRack(t.app, operator, number);
      expect(rack?.standing).toMatchObject({ stage: "test", next: "film" });
      expect(rack?.latest.filter((r) => r.details.passage?.[0]?.stage === "cool")).toHaveLength(1);
    }
    expect(await pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, newId(), at)).toMatchObject({
      ok: false,
      failure: { kind: "already-pulled" },
    });
  });
});

describe("clocks of a rack", () => {
  test("start with the wipe and the conversion bath, and end with the powder", async () => {
    await freshRack(t, "LC1", { at: earlier(300) });
    const onLine = async () => (await loadLine(t.app, operator, at)).racks.find((r) => r.number === "LC1");
    expect(await onLine()).toMatchObject({ unsealedSinceMs: null, wipedAtMs: null });
    await stored(t, operator, earlier(60), { kind: "passage", rack: "LC1", stage: "conversion" });
    await stored(t, operator, earlier(5), {
      kind: "prep-step",
      rack: "LC1",
      step: "solvent-wipe",
      done: true,
      value: null,
      note: "",
    });
    expect(await onLine()).toMatchObject({
      unsealedSinceMs: earlier(60).getTime(),
      wipedAtMs: earlier(5).getTime(),
    });
    const left = {
      kind: "prep-step",
      rack: "LC1",
      step: "solvent-wipe",
      done: false,
      value: null,
      note: "washed instead",
    };
    await stored(t, operator, earlier(4), left);
    expect((await onLine())?.wipedAtMs).toBe(earlier(5).getTime());
  });
});

describe("by entry line", () => {
  const typed = async (text: string) => {
    const understood = valueOrThrow(parseShorthand(text));
    const made = await entryFromShorthand(t.app, operator, understood, newId(), at.toISOString());
    return made.ok ? storeEntry(t.app, operator, made.value, at) : { ok: false as const, failure: made.error };
  };
  test.each([
    "rack L104 degrease",
    "rack L104 blast 51",
    "rack L104 wipe",
    "rack L104 wash",
    "air 19C 55%",
    "oven 1 load 950 L105",
  ])("%s is kept", async (text) => {
    expect(await typed(text)).toMatchObject({ ok: true, already: false });
  });
  test("a second coat's film is recorded as of that coat", async () => {
    await stored(t, operator, earlier(5), { ...coat, rack: "L102", coatNo: 2 });
    const made = await entryFromShorthand(
      t.app,
      inspector,
      valueOrThrow(parseShorthand("rack L102 dft s1 80 81 79")),
      newId(),
      at.toISOString(),
    );
    expect(made).toMatchObject({ ok: true, value: { coatNo: 2, readings: [{ face: "S" }, {}, {}] } });
  });
});

describe("roles", () => {
  const all = [
    { kind: "prep-step", rack: "L103", step: "scuff", done: true, value: null, note: "" },
    { kind: "conditions", place: "hall", values: [{ quantity: "humidity", value: 50 }] },
    { ...coat, rack: "L103" },
    { kind: "line-run", rack: "L104", line: "Washer 1", speedMPerMin: 1.2 },
    {
      kind: "load",
      oven: "Oven 1",
      loadNo: "990",
      timing: "door-close",
      setPointC: null,
      places: [{ rack: "L103", place: "" }],
    },
  ];
  test.each(all.map((e) => [e.kind, e] as const))("a viewer stores no %s, an operator does", async (_, entry) => {
    expect(await put(viewer, entry)).toMatchObject({ ok: false, failure: { kind: "role-refused", needs: "log-line" } });
    expect(await put(operator, entry)).toMatchObject({ ok: true });
  });
  test("a customer's person finds no one else's rack to enter on", async () => {
    const other = {
      ...operator,
      customerId: (
        await t.app.selectFrom("setup_entity").select("id").where("code", "=", "C3").executeTakeFirstOrThrow()
      ).id,
    };
    for (const entry of all.filter((e) => e.kind !== "conditions"))
      expect(await put(other, entry), entry.kind).toMatchObject({ ok: false, failure: { kind: "unknown-rack" } });
  });
});
