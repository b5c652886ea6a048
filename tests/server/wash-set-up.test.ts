import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { washTemplates } from "@/core/bath";
import { loadBath } from "@/server/baths/load-bath";
import { loadLine } from "@/server/line/load-line";
import { newId, now } from "@/server/now";
import { loadRack } from "@/server/rack/load-rack";
import { bathVersions, saveBath, startWash } from "@/server/setup/save-bath";
import { saveLine } from "@/server/setup/save-line";
import { setupAt } from "@/server/setup/setup-data";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { failureText } from "@/ui/words/failures";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const later = (minutes: number) => new Date(at.getTime() + minutes * 60_000);
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const bathOf = async (code: string, when: Date) => {
  const found = [...(await setupAt(t.app, "bath", when)).values()].find((b) => b.code === code);
  if (!found) throw new Error(code);
  return found;
};
const asSent = (data: Awaited<ReturnType<typeof bathOf>>["data"]) => ({
  ...data,
  windows: Object.fromEntries(
    Object.entries(data.windows).map(([p, w]) => [
      p,
      { lower: w.lower, upper: w.upper, watchLower: w.watchLower, watchUpper: w.watchUpper, reaction: w.reaction },
    ]),
  ),
});

describe("a change of a bath", () => {
  test("is a new version from then on; a check from before stays judged by the old window", async () => {
    const before = await bathOf("Tank 3", at);
    const data = asSent(before.data);
    const ph = { ...data.windows.ph, upper: 6.4, watchUpper: 6.2 };
    const change = {
      code: "Tank 3",
      seen: before.versionId,
      reason: "Supplier's new sheet",
      data: { ...data, windows: { ...data.windows, ph } },
    };
    const checks = {
      kind: "bath-check",
      bath: "Tank 3",
      values: [{ parameter: "ph", value: 6, typed: "6", typedUnit: "" }],
    };
    await stored(t, person("operator", "rufus"), at, checks);
    expect((await loadBath(t.app, "Tank 3", at))?.result).toBe("out");
    expect(await saveBath(t.app, lead, change, later(5))).toMatchObject({
      ok: true,
      already: false,
      href: "/pretreat/tank-3",
    });
    expect((await bathOf("Tank 3", later(6))).data.windows.ph).toMatchObject({ upper: 6.4 });
    expect((await loadBath(t.app, "Tank 3", at))?.result).toBe("out");
    expect(
      (await loadBath(t.app, "Tank 3", later(6)))?.series.find((s) => s.parameter === "ph")?.points.at(-1)?.result,
    ).toBe("in");
    const [newest] = await bathVersions(t.app, before.id);
    expect(newest).toMatchObject({ by: "Ines Calder", reason: "Supplier's new sheet" });
    // Sent again as it now stands it changes nothing.
    const now = await bathOf("Tank 3", later(6));
    expect(await saveBath(t.app, lead, { ...change, seen: now.versionId }, later(7))).toMatchObject({
      ok: true,
      already: true,
    });
    expect(await bathVersions(t.app, before.id)).toHaveLength(2);
  });
  test("of two people at once one is kept, and the other is told whose", async () => {
    const before = await bathOf("Tank 4", at);
    const change = (by: string, volumeL: number) =>
      saveBath(
        t.app,
        person("lead", by),
        { code: "Tank 4", seen: before.versionId, reason: "measured anew", data: { ...asSent(before.data), volumeL } },
        later(8),
      );
    const outcomes = await Promise.all([change("ines", 3100), change("dagny", 3200)]);
    expect(outcomes.filter((o) => o.ok)).toHaveLength(1);
    const lost = outcomes.find((o) => !o.ok);
    if (!lost || lost.ok) throw new Error("both kept");
    expect(lost.failure).toMatchObject({ kind: "set-up-changed", what: "Tank 4" });
    expect(failureText(lost.failure)).toMatch(/(Ines Calder|Dagny Holm) changed Tank 4 meanwhile/);
  });
  test("what cannot be run is refused by its field, and nothing is kept", async () => {
    const before = await bathOf("Tank 3", later(20));
    const data = asSent(before.data);
    const send = (over: object, rest: object = {}) =>
      saveBath(
        t.app,
        lead,
        { code: "Tank 3", seen: before.versionId, reason: "try", data: { ...data, ...over }, ...rest },
        later(21),
      );
    expect(await send({ volumeL: 0 })).toMatchObject({ failure: { kind: "bad-bath", field: "volume, L" } });
    expect(await send({ stage: "moon" })).toMatchObject({ failure: { kind: "bad-entry", field: "data.stage" } });
    expect(await send({ volumeL: "4200" })).toMatchObject({ failure: { kind: "bad-entry", field: "data.volumeL" } });
    expect(await send({}, { reason: " " })).toMatchObject({ failure: { kind: "bad-entry", field: "reason" } });
    expect(await send({}, { code: "Tank\u0000" })).toMatchObject({ failure: { kind: "bad-entry" } });
    expect(await send({ volumeL: 4300 }, { seen: null })).toMatchObject({
      failure: { kind: "code-taken", code: "Tank 3" },
    });
    for (const code of ["round", "Set up", "Tank  3", " ", "Tank-3"])
      expect(await send({}, { code, seen: null }), code).toMatchObject({
        failure: { kind: "bad-entry", field: "code" },
      });
    expect(await send({}, { code: "Tank 77" })).toMatchObject({ failure: { kind: "unknown-set-up" } });
    expect((await bathOf("Tank 3", later(30))).versionId).toBe(before.versionId);
  });
  test("out of use nothing is due on it, and its record stays", async () => {
    const before = await bathOf("Tank 4", later(30));
    const data = { ...asSent(before.data), retired: true };
    expect(
      await saveBath(t.app, lead, { code: "Tank 4", seen: before.versionId, reason: "line rebuilt", data }, later(31)),
    ).toMatchObject({ ok: true });
    const line = await loadLine(t.app, lead, later(32));
    expect(line.baths.map((b) => b.bath.code)).not.toContain("Tank 4");
    expect((await loadBath(t.app, "Tank 4", later(32)))?.series[0]?.points.length).toBeGreaterThan(5);
    // A rack that passed before met it; one that passes from now on is not asked about it.
    const rack = await t.app.selectFrom("rack").select("id").where("number", "=", "0869").executeTakeFirstOrThrow();
    const codes = async (when: Date) =>
      new Set((await conditionsWhenPassed(t.app, [rack.id], when)).baths.map((b) => b.bathCode));
    expect(await codes(at)).toEqual(new Set(["Tank 3", "Tank 4"]));
    expect(await codes(later(32))).toEqual(new Set(["Tank 3"]));
  });
});

