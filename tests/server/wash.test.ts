import { sql } from "kysely";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { outStretches } from "@/core/bath";
import { bathWork } from "@/server/baths/bath-work";
import { receiveChemical } from "@/server/baths/chemical-stock";
import { exposedRacks } from "@/server/baths/exposure";
import { loadBath } from "@/server/baths/load-bath";
import { openSkips } from "@/server/baths/round-skips";
import { washProofs } from "@/server/baths/wash-proofs";
import { readinessByHour, washReadiness } from "@/server/baths/wash-readiness";
import { storeEntry } from "@/server/entries/store-entry";
import { makeStructure } from "@/server/jobs/make-job";
import { loadLineStops } from "@/server/line/line-stops";
import { newId, now } from "@/server/now";
import { loadRack } from "@/server/rack/load-rack";
import { addVersion } from "@/server/setup/add-version";
import { setupAt } from "@/server/setup/setup-data";
import { failureText } from "@/ui/words/failures";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { bathRound, entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "rufus");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const put = (when: Date, entry: object) => storeEntry(t.app, operator, entryAt(when, entry), at);
const check = (values: Record<string, number>, over: object = {}, bath = "Tank 3") => bathRound(bath, values, over);

describe("a round that looks like a slip", () => {
  test("°F typed as °C is asked with what was meant, nothing is stored; said to be sure, it is", async () => {
    const before = (await loadBath(t.app, "Tank 3", at))?.series.find((s) => s.parameter === "temperature")?.points;
    const asked = await put(ago(9), check({ temperature: 118 }));
    expect(asked).toMatchObject({ failure: { kind: "value-in-question", slip: "fahrenheit-as-celsius" } });
    if (!asked.ok) {
      expect(asked.failure.suggested as number).toBeCloseTo(47.8, 1);
      expect(failureText(asked.failure)).toContain("48 °C was meant");
      expect(failureText(asked.failure, "us")).toContain("118 °F was meant");
    }
    const after = (await loadBath(t.app, "Tank 3", at))?.series.find((s) => s.parameter === "temperature")?.points;
    expect(after?.map((p) => p.recordId)).toEqual(before?.map((p) => p.recordId));
    expect(await put(ago(8), check({ temperature: 118 }, { sure: true }))).toMatchObject({ ok: true });
  });
  test("the rinse's conductivity in mS, and a pH whose point slipped", async () => {
    expect(await put(ago(9), check({ conductivity: 0.062 }, {}, "Tank 4"))).toMatchObject({
      failure: { kind: "value-in-question", slip: "milli-as-micro" },
    });
    expect(await put(ago(9), check({ ph: 0.53 }))).toMatchObject({
      failure: { kind: "value-in-question", slip: "tenfold-low" },
    });
  });
  test("a value that is merely far out is stored and judged", async () => {
    expect(await put(ago(7), check({ ph: 6.2 }))).toMatchObject({ ok: true });
  });
});

describe("an empty tank", () => {
  test("after a dump neither a check nor an addition is taken, until the recharge is on record", async () => {
    const event = (what: string, over: object = {}) => ({
      kind: "bath-event",
      bath: "Tank 4",
      event: what,
      product: "",
      amountL: null,
      note: "",
      ...over,
    });
    await stored(t, operator, ago(60), event("dump"));
    const empty = await put(ago(50), check({ conductivity: 70 }, {}, "Tank 4"));
    expect(empty).toMatchObject({ failure: { kind: "bath-empty", bath: "Tank 4" } });
    expect(await put(ago(50), event("addition", { product: "x", amountL: 3 }))).toMatchObject({
      failure: { kind: "bath-empty" },
    });
    // A check from before the dump, typed late, is taken.
    expect(await put(ago(70), check({ conductivity: 70 }, {}, "Tank 4"))).toMatchObject({ ok: true });
    await stored(t, operator, ago(40), event("recharge"));
    expect(await put(ago(30), check({ conductivity: 40 }, {}, "Tank 4"))).toMatchObject({ ok: true });
  });
});

