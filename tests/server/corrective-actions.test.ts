import { afterAll, beforeAll, expect, test } from "vitest";
import { confirmCause, openCase } from "@/server/causes/case-actions";
import { openActions, sinceDone } from "@/server/causes/corrective-actions";
import { loadCase } from "@/server/causes/load-case";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { dispose } from "@/server/release/dispose";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
let caseNumber = "";
let partId = "";
const check = (minutes: number, rest: object) =>
  storeEntry(
    t.app,
    inspector,
    entryAt(ago(minutes), { kind: "action-check", caseNumber, seen: "asked at the booth", ...rest }),
    at,
  );
const open = async () => (await openActions(t.app, lead)).filter((a) => a.caseNumber === caseNumber);
const confirmation = () => ({
  id: newId(),
  caseNumber,
  cause: "film-too-thick",
  proof: "film read at 160 µm on both",
  correction: "",
  correctiveAction: "two light passes in the sheet",
  who: "Ines",
  dueOn: "2026-01-05",
});
const withDefect = (rack: string, minutes: number) =>
  stored(t, inspector, ago(minutes), {
    kind: "defect",
    rack,
    structure: null,
    defect: "orange-peel",
    piecesAffected: 1,
    piecesSeen: 2,
    face: null,
    x: null,
    y: null,
    extentPercent: null,
    note: "",
  });

beforeAll(async () => {
  t = await testDatabase();
  for (const [number, minutes] of [
    ["CA1", 190],
    ["CA2", 150],
    ["CA3", 60],
  ] as const)
    await freshRack(t, number, { at: ago(minutes) });
  const defectRecordId = await withDefect("CA1", 180);
  const opened = await openCase(t.app, inspector, { defectRecordId, zone: "" }, ago(175));
  if (!opened.ok) throw new Error(JSON.stringify(opened.failure));
  caseNumber = opened.href.split("/").at(-1) ?? "";
  const rack = await t.app
    .selectFrom("rack")
    .innerJoin("job", "job.id", "rack.job_id")
    .select("job.part_id")
    .where("rack.number", "=", "CA1")
    .executeTakeFirstOrThrow();
  partId = rack.part_id;
});
afterAll(() => t.drop());

test("an action is looked after only where a cause is confirmed", async () => {
  expect(await open()).toEqual([]);
  expect(await check(170, { state: "worked" })).toMatchObject({ failure: { kind: "bad-entry", field: "caseNumber" } });
});

test("a corrective action stands open from its confirmation until somebody says it worked, and again where it came back", async () => {
  expect(await confirmCause(t.app, lead, confirmation(), ago(165))).toMatchObject({ ok: true });
  expect(await open()).toMatchObject([{ state: null, dueOn: "2026-01-05", action: "two light passes in the sheet" }]);
  // Until it is told whether it worked, a day to look again is asked.
  for (const againOn of [null, "2020-01-01"])
    expect(await check(160, { state: "done", againOn })).toMatchObject({
      failure: { kind: "bad-entry", field: "againOn" },
    });
  expect(await check(160, { state: "done", againOn: "2099-03-01" })).toMatchObject({ ok: true });
  expect(await open()).toMatchObject([{ state: "done", dueOn: "2099-03-01" }]);
  expect(await check(100, { state: "worked" })).toMatchObject({ ok: true });
  expect(await open()).toEqual([]);
  expect(await check(90, { state: "did-not-work" })).toMatchObject({ ok: true });
  expect(await open()).toMatchObject([{ state: "did-not-work" }]);
  const file = await loadCase(t.app, lead, caseNumber);
  expect(file?.actionChecks.map((c) => c.state)).toEqual(["did-not-work", "worked", "done"]);
  // A cause confirmed anew asks for its own action; the looks after the one before stay with that.
  // Of two who confirm at once the second is shown the first, and records it once that was seen.
  expect(await confirmCause(t.app, lead, confirmation(), ago(80))).toMatchObject({
    failure: { kind: "confirmed-meanwhile" },
  });
  const seen = (await loadCase(t.app, lead, caseNumber))?.confirmation?.record_id;
  const again = { ...confirmation(), seen };
  expect(await confirmCause(t.app, lead, again, ago(80))).toMatchObject({ ok: true });
  expect(await confirmCause(t.app, lead, again, ago(80))).toMatchObject({ ok: true, already: true });
  expect(await open()).toMatchObject([{ state: null, dueOn: "2026-01-05" }]);
  expect((await loadCase(t.app, lead, caseNumber))?.actionChecks).toEqual([]);
});

test("another customer’s person is told of no action", async () => {
  const other = person("viewer", "vera", newId());
  expect((await openActions(t.app, other)).filter((a) => a.caseNumber === caseNumber)).toEqual([]);
});

test("racks of the part are counted since it was done and as long before, those decided on alone", async () => {
  const about = { defect: "orange-peel", partId, doneAt: ago(120), at };
  const counted = async () => {
    const { before, after } = await sinceDone(t.app, lead, about);
    return { before, after };
  };
  const begun = await counted();
  const decided = async (rack: string, decision: string) =>
    expect(
      await dispose(t.app, lead, { id: newId(), rack, decision, note: "too thick on both", seen: null }, ago(20)),
    ).toMatchObject({ ok: true });
  await decided("CA1", "scrap");
  await decided("CA2", "hold");
  await decided("CA3", "scrap");
  const after = await counted();
  expect(after.before).toEqual({ racks: begun.before.racks + 1, withIt: begun.before.withIt + 1 });
  expect(after.after).toEqual({ racks: begun.after.racks + 1, withIt: begun.after.withIt });
  await withDefect("CA3", 10);
  expect((await counted()).after.withIt).toBe(begun.after.withIt + 1);
});
