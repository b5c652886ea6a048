import { sql } from "kysely";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { heightPairs, lastPreFlight } from "@/server/coat/booth";
import { coatHistory } from "@/server/coat/coat-history";
import { compareCoat, learntTransfer, movedSettings } from "@/server/coat/compare-coat";
import { powderLots } from "@/server/coat/powder-lots";
import { savePowderPhoto } from "@/server/coat/powder-photo";
import { POWDER_STORE } from "@/server/coat/powder-store";
import { openLot, receiveLots, savePowder, savePowderList, saveSheet } from "@/server/coat/save-powder";
import { sheetFor, sheetsFor } from "@/server/coat/sheet-for";
import { dayIn } from "@/server/day";
import { storeEntry } from "@/server/entries/store-entry";
import { airBefore } from "@/server/line/air";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { byCode } from "@/server/setup/by-code";
import { preFlightLimits } from "@/server/setup/pre-flight-limits";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { comparedName } from "@/ui/words/coating";
import { failureText } from "@/ui/words/failures";
import { itemSentence } from "@/ui/words/verdict";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId, entryAt, freshRack, seatFilm, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const lead = person("lead", "ines");
const painter = person("operator", "maren");
const inspector = person("inspector", "tomasz");
beforeAll(async () => {
  t = await testDatabase();
  for (const number of ["P100", "P101", "P102"]) await freshRack(t, number, { at: ago(900) });
});
afterAll(() => t.drop());

