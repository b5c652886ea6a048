import { strToU8, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { localMs } from "@/core/shifts";
import { importFile } from "@/server/imports/import-file";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, stored } from "../support/entries";
import { workbook } from "../support/workbook";

let t: TestDatabase;
let timeZone: string;
const at = now();
const ago = (minutes: number) => new Date(Math.floor(at.getTime() / 1000) * 1000 - minutes * 60_000);
const operator = person("operator", "maren");
const inspector = person("inspector", "tomasz");
beforeAll(async () => {
  t = await testDatabase();
  ({ timeZone } = await siteAt(t.app, at));
});
afterAll(() => t.drop());

const local = (moment: Date) => new Date(localMs(moment.getTime(), timeZone)).toISOString().slice(0, 19);
const send = (name: string, bytes: string | Buffer, over: Record<string, string> = {}) => {
  const form = new FormData();
  form.set("file", new File([typeof bytes === "string" ? bytes : new Uint8Array(bytes)], name));
  for (const [key, value] of Object.entries(over)) form.set(key, value);
  return importFile(t.app, inspector, form, at);
};
/** Metal as it heats, with headings that no reader knows: a sample each half minute, by the shop's clock, day first. */
const oddTrace = (from: Date, heading = "Zeit;Klemme 4;Klemme 7;Klemme 9") =>
  `${heading}\n${Array.from({ length: 61 }, (_, i) => {
    const [day, time] = local(new Date(from.getTime() + i * 30_000)).split("T") as [string, string];
    const heat = (tau: number) => (205 - 185 * Math.exp(-i / tau)).toFixed(1).replace(".", ",");
    return `${day.split("-").reverse().join(".")} ${time};${heat(10)};${heat(14)};${heat(3)}`;
  }).join("\n")}\n`;
const load = (loadNo: string, minutesAgo: number, racks: string[]) =>
  stored(t, operator, ago(minutesAgo), {
    kind: "load",
    oven: "Oven 1",
    loadNo,
    timing: "door-close",
    setPointC: 205,
    places: racks.map((rack, i) => ({ rack, place: `B${i + 1}` })),
  });

