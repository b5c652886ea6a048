import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { bathHistory } from "@/server/baths/bath-history";
import { storeEntry } from "@/server/entries/store-entry";
import { recentDryOffs } from "@/server/line/dry-offs";
import { newId, now } from "@/server/now";
import { lastHow } from "@/server/rack/last-how";
import { saveBath } from "@/server/setup/save-bath";
import { setupAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId, entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "rufus");
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const check = (value: number) => ({
  kind: "bath-check",
  bath: "Tank 4",
  values: [{ parameter: "conductivity", value, typed: String(value), typedUnit: "µS/cm" }],
  sure: true,
});
const history = async () => bathHistory(t.app, await entityId(t, "bath", "Tank 4"), "conductivity", at);

describe("all there is of a bath", () => {
  test("every check in order of time, a corrected one as it is corrected", async () => {
    const before = await history();
    expect(before.values.length).toBeGreaterThan(40);
    expect([...before.atMs].sort((a, b) => a - b)).toEqual(before.atMs);
    expect(before.older).toBe(0);
    const first = await stored(t, operator, ago(30), check(71));
    await stored(t, operator, ago(20), check(74));
    await stored(t, operator, ago(30), {
      ...check(77),
      supersedes: { recordId: first, reason: "read from the wrong cell" },
    });
    const after = await history();
    expect(after.values.slice(-2)).toEqual([77, 74]);
    expect(after.values.length).toBe(before.values.length + 2);
    expect(after.atMs.at(-1)).toBe(ago(20).getTime());
  });
  test("the window of each time, and why it changed", async () => {
    const bath = [...(await setupAt(t.app, "bath", at)).values()].find((b) => b.code === "Tank 4");
    if (!bath) throw new Error("Tank 4");
    const conductivity = { ...bath.data.windows.conductivity, upper: 120, watchUpper: 95 };
    const saved = await saveBath(
      t.app,
      lead,
      {
        code: "Tank 4",
        seen: bath.versionId,
        reason: "membrane renewed",
        data: { ...bath.data, windows: { conductivity } },
      },
      ago(10),
    );
    expect(saved).toMatchObject({ ok: true, already: false });
    const { windows } = await history();
    expect(windows.map((w) => [w.upper, w.reason])).toEqual([
      [150, "First set-up"],
      [120, "membrane renewed"],
    ]);
    expect(windows[1]?.fromMs).toBe(ago(10).getTime());
  });
  test("what was done to it, in words", async () => {
    await stored(t, operator, ago(8), {
      kind: "bath-event",
      bath: "Tank 4",
      event: "dump",
      product: "",
      amountL: null,
      note: "green",
    });
    expect((await history()).events.at(-1)).toMatchObject({ event: "dump", label: "dump" });
    const acid = await bathHistory(t.app, await entityId(t, "bath", "Tank 3"), "ph", at);
    expect(acid.events.some((e) => /^addition [\d.]+ L Conversion make-up acid$/.test(e.label))).toBe(true);
  });
  test("of a value that is not watched there is no window, and of a strange bath there is nothing", async () => {
    const none = await bathHistory(t.app, newId(), "ph", at);
    expect(none).toMatchObject({ values: [], windows: [], events: [], older: 0 });
  });
});

describe("how it was last done", () => {
  test("is offered again for two months; what cannot be is refused by its field", async () => {
    await freshRack(t, "H101", { at: ago(600) });
    const blast = (over: object) => ({
      kind: "prep-step",
      rack: "H101",
      step: "blast",
      done: true,
      value: 48,
      note: "",
      ...over,
    });
    // The shop's way is offered again; how clean it came out somebody judges each time.
    expect((await lastHow(t.app, at)).blast).toEqual({ media: "steel grit", pressure: 650, "media lot": "G-40/7" });
    await stored(t, operator, ago(2), { ...blast({}), step: "degrease", value: null });
    await stored(t, operator, ago(1), blast({ how: { media: "steel shot", pressure: 500 } }));
    expect((await lastHow(t.app, at)).blast).toEqual({ media: "steel shot", pressure: 500 });
    expect(await lastHow(t.app, new Date(at.getTime() + 70 * 86_400_000))).toEqual({});
    const wrong = await storeEntry(t.app, operator, entryAt(ago(50), blast({ how: { media: "walnut" } })), at);
    expect(wrong).toMatchObject({ failure: { kind: "bad-how", field: "media" } });
    // Nothing said is nothing kept, not an empty something.
    const id = await stored(t, operator, ago(40), blast({ how: {} }));
    const row = await t.app.selectFrom("prep_step").select("how").where("record_id", "=", id).executeTakeFirst();
    expect(row?.how).toBeNull();
  });
});

describe("racks out of the dry-off", () => {
  test("judged by their own part and time in it, with the humidity then; a customer sees only their own", async () => {
    await freshRack(t, "H201", { part: "SHELTER-POST", powder: "GR-210", customer: "C2", at: ago(600) });
    await freshRack(t, "H202", { at: ago(600) });
    const out = (rack: string, over: object = {}) => ({
      kind: "dry-off",
      rack,
      airC: 130,
      metalC: 38,
      partsDry: true,
      hollowBlown: null,
      note: "",
      ...over,
    });
    await stored(t, operator, ago(45), {
      kind: "conditions",
      place: "hall",
      values: [{ quantity: "humidity", value: 81 }],
    });
    await stored(t, operator, ago(30), out("H201", { hollowBlown: false }));
    await stored(t, operator, ago(25), out("H202", { metalC: 58 }));
    const seen = (await recentDryOffs(t.app, lead, at)).seen;
    expect(seen.find((s) => s.rack === "H201")).toMatchObject({
      result: "out",
      reasons: ["hollow-not-blown"],
      humidityPercent: 81,
    });
    expect(seen.find((s) => s.rack === "H202")).toMatchObject({ result: "watch", reasons: ["too-hot-for-the-booth"] });
    const otto = person("viewer", "otto", await entityId(t, "customer", "C1"));
    const own = (await recentDryOffs(t.app, otto, at)).seen.map((s) => s.rack);
    expect(own).toContain("H202");
    expect(own).not.toContain("H201");
  });
});