describe("a usual wash", () => {
  test("is added behind what there is, each tank under the next free number, ready to be watched", async () => {
    const press = { id: newId(), template: "five" };
    const [begun, again] = await Promise.all([1, 2].map(() => startWash(t.app, lead, press, later(40))));
    if (!begun) throw new Error("nothing begun");
    // Pressed twice at once it is begun once.
    expect(again).toEqual(begun);
    expect(begun).toEqual({ ok: true, codes: ["Tank 1", "Tank 2", "Tank 5", "Tank 6", "Tank 7"] });
    const five = washTemplates.find((w) => w.id === "five");
    for (const [i, code] of (begun.ok ? begun.codes : []).entries()) {
      const bath = await bathOf(code, later(41));
      expect(Object.keys(bath.data.windows).sort()).toEqual(Object.keys(five?.baths[i]?.windows ?? {}).sort());
    }
    const line = await loadLine(t.app, lead, later(41));
    expect(line.baths.map((b) => b.bath.code)).toEqual(expect.arrayContaining(["Tank 1", "Tank 7"]));
    await stored(t, person("operator", "rufus"), later(41), {
      kind: "bath-check",
      bath: "Tank 1",
      values: [{ parameter: "ph", value: 11, typed: "11", typedUnit: "" }],
    });
    expect((await loadBath(t.app, "Tank 1", later(42)))?.series.find((s) => s.parameter === "ph")?.points).toHaveLength(
      1,
    );
  });
  test("one that nobody knows is refused", async () => {
    const start = (input: unknown) => startWash(t.app, lead, input, later(43));
    expect(await start({ id: newId(), template: "eleven" })).toMatchObject({ failure: { kind: "unknown-set-up" } });
    expect(await start({ id: "x", template: "five" })).toMatchObject({ failure: { kind: "bad-entry", field: "id" } });
    expect(await start("five")).toMatchObject({ failure: { kind: "bad-entry" } });
  });
});

