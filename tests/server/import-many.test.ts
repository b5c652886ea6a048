import { sql } from "kysely";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { seededRandom } from "@/core/simulated-line";
import { importMany } from "@/server/imports/import-many";
import { now } from "@/server/now";
import { sealRecords, verifyRecord } from "@/server/record/seal";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId, freshRack } from "../support/entries";

let t: TestDatabase;
const at = now();
const inspector = person("inspector", "tomasz");
beforeAll(async () => {
  t = await testDatabase();
  await freshRack(t, "M100");
  await freshRack(t, "M101");
});
afterAll(() => t.drop());

const spots = ["S1", "S2", "S3", "S4", "S5", "L1", "L2", "L3", "L4", "L5"];
const random = seededRandom(5);
const lines = (count: number, rack: (i: number) => string) =>
  Array.from(
    { length: count },
    (_, i) => `${rack(i)},${spots[i % spots.length]},${Math.max(20, random.normal(74, 5)).toFixed(1)}`,
  );
async function* chunks(text: string, size = 7001): AsyncGenerator<Uint8Array> {
  const bytes = new TextEncoder().encode(text);
  for (let i = 0; i < bytes.length; i += size) yield bytes.slice(i, i + size);
}
const send = (text: string, over: Partial<Parameters<typeof importMany>[3]> = {}, who = inspector) =>
  importMany(t.appUrl, who, chunks(text), { rack: null, unit: null, at, ...over });
const kept = async () =>
  Number(
    (
      await t.app
        .selectFrom("thickness_reading")
        .select((e) => e.fn.countAll().as("n"))
        .executeTakeFirstOrThrow()
    ).n,
  );
const heading = "rack,spot,thickness um\r\n";

