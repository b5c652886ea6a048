import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { newId, now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const operator = person("operator", "rufus");
/** Hours after a moment long past, so that nothing of the demo is near. */
const start = new Date(at.getTime() - 1200 * 86_400_000);
const hour = (n: number) => new Date(start.getTime() + n * 3_600_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

let baths = 0;
/** A bath of the test's own with a round every four hours: pH 4.8 to 5.8. */
async function ownBath(): Promise<string> {
  const code = `Trace ${++baths}`;
  const like = [...(await setupAt(t.app, "bath", at)).values()].find((b) => b.code === "Tank 3");
  const id = newId();
  await t.app.insertInto("setup_entity").values({ id, kind: "bath", code }).execute();
  const windows = {
    ph: { lower: 4.8, upper: 5.8, watchLower: null, watchUpper: null, roundHours: null, reaction: null },
  };
  await t.app
    .insertInto("setup_version")
    .values({
      id: newId(),
      entity_id: id,
      valid_from: new Date(start.getTime() - 86_400_000 * 200),
      recorded_at: at,
      by_user: "dagny",
      reason: "for the test",
      data: JSON.stringify({ ...like?.data, name: code, stage: "seal", roundHours: 4, windows, contactS: [60, 120] }),
    })
    .execute();
  return code;
}
const check = (bath: string, h: number, ph: number, over: object = {}) =>
  stored(t, operator, hour(h), {
    kind: "bath-check",
    bath,
    sure: true,
    values: [{ parameter: "ph", value: ph, typed: String(ph), typedUnit: "" }],
    ...over,
  });
const addition = (bath: string, h: number) =>
  stored(t, operator, hour(h), {
    kind: "bath-event",
    bath,
    event: "addition",
    product: "Something",
    amountL: 1,
    note: "for the test",
    sure: true,
  });
const dump = (bath: string, h: number) =>
  stored(t, operator, hour(h), { kind: "bath-event", bath, event: "dump", product: "", amountL: null, note: "" });
let racks = 0;
async function passed(h: number): Promise<string> {
  const number = `X${String(++racks).padStart(3, "0")}`;
  await freshRack(t, number, { at: hour(-100) });
  await stored(t, operator, hour(h), { kind: "passage", rack: number, stage: "seal" });
  return (await t.app.selectFrom("rack").select("id").where("number", "=", number).executeTakeFirstOrThrow()).id;
}
const found = async (rackId: string, bath: string) =>
  (await conditionsWhenPassed(t.app, [rackId], at)).baths.find((b) => b.bathCode === bath);

describe("the value of a bath at the minute a rack passed", () => {
  test("between two checks it is interpolated, measured within a round, with both as its sources", async () => {
    const bath = await ownBath();
    const [before, after] = [await check(bath, 0, 5), await check(bath, 4, 5.4)];
    const condition = await found(await passed(1), bath);
    expect(condition).toMatchObject({
      parameter: "ph",
      lower: 4.8,
      upper: 5.8,
      result: "in",
      contactS: [60, 120],
      found: { how: "interpolated", grade: "measured", sources: [before, after] },
    });
    expect(condition?.found.value).toBeCloseTo(5.1, 9);
  });
  test("at a check it is that check", async () => {
    const bath = await ownBath();
    await check(bath, 0, 5);
    await check(bath, 4, 5.4);
    expect((await found(await passed(0), bath))?.found.value).toBe(5);
    expect((await found(await passed(4), bath))?.found.value).toBe(5.4);
  });
  test("never across an addition: before it the check before is held, after it the check after", async () => {
    const bath = await ownBath();
    const [before, after] = [await check(bath, 0, 6), await check(bath, 4, 5)];
    await addition(bath, 2);
    expect(await found(await passed(1), bath)).toMatchObject({
      result: "out",
      found: { how: "held-before", value: 6, sources: [before] },
    });
    expect(await found(await passed(3), bath)).toMatchObject({
      result: "in",
      found: { how: "held-after", value: 5, sources: [after] },
    });
  });
  test("nor across a dump", async () => {
    const bath = await ownBath();
    await check(bath, 0, 6);
    await dump(bath, 2);
    expect(await found(await passed(3), bath)).toMatchObject({
      found: { how: "last-value", value: 6, grade: "assumed" },
    });
  });
  test("with no later check it is the last value, measured within the round, assumed past it", async () => {
    const bath = await ownBath();
    await check(bath, 0, 5);
    expect((await found(await passed(4), bath))?.found).toMatchObject({
      how: "last-value",
      grade: "measured",
      value: 5,
    });
    expect((await found(await passed(4.1), bath))?.found).toMatchObject({
      how: "last-value",
      grade: "assumed",
      value: 5,
    });
  });
  test("with none before it is the first after; with none at all it is unknown", async () => {
    const bath = await ownBath();
    expect(await found(await passed(1), bath)).toMatchObject({
      result: "unknown",
      found: { how: "never-checked", value: null, grade: "unknown", sources: [] },
    });
    await check(bath, 3, 5.2);
    expect((await found(await passed(1), bath))?.found).toMatchObject({
      how: "held-after",
      value: 5.2,
      grade: "measured",
    });
  });
  test("a check further off than a fortnight says nothing", async () => {
    const bath = await ownBath();
    await check(bath, 0, 5);
    expect((await found(await passed(14 * 24), bath))?.found).toMatchObject({ how: "last-value", grade: "assumed" });
    expect((await found(await passed(14 * 24 + 1), bath))?.found.how).toBe("never-checked");
  });
  test("a corrected check is not counted, its correction is; a corrected addition parts nothing", async () => {
    const bath = await ownBath();
    const wrong = await check(bath, 0, 3);
    await check(bath, 0, 5, { supersedes: { recordId: wrong, reason: "electrode dry" } });
    await check(bath, 4, 5.4);
    expect((await found(await passed(2), bath))?.found.value).toBeCloseTo(5.2, 9);
    const event = await addition(bath, 1);
    expect((await found(await passed(0.5), bath))?.found.how).toBe("held-before");
    await stored(t, operator, hour(30), {
      kind: "bath-event",
      bath,
      event: "addition",
      product: "Something",
      amountL: 1,
      note: "was the day after",
      sure: true,
      supersedes: { recordId: event, reason: "another day" },
    });
    expect((await found(await passed(0.5), bath))?.found.how).toBe("interpolated");
  });
});

describe("passages", () => {
  test("end where they are said to, else where the next begins; by the line's speed they are by procedure", async () => {
    await freshRack(t, "X900", { at: hour(-10) });
    await stored(t, operator, hour(0), { kind: "passage", rack: "X900", stage: "blast" });
    await stored(t, operator, hour(1), { kind: "passage", rack: "X900", stage: "booth" });
    const rack = await t.app.selectFrom("rack").select("id").where("number", "=", "X900").executeTakeFirstOrThrow();
    const { passages } = await conditionsWhenPassed(t.app, [rack.id], at);
    expect(passages.map((p) => [p.stage, p.seconds, p.grade])).toEqual([
      ["blast", 3600, "measured"],
      ["booth", null, "measured"],
    ]);
    await freshRack(t, "X901", { at: hour(-10) });
    await stored(t, operator, hour(0), { kind: "line-run", rack: "X901", line: "Washer 1", speedMPerMin: 1.2 });
    const run = await t.app.selectFrom("rack").select("id").where("number", "=", "X901").executeTakeFirstOrThrow();
    const ran = (await conditionsWhenPassed(t.app, [run.id], at)).passages;
    expect(ran.length).toBeGreaterThan(3);
    for (const p of ran) expect(p).toMatchObject({ grade: "by-procedure", rackId: run.id });
    for (const p of ran) expect(p.seconds).toBeGreaterThan(0);
  });
  test("of no racks nothing; of several each its own", async () => {
    expect(await conditionsWhenPassed(t.app, [], at)).toEqual({ passages: [], baths: [] });
    const bath = await ownBath();
    await check(bath, 50, 5);
    const [one, two] = [await passed(50.5), await passed(51)];
    const both = (await conditionsWhenPassed(t.app, [one, two], at)).baths.filter((b) => b.bathCode === bath);
    expect(new Set(both.map((b) => b.rackId))).toEqual(new Set([one, two]));
  });
});