describe("an addition that looks wrong", () => {
  const addition = (over: object = {}) => ({
    kind: "bath-event",
    bath: "Tank 3",
    event: "addition",
    product: "Conversion make-up acid",
    amountL: 4,
    note: "",
    ...over,
  });
  test("the wrong drum is asked; sure without a reason it is refused, with one it stands and keeps it", async () => {
    const wrong = { product: "Drum from bay 4", amountL: 12 };
    expect(await put(ago(20), addition(wrong))).toMatchObject({
      failure: { kind: "addition-in-question", question: "wrong-product", belongsTo: null },
    });
    expect(await put(ago(20), addition({ ...wrong, sure: true }))).toMatchObject({
      failure: { kind: "reason-needed-here" },
    });
    expect(
      await put(ago(20), addition({ ...wrong, sure: true, note: "label torn, same drum as Monday" })),
    ).toMatchObject({ ok: true });
    const file = await loadBath(t.app, "Tank 3", at);
    expect(file?.events.at(-1)).toMatchObject({ product: "Drum from bay 4", amountL: 12 });
  });
  test("too much at once, more than fits, without litres", async () => {
    const ask = async (over: object) => {
      const outcome = await put(ago(5), addition(over));
      return outcome.ok ? "stored" : (outcome.failure.question ?? outcome.failure.kind);
    };
    await stored(t, operator, ago(15), check({ ph: 5.7 }));
    expect(await ask({ amountL: 26 })).toBe("over-single");
    expect(await ask({ amountL: 400 })).toMatch(/tenfold|over-freeboard/);
    expect(await ask({ amountL: null })).toBe("bad-entry");
  });
  test("acid into a bath that is already sour is asked", async () => {
    await stored(t, operator, ago(4), check({ ph: 4.9 }));
    expect(await put(ago(3), addition())).toMatchObject({
      failure: { kind: "addition-in-question", question: "wrong-direction", parameter: "ph", value: 4.9 },
    });
  });
});

