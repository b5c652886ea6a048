import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { loadStructure } from "@/server/field/load-structure";
import { newId, now } from "@/server/now";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId, stored } from "../support/entries";

let t: TestDatabase;
const inspector = person("inspector", "tomasz");
const at = now();
const ago = (days: number) => new Date(at.getTime() - days * 86_400_000);
beforeAll(async () => {
  t = await testDatabase();
  await t.app
    .insertInto("structure")
    .values({
      id: newId(),
      code: "RAIL-1",
      customer_id: await entityId(t, "customer", "C1"),
      site: "quay",
      name: "Rail",
      put_up_on: "2024-05-01",
      exposure: JSON.stringify(["salt"]),
      created_by: "ines",
    })
    .execute();
});
afterAll(() => t.drop());
const visit = (when: Date, over: object) =>
  stored(t, inspector, when, { kind: "visit", structure: "RAIL-1", weather: "", note: "", creep: [], ...over });
const file = async () => {
  const found = await loadStructure(t.app, inspector, "rail-1", at);
  if (!found) throw new Error("no structure");
  return found;
};

describe("what a visit measured", () => {
  test("creep by area: 200 mm² along 50 mm with a scribe of 1 mm is 1.5 mm, rating 7", async () => {
    await visit(ago(20), {
      creep: [{ zone: "weld", from: "area", scribeMm: 1, widthsMm: [], areaMm2: 200, lengthMm: 50 }],
    });
    const { zones } = await file();
    expect(zones).toMatchObject([{ zone: "weld", from: "area", now: { creepMm: 1.5, rating: 7, widthsMm: [] } }]);
  });
  test("the rusted share has its grade, with the visit before beside it; a zone seen once says so", async () => {
    await visit(ago(400), { rust: [{ zone: "weld", sharePercent: 0.04 }] });
    await visit(ago(10), {
      rust: [
        { zone: "weld", sharePercent: 0.5 },
        { zone: "foot", sharePercent: 9 },
      ],
    });
    const { rusting } = await file();
    expect(rusting.map(({ zone, sharePercent, grade, before }) => [zone, sharePercent, grade, before])).toEqual([
      ["weld", 0.5, 2, 0.04],
      ["foot", 9, 5, null],
    ]);
  });
  test("a visit that was corrected counts no more, nor does a defect that was", async () => {
    const wrong = await visit(ago(2), { rust: [{ zone: "foot", sharePercent: 90 }] });
    expect((await file()).rusting.find((r) => r.zone === "foot")).toMatchObject({ sharePercent: 90, before: 9 });
    await visit(ago(2), {
      rust: [{ zone: "foot", sharePercent: 9 }],
      supersedes: { recordId: wrong, reason: "typed a nought too many" },
    });
    expect((await file()).rusting.find((r) => r.zone === "foot")).toMatchObject({ sharePercent: 9, before: 9 });
    const seen = { kind: "defect", rack: null, structure: "RAIL-1", face: null, x: null, y: null };
    const rest = { extentPercent: null, piecesAffected: null, piecesSeen: null, note: "" };
    const first = await stored(t, inspector, ago(1), { ...seen, ...rest, defect: "blistering" });
    await stored(t, inspector, ago(1), {
      ...seen,
      ...rest,
      defect: "rust-creep",
      supersedes: { recordId: first, reason: "cut open: rust" },
    });
    expect((await file()).defects.map((d) => d.defect)).toEqual(["rust-creep"]);
  });
});
