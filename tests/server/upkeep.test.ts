import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { storeEntry } from "@/server/entries/store-entry";
import { loadLine } from "@/server/line/load-line";
import { newId, now } from "@/server/now";
import { recentRecords } from "@/server/search/recent";
import { loadUpkeep } from "@/server/upkeep/load-upkeep";
import { beginUpkeep, saveUpkeep, stagesToBegin } from "@/server/upkeep/save-upkeep";
import { sayRecord } from "@/ui/kinds/say-record";
import { dueList } from "@/ui/shift/due-list";
import { failureText } from "@/ui/words/failures";
import { upkeepWord } from "@/ui/words/upkeep";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entryAt, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const lead = person("lead", "ines");
const operator = person("operator", "rufus");
const later = (days: number) => new Date(at.getTime() + days * 86_400_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const data = {
  what: "Titrant bottle",
  stage: "pretreat",
  everyDays: 30,
  look: "Date, and a blank against the old bottle.",
  leadsTo: "Every titration reads wrong by the same share",
  caution: "",
  hands: "line",
  measure: { name: "Blank", unit: "mL", lower: null, upper: 0.3 },
  retired: false,
};
const made = (over: object = {}) => ({
  id: newId(),
  code: null,
  seen: null,
  reason: "Asked for by the supplier",
  data,
  ...over,
});
const file = async (what: string, when = at) =>
  (await loadUpkeep(t.app, when, { history: 5 })).find((u) => u.item.data.what === what);
const done = (item: string, rest: object) =>
  entryAt(at, { kind: "upkeep", item, value: null, who: "", note: "", ...rest });

describe("an upkeep", () => {
  test("is set up once, however often it is sent; its name is not given twice", async () => {
    const sent = made();
    const [one, two] = await Promise.all([saveUpkeep(t.app, lead, sent, at), saveUpkeep(t.app, lead, sent, at)]);
    expect(one.ok && two.ok && one.code === two.code).toBe(true);
    expect([one, two].filter((o) => o.ok && !o.already)).toHaveLength(1);
    expect((await file("Titrant bottle", later(0.01)))?.standing.state).toBe("never");
    expect(
      await saveUpkeep(t.app, lead, made({ data: { ...data, what: "titrant BOTTLE" } }), later(0.01)),
    ).toMatchObject({
      ok: false,
      failure: { kind: "number-taken" },
    });
  });
  test("of two changes at once the second is told whose was first", async () => {
    const before = await file("Titrant bottle", later(0.1));
    const change = (everyDays: number, by: string) =>
      saveUpkeep(
        t.app,
        person("lead", by),
        made({ code: before?.item.code, seen: before?.item.versionId, data: { ...data, everyDays } }),
        later(0.1),
      );
    expect(await change(21, "ines")).toMatchObject({ ok: true, already: false });
    expect(await change(14, "dagny")).toMatchObject({
      ok: false,
      failure: { kind: "set-up-changed", by: "Ines Calder" },
    });
    expect((await file("Titrant bottle", later(0.2)))?.item.data.everyDays).toBe(21);
  });
  test.each([
    ["no reason", { reason: "" }, "bad-entry"],
    ["no id", { id: "1" }, "bad-entry"],
    ["an interval of nothing", { data: { ...data, what: "A", everyDays: 0 } }, "bad-upkeep"],
    [
      "limits crossed",
      { data: { ...data, what: "B", measure: { ...data.measure, lower: 5, upper: 1 } } },
      "bad-upkeep",
    ],
    ["one that is not there", { code: "U-999" }, "unknown-set-up"],
  ])("%s is refused, in words, and nothing is kept", async (_, over, kind) => {
    const count = async () => (await loadUpkeep(t.app, later(1))).length;
    const before = await count();
    const outcome = await saveUpkeep(t.app, lead, made(over), later(0.3));
    expect(outcome).toMatchObject({ ok: false, failure: { kind } });
    if (!outcome.ok) expect(failureText(outcome.failure)).not.toMatch(/undefined|NaN|\{/);
    expect(await count()).toBe(before);
  });
  test("what is usual is begun stage by stage, and only what is missing", async () => {
    expect(stagesToBegin((await loadUpkeep(t.app, at)).map((u) => u.item.data.what))).toEqual([]);
    const nozzles = await file("Washer nozzles");
    const rename = {
      id: newId(),
      code: nozzles?.item.code,
      seen: nozzles?.item.versionId,
      reason: "Named after the risers",
      data: { ...nozzles?.item.data, what: "Nozzles of risers 1 to 6" },
    };
    expect(await saveUpkeep(t.app, lead, rename, later(0.4))).toMatchObject({ ok: true });
    const id = newId();
    expect(await beginUpkeep(t.app, lead, { id, stage: "pretreat" }, later(0.5))).toEqual({ ok: true, added: 1 });
    expect(await beginUpkeep(t.app, lead, { id, stage: "pretreat" }, later(0.6))).toEqual({ ok: true, added: 0 });
    expect(await beginUpkeep(t.app, lead, { id, stage: "plan" }, later(0.6))).toMatchObject({ ok: false });
  });
});

describe("upkeep that was done", () => {
  test("puts off when it is due; left not in order it stays out on Shift until it is put right", async () => {
    const media = await file("Blast media");
    const code = media?.item.code ?? "";
    await stored(t, operator, at, done(code, { result: "not-in-order", value: 22, note: "half of it dust" }));
    expect((await file("Blast media"))?.standing).toMatchObject({ state: "not-in-order", result: "out" });
    const due = (line: Awaited<ReturnType<typeof loadLine>>) =>
      dueList(line, "metric").find((item) => item.what === "Blast media");
    expect(due(await loadLine(t.app, operator, at))).toMatchObject({
      result: "out",
      why: "half of it dust",
      href: `/upkeep#${code}`,
    });
    await stored(t, operator, at, done(code, { result: "put-right", value: 4, note: "screened, 50 kg new" }));
    const after = await file("Blast media", later(0.01));
    expect(after?.standing.state).toBe("done");
    expect(
      after?.done
        .slice(0, 2)
        .map((d) => d.result)
        .sort(),
    ).toEqual(["not-in-order", "put-right"]);
    expect(due(await loadLine(t.app, operator, later(0.01)))).toBeUndefined();
    const overdue = await loadLine(t.app, operator, later(9));
    expect(due(overdue)?.word).toBe("Overdue 2 d");
    const [newest] = await recentRecords(t.app, operator, later(1), 1, { kind: "upkeep" });
    expect(newest ? sayRecord(newest, "metric") : "").toMatch(/^Blast media: /);
  });
  test.each([
    ["what is not set up", "U-404", { result: "in-order" }, "unknown-set-up"],
    ["a value where none is read", "Oven door seals", { result: "in-order", value: 3 }, "bad-entry"],
    [
      "a value beyond its limit as in order",
      "Film gauge against its shims",
      { result: "in-order", value: 7 },
      "upkeep-not-in-order",
    ],
    ["licensed work by nobody", "Oven burner and ventilation", { result: "in-order" }, "upkeep-without"],
    [
      "a supplier's visit without what came of it",
      "Chemical supplier's visit",
      { result: "in-order", who: "the supplier" },
      "upkeep-without",
    ],
    ["put right without saying what", "Blast media", { result: "put-right" }, "bad-entry"],
  ])("%s is refused", async (_, what, rest, kind) => {
    const code = (await file(what))?.item.code ?? what;
    const outcome = await storeEntry(t.app, operator, done(code, rest), at);
    expect(outcome).toMatchObject({ ok: false, failure: { kind } });
    if (!outcome.ok) expect(failureText(outcome.failure)).not.toMatch(/undefined|NaN|\{/);
  });
  test("a customer's person sees none of it", async () => {
    const customer = (await t.app.selectFrom("setup_entity").select("id").where("kind", "=", "customer").execute())[0];
    const line = await loadLine(t.app, person("viewer", "otto", customer?.id ?? ""), at);
    expect(line.upkeep).toEqual([]);
  });
  test("words name the state, not only the day", () => {
    const word = (state: "never" | "soon" | "overdue" | "not-in-order" | "done", dueMs: number | null) =>
      upkeepWord({ state, result: "in", dueMs }, at.getTime(), "Europe/London");
    expect(word("never", null)).toBe("Never on record");
    expect(word("not-in-order", 0)).toBe("Not in order");
    expect(word("overdue", at.getTime() - 3 * 86_400_000)).toBe("Overdue 3 d");
    expect(word("soon", at.getTime())).toMatch(/^Due \d+ \w+$/);
  });
});