describe("a stop of the line", () => {
  const stop = (until: Date, over: object = {}) => ({
    kind: "line-stop",
    line: "Washer 1",
    until: until.toISOString(),
    cause: "a hook caught",
    ...over,
  });
  const passagesOf = async (number: string) =>
    (await loadRack(t.app, operator, number))?.latest
      .flatMap((r) => r.details.passage ?? [])
      .sort((a, b) => a.entered_at.getTime() - b.entered_at.getTime()) ?? [];
  test("lengthens what was inside; the passages as planned stay on record; each rack is listed with its time", async () => {
    for (const number of ["WS1", "WS2", "WS3"]) await freshRack(t, number, { at: ago(600) });
    // At 1.2 m/min: conversion 180–270 s, rinse 330–390 s after the entrance.
    const run = (rack: string) => ({ kind: "line-run", rack, line: "Washer 1", speedMPerMin: 1.2 });
    await stored(t, operator, new Date(ago(300).getTime() - 200_000), run("WS1"));
    await stored(t, operator, new Date(ago(300).getTime() - 300_000), run("WS2"));
    await stored(t, operator, new Date(ago(300).getTime() - 3_600_000), run("WS3"));
    const before = await passagesOf("WS3");
    await stored(t, operator, ago(300), stop(ago(290)));
    const conversion = (await passagesOf("WS1")).find((p) => p.stage === "conversion");
    expect(((conversion?.left_at?.getTime() ?? 0) - (conversion?.entered_at.getTime() ?? 0)) / 1000).toBe(690);
    const [, , rinse] = await passagesOf("WS2");
    expect(rinse).toMatchObject({ stage: "rinse" });
    expect(await passagesOf("WS3")).toEqual(before);
    const thread = (await loadRack(t.app, operator, "WS1"))?.thread ?? [];
    const moved = thread.filter((r) => r.base.reason === "The line stood: a hook caught");
    expect(moved.length).toBeGreaterThanOrEqual(3);
    expect(moved.every((r) => r.base.grade === "by-procedure")).toBe(true);
    const [seen] = (await loadLineStops(t.app, operator, at)).filter((s) => s.cause === "a hook caught");
    expect(seen?.racks.find((r) => r.number === "WS1")).toMatchObject({
      at: { where: "in-stage", stage: "conversion" },
      seconds: 690,
      limitS: [60, 120],
      result: "out",
    });
    expect(seen?.racks.find((r) => r.number === "WS2")).toMatchObject({
      at: { where: "between", after: "conversion", before: "rinse" },
      seconds: 660,
      limitS: [null, 180],
      result: "out",
    });
    expect(seen?.racks.some((r) => r.number === "WS3")).toBe(false);
  });
  test("a run noted after the stop meets it all the same", async () => {
    await freshRack(t, "WS4", { at: ago(600) });
    const entered = new Date(ago(300).getTime() - 200_000);
    await stored(t, operator, entered, { kind: "line-run", rack: "WS4", line: "Washer 1", speedMPerMin: 1.2 });
    const conversion = (await passagesOf("WS4")).find((p) => p.stage === "conversion");
    expect(((conversion?.left_at?.getTime() ?? 0) - (conversion?.entered_at.getTime() ?? 0)) / 1000).toBe(690);
  });
  test("racks logged by a key were in it too: by what came next, or not known when they left", async () => {
    for (const number of ["WK1", "WK2", "WK3"]) await freshRack(t, number, { at: ago(600) });
    const tap = (rack: string, stage: string, seconds: number) =>
      stored(t, operator, new Date(ago(500).getTime() + seconds * 1000), { kind: "passage", rack, stage });
    // In the rinse again after the stop, still in conversion by what is on record, and out before it.
    for (const [rack, stage, seconds] of [
      ["WK1", "clean", -200],
      ["WK1", "conversion", -60],
      ["WK1", "rinse", 640],
      ["WK2", "clean", -200],
      ["WK2", "conversion", -60],
      ["WK3", "clean", -300],
      ["WK3", "conversion", -200],
      ["WK3", "rinse", -100],
      ["WK3", "dry-off", -10],
      ["WK3", "booth", -1],
    ] as const)
      await tap(rack, stage, seconds);
    await stored(t, operator, ago(500), stop(ago(490), { cause: "a belt slipped" }));
    const seen = (await loadLineStops(t.app, operator, at)).find((s) => s.cause === "a belt slipped");
    const stood = { where: "in-stage", stage: "conversion" };
    // The demo's own racks stand where the hour finds them.
    expect(seen?.racks.filter((r) => r.number.startsWith("WK"))).toEqual([
      { number: "WK1", at: stood, seconds: 700, limitS: [60, 120], result: "out" },
      { number: "WK2", at: stood, seconds: null, limitS: [60, 120], result: "unknown" },
    ]);
  });
  test("another line whose stages have the same names runs on", async () => {
    const twin = (await setupAt(t.app, "line", ago(900))).values().next().value;
    if (!twin) throw new Error("no line");
    const id = newId();
    await t.app.insertInto("setup_entity").values({ id, kind: "line", code: "Washer 2" }).execute();
    await addVersion<"line">(t.app, person("lead", "ines"), {
      entityId: id,
      at: ago(900),
      reason: "A second washer",
      data: { ...twin.data, name: "Washer 2" },
    });
    for (const number of ["WT1", "WT2"]) await freshRack(t, number, { at: ago(800) });
    const from = ago(700);
    const run = (rack: string, line: string) => ({ kind: "line-run", rack, line, speedMPerMin: 1.2 });
    await stored(t, operator, new Date(from.getTime() - 200_000), run("WT1", "Washer 1"));
    await stored(t, operator, new Date(from.getTime() - 200_000), run("WT2", "Washer 2"));
    const before = await passagesOf("WT1");
    await stored(t, operator, from, stop(ago(695), { line: "Washer 2" }));
    expect(await passagesOf("WT1")).toEqual(before);
    const seen = (await loadLineStops(t.app, operator, at)).find((s) => s.line === "Washer 2");
    expect(seen?.racks.map((r) => r.number)).toEqual(["WT2"]);
    const inBath = (await passagesOf("WT2")).find((p) => p.stage === "conversion");
    expect(((inBath?.left_at?.getTime() ?? 0) - (inBath?.entered_at.getTime() ?? 0)) / 1000).toBe(90 + 300);
  });
  test("one that never was is taken back: the times stand as planned, both stay on record, a later correction is in its way", async () => {
    for (const number of ["WS7", "WS8"]) await freshRack(t, number, { at: ago(600) });
    const run = (rack: string) => ({ kind: "line-run", rack, line: "Washer 1", speedMPerMin: 1.2 });
    const times = async (rack: string) => (await passagesOf(rack)).map((p) => [p.stage, p.entered_at, p.left_at]);
    const stopId = async (cause: string) =>
      (await loadLineStops(t.app, operator, at)).find((s) => s.cause === cause)?.recordId ?? "";
    await stored(t, operator, new Date(ago(250).getTime() - 200_000), run("WS7"));
    const planned = await times("WS7");
    await stored(t, operator, ago(250), stop(ago(242), { cause: "looked still" }));
    expect(await times("WS7")).not.toEqual(planned);
    const back = async (cause: string) => ({
      kind: "line-stop-back",
      stop: await stopId(cause),
      reason: "the belt ran, its light was out",
    });
    await stored(t, operator, ago(20), await back("looked still"));
    expect(await times("WS7")).toEqual(planned);
    expect((await loadLineStops(t.app, operator, at)).some((s) => s.cause === "looked still")).toBe(false);
    const kept = (await loadRack(t.app, operator, "WS7"))?.thread.filter((r) => r.base.kind === "passage") ?? [];
    expect(kept.length).toBeGreaterThan(planned.length * 2 - 2);
    // Its place in time is free again.
    await stored(t, operator, ago(246), stop(ago(244), { cause: "a true one" }));
    await stored(t, operator, new Date(ago(230).getTime() - 200_000), run("WS8"));
    await stored(t, operator, ago(230), stop(ago(225), { cause: "first" }));
    await stored(t, operator, ago(222), stop(ago(220), { cause: "second" }));
    const inTheWay = await put(ago(10), await back("first"));
    expect(inTheWay).toMatchObject({ failure: { kind: "stop-built-upon", number: "WS8" } });
    await stored(t, operator, ago(9), await back("second"));
    expect(await put(ago(8), { kind: "line-stop-back", stop: newId(), reason: "no such" })).toMatchObject({
      failure: { kind: "unknown-stop" },
    });
  });
  test("sent again it is the same stop, and moves nothing twice", async () => {
    await freshRack(t, "WS5", { at: ago(600) });
    const entered = new Date(ago(200).getTime() - 200_000);
    await stored(t, operator, entered, { kind: "line-run", rack: "WS5", line: "Washer 1", speedMPerMin: 1.2 });
    const entry = entryAt(ago(200), stop(ago(195), { cause: "lunch" }));
    expect(await storeEntry(t.app, operator, entry, at)).toMatchObject({ ok: true, already: false });
    const once = await passagesOf("WS5");
    expect(await storeEntry(t.app, operator, entry, at)).toMatchObject({ ok: true, already: true });
    expect(await passagesOf("WS5")).toEqual(once);
  });
  test("inside another stop, ending before it begins, ahead of the clock, on no line: refused", async () => {
    expect(await put(ago(198), stop(ago(190)))).toMatchObject({ failure: { kind: "stop-in-a-stop" } });
    expect(await put(ago(100), stop(ago(110)))).toMatchObject({ failure: { kind: "bad-stop" } });
    const ahead = new Date(at.getTime() + 3_600_000);
    expect(await put(ago(100), stop(ahead))).toMatchObject({ failure: { kind: "in-the-future" } });
    expect(await put(ago(100), stop(ago(90), { line: "Washer 9" }))).toMatchObject({
      failure: { kind: "unknown-set-up" },
    });
    expect(await put(ago(100), stop(ago(90), { cause: " " }))).toMatchObject({
      failure: { kind: "bad-entry", field: "cause" },
    });
  });
  test("a customer's viewer sees only their own racks in it", async () => {
    const own = await t.app
      .selectFrom("rack")
      .innerJoin("job", "job.id", "rack.job_id")
      .select("job.customer_id")
      .where("rack.number", "=", "WS1")
      .executeTakeFirstOrThrow();
    const other = { ...person("viewer", "otto"), customerId: newId() };
    for (const seen of await loadLineStops(t.app, other, at)) expect(seen.racks).toEqual([]);
    const mine = { ...person("viewer", "otto"), customerId: own.customer_id };
    expect((await loadLineStops(t.app, mine, at)).some((s) => s.racks.some((r) => r.number === "WS1"))).toBe(true);
  });
});