describe("a recorder's file with headings of its own", () => {
  test("asks for its unit, is of the load just put in, says which probe is on which rack, and is remembered", async () => {
    for (const number of ["IM1", "IM2"]) await coatedRack(t, number, { at: ago(200) });
    await load("O-901", 60, ["IM1", "IM2"]);
    const text = oddTrace(ago(61));
    const first = await send("odd.csv", text);
    expect(first).toMatchObject({ ok: false, failure: { kind: "unit-unknown" } });
    if (first.ok) return;
    const asked = first.failure.asked as {
      layout: { columns: { is: string; rack: string | null }[] };
      cells: string[][];
    };
    expect(asked.layout.columns.map((c) => c.is)).toEqual(["time", "metal", "metal", "metal"]);
    expect(asked.cells[0]).toHaveLength(3);
    const layout = {
      ...asked.layout,
      unit: "degC",
      columns: asked.layout.columns.map((c, i) => ({
        ...c,
        is: ["time", "metal", "metal", "air"][i],
        rack: [null, "IM2", "IM1", null][i],
      })),
    };
    // A trace whose days could be months is asked about too: only then is the order open.
    const withOrder = { ...layout, order: "dmy" };
    const read = await send("odd.csv", text, { layout: JSON.stringify(withOrder) });
    expect(read).toMatchObject({
      ok: true,
      stored: null,
      understood: { kind: "oven", proposed: { startFrom: "file" } },
    });
    if (!read.ok) return;
    const proposed = read.understood.loads.find((l) => l.recordId === read.understood.proposed?.load);
    expect(proposed).toMatchObject({ loadNo: "O-901", oven: "Oven 1", racks: [{ number: "IM1" }, { number: "IM2" }] });
    expect(read.understood.proposed?.startLocal).toBe(local(ago(61)));
    const store = {
      layout: JSON.stringify(withOrder),
      load: proposed?.recordId ?? "",
      store: "yes",
      startedLocal: local(ago(61)),
    };
    expect(await send("odd.csv", text, store)).toMatchObject({ ok: true, stored: 61 });
    const bake = await t.app
      .selectFrom("bake")
      .innerJoin("bake_place", "bake_place.record_id", "bake.record_id")
      .innerJoin("rack", "rack.id", "bake_place.rack_id")
      .innerJoin("record", "record.id", "bake.record_id")
      .select(["rack.number", "bake_place.channel", "bake.load_no", "record.grade", "bake.door_closed_at"])
      .where("rack.number", "in", ["IM1", "IM2"])
      .where("record.grade", "=", "measured")
      .orderBy("rack.number")
      .execute();
    expect(bake.map((b) => [b.number, b.channel, b.load_no])).toEqual([
      ["IM1", "Klemme 7", "O-901"],
      ["IM2", "Klemme 4", "O-901"],
    ]);
    expect(bake[0]?.door_closed_at).toEqual(ago(61));
    // The same file for the same load is there once.
    expect(await send("odd.csv", text, store)).toMatchObject({ ok: true, already: true });
    // A second file of this shape is read so, without the racks of the first.
    const next = await send("odd2.csv", oddTrace(ago(20)));
    expect(next).toMatchObject({ ok: true, understood: { kind: "oven", remembered: { by: expect.any(String) } } });
    if (!next.ok) return;
    expect(next.understood.trace?.layout.columns.map((c) => [c.is, c.rack])).toEqual([
      ["time", null],
      ["metal", null],
      ["metal", null],
      ["air", null],
    ]);
    expect(
      await t.app.selectFrom("setup_entity").select("id").where("kind", "=", "trace-layout").execute(),
    ).toHaveLength(1);
    // What a file says itself goes before what was said of the one before it.
    expect(await send("odd3.csv", `# Unit: degF\n${oddTrace(ago(20))}`)).toMatchObject({
      ok: true,
      understood: { remembered: { by: expect.any(String) }, trace: { layout: { unit: "degF" } } },
    });
  });
  test("a probe on a rack that is not in the load is refused, and nothing is kept of it", async () => {
    await coatedRack(t, "IM3", { at: ago(200) });
    const id = await load("O-902", 55, ["IM3"]);
    const text = oddTrace(ago(55), "Wann;Fühler A (°C)").replace(/;[^;\n]*;[^;\n]*$/gm, "");
    const open = await send("one.csv", text, { dates: "day" });
    expect(open).toMatchObject({ ok: true });
    if (!open.ok) return;
    const target = open.understood.loads.find((l) => l.loadNo === "O-902");
    expect(id).toBeTruthy();
    const layout = {
      ...open.understood.trace?.layout,
      columns: open.understood.trace?.layout.columns.map((c) => (c.is === "metal" ? { ...c, rack: "IM1" } : c)),
    };
    const files = async () =>
      (await t.app.selectFrom("file").select("id").where("name", "=", "one.csv").execute()).length;
    expect(
      await send("one.csv", text, {
        layout: JSON.stringify(layout),
        load: target?.recordId ?? "",
        store: "yes",
        startedLocal: local(ago(55)),
      }),
    ).toMatchObject({ ok: false, failure: { kind: "rack-not-in-load", number: "IM1" } });
    expect(await files()).toBe(0);
    expect(await send("one.csv", text, { layout: '{"columns":"all"}' })).toMatchObject({
      ok: false,
      failure: { kind: "bad-entry" },
    });
    expect(await send("one.csv", text, { layout: "no json" })).toMatchObject({
      ok: false,
      failure: { kind: "bad-entry" },
    });
  });
  test("a file without a clock begins as its load's door closed", async () => {
    const text = `Elapsed,Rail (C)\n${Array.from({ length: 40 }, (_, i) => `${i * 30},${20 + i}`).join("\n")}\n`;
    const read = await send("plain.csv", text);
    expect(read).toMatchObject({
      ok: true,
      understood: { needs: ["rack", "oven-start"], proposed: { startFrom: "load" } },
    });
    if (!read.ok) return;
    const taken = read.understood.loads.find((l) => l.recordId === read.understood.proposed?.load);
    expect(read.understood.proposed?.startLocal).toBe(taken?.doorLocal);
  });
});

