import * as v from "valibot";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { findOven } from "@/server/cure/oven-file";
import { saveOven } from "@/server/cure/save-oven";
import { now } from "@/server/now";
import { type SetupData, setupAt } from "@/server/setup/setup-data";
import { setupSchemas } from "@/server/setup/setup-schemas";
import { person, type TestDatabase, testDatabase } from "../support/database";

let t: TestDatabase;
const lead = person("lead", "ines");
const blank = v.parse(setupSchemas.oven, { name: "Oven 3, batch, 4 m" });
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const save = (over: Partial<SetupData<"oven">>, input: object = {}) =>
  saveOven(
    t.app,
    lead,
    { code: "Oven 3", seen: null, reason: "bought in autumn", data: { ...blank, ...over }, ...input },
    now(),
  );

describe("an oven is set up", () => {
  test.each<[string, Partial<SetupData<"oven">>, object]>([
    ["set over what it bears", { usualSetPointC: 241 }, { kind: "bad-oven", field: "usual set point", value: 241 }],
    ["full sooner than empty", { fullTauS: 100 }, { kind: "bad-oven", field: "time constant full" }],
    ["a conveyor without zones", { type: "conveyor" }, { kind: "bad-oven", field: "zones" }],
    [
      "a place twice, whatever its case",
      {
        places: [
          { id: "A1", at: [10, 10], note: "" },
          { id: "a1", at: [20, 20], note: "" },
        ],
      },
      { kind: "bad-oven", field: "places", value: "a1" },
    ],
    ["a place outside it", { places: [{ id: "A1", at: [10, 130], note: "" }] }, { kind: "bad-entry" }],
    ["without a name", { name: " " }, { kind: "bad-entry", field: "data.name" }],
    ["hotter than any oven", { mostSetPointC: 900 }, { kind: "bad-entry" }],
    ["an efficiency over one", { efficiency: 1.2 }, { kind: "bad-entry" }],
  ])("not %s", async (_, over, failure) => {
    expect(await save(over)).toMatchObject({ ok: false, failure });
    expect(await findOven(t.app, "oven-3", now())).toBeNull();
  });
  test.each([
    ["a code in other letters", { code: "Oven #3" }],
    ["without a reason", { reason: "" }],
    ["with something more", { data: { ...blank, colour: "green" } }],
  ])("not %s", async (_, input) => {
    expect(await save({}, input)).toMatchObject({ ok: false, failure: { kind: "bad-entry" } });
  });
  test("kept it is there by its address, and a second of its name is refused", async () => {
    expect(await save({})).toEqual({ ok: true, code: "Oven 3", already: false });
    const oven = await findOven(t.app, "OVEN-3", now());
    expect(oven?.data).toMatchObject({ name: "Oven 3, batch, 4 m", type: "batch", dedicated: true });
    expect(await save({ name: "another" }, { code: "oven 3" })).toMatchObject({
      failure: { kind: "code-taken", code: "Oven 3" },
    });
    // The very same again is no second version.
    expect(await save({})).toEqual({ ok: true, code: "Oven 3", already: true });
  });
  test("a change is a new version from now on; of two at once one is told whose came first", async () => {
    const seen = (await findOven(t.app, "oven-3", now()))?.versionId ?? "";
    const before = now();
    await new Promise((resolve) => setTimeout(resolve, 5));
    const outcomes = await Promise.all([
      save({ usualSetPointC: 200 }, { seen, reason: "new burner" }),
      save({ usualSetPointC: 210 }, { seen, reason: "old habit" }),
    ]);
    expect(outcomes.filter((o) => o.ok)).toHaveLength(1);
    expect(outcomes.find((o) => !o.ok)).toMatchObject({ failure: { kind: "set-up-changed", by: "Ines Calder" } });
    expect((await findOven(t.app, "oven-3", before))?.data.usualSetPointC).toBe(blank.usualSetPointC);
    expect([200, 210]).toContain((await findOven(t.app, "oven-3", now()))?.data.usualSetPointC);
  });
  test("a version that is nobody's is refused", async () => {
    expect(await save({}, { code: "Oven 77", seen: "00000000-0000-7000-8000-000000000000" })).toMatchObject({
      failure: { kind: "unknown-set-up", name: "Oven 77" },
    });
  });
  test("lamps need neither zones nor places", async () => {
    expect(await save({ type: "lamps", heat: "infrared", name: "Lamps 2" }, { code: "Lamps 2" })).toMatchObject({
      ok: true,
    });
    const all = [...(await setupAt(t.app, "oven", now())).values()];
    expect(
      all
        .filter((o) => o.data.type === "lamps")
        .map((o) => o.code)
        .sort(),
    ).toEqual(["Lamps 1", "Lamps 2"]);
  });
});