describe("racks exposed to a bath out of its window", () => {
  const lead = person("lead", "ines");
  test("the demo's nine days: all that passed the conversion then, by how far they have got", async () => {
    const file = await loadBath(t.app, "Tank 3", at);
    const ph = file?.series.find((s) => s.parameter === "ph");
    const stretch = outStretches(
      (ph?.points ?? []).map((p) => ({ atMs: p.at.getTime(), value: p.value })),
      ph?.window ?? { lower: null, upper: null },
    ).find((s) => s.checksOut > 20);
    expect(stretch).toBeDefined();
    if (!stretch) return;
    const [from, to] = [new Date(stretch.fromMs), new Date(stretch.toMs ?? at.getTime())];
    expect((to.getTime() - from.getTime()) / 86_400_000).toBeGreaterThan(8);
    const found = await exposedRacks(t.app, lead, "conversion", from, to);
    const { rows } = await sql<{
      n: string;
    }>`select count(distinct r.rack_id) as n from passage p join record r on r.id = p.record_id
      where p.stage = 'conversion' and p.entered_at between ${from} and ${to} and not exists (select 1 from record s where s.supersedes = r.id)`.execute(
      t.app,
    );
    expect(found.total).toBe(Number(rows[0]?.n));
    expect(found.total).toBeGreaterThan(25);
    expect(Object.values(found.byHowFar).reduce((a, b) => a + b, 0)).toBe(found.total);
    expect(found.byHowFar.released).toBeGreaterThan(0);
    expect(found.byHowFar["still-here"]).toBeGreaterThan(0);
    expect(found.racks.length).toBe(Math.min(200, found.total));
    for (const rack of found.racks) expect(rack.enteredAt >= from && rack.enteredAt <= to).toBe(true);
  });
  test("one that was put up is in the field; a customer sees their own only; an empty span is empty", async () => {
    await freshRack(t, "WX1", { at: ago(600) });
    const when = ago(90 * 1440);
    await stored(t, operator, when, { kind: "passage", rack: "WX1", stage: "conversion" });
    const span = [new Date(when.getTime() - 1000), new Date(when.getTime() + 1000)] as const;
    const before = await exposedRacks(t.app, lead, "conversion", ...span);
    expect(before).toMatchObject({ total: 1, byHowFar: { "still-here": 1 } });
    const up = {
      rack: "WX1",
      code: "WX-UP",
      name: "Rail",
      site: "Quay",
      place: "left",
      putUpOn: at.toISOString().slice(0, 10),
      exposure: ["weather"],
    };
    expect(await makeStructure(t.app, lead, up, at)).toMatchObject({ ok: true });
    const after = await exposedRacks(t.app, lead, "conversion", ...span);
    expect(after).toMatchObject({
      total: 1,
      byHowFar: { "in-the-field": 1 },
      racks: [{ number: "WX1", howFar: "in-the-field" }],
    });
    const stranger = { ...person("viewer", "otto"), customerId: newId() };
    expect(await exposedRacks(t.app, stranger, "conversion", ...span)).toMatchObject({ total: 0, racks: [] });
  });
});

