import { afterAll, beforeAll, expect, test } from "vitest";
import { now } from "@/server/now";
import { partMap } from "@/server/yield/part-map";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, entityId, stored } from "../support/entries";

let t: TestDatabase;
const operator = person("operator", "maren");
const at = now();
const days = (n: number) => new Date(at.getTime() - n * 86_400_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

test("light places and bumps of a part's racks are added up by cell, beside the span before, whoever else has parts", async () => {
  const partId = await entityId(t, "part", "MOORING-BASE");
  const map = (what: "light" | "bump" | "fault") => partMap(t.app, { partId, what, days: 28, at });
  const before = await map("light");
  const lamp = (rack: string, when: Date, over: object) =>
    stored(t, operator, when, {
      kind: "lamp-check",
      rack,
      coatNo: 1,
      faces: [face],
      spots: [],
      wiped: true,
      plugsIn: null,
      bumped: false,
      note: "",
      ...over,
    });
  const part = await t.app
    .selectFrom("setup_version")
    .select("data")
    .where("entity_id", "=", partId)
    .executeTakeFirstOrThrow();
  const face = (part.data as { faces: { id: string }[] }).faces[0]?.id ?? "";
  for (const [number, when] of [
    ["PM1", days(3)],
    ["PM2", days(2)],
    ["PM3", days(40)],
  ] as const) {
    await coatedRack(t, number, { part: "MOORING-BASE", powder: "GR-210", stages: ["booth", "oven"], at: when });
    await lamp(number, new Date(when.getTime() + 120_000), {
      spots: [{ face, x: 20, y: 80, what: "light-resprayed" }],
      bumped: number === "PM2",
    });
  }
  await coatedRack(t, "PM4", { part: "FERRY-SEAT", at: days(2) });
  const light = await map("light");
  const cell = light.cells.find((c) => c.face === face && c.column === 1 && c.row === 6);
  expect(cell?.racks).toEqual(expect.arrayContaining(["PM1", "PM2"]));
  expect(cell?.racks).not.toContain("PM3");
  const of = (m: typeof light) => m.faces.find((f) => f.face === face);
  expect((of(light)?.racks ?? 0) - (of(before)?.racks ?? 0)).toBe(2);
  expect((of(light)?.lookedBefore ?? 0) - (of(before)?.lookedBefore ?? 0)).toBe(1);
  expect((of(light)?.racksBefore ?? 0) - (of(before)?.racksBefore ?? 0)).toBe(1);
  // It was bumped, and nobody said where.
  expect((await map("bump")).notPlaced).toBeGreaterThanOrEqual(1);
});
