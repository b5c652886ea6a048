import { afterAll, beforeAll, expect, test } from "vitest";
import { storeEntry } from "@/server/entries/store-entry";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { extraWorkOf, usualExtraWork } from "@/server/yield/free-work";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const operator = person("operator", "rufus");
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

test("work nobody ordered is added up by what it was; what nobody pays costs the rate of the day", async () => {
  for (const n of ["XW1", "XW2"]) await freshRack(t, n, { at: ago(100) });
  const work = (rack: string, what: string, minutes: number, charged: boolean) =>
    stored(t, operator, ago(50), { kind: "extra-work", rack, what, minutes, charged });
  await work("XW1", "Weld repaired", 30, false);
  await work("XW2", "weld repaired", 30, false);
  await work("XW2", "Weld repaired", 60, true);
  await work("XW1", "thread chased", 6, false);
  const { rates } = await siteAt(t.app, at);
  const [weld, thread] = await extraWorkOf(t.app, { at, days: 28 });
  expect(weld).toMatchObject({ racks: 2, minutes: 120, freeMinutes: 60 });
  expect(weld?.freeCost).toBeCloseTo(rates?.labourPerHour ?? 0, 6);
  expect(thread).toMatchObject({ what: "thread chased", racks: 1, freeMinutes: 6 });
  expect(await extraWorkOf(t.app, { at: ago(60 * 24 * 40), days: 28 })).toEqual([]);
  expect(await usualExtraWork(t.app)).toContain("thread chased");
  for (const minutes of [0, -5])
    expect(
      await storeEntry(
        t.app,
        operator,
        entryAt(ago(40), { kind: "extra-work", rack: "XW1", what: "x", minutes, charged: false }),
        at,
      ),
    ).toMatchObject({ failure: { kind: "bad-entry", field: "minutes" } });
});