describe("a bath that is out", () => {
  test("asks for its reaction and an early check, until a good check closes it", async () => {
    await stored(t, operator, ago(2), check({ ph: 6.1 }));
    const out = (await loadBath(t.app, "Tank 3", at))?.series.find((s) => s.parameter === "ph");
    expect(out?.reaction?.what).toContain("Look at the drum");
    expect(out).toMatchObject({ nextCheckWhy: "reaction" });
    expect(out?.nextCheckBy?.getTime()).toBe(ago(2).getTime() + 30 * 60_000);
    await stored(t, operator, ago(1), check({ ph: 5.3 }));
    const good = (await loadBath(t.app, "Tank 3", at))?.series.find((s) => s.parameter === "ph");
    expect(good?.reaction).toBeNull();
    expect(good?.nextCheckWhy).not.toBe("reaction");
  });
});

describe("readiness of the wash", () => {
  test("by the checks on record, now and at each hour of the day before; it fell in the bad days", async () => {
    const files = (await Promise.all(["Tank 3", "Tank 4"].map((code) => loadBath(t.app, code, at)))).flatMap(
      (f) => f ?? [],
    );
    const now = washReadiness(files, at);
    // The 118 °C that was insisted on above is still the newest temperature.
    expect(now).toMatchObject({ index: 0, limiting: { bath: "Tank 3", parameter: "temperature", value: 118 } });
    const day = readinessByHour(files, at);
    expect(day).toHaveLength(25);
    expect(day[1]?.at.getTime()).toBe((day[0]?.at.getTime() ?? 0) + 3_600_000);
    const bad = washReadiness(files, new Date(at.getTime() - 10 * 86_400_000));
    expect(bad.index).toBeLessThan(50);
    expect(bad.limiting).toMatchObject({ bath: "Tank 3", parameter: "ph" });
  });
});

