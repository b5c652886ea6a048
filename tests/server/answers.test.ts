import { afterAll, beforeAll, expect, test } from "vitest";
import { answerTo } from "@/app/answer";
import type { EntryInput } from "@/core/kinds";
import { valueOrThrow } from "@/core/result";
import { parseShorthand } from "@/core/shorthand";
import { entryFromShorthand } from "@/server/entries/from-shorthand";
import { pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, stored } from "../support/entries";

let t: TestDatabase;
const inspector = person("inspector", "tomasz");
const operator = person("operator", "maren");
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
beforeAll(async () => {
  t = await testDatabase();
  await coatedRack(t, "AN1", { at: ago(300) });
  for (const rack of ["AN2", "AN3"]) await coatedRack(t, rack, { at: ago(300) });
});
afterAll(() => t.drop());

const typed = async (text: string) => {
  const understood = valueOrThrow(parseShorthand(text));
  return entryFromShorthand(t.app, inspector, understood, newId(), at.toISOString());
};
const answered = async (text: string) => {
  const entry = valueOrThrow(await typed(text)) as EntryInput;
  expect(await storeEntry(t.app, inspector, entry, at)).toMatchObject({ ok: true });
  return answerTo(t.app, inspector, entry, "metric", at);
};

test("the entry line answers with what it comes to against what is asked", async () => {
  expect(await answered("rack AN1 dft s1 76 75 74")).toMatchObject({
    result: "in",
    text: expect.stringMatching(/^75\.0 µm, .* asked of a place$/),
  });
  expect(await answered("rack AN1 dft s2 31 30 32")).toMatchObject({
    result: "out",
    text: expect.stringMatching(/^31\.0 µm, /),
  });
  expect(await answered("rack AN1 cut 12/25")).toMatchObject({ result: "out" });
  expect(await answered("rack AN1 cut 0/25")).toMatchObject({ result: "out" });
  expect(await answered("tank 3 ph 5.2 at 48C")).toMatchObject({
    result: "in",
    text: expect.stringContaining("pH 5.20 on "),
  });
  expect(await answered("air 19C 55%")).toBeNull();
});

test("what could be of two loads asks which, and is taken where it is said", async () => {
  // What the demo left in that oven is out of it first.
  for (let left = 0; left < 5; left++) {
    const there = await t.app
      .selectFrom("bake")
      .innerJoin("record", "record.id", "bake.record_id")
      .select("bake.record_id")
      .where("bake.pulled_at", "is", null)
      .where("record.happened_at", ">", ago(24 * 60))
      .execute();
    for (const bake of there) await pullLoad(t.app, operator, { recordId: bake.record_id }, newId(), at);
  }
  const load = (loadNo: string, rack: string) =>
    stored(t, operator, ago(20), {
      kind: "load",
      oven: "Oven 1",
      loadNo,
      timing: "door-close",
      setPointC: 205,
      places: [{ rack, place: "" }],
    });
  await load("A-1", "AN2");
  expect(await typed("oven 1 melted")).toMatchObject({ ok: true, value: { loadNo: "A-1", event: "melted" } });
  await load("A-2", "AN3");
  expect(await typed("oven 1 melted")).toMatchObject({
    ok: false,
    error: { kind: "which-load", oven: "Oven 1", loads: ["A-1", "A-2"] },
  });
  expect(await typed("oven 1 a-2 melted")).toMatchObject({ ok: true, value: { loadNo: "A-2" } });
  expect(await typed("oven 1 load A-1 metal 180C")).toMatchObject({ ok: true, value: { loadNo: "A-1", valueC: 180 } });
  expect(await typed("oven 1 A-9 melted")).toMatchObject({ error: { kind: "unknown-load", load: "A-9" } });
  expect(await pullLoad(t.app, operator, { oven: "1" }, newId(), at)).toMatchObject({
    failure: { kind: "which-load" },
  });
  expect(await pullLoad(t.app, operator, { oven: "1", loadNo: "A-2" }, newId(), at)).toMatchObject({ ok: true });
  expect(await pullLoad(t.app, operator, { oven: "1" }, newId(), at)).toMatchObject({ ok: true });
});