describe("files as programs write them", () => {
  const dates = Array.from({ length: 30 }, (_, i) => new Date(Date.UTC(2026, 4, 6, 9, 0, i * 20)));
  test("a spreadsheet: its fullest sheet, its dates by the shop's clock, the rest said to be left out", async () => {
    const book = workbook({
      Notes: [["made by the recorder"]],
      Data: [["When", "Part (°C)"], ...dates.map((d, i) => [d, 100 + i])],
      Empty: [],
    });
    const read = await send("trace.xlsx", book);
    expect(read).toMatchObject({
      ok: true,
      understood: {
        kind: "oven",
        writtenAs: "spreadsheet, sheet “Data”",
        sheetsLeftOut: ["Notes"],
        proposed: { startLocal: "2026-05-06T09:00:00" },
      },
    });
    const bare = workbook({
      Data: [["When", "Part (°C)"], ...dates.map((d, i) => [d.getTime() / 86_400_000 + 25_569, 100 + i])],
    });
    expect(await send("serials.xlsx", bare)).toMatchObject({
      ok: true,
      understood: { trace: { layout: { form: "spreadsheet-days" } }, proposed: { startLocal: "2026-05-06T09:00:00" } },
    });
    const film = workbook({
      Gauge: [
        ["No", "Thickness (mil)"],
        [1, 2.8],
        [2, 3.1],
        [3, 2.9],
      ],
    });
    expect(await send("film.xlsx", film)).toMatchObject({ ok: true, understood: { kind: "gauge" } });
  });
  test("what is no workbook, an old one and one that unpacks to too much are refused", async () => {
    expect(await send("x.xlsx", Buffer.from("PK\u0003\u0004 and no more"))).toMatchObject({
      failure: { kind: "bad-spreadsheet" },
    });
    expect(await send("old.xls", Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0, 0]))).toMatchObject({
      failure: { kind: "old-spreadsheet" },
    });
    const bomb = Buffer.from(
      zipSync({ "xl/worksheets/sheet1.xml": strToU8("0".repeat(130 * 1024 * 1024)) }, { level: 9 }),
    );
    expect(bomb.length).toBeLessThan(1_000_000);
    expect(await send("bomb.xlsx", bomb)).toMatchObject({ failure: { kind: "too-large" } });
    expect(await send("picture.csv", Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]))).toMatchObject({
      failure: { kind: "not-text" },
    });
  });
  test("text of older programs is read, and said to be such", async () => {
    const latin = Buffer.from("Zeit;Teil °C\n0;20,5\n30;40,5\n60;60,5\n", "latin1");
    expect(await send("latin.csv", latin)).toMatchObject({
      ok: true,
      understood: { kind: "oven", writtenAs: "Windows-1252" },
    });
    const wide = Buffer.concat([
      Buffer.from([0xff, 0xfe]),
      Buffer.from("No\tThickness (µm)\n1\t70\n2\t71\n", "utf16le"),
    ]);
    expect(await send("wide.txt", wide)).toMatchObject({
      ok: true,
      understood: { kind: "gauge", writtenAs: "UTF-16" },
    });
  });
  test("values with a date and nothing that says what they are: asked about, never taken for film", async () => {
    const text = `Date;Value 1;Value 2\n${dates.map((d, i) => `${d.toISOString().slice(0, 19)};${100 + i};${90 + i}`).join("\n")}\n`;
    expect(await send("values.csv", text)).toMatchObject({ ok: false, failure: { kind: "file-of-two-kinds" } });
    expect(await send("values.csv", text, { kind: "oven", unit: "degC" })).toMatchObject({
      ok: true,
      understood: { kind: "oven" },
    });
  });
});