describe("a round left out", () => {
  test("stands with its reason; without one it is refused", async () => {
    expect(await put(ago(5), { kind: "round-skip", bath: "Tank 4", reason: "  " })).toMatchObject({
      failure: { kind: "bad-entry", field: "reason" },
    });
    const id = await stored(t, operator, ago(5), { kind: "round-skip", bath: "Tank 4", reason: "pump house locked" });
    const row = await t.app.selectFrom("round_skip").selectAll().where("record_id", "=", id).executeTakeFirst();
    expect(row?.reason).toBe("pump house locked");
    const rinse = [...(await setupAt(t.app, "bath", at)).values()].find((b) => b.code === "Tank 4")?.id ?? "";
    expect((await openSkips(t.app, at)).get(rinse)).toMatchObject({ by: "Rufus Oke", reason: "pump house locked" });
    await stored(t, operator, ago(1), check({ conductivity: 61 }, {}, "Tank 4"));
    expect((await openSkips(t.app, at)).has(rinse)).toBe(false);
  });
});

describe("the work of a bath", () => {
  test("is the area of the pieces that passed since it was made up, and what it used for each 100 m²", async () => {
    const baths = await setupAt(t.app, "bath", at);
    const bath = [...baths.values()].find((b) => b.code === "Tank 3");
    if (!bath) throw new Error("no bath");
    const from = ago(5 * 1440);
    await stored(t, operator, from, {
      kind: "bath-event",
      bath: "Tank 3",
      event: "recharge",
      product: "",
      amountL: null,
      note: "",
    });
    const work = await bathWork(t.app, bath, at);
    expect(work).toMatchObject({ madeUp: true, since: from });
    const { rows } = await sql<{
      code: string;
      pieces: string;
    }>`select e.code, count(*) as pieces from passage p join record r on r.id = p.record_id
      join rack k on k.id = r.rack_id join job j on j.id = k.job_id join piece x on x.rack_id = k.id join setup_entity e on e.id = j.part_id
      where p.stage = 'conversion' and p.entered_at > ${from} and p.entered_at <= ${at} and not exists (select 1 from record s where s.supersedes = r.id) group by 1`.execute(
      t.app,
    );
    const parts = await setupAt(t.app, "part", at);
    const area = (code: string) => [...parts.values()].find((p) => p.code === code)?.data.measures?.areaM2 ?? 0;
    expect(work.areaM2).toBeCloseTo(
      rows.reduce((sum, r) => sum + area(r.code) * Number(r.pieces), 0),
      6,
    );
    expect(work.areaM2).toBeGreaterThan(50);
    for (const p of work.products) expect(p.per100M2).toBeCloseTo((100 * p.litres) / work.areaM2, 9);
    expect(work.products.length).toBeGreaterThan(0);
    // By the price on its drum; where one addition's drum has none, the cost is unknown, not lower.
    const drum = { product: "Conversion concentrate", lot: "NOPRICE", receivedOn: "2026-01-05", usableUntil: null };
    const priced = work.products.find((p) => p.product === drum.product && p.costPer100M2 !== null);
    expect(priced?.costPer100M2).toBeCloseTo((100 * (priced?.litres ?? 0) * 4.6) / work.areaM2, 9);
    expect(await receiveChemical(t.app, operator, { ...drum, litres: 50 }, at)).toMatchObject({ ok: true });
    const lot = `${drum.product} ${drum.lot}`;
    const addition = { kind: "bath-event", bath: "Tank 3", event: "addition", product: drum.product, lot, amountL: 1 };
    await stored(t, operator, ago(1), { ...addition, note: "a litre to see", sure: true });
    const after = (await bathWork(t.app, bath, at)).products.find((p) => p.product === drum.product);
    expect(after).toMatchObject({ costPer100M2: null, litres: (priced?.litres ?? 0) + 1 });
    expect(work.sinceAdditionM2 ?? 0).toBeLessThanOrEqual(work.areaM2);
  });
});