describe("the line", () => {
  const lineOf = async (when: Date) => {
    const [found] = (await setupAt(t.app, "line", when)).values();
    if (!found) throw new Error("no line");
    return found;
  };
  test("a longer conversion stage is a new version: what runs from then on is in it longer", async () => {
    const before = await lineOf(later(50));
    const stages = before.data.stages.map((s) => (s.stage === "conversion" ? { ...s, lengthM: 2.4 } : s));
    const change = {
      code: before.code,
      seen: before.versionId,
      reason: "nozzles added",
      data: { ...before.data, stages },
    };
    expect(await saveLine(t.app, lead, change, later(51))).toMatchObject({ ok: true, already: false });
    expect(await saveLine(t.app, lead, change, later(52))).toMatchObject({ ok: true, already: true });
    expect((await lineOf(later(50))).data.stages.find((s) => s.stage === "conversion")?.lengthM).toBe(1.8);
    expect((await lineOf(later(53))).data.stages.find((s) => s.stage === "conversion")?.lengthM).toBe(2.4);
    await freshRack(t, "WL1", { at: later(40) });
    await stored(t, person("operator", "rufus"), later(54), {
      kind: "line-run",
      rack: "WL1",
      line: before.code,
      speedMPerMin: 1.2,
    });
    const passage = (await loadRack(t.app, lead, "WL1"))?.latest
      .flatMap((r) => r.details.passage ?? [])
      .find((p) => p.stage === "conversion");
    expect(((passage?.left_at?.getTime() ?? 0) - (passage?.entered_at.getTime() ?? 0)) / 1000).toBe(120);
  });
  test("stages over one another, one twice, no length, no speed, an older version: refused, nothing kept", async () => {
    const now = await lineOf(later(60));
    const send = (data: object, rest: object = {}) =>
      saveLine(
        t.app,
        lead,
        { code: now.code, seen: now.versionId, reason: "try", data: { ...now.data, ...data }, ...rest },
        later(61),
      );
    const [first, ...others] = now.data.stages;
    expect(await send({ stages: [{ ...first, lengthM: 9 }, ...others] })).toMatchObject({
      failure: { kind: "stages-overlap" },
    });
    expect(await send({ stages: [first, { ...first, fromM: 60 }] })).toMatchObject({
      failure: { kind: "value-given-twice" },
    });
    expect(await send({ stages: [{ ...first, lengthM: 0 }] })).toMatchObject({ failure: { kind: "bad-input" } });
    expect(await send({ stages: [] })).toMatchObject({ failure: { kind: "bad-entry", field: "data.stages" } });
    expect(await send({ usualSpeedMPerMin: 0 })).toMatchObject({ failure: { kind: "bad-input" } });
    expect(await send({ usualSpeedMPerMin: 2 }, { seen: newId() })).toMatchObject({
      failure: { kind: "set-up-changed" },
    });
    // As it is already: there is nothing to keep.
    expect(await send({}, { seen: null })).toMatchObject({ ok: true, already: true });
    expect(await send({ usualSpeedMPerMin: 1.9 }, { seen: null })).toMatchObject({ failure: { kind: "code-taken" } });
    expect((await lineOf(later(70))).versionId).toBe(now.versionId);
  });
});