const readable = (failure: { readonly kind: string }) =>
  expect(failureText(failure)).not.toMatch(/undefined|NaN|\{|\[object/);
const coat = (over: object = {}) => ({
  kind: "coat",
  rack: "P100",
  coatNo: 1,
  layer: "top",
  lot: "GR-505/2610-2",
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
const itemFilm = async (number: string) => {
  const rack = await loadRack(t.app, inspector, number);
  if (!rack) throw new Error(number);
  const verdict = judgeRack(rack, await conditionsWhenPassed(t.app, [rack.id], at));
  const item = verdict.items.find((i) => i.item === "film");
  if (item?.item !== "film") throw new Error("no film");
  return item;
};

describe("the pre-flight", () => {
  const items = [
    { item: "hook-part", how: "measured", value: 0.4, good: null, note: "" },
    { item: "air-flowing", how: "measured", value: 61, good: null, note: "" },
    { item: "gloves", how: "by-procedure", value: null, good: true, note: "" },
    { item: "blotter", how: "skipped", value: null, good: null, note: "none left" },
  ];
  const flight = (over: object = {}) => ({
    kind: "pre-flight",
    rack: "P100",
    situation: "first-coat",
    sheet: "GR-505 booth 1",
    lot: "GR-505/2610-2",
    items,
    ...over,
  });
  test("keeps what was read, seen and skipped; slow readings are offered at the next one", async () => {
    await stored(t, painter, ago(60), flight());
    const rack = await loadRack(t.app, painter, "P100");
    const rows = rack?.latest.find((r) => r.base.kind === "pre-flight")?.details.pre_flight_item;
    expect(rows?.map((r) => [r.item, r.how, r.value, r.good])).toEqual([
      ["hook-part", "measured", 0.4, null],
      ["air-flowing", "measured", 61, null],
      ["gloves", "by-procedure", null, true],
      ["blotter", "skipped", null, null],
    ]);
    expect(await lastPreFlight(t.app, at)).toEqual({ "air-flowing": 61 });
    expect(await lastPreFlight(t.app, ago(90))).toEqual({});
  });
  test.each([
    ["skipped without a reason", { items: [{ ...items[3], note: "" }] }, "bad-entry"],
    ["measured without a value", { items: [{ ...items[0], value: null }] }, "bad-entry"],
    ["looked at without a word", { items: [{ ...items[2], good: null }] }, "bad-entry"],
    ["a value where nothing is read", { items: [{ ...items[2], value: 3 }] }, "bad-entry"],
    ["beyond any meter", { items: [{ ...items[1], value: 5000 }] }, "bad-entry"],
    ["one thing twice", { items: [items[0], items[0]] }, "bad-entry"],
    ["a sheet nobody has", { sheet: "GR-1 booth 9" }, "unknown-set-up"],
    ["a lot nobody has", { lot: "GR-505/1" }, "unknown-set-up"],
    ["another rack", { rack: "9999" }, "unknown-rack"],
  ])("%s is refused in words", async (_, over, kind) => {
    const outcome = await storeEntry(t.app, painter, entryAt(ago(50), flight(over)), at);
    expect(outcome).toMatchObject({ ok: false, failure: { kind } });
    if (!outcome.ok) readable(outcome.failure);
  });
  test("limits come from the sheet that names most; without one there are the site's", async () => {
    const sheets = [...(await setupAt(t.app, "setup-sheet", at)).values()];
    const site = await siteAt(t.app, at);
    const [first] = sheets;
    if (!first) throw new Error("no sheet");
    const own = {
      ...first,
      code: "own",
      data: { ...first.data, powderCode: "GR-505", partCode: "FERRY-SEAT", gun: null },
    };
    const gun = { ...own, code: "gun", data: { ...own.data, gun: "gun 2" } };
    const other = { ...own, code: "other", data: { ...own.data, partCode: "LAMP-HEAD" } };
    const all = [...sheets, other, own, gun];
    expect(sheetFor(all, { powder: "GR-505", part: "FERRY-SEAT" })?.code).toBe("gun");
    expect(sheetFor(all, { powder: "GR-505", part: "FERRY-SEAT", gun: "gun 7" })?.code).toBe("own");
    expect(sheetFor(all, { powder: "GR-505", part: "SHELTER-POST" })?.code).toBe("GR-505 booth 1");
    expect(sheetFor(all, { powder: "GR-999", part: "FERRY-SEAT" })).toBeNull();
    // By the tip as well: its own goes before any, another's does not fit.
    const slot = { ...own, code: "slot", data: { ...own.data, gun: "gun 2", tip: "slot, 8 mm" } };
    const flat = { ...own, code: "flat", data: { ...own.data, gun: "gun 2", tip: "flat, 6 mm" } };
    const tips = { powder: "GR-505", part: "FERRY-SEAT", gun: "gun 2" };
    expect(sheetFor([slot, flat], { ...tips, tip: "flat, 6 mm" })?.code).toBe("flat");
    expect(sheetFor([slot, flat], { ...tips, tip: "slot, 8 mm" })?.code).toBe("slot");
    expect(sheetFor([slot, flat], { ...tips, tip: "cone" })).toBeNull();
    expect(sheetsFor([slot, flat], tips).map((s) => s.code)).toEqual(["flat", "slot"]);
    expect(preFlightLimits(null, site)).toMatchObject({ gunAirKPa: [null, null], earthLimitMohm: 1 });
    expect(preFlightLimits({ ...own.data, airReadAt: "rest" }, site).gunAirKPa).toEqual([null, null]);
    expect(preFlightLimits({ ...own.data, hopperFillPercent: [10, 20] }, site).hopperFillPercent).toEqual([10, 20]);
  });
});

describe("a coat and what left the hopper", () => {
  test("keeps gun, sheet, kind of coat and weights; a hopper that gained is refused", async () => {
    const more = {
      gun: "gun 2",
      sheet: "GR-505 booth 1",
      situation: "first-coat",
      system: "single",
      hopperBeforeKg: 12,
      hopperAfterKg: 9.5,
      hopperAddedKg: 1,
      boothAirMPerS: 0.5,
      passes: 2,
    };
    const id = await stored(t, painter, ago(40), coat(more));
    const row = await t.app.selectFrom("coat").selectAll().where("record_id", "=", id).executeTakeFirstOrThrow();
    expect(row).toMatchObject({
      gun: "gun 2",
      situation: "first-coat",
      hopper_before_kg: 12,
      passes: 2,
      booth_air_m_per_s: 0.5,
    });
    expect(row.sheet_id).not.toBeNull();
    const gained = await storeEntry(t.app, painter, entryAt(ago(39), coat({ ...more, hopperAfterKg: 14 })), at);
    expect(gained).toMatchObject({ ok: false, failure: { kind: "hopper-gained" } });
    if (!gained.ok) readable(gained.failure);
  });
  test("looked at under the lamp only where there is powder, on faces it has", async () => {
    const lamp = (over: object = {}) => ({
      kind: "lamp-check",
      rack: "P100",
      coatNo: 1,
      faces: ["S", "L"],
      spots: [{ face: "L", x: 40, y: 90, what: "light-resprayed" }],
      wiped: true,
      plugsIn: 4,
      bumped: false,
      note: "",
      ...over,
    });
    await stored(t, painter, ago(35), lamp());
    const put = (over: object) => storeEntry(t.app, painter, entryAt(ago(34), lamp(over)), at);
    expect(await put({ rack: "P101" })).toMatchObject({ failure: { kind: "no-coat-yet" } });
    expect(await put({ faces: ["Z"] })).toMatchObject({ failure: { kind: "unknown-spot" } });
    expect(await put({ faces: [], spots: [] })).toMatchObject({ failure: { kind: "bad-entry", field: "faces" } });
    expect(await put({ faces: [], spots: [], bumped: true })).toMatchObject({ ok: true });
  });
  test("height of the powder pairs with the film read on the same spot later, and with no other", async () => {
    const powderId = await entityId(t, "powder", "GR-505");
    const height = (spot: string, heightUm: number) => ({
      kind: "powder-height",
      rack: "P100",
      readings: [{ face: "S", spot, heightUm }],
    });
    await stored(t, painter, ago(33), height("S1", 120));
    await stored(t, painter, ago(33), height("S2", 130));
    expect(await heightPairs(t.app, powderId, at)).toEqual([]);
    await stored(t, inspector, ago(20), {
      kind: "thickness",
      rack: "P100",
      source: "typed",
      typedUnit: "um",
      coatNo: 1,
      readings: [70, 72, 74].map((valueUm) => ({ face: "S", spot: "S1", valueUm, typed: String(valueUm) })),
    });
    expect(await heightPairs(t.app, powderId, at)).toEqual([{ heightUm: 120, curedUm: 72 }]);
  });
});

describe("what changed", () => {
  test("in the enclosures' light corners the booth's draught leads, and the film tells it helped nobody", async () => {
    const [box] = (
      await sql<{ id: string; number: string; part: string; powder: string }>`
        select k.id, k.number, j.part_id as part, j.powder_id as powder from rack k join record r on r.rack_id = k.id join defect d on d.record_id = r.id join job j on j.id = k.job_id
        where d.defect = 'light-coverage' order by k.hung_at desc limit 1`.execute(t.app)
    ).rows;
    if (!box) throw new Error("no light corner in the demo");
    const past = await coatHistory(t.app, { partId: box.part, powderId: box.powder }, at);
    const mine = past.find((p) => p.rackId === box.id);
    if (!mine) throw new Error("no coat");
    const compared = compareCoat(mine, past);
    expect(compared.good?.decision).toBe("accept");
    expect(compared.changes[0]).toMatchObject({ name: "boothAirMPerS", unusual: 1 });
    for (const change of compared.changes) expect(comparedName(change.name)).not.toBe(change.name);
    const moved = movedSettings(past, 90).find((m) => m.setting === "boothAirMPerS");
    expect(moved?.film).toMatchObject({ says: "made-worse" });
    expect(moved?.film.difference).toBeLessThan(-8);
  });
  test("rough recoats lead to the voltage over the old film; uses of the hooks differ, and lead nowhere", async () => {
    const { rows } = await sql<{ hooks: number; kv: number }>`
      select c.hook_cycles as hooks, c.kv from record r join coat c on c.record_id = r.id where c.coat_no = 2
        and exists (select 1 from record x join defect d on d.record_id = x.id where x.rack_id = r.rack_id and d.defect = 'orange-peel' and x.happened_at > r.happened_at)`.execute(
      t.app,
    );
    expect(rows.length).toBeGreaterThanOrEqual(3);
    const sheets = await setupAt(t.app, "setup-sheet", at);
    const sheet = sheetFor(sheets.values(), { powder: "GR-210", part: "SHELTER-POST" });
    const most = sheet?.data.recoatKv?.[1] ?? 0;
    for (const row of rows) expect(row.kv).toBeGreaterThan(most);
    const worn = rows.filter((r) => r.hooks > (sheet?.data.hookCyclesLimit ?? 0)).length;
    expect(worn).toBeGreaterThan(0);
    expect(worn).toBeLessThan(rows.length);
  });
  test("transfer is learnt from the hopper's weights", async () => {
    const past = await coatHistory(
      t.app,
      { partId: await entityId(t, "part", "FERRY-SEAT"), powderId: await entityId(t, "powder", "GR-505") },
      at,
    );
    const found = learntTransfer(past, { areaM2: 1.9, specificGravity: 1.7 });
    expect(found?.n).toBeGreaterThan(3);
    expect(found?.mean).toBeGreaterThan(0.55);
    expect(found?.mean).toBeLessThan(0.7);
    expect(learntTransfer(past, { areaM2: null, specificGravity: 1.7 })).toBeNull();
  });
});

describe("lots of powder", () => {
  const lotOf = async (code: string, when = at) => (await powderLots(t.app, when)).find((l) => l.code === code);
  test("stock falls by the hopper's weights; warm weeks in the store take days off; the first to run out leads", async () => {
    const lots = await powderLots(t.app, at);
    const days = lots.filter((l) => l.daysLeft >= 0 && l.stockKg !== 0).map((l) => l.daysLeft);
    expect(days).toEqual([...days].sort((a, b) => a - b));
    const lot = await lotOf("GR-210/2610-2");
    expect(lot?.usedKg).toBeGreaterThan(0);
    expect(lot?.stockKg).toBeCloseTo(Math.max(0, (lot?.receivedKg ?? 0) - (lot?.usedKg ?? 0)), 9);
    expect(lot?.age?.warmDays).toBeGreaterThan(5);
    expect(lot?.panel).toMatchObject({ result: "matches" });
  });
  test("the store's air is not the hall's", async () => {
    await stored(t, painter, ago(5), {
      kind: "conditions",
      place: "hall",
      values: [{ quantity: "air-temperature", value: 18 }],
    });
    await stored(t, painter, ago(2), {
      kind: "conditions",
      place: POWDER_STORE,
      values: [{ quantity: "air-temperature", value: 34 }],
    });
    expect((await airBefore(t.app, at)).readings.find((r) => r.quantity === "air-temperature")?.value).toBe(18);
  });
  test("come in all or none; the same again is none; another weight under the same number is refused with its line", async () => {
    const line = (lot: string, over: object = {}) => ({
      powder: "gr-210",
      lot,
      madeOn: "2026-10-01",
      receivedOn: "2026-11-02",
      stockKg: 40,
      ...over,
    });
    expect(await receiveLots(t.app, painter, [line("Z1"), line("Z2")], at)).toEqual({ ok: true, added: 2 });
    expect(await receiveLots(t.app, painter, [line("Z1"), line("Z2")], at)).toEqual({ ok: true, added: 0 });
    const refused = async (lots: unknown, kind: string, at2 = 1) => {
      const outcome = await receiveLots(t.app, painter, lots, at);
      expect(outcome).toMatchObject({ ok: false, failure: { kind } });
      if (!outcome.ok) {
        readable(outcome.failure);
        if (Array.isArray(lots) && lots.length > 1 && kind !== "bad-entry") expect(outcome.failure.line).toBe(at2);
      }
    };
    await refused([line("Z3"), line("Z1", { stockKg: 41 })], "code-taken", 2);
    await refused([line("Z3"), line("Z4", { powder: "GR-999" })], "unknown-set-up", 2);
    await refused([line("Z3"), line("Z3")], "code-taken", 2);
    await refused([line("Z5", { madeOn: "2026-11-10", receivedOn: "2026-11-01" })], "made-after-received");
    await refused([line("Z6", { receivedOn: "2031-01-01" })], "in-the-future");
    await refused([line("Z7", { madeOn: "2026-02-30" })], "bad-entry");
    await refused([], "bad-entry");
    expect(await lotOf("GR-210/Z3")).toBeUndefined();
  });
  test("a panel beyond its swatch or gloss cannot match; recorded as off it stands beside the lot", async () => {
    const panel = (over: object) => ({
      kind: "first-panel",
      lot: "GR-210/Z1",
      result: "matches",
      gloss: 31,
      deltaE: 0.4,
      filmUm: 70,
      note: "",
      ...over,
    });
    for (const over of [{ gloss: 50 }, { deltaE: 2.4 }]) {
      const outcome = await storeEntry(t.app, inspector, entryAt(ago(3), panel(over)), at);
      expect(outcome).toMatchObject({ ok: false, failure: { kind: "panel-does-not-match" } });
      if (!outcome.ok) readable(outcome.failure);
    }
    await stored(t, inspector, ago(3), panel({ deltaE: 2.4, result: "off" }));
    expect((await lotOf("GR-210/Z1"))?.panel).toMatchObject({ result: "off", deltaE: 2.4 });
    await stored(t, inspector, ago(1), panel({}));
    expect((await lotOf("GR-210/Z1"))?.panel).toMatchObject({ result: "matches" });
  });
});

describe("a data sheet and a set-up sheet", () => {
  const powderOf = async (code: string, when = at) => {
    const found = [...(await setupAt(t.app, "powder", when)).values()].find((p) => p.code === code);
    if (!found) throw new Error(code);
    return found;
  };
  test("a change is a new version; of two at once one is told whose was first; sent again it is one", async () => {
    const before = await powderOf("GR-340");
    const change = (maxUm: number) => ({
      code: "GR-340",
      seen: before.versionId,
      reason: "new revision of the sheet",
      data: { ...before.data, maxUm },
    });
    expect(await savePowder(t.app, lead, change(95), new Date(at.getTime() + 1000))).toMatchObject({
      ok: true,
      already: false,
    });
    expect(await savePowder(t.app, lead, change(95), new Date(at.getTime() + 2000))).toMatchObject({
      ok: true,
      already: true,
    });
    expect(await savePowder(t.app, person("lead", "dagny"), change(99), new Date(at.getTime() + 3000))).toMatchObject({
      ok: false,
      failure: { kind: "set-up-changed", by: "Ines Calder" },
    });
    expect((await powderOf("GR-340")).data.maxUm).toBe(90);
    expect((await powderOf("GR-340", new Date(at.getTime() + 9000))).data.maxUm).toBe(95);
  });
  test.each([
    ["film crossed", { minUm: 90, maxUm: 60 }, "bad-sheet"],
    ["no cure point", { schedule: [] }, "bad-entry"],
    [
      "two times at one heat",
      {
        schedule: [
          { metalC: 180, minutes: 20 },
          { metalC: 180, minutes: 10 },
        ],
      },
      null,
    ],
    [
      "a hotter point that takes longer",
      {
        schedule: [
          { metalC: 180, minutes: 10 },
          { metalC: 200, minutes: 20 },
        ],
      },
      null,
    ],
    ["over-bake shorter than the cure", { overbake: [{ metalC: 200, minutes: 8 }] }, "bad-sheet"],
    ["most in all under the film", { mostInAllUm: 70 }, "bad-sheet"],
    ["a gravity of water vapour", { specificGravity: 0.01 }, "bad-entry"],
  ])("%s is refused in words", async (_, over, kind) => {
    const before = await powderOf("GR-120");
    const outcome = await savePowder(
      t.app,
      lead,
      { code: "GR-120", seen: before.versionId, reason: "to see it refused", data: { ...before.data, ...over } },
      at,
    );
    expect(outcome.ok).toBe(false);
    if (!outcome.ok) {
      if (kind) expect(outcome.failure.kind).toBe(kind);
      readable(outcome.failure);
    }
  });
  test("a set-up sheet names a powder and a part that are there, with its windows the right way round", async () => {
    const [sheet] = (await setupAt(t.app, "setup-sheet", at)).values();
    if (!sheet) throw new Error("no sheet");
    const save = (over: object, code = "GR-210 posts") =>
      saveSheet(t.app, lead, { code, seen: null, reason: "for the posts alone", data: { ...sheet.data, ...over } }, at);
    expect(await save({ powderCode: "GR-210", partCode: "SHELTER-POST" })).toMatchObject({ ok: true, already: false });
    expect(await save({ powderCode: "GR-999" }, "a")).toMatchObject({
      failure: { kind: "unknown-set-up", what: "powder" },
    });
    expect(await save({ partCode: "NO-PART" }, "b")).toMatchObject({
      failure: { kind: "unknown-set-up", what: "part" },
    });
    expect(await save({ kv: [80, 60] }, "c")).toMatchObject({ failure: { kind: "bad-entry" } });
    expect(await save({ powderCode: "GR-210", partCode: "SHELTER-POST", recessKv: 40 })).toMatchObject({
      failure: { kind: "code-taken" },
    });
    expect(
      sheetFor((await setupAt(t.app, "setup-sheet", at)).values(), { powder: "GR-210", part: "SHELTER-POST" })?.code,
    ).toBe("GR-210 posts");
  });
});

describe("the gauge and the metal under the film", () => {
  const film = (rack: string, when: Date, um: number) =>
    stored(t, inspector, when, {
      kind: "thickness",
      rack,
      source: "gauge",
      typedUnit: "um",
      instrument: "T9",
      coatNo: 1,
      readings: seatFilm(um),
    });
  beforeAll(async () => {
    // A gauge of its own: what the line read with its gauge, and when, is another matter.
    const id = newId();
    await t.app.insertInto("setup_entity").values({ id, kind: "instrument", code: "T9" }).execute();
    const data = JSON.stringify({ name: "Film gauge T9", kind: "film-gauge", serial: "T9" });
    const version = { id: newId(), entity_id: id, valid_from: ago(3000), recorded_at: ago(3000) };
    await t.app
      .insertInto("setup_version")
      .values({ ...version, by_user: "dagny", reason: "for the test", data })
      .execute();
  });
  const check = (readingsUm: number[], minutes: number) =>
    stored(t, inspector, ago(minutes), {
      kind: "gauge-check",
      instrument: "T9",
      shims: [{ certifiedUm: 75, toleranceUm: 1, readingsUm }],
      note: "",
    });
  test("ten bare readings are taken off every reading, and the verdict names it", async () => {
    await stored(t, painter, ago(600), coat({ rack: "P102" }));
    await film("P102", ago(300), 84);
    expect(await itemFilm("P102")).toMatchObject({ result: "in", base: { kind: "none" } });
    await stored(t, inspector, ago(290), {
      kind: "base-metal",
      rack: "P102",
      readingsUm: Array(10).fill(30),
      note: "",
    });
    const item = await itemFilm("P102");
    expect(item).toMatchObject({ base: { kind: "base-readings", um: 30, n: 10 }, result: "out" });
    expect(itemSentence(item, "metric").text).toMatch(/30\.0 µm of bare metal taken off \(10 bare readings\)/);
    const few = { kind: "base-metal", rack: "P102", readingsUm: [10, 11], note: "" };
    expect(await storeEntry(t.app, inspector, entryAt(ago(280), few), at)).toMatchObject({
      failure: { kind: "too-few-readings", got: 2, need: 10 },
    });
  });
  test("a gauge that fails its shims puts what it read since the last good check in question; a good one after a repair does not clear it", async () => {
    await check([75.2, 75, 74.9], 280);
    await film("P101", ago(240), 76);
    expect(await itemFilm("P101")).toMatchObject({ result: "in", doubted: false });
    await check([66, 66.2, 65.8], 200);
    const doubted = await itemFilm("P101");
    expect(doubted).toMatchObject({ result: "unknown", doubted: true });
    expect(itemSentence(doubted, "metric").word).toBe("Gauge in question");
    const { gaugeChecks, readingsInQuestion } = await import("@/server/film/gauge-checks");
    const gauge = await entityId(t, "instrument", "T9");
    const listed = await readingsInQuestion(t.app, gauge, await gaugeChecks(t.app, gauge, at));
    expect(listed.map((r) => r.rack)).toEqual(["P101"]);
    expect(listed[0]?.readings).toBe(30);
    await check([75, 75.1, 75.2], 100);
    expect((await itemFilm("P101")).doubted).toBe(true);
    await film("P100", ago(50), 76);
    expect((await itemFilm("P100")).doubted).toBe(false);
  });
  test("a gauge nobody has, and one that reads ovens, are refused", async () => {
    for (const instrument of ["999", "R6"]) {
      const shim = {
        kind: "gauge-check",
        instrument,
        shims: [{ certifiedUm: 75, toleranceUm: 1, readingsUm: [75, 75, 75] }],
        note: "",
      };
      expect(await storeEntry(t.app, inspector, entryAt(ago(10), shim), at)).toMatchObject({
        failure: { kind: "unknown-set-up", what: "film gauge" },
      });
    }
  });
});

describe("powders of a list", () => {
  const line = {
    code: "LIST-1",
    name: "Grey",
    chemistry: "polyester",
    family: "polyester",
    minUm: 60,
    maxUm: 90,
    specificGravity: 1.5,
    schedule: [{ metalC: 180, minutes: 20 }],
    shelfLifeDays: 365,
    pricePerKg: null,
  };
  test("are put on record all or none, once however often they are sent", async () => {
    const send = (powders: object[], s = 30) =>
      savePowderList(t.app, lead, { reason: "maker's list", powders }, new Date(at.getTime() + s * 1000));
    const there = async (code: string) =>
      byCode((await setupAt(t.app, "powder", new Date(at.getTime() + 90_000))).values(), code);
    expect(await send([line, { ...line, code: "LIST-2", maxUm: 50 }])).toMatchObject({
      ok: false,
      failure: { kind: "bad-sheet", line: 3 },
    });
    expect(await there("LIST-1")).toBeUndefined();
    expect(await send([line, { ...line, code: "LIST-2" }])).toEqual({ ok: true, added: 2 });
    expect(await send([line, { ...line, code: "LIST-2" }], 40)).toEqual({ ok: true, added: 0 });
    expect(await send([{ ...line, maxUm: 120 }], 41)).toMatchObject({ failure: { kind: "code-taken", line: 2 } });
    expect((await there("LIST-2"))?.data).toMatchObject({
      minUm: 60,
      knownCuredRubGrade: 5,
      photos: { raw: null, cured: null },
    });
  });
});

describe("what a lot is held against, and when it was opened", () => {
  test("a lot is opened once, today by the shop's clock, and its age is told with it", async () => {
    const { timeZone } = await siteAt(t.app, at);
    const lot = [...(await setupAt(t.app, "lot", at)).values()].find((l) => l.data.openedOn === null);
    const open = () =>
      openLot(t.app, person("operator", "maren"), { lot: lot?.code.toLowerCase() }, new Date(at.getTime() + 5000));
    expect(await open()).toMatchObject({ ok: true, code: lot?.code });
    expect(await open()).toMatchObject({ ok: false, failure: { kind: "lot-opened", openedOn: dayIn(at, timeZone) } });
    const shown = (await powderLots(t.app, new Date(at.getTime() + 6000))).find((l) => l.code === lot?.code);
    expect(shown?.openedOn).toBe(dayIn(at, timeZone));
    expect(await openLot(t.app, lead, { lot: "no/such" }, at)).toMatchObject({ failure: { kind: "unknown-set-up" } });
  });
  test("a photo of the powder is cleaned, stands with it, and stays when its sheet is changed", async () => {
    const { default: sharp } = await import("sharp");
    const jpeg = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#446688" } })
      .jpeg()
      .toBuffer();
    const powder = () =>
      setupAt(t.app, "powder", new Date(at.getTime() + 60_000)).then((all) => byCode(all.values(), "GR-505"));
    const form = (which: string, bytes = jpeg) => {
      const data = new FormData();
      data.set("powder", "GR-505");
      data.set("which", which);
      data.set("photo", new File([new Uint8Array(bytes)], "raw.jpg"));
      return data;
    };
    const later = (s: number) => new Date(at.getTime() + s * 1000);
    expect(await savePowderPhoto(t.app, lead, form("raw"), later(10))).toMatchObject({ ok: true });
    expect(await savePowderPhoto(t.app, lead, form("baked"), later(11))).toMatchObject({
      failure: { kind: "bad-entry" },
    });
    expect(await savePowderPhoto(t.app, lead, form("raw", Buffer.from("no picture")), later(11))).toMatchObject({
      failure: { kind: "wrong-kind-of-file" },
    });
    const first = await powder();
    expect(first?.data.photos.raw).toMatch(/^[0-9a-f-]{36}$/);
    const { photos: _, ...data } = first?.data ?? ({} as never);
    const changed = {
      code: "GR-505",
      seen: first?.versionId,
      reason: "new sheet",
      data: { ...data, yearsPromised: 10 },
    };
    expect(await savePowder(t.app, lead, changed, later(12))).toMatchObject({ ok: true });
    expect((await powder())?.data).toMatchObject({ yearsPromised: 10, photos: first?.data.photos });
  });
});