describe("proofs of the wash", () => {
  const tank3 = async () => {
    const bath = [...(await setupAt(t.app, "bath", at)).values()].find((b) => b.code === "Tank 3");
    if (!bath) throw new Error("Tank 3");
    return bath;
  };
  const panel = (over: object) => ({
    kind: "wash-panel",
    bath: "Tank 3",
    beforeG: null,
    afterG: null,
    areaM2: null,
    colour: null,
    look: "uniform-dull",
    note: "",
    ...over,
  });
  test("a panel weighed is measured, one by colour is by procedure; the weight is worked out and kept", async () => {
    await stored(t, operator, ago(12), panel({ beforeG: 41.32, afterG: 41.305, areaM2: 0.03 }));
    await stored(t, operator, ago(11), panel({ colour: "gold", look: "streaked" }));
    const { panels } = await washProofs(t.app, await tank3(), at);
    expect(panels[0]).toMatchObject({ colour: "gold", grade: "by-procedure", gPerM2: null, look: "streaked" });
    expect(panels[1]).toMatchObject({ grade: "measured", colour: null });
    expect(panels[1]?.gPerM2).toBeCloseTo(0.5, 9);
  });
  test("neither weighed nor judged, half weighed, heavier after than before: refused", async () => {
    expect(await put(ago(10), panel({}))).toMatchObject({ failure: { kind: "bad-entry", field: "beforeG" } });
    expect(await put(ago(10), panel({ beforeG: 41, afterG: 40 }))).toMatchObject({ failure: { kind: "bad-entry" } });
    expect(await put(ago(10), panel({ beforeG: 41, afterG: 42, areaM2: 0.03 }))).toMatchObject({
      failure: { kind: "gained-mass" },
    });
  });
  test("sludge: a depth wants its figure, digging out does not", async () => {
    const sludge = (what: string, depthMm: number | null) => ({
      kind: "sludge",
      bath: "Tank 3",
      what,
      depthMm,
      note: "",
    });
    expect(await put(ago(9), sludge("measured", null))).toMatchObject({
      failure: { kind: "bad-entry", field: "depthMm" },
    });
    await stored(t, operator, ago(9), sludge("measured", 45));
    await stored(t, operator, ago(8), sludge("desludged", null));
    const seen = (await washProofs(t.app, await tank3(), at)).sludge;
    expect(seen.map((s) => [s.what, s.depthMm])).toEqual([
      ["desludged", null],
      ["measured", 45],
    ]);
  });
});