describe("a history of readings in one file", () => {
  test("goes to its racks, one set each, with what each face comes to; the record still verifies", async () => {
    const before = await kept();
    const rows = lines(3000, (i) => (i % 3 === 0 ? "M101" : "m100"));
    const told: number[] = [];
    const text = `\uFEFF${heading}${rows.join("\r\n")}\r\nM100,S1,OVER\r\n`;
    const outcome = await send(text, { progress: (n) => told.push(n) });
    expect(outcome).toEqual({ ok: true, readings: 3000, leftOut: 1, racks: 2, already: false });
    expect(told.at(-1)).toBe(3000);
    expect(await kept()).toBe(before + 3000);
    const { rows: faces } = await sql<{ number: string; face: string; spots: number; readings: number }>`
      select k.number, f.face, f.spots, f.readings from film_face f join record r on r.id = f.record_id join rack k on k.id = r.rack_id
      where k.number in ('M100', 'M101') order by 1, 2`.execute(t.app);
    expect(faces.map((f) => [f.number, f.face, f.spots])).toEqual([
      ["M100", "L", 5],
      ["M100", "S", 5],
      ["M101", "L", 5],
      ["M101", "S", 5],
    ]);
    expect(faces.reduce((n, f) => n + f.readings, 0)).toBe(3000);
    const own = rows.filter((r) => r.startsWith("M101,L1,")).map((r) => Number(r.split(",")[2]));
    const there = await t.app
      .selectFrom("thickness_reading as d")
      .innerJoin("record as r", "r.id", "d.record_id")
      .innerJoin("rack as k", "k.id", "r.rack_id")
      .select("d.value_um")
      .where("k.number", "=", "M101")
      .where("d.spot", "=", "L1")
      .orderBy("d.ordinal")
      .execute();
    expect(there.map((r) => r.value_um)).toEqual(own);
    await sealRecords(t.app, process.env.SEAL_PRIVATE_KEY ?? "", at);
    const verified = await verifyRecord(t.app, process.env.SEAL_PUBLIC_KEY ?? "");
    expect(verified.discrepancies).toEqual([]);
    expect(await send(text)).toEqual({ ok: true, readings: 0, leftOut: 1, racks: 0, already: true });
    expect(await kept()).toBe(before + 3000);
  });

  test.each<[string, string, object]>([
    ["a word among numbers", `${heading}M100,S1,70\nM100,S2,seventy\n`, { kind: "bad-rows", problems: [{ line: 3 }] }],
    ["a rack there is not", `${heading}M100,S1,70\nM999,S1,70\n`, { kind: "unknown-rack", number: "M999", line: 3 }],
    ["a spot there is not", `${heading}M100,Q7,70\n`, { kind: "unknown-spot", spot: "Q7", line: 2 }],
    ["beyond any film", `${heading}M100,S1,70\nM100,S1,20000\n`, { kind: "bad-rows" }],
    ["no unit", "rack,spot,thickness\nM100,S1,70\n", { kind: "unit-unknown" }],
    ["no spots", "rack,thickness um\nM100,70\n", { kind: "no-spot-column" }],
    ["no rack at all", "spot,thickness um\nS1,70\n", { kind: "no-rack-named" }],
    ["nothing", "", { kind: "empty-file" }],
    ["a heading alone", heading, { kind: "empty-file" }],
  ])("%s: refused whole", async (_, text, failure) => {
    const before = await kept();
    expect(await send(text)).toMatchObject({ ok: false, failure });
    expect(await kept()).toBe(before);
  });

  test("not UTF-8, and cut in the middle of a letter", async () => {
    const bad = async function* () {
      yield new TextEncoder().encode(heading);
      yield new Uint8Array([0x4d, 0xff, 0xfe, 0x0a]);
    };
    expect(await importMany(t.appUrl, inspector, bad(), { rack: null, unit: null, at })).toMatchObject({
      failure: { kind: "not-utf-8" },
    });
  });

  test("mil among µm are asked about with their lines, and kept only when somebody says they stand", async () => {
    const before = await kept();
    const rows = lines(40, () => "M100");
    rows[20] = "M100,S1,2.9";
    rows[21] = "M100,S2,3.0";
    const text = `${heading}${rows.join("\n")}\n`;
    expect(await send(text)).toMatchObject({
      failure: {
        kind: "strange-readings",
        count: 2,
        asked: [
          { line: 22, text: "2.9", strange: { kind: "unit-jump", slip: "mil-as-um" } },
          { line: 23, text: "3.0" },
        ],
      },
    });
    expect(await kept()).toBe(before);
    expect(await send(text, { sure: true })).toMatchObject({ ok: true, readings: 40 });
  });

  test("stopped half way, and a source that breaks: nothing is kept", async () => {
    const before = await kept();
    const stop = new AbortController();
    const text = `${heading}${lines(60_000, () => "M100").join("\n")}\n`;
    const stopped = await send(text, { signal: stop.signal, progress: () => stop.abort() });
    expect(stopped).toMatchObject({ ok: false, failure: { kind: "import-stopped" } });
    const broken = async function* () {
      yield* chunks(text.slice(0, 500_000));
      throw new Error("connection lost");
    };
    await expect(importMany(t.appUrl, inspector, broken(), { rack: null, unit: null, at })).rejects.toThrow("lost");
    expect(await kept()).toBe(before);
  });

  test("another customer's rack is not there for a person held to one", async () => {
    const other = person("inspector", "guest", await entityId(t, "customer", "C2"));
    expect(await send(`${heading}M100,S1,70\n`, {}, other)).toMatchObject({ failure: { kind: "unknown-rack" } });
  });

  test("one rack for the whole file, in mil", async () => {
    const outcome = await send("spot\tDFT\nS1\t2.91\nS1\t2.95\nS2\t3.02\n", { rack: "M101", unit: "mil" });
    expect(outcome).toMatchObject({ ok: true, readings: 3, racks: 1 });
    const last = await t.app
      .selectFrom("thickness_reading")
      .select(["value_um", "typed"])
      .where("typed", "=", "2.91")
      .executeTakeFirst();
    expect(last?.value_um).toBeCloseTo(73.914, 9);
  });
});
