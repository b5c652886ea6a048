import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { judgeBake } from "@/core/cure";
import { cureProofs } from "@/server/cure/cure-proof";
import { judgeAgain } from "@/server/cure/judge-again";
import { loadLoad, racksToBake } from "@/server/cure/open-load";
import { findOven, loadOvenFile } from "@/server/cure/oven-file";
import { pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { cureItem } from "@/server/rack/judge-rack";
import { loadRack, newest } from "@/server/rack/load-rack";
import { addVersion } from "@/server/setup/add-version";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, entityId, entryAt, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const operator = person("operator", "maren");
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const close = (loadNo: string, minutesAgo: number, racks: string[], over: object = {}) =>
  stored(t, operator, ago(minutesAgo), {
    kind: "load",
    oven: "Oven 1",
    loadNo,
    timing: "door-close",
    setPointC: 205,
    places: racks.map((rack) => ({ rack, place: "B2" })),
    ...over,
  });
const event = (loadNo: string, name: string, minutesAgo: number, over: object = {}) =>
  storeEntry(
    t.app,
    operator,
    entryAt(ago(minutesAgo), { kind: "bake-event", oven: "oven 1", loadNo, event: name, note: "", ...over }),
    at,
  );

describe("an oven", () => {
  test("has learnt from the demo's bakes, and what it foretells is kept beside what was measured", async () => {
    const file = await loadOvenFile(t.app, "oven-1", at);
    const learnt = file?.learnt.sections.find((s) => s.section === "over 3 to 8 mm")?.learnt;
    expect(learnt?.grade).toBe("measured");
    expect(learnt?.bakes).toBeGreaterThan(20);
    expect(learnt?.hWPerM2K).toBeGreaterThan(20);
    expect(learnt?.hWPerM2K).toBeLessThan(45);
    const heavy = file?.learnt.forSection(25, false);
    expect(heavy?.bakes).toBe(0);
    expect(heavy?.grade).toBe("assumed");
    for (const bake of file?.learnt.bakes ?? []) {
      // A primer that is only gelled never gets as hot as its top coat's sheet asks.
      if (!bake.load.startsWith("G-")) expect(bake.measuredS).not.toBeNull();
      expect(bake.hWPerM2K).toBeGreaterThan(0);
    }
  });
  test("three surveys on record, the newest first: the door side fell off, out of what is allowed", async () => {
    const file = await loadOvenFile(t.app, "oven-1", at);
    expect(file?.surveys).toHaveLength(3);
    const [newest, , oldest] = file?.surveys ?? [];
    expect(newest?.survey.coldest).toBe("A1");
    expect(newest?.result).toBe("out");
    expect(oldest?.result).toBe("in");
    expect(newest?.survey.recoveryS).toBeGreaterThan(60);
    expect(await loadOvenFile(t.app, "oven-9", at)).toBeNull();
  });
  test("a survey is worked out before it is kept", async () => {
    const base = {
      kind: "oven-survey",
      oven: "Oven 1",
      setPointC: 200,
      holdFromS: 0,
      holdToS: 600,
      doorAtS: null,
      note: "",
    };
    const place = (name: string, c: number) => ({ place: name, timeS: [0, 200, 400, 600], tempC: [c, c, c, c] });
    const put = (places: object[], over: object = {}) =>
      storeEntry(t.app, lead, entryAt(ago(3), { ...base, places, ...over }), at);
    expect(await put([place("A1", 199), place("A1", 200)])).toMatchObject({ failure: { kind: "value-given-twice" } });
    expect(await put([place("A1", 199), place("A2", 200)], { holdFromS: 600, holdToS: 0 })).toMatchObject({
      failure: { kind: "bad-hold" },
    });
    expect(await put([place("A1", 199), place("A2", 203)])).toMatchObject({ ok: true });
    expect((await loadOvenFile(t.app, "oven-1", at))?.surveys[0]?.survey.spreadC).toBeCloseTo(4, 9);
  });
});

describe("a load", () => {
  test("knows each rack as the oven does, and keeps what happens to it in order", async () => {
    await coatedRack(t, "C100", { at: ago(300) });
    await close("C-1", 40, ["C100"]);
    expect(await event("C-1", "melted", 34)).toMatchObject({ ok: true });
    expect(await event("C-1", "infrared", 30, { valueC: 171, aim: "coated-part" })).toMatchObject({ ok: true });
    expect(await event("C-1", "infrared", 29, { valueC: 206, aim: "oven-wall" })).toMatchObject({ ok: true });
    const file = await loadLoad(t.app, operator, "oven-1", "c-1", at);
    expect(file).toMatchObject({ loadNo: "C-1", pulledAt: null, setPointC: 205 });
    const again = await loadLoad(t.app, operator, "oven-1", "C-1", at);
    expect(again?.events.map((e) => e.event)).toEqual(["melted", "infrared", "infrared"]);
    expect(again?.events[0]?.atS).toBeCloseTo(360, 0);
    const [rack] = again?.racks ?? [];
    expect(rack).toMatchObject({ rack: "C100", metal: "steel", sectionMm: 5 });
    expect(rack?.tauBandS[0]).toBeLessThan(rack?.tauS ?? 0);
    expect(rack?.tauBandS[1]).toBeGreaterThan(rack?.tauS ?? 0);
    const grades = await t.app
      .selectFrom("record")
      .select("grade")
      .where("kind", "=", "bake-event")
      .where("id", "in", again?.events.map((e) => e.recordId) ?? [])
      .orderBy("happened_at")
      .execute();
    expect(grades.map((g) => g.grade)).toEqual(["by-procedure", "measured", "assumed"]);
  });
  test("the oven set anew is part of its program; a melt stands beside what is usual once three like it are known", async () => {
    for (const [n, melt] of [
      ["C-11", 8],
      ["C-12", 9],
      ["C-13", 10],
    ] as const) {
      await coatedRack(t, `R${n}`, { at: ago(900) });
      await close(n, 700, [`R${n}`]);
      expect(await event(n, "melted", 700 - melt)).toMatchObject({ ok: true });
    }
    await coatedRack(t, "C110", { at: ago(300) });
    await close("C-14", 60, ["C110"]);
    expect(await event("C-14", "set-point", 50)).toMatchObject({ failure: { kind: "reading-needs-value" } });
    expect(await event("C-14", "set-point", 50, { valueC: 190 })).toMatchObject({ ok: true });
    const file = await loadLoad(t.app, operator, "oven-1", "C-14", at);
    expect(file?.program).toEqual([
      { fromS: 0, airC: 205 },
      { fromS: 600, airC: 190 },
    ]);
    expect(file?.usualMelt?.loads).toBeGreaterThanOrEqual(3);
    expect(file?.recoveryS).toBeGreaterThan(60);
  });
  test.each<[string, Parameters<typeof event>, string]>([
    ["no such load", ["C-99", "melted", 5], "unknown-load"],
    ["before its door was closed", ["C-1", "melted", 60], "before-the-door"],
    ["a reading without its value", ["C-1", "infrared", 5], "reading-needs-value"],
    ["an emissivity that cannot be", ["C-1", "infrared", 5, { valueC: 190, emissivity: 1.4 }], "bad-entry"],
    ["plugs not counted", ["C-1", "plugs-out", 5], "plugs-need-count"],
    ["another oven", ["C-1", "melted", 5, { oven: "oven 7" }], "unknown-oven-name"],
  ])("%s is refused", async (_, args, kind) => {
    expect(await event(...args)).toMatchObject({ ok: false, failure: { kind } });
  });
  test("another customer's load is not there for a person held to one", async () => {
    const other = person("viewer", "otto", await entityId(t, "customer", "C2"));
    expect(await loadLoad(t.app, other, "oven-1", "C-1", at)).toBeNull();
    expect(await racksToBake(t.app, other, ["C100"], (await findOven(t.app, "oven-1", at)) as never, at)).toEqual([]);
  });
  test("of a load shared with another customer a person held to one sees their own rack and its probe, judged by it", async () => {
    await coatedRack(t, "C130", { at: ago(300) });
    await coatedRack(t, "C131", { at: ago(300), part: "SHELTER-POST", powder: "GR-210", customer: "C2" });
    await close("C-20", 60, ["C130", "C131"]);
    const bake = await t.app
      .selectFrom("bake")
      .select("record_id")
      .where("load_no", "=", "C-20")
      .executeTakeFirstOrThrow();
    const timeS = Array.from({ length: 61 }, (_, i) => i * 20);
    const channel = (name: string, tau: number) => ({
      name,
      medium: name === "Air" ? ("air" as const) : ("metal" as const),
      timeS,
      tempC: timeS.map((s) => 205 - 180 * Math.exp(-s / tau)),
    });
    const trace = [channel("Air", 140), channel("C130", 300), channel("C131", 900)];
    expect(await pullLoad(t.app, operator, { recordId: bake.record_id }, newId(), at, trace)).toMatchObject({
      ok: true,
    });
    const all = await loadLoad(t.app, lead, "oven-1", "C-20", at);
    expect(all?.channels.map((c) => c.name)).toEqual(["Air", "C130", "C131"]);
    const otto = person("viewer", "otto", await entityId(t, "customer", "C1"));
    const own = await loadLoad(t.app, otto, "oven-1", "C-20", at);
    expect(own?.racks.map((r) => r.rack)).toEqual(["C130"]);
    expect(own?.racksInLoad).toBe(2);
    expect(own?.channels.map((c) => c.name)).toEqual(["Air", "C130"]);
    // On its own thread as well; of a load whose probes are named for nobody, by number only.
    const thread = await loadRack(t.app, otto, "C130");
    const mine = thread && newest(thread, "bake");
    expect(mine?.details.bake_channel?.map((c) => c.name)).toEqual(["Air", "C130"]);
    expect(mine?.details.bake_place?.map((p) => [p.place, p.rack_id === thread?.id])).toEqual([
      ["B2", true],
      ["–", false],
    ]);
    await coatedRack(t, "C132", { at: ago(300) });
    await coatedRack(t, "C133", { at: ago(300), part: "SHELTER-POST", powder: "GR-210", customer: "C2" });
    await close("C-21", 60, ["C132", "C133"]);
    const open = await loadLoad(t.app, lead, "oven-1", "C-21", at);
    const others = [channel("Air", 140), channel("Bollard", 300), channel("Gate", 900)];
    await pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, newId(), at, others);
    const theirs = await loadRack(t.app, otto, "C132");
    const unnamed = theirs && newest(theirs, "bake");
    expect(unnamed?.details.bake_channel?.map((c) => c.name)).toEqual(["Air", "Probe 1", "Probe 2"]);
    const staff = await loadRack(t.app, lead, "C132");
    const unheld = staff && newest(staff, "bake");
    expect(unheld?.details.bake_channel?.map((c) => c.name)).toEqual(["Air", "Bollard", "Gate"]);
  });
  test("pulled with the recorder's trace it is measured, once however often it is sent; a broken trace is refused", async () => {
    await coatedRack(t, "C101", { at: ago(300) });
    const recordId = await close("C-2", 50, ["C101"], { places: [{ rack: "C101", place: "A1", channel: "Seat" }] });
    const bake = await t.app
      .selectFrom("bake")
      .select("record_id")
      .where("load_no", "=", "C-2")
      .executeTakeFirstOrThrow();
    expect(recordId).toBeTruthy();
    const timeS = Array.from({ length: 121 }, (_, i) => i * 20);
    const trace = [
      { name: "Air", medium: "air" as const, timeS, tempC: timeS.map((s) => 205 - 145 * Math.exp(-s / 140)) },
      { name: "Seat", medium: "metal" as const, timeS, tempC: timeS.map((s) => 205 - 185 * Math.exp(-s / 300)) },
    ];
    const id = newId();
    const broken = trace.map((c) => ({ ...c, timeS: [...c.timeS].reverse() }));
    expect(await pullLoad(t.app, operator, { recordId: bake.record_id }, newId(), at, broken)).toMatchObject({
      failure: { kind: "times-out-of-order", channel: "Air" },
    });
    const outcomes = await Promise.all(
      [1, 2, 3].map(() => pullLoad(t.app, operator, { recordId: bake.record_id }, id, at, trace)),
    );
    expect(outcomes.every((o) => o.ok)).toBe(true);
    const rack = await loadRack(t.app, lead, "C101");
    const pulled = rack && newest(rack, "bake");
    expect(pulled?.base).toMatchObject({ grade: "measured" });
    expect(pulled?.details.bake_channel).toHaveLength(2);
    const row = pulled?.details.bake?.[0];
    // The recorder was begun ten minutes after the door: the door stays where it was, the trace begins later.
    expect((row?.pulled_at?.getTime() ?? 0) - (row?.door_closed_at.getTime() ?? 0)).toBe(3000_000);
    expect(pulled?.details.bake_channel?.[0]?.time_s.slice(0, 2)).toEqual([600, 620]);
    expect(pulled?.details.bake_channel?.[0]?.time_s.at(-1)).toBe(3000);
    expect(pulled?.details.bake_place?.[0]?.channel).toBe("Seat");
  });
  test("a practice run is no record: a recorder faster than the clock is refused, and the door stays", async () => {
    await coatedRack(t, "C103", { at: ago(300) });
    await close("C-3", 2, ["C103"]);
    expect(await event("C-3", "set-point", 0.8, { valueC: 190, sinceDoorS: 1300 })).toMatchObject({
      failure: { kind: "faster-than-clock", ranS: 1300 },
    });
    expect(await event("C-3", "melted", 0.5, { sinceDoorS: 90 })).toMatchObject({ ok: true });
    expect(await event("C-3", "melted", 0.5, { sinceDoorS: -1 })).toMatchObject({ failure: { kind: "bad-entry" } });
    const live = await loadLoad(t.app, operator, "oven-1", "C-3", at);
    expect(live?.events.map((e) => [e.event, e.atS])).toEqual([["melted", 90]]);
    const ran = (lastS: number) => {
      const timeS = Array.from({ length: lastS / 20 + 1 }, (_, i) => i * 20);
      return [
        { name: "C103", medium: "metal" as const, timeS, tempC: timeS.map((s) => 205 - 185 * Math.exp(-s / 300)) },
      ];
    };
    const open = { recordId: live?.recordId ?? "" };
    expect(await pullLoad(t.app, operator, open, newId(), at, ran(2400))).toMatchObject({
      failure: { kind: "faster-than-clock", ranS: 2400, sinceDoorS: 120 },
    });
    expect((await loadLoad(t.app, operator, "oven-1", "C-3", at))?.pulledAt).toBeNull();
    // Begun a little before the door was logged: within what two hands are apart, the recorder shows the door.
    expect(await pullLoad(t.app, operator, open, newId(), at, ran(700))).toMatchObject({ ok: true });
    const pulled = await loadLoad(t.app, operator, "oven-1", "C-3", at);
    expect(at.getTime() - (pulled?.closedAt.getTime() ?? 0)).toBe(700_000);
  });
  test("spot readings on coated metal count where no probe was in it: by procedure, and never as short", async () => {
    await coatedRack(t, "C105", { at: ago(300) });
    await coatedRack(t, "C106", { at: ago(300) });
    await close("C-5", 100, ["C105"]);
    await close("C-6", 100, ["C106"]);
    const metalC = (minutes: number) => 205 - 185 * Math.exp(-minutes / 6);
    for (let minutes = 4; minutes <= 36; minutes += 4)
      expect(
        await event("C-5", "infrared", 100 - minutes, { valueC: metalC(minutes), aim: "coated-part" }),
      ).toMatchObject({ ok: true });
    for (const minutes of [4, 8])
      await event("C-6", "infrared", 100 - minutes, { valueC: metalC(minutes), aim: "coated-part" });
    // Of the oven's wall it says nothing of the metal.
    await event("C-6", "infrared", 80, { valueC: 210, aim: "oven-wall" });
    for (const load of ["C-5", "C-6"]) {
      const open = await loadLoad(t.app, operator, "oven-1", load, at);
      await pullLoad(t.app, operator, { recordId: open?.recordId ?? "" }, newId(), ago(63));
    }
    const item = async (number: string) => {
      const rack = await loadRack(t.app, lead, number);
      return rack && cureItem(rack);
    };
    expect(await item("C105")).toMatchObject({
      result: expect.stringMatching(/^(in|watch)$/),
      grade: "by-procedure",
      bake: { decidingChannel: "By infrared", decidingIndex: expect.any(Number) },
    });
    const short = await item("C106");
    expect(short).toMatchObject({ result: "unknown" });
    expect(short?.bake?.reasons.map((r) => r.kind)).toContain("recorded-until");
  });
  test("a trace of another moment than its load, of before the coat, or not over yet is refused with both times", async () => {
    await coatedRack(t, "C104", { at: ago(300) });
    await close("C-4", 120, ["C104"]);
    const timeS = Array.from({ length: 61 }, (_, i) => i * 30);
    const trace = (minutes: number, over = {}) =>
      storeEntry(
        t.app,
        lead,
        {
          id: newId(),
          idempotencyKey: newId(),
          happenedAt: ago(minutes).toISOString(),
          kind: "trace",
          rack: "C104",
          oven: "oven 1",
          place: "A1",
          loadNo: "import",
          channels: [{ name: "Leg", medium: "metal", timeS, tempC: timeS.map((s) => 205 - 185 * Math.exp(-s / 300)) }],
          ...over,
        },
        at,
      );
    expect(await trace(169)).toMatchObject({
      failure: {
        kind: "trace-of-another-moment",
        load: "C-4",
        doorAt: ago(120).toISOString(),
        startedAt: ago(169).toISOString(),
      },
    });
    expect(await trace(109)).toMatchObject({ failure: { kind: "trace-of-another-moment" } });
    // Coated a minute after it was hung: no bake began before that.
    expect(await trace(299.5)).toMatchObject({
      failure: { kind: "out-of-order", fault: { kind: "not-coated", coatedLaterMs: expect.any(Number) } },
    });
    expect(await trace(15)).toMatchObject({ failure: { kind: "trace-not-over" } });
    expect(await trace(112)).toMatchObject({ ok: true });
    const rack = await loadRack(t.app, lead, "C104");
    expect(rack && newest(rack, "bake")?.details.bake?.[0]?.load_no).toBe("C-4");
  });
});

describe("the demo's stories of the oven", () => {
  test("5: the plates beside the covers, by a fixed time: the last load, with probes, shows why they rub through", async () => {
    const racks = await t.app
      .selectFrom("rack")
      .innerJoin("job", "job.id", "rack.job_id")
      .select(["rack.number", "job.number as job"])
      .where("job.number", "in", ["J-415", "J-416"])
      .orderBy("rack.hung_at")
      .execute();
    expect(racks).toHaveLength(8);
    const last = await loadRack(t.app, lead, racks.filter((r) => r.job === "J-415").at(-1)?.number ?? "");
    const bake = last && newest(last, "bake");
    expect(bake?.details.bake?.[0]?.timing).toBe("door-close");
    const schedule = {
      points: last?.powder.data.schedule ?? [],
      overbake: last?.powder.data.overbake,
      onsetC: last?.powder.data.onsetC,
    };
    const channels = (bake?.details.bake_channel ?? []).map((c) => ({
      name: c.name,
      medium: c.medium as "air" | "metal",
      trace: { timeS: c.time_s as number[], tempC: c.temp_c },
    }));
    const verdict = judgeBake(channels, schedule);
    if (!verdict.ok) throw new Error(JSON.stringify(verdict.error));
    const index = (name: string) => verdict.value.channels.find((c) => c.name === name)?.index ?? 0;
    expect(index("Plate")).toBeLessThan(60);
    expect(index("Cover")).toBeGreaterThan(100);
    // What the planner says of the same load: no one pull, two loads.
    const { planLoad } = await import("@/core/cure");
    const plan = planLoad(
      { startC: 60, tauS: 140, program: [{ fromS: 0, airC: 205 }] },
      [2, 25].map((mm) => ({
        id: String(mm),
        section: { metal: "steel" as const, sectionMm: mm, hWPerM2K: 30 },
        schedule,
        startC: 20,
      })),
    );
    if (!plan.ok) throw new Error(JSON.stringify(plan.error));
    expect(plan.value.windowS).toBeNull();
    expect(plan.value.loads).toHaveLength(2);
  });
  test("10: Friday's clear coat stayed over lunch and is over-baked; Tuesday's is not", async () => {
    const racks = await t.app
      .selectFrom("rack")
      .innerJoin("job", "job.id", "rack.job_id")
      .select(["rack.number", "rack.hung_at"])
      .where("job.number", "=", "J-417")
      .execute();
    const found = await Promise.all(
      racks.map(async (r) => {
        const rack = await loadRack(t.app, lead, r.number);
        const bake = rack && newest(rack, "bake");
        const verdict = judgeBake(
          (bake?.details.bake_channel ?? []).map((c) => ({
            name: c.name,
            medium: c.medium as "air" | "metal",
            trace: { timeS: c.time_s as number[], tempC: c.temp_c },
          })),
          { points: rack?.powder.data.schedule ?? [], overbake: rack?.powder.data.overbake, onsetC: 130 },
        );
        const over = verdict.ok ? Math.max(...verdict.value.channels.map((c) => c.overbakeIndex ?? 0)) : -1;
        return {
          friday: bake?.base.happened_at.getUTCDay() === 5,
          over,
          yellow: rack?.latest.some((x) => x.details.defect?.[0]?.defect === "colour-shift") ?? false,
        };
      }),
    );
    expect(found.filter((f) => f.friday).length).toBeGreaterThan(1);
    expect(found.filter((f) => !f.friday).length).toBeGreaterThan(1);
    for (const f of found) {
      expect(f.over > 100, JSON.stringify(f)).toBe(f.friday);
      expect(f.yellow).toBe(f.friday);
    }
  });
});

describe("a sheet that changed", () => {
  test("each bake is judged by the sheet of its time and by the newest; what is another is told, with how far it is", async () => {
    const powderId = await entityId(t, "powder", "GR-700");
    const steps = async (signal: AbortSignal | null = null) => {
      const out = [];
      for await (const step of judgeAgain(t.app, powderId, now(), signal)) out.push(step);
      return out;
    };
    const before = await steps();
    const end = before.at(-1);
    expect(end).toMatchObject({ kind: "end", changed: 0 });
    const judged = end?.kind === "end" ? end.judged : 0;
    expect(judged).toBeGreaterThan(4);
    expect(before.filter((s) => s.kind === "progress").at(-1)).toMatchObject({ done: judged, of: judged });
    const powder = (await setupAt(t.app, "powder", at)).get(powderId);
    if (!powder) throw new Error("GR-700");
    // A sheet that asks for ten times as long: what was cured is short, what was over-baked stays so.
    await addVersion(t.app, lead, {
      entityId: powderId,
      at: now(),
      reason: "the maker's new sheet",
      data: { ...powder.data, schedule: powder.data.schedule.map((p) => ({ ...p, minutes: p.minutes * 10 })) },
    });
    const after = await steps();
    const changed = after.flatMap((s) => (s.kind === "changed" ? [s.bake] : []));
    expect(changed.length).toBeGreaterThan(0);
    for (const bake of changed) {
      expect(bake.before?.result).not.toBe(bake.now?.result);
      expect(bake.now?.index).toBeCloseTo((bake.before?.index ?? 0) / 10, 6);
    }
    const stop = new AbortController();
    stop.abort();
    expect(await steps(stop.signal)).toEqual([]);
  });
});

describe("proof of cure", () => {
  test("rubs beside the index of their bake; the mooring plate is where the two agree that it is short", async () => {
    const proofs = await cureProofs(t.app, lead, at);
    expect(proofs.points.length).toBeGreaterThan(20);
    expect(proofs.agreement?.pairs).toBe(proofs.points.length);
    expect(proofs.points.some((p) => p.index < 60 && !p.passed)).toBe(true);
    expect(proofs.byPlace.reduce((n, p) => n + p.rubs, 0)).toBe(proofs.points.length);
    const otto = person("viewer", "otto", await entityId(t, "customer", "C1"));
    expect((await cureProofs(t.app, otto, at)).points.length).toBeLessThan(proofs.points.length);
  });
  test("other tests stand beside the index: Friday's clear coat is off in colour where it is over-baked", async () => {
    const others = (await cureProofs(t.app, lead, at)).others.filter((o) => o.test === "colour");
    expect(others.length).toBeGreaterThan(4);
    const off = others.filter((o) => o.result === "out");
    expect(off.length).toBeGreaterThan(1);
    for (const o of off) expect(o.at.getUTCDay()).toBe(5);
    const least = Math.min(...off.map((o) => o.index));
    for (const o of others.filter((x) => x.result === "in")) expect(o.index).toBeLessThan(least);
    await coatedRack(t, "C120", { at: ago(300) });
    const test = { kind: "cure-test", rack: "C120", test: "gloss-60", lower: 52, upper: 68, onPanel: true };
    expect(await storeEntry(t.app, lead, entryAt(ago(2), { ...test, readings: [60] }), at)).toMatchObject({
      failure: { kind: "too-few-readings" },
    });
    expect(await storeEntry(t.app, operator, entryAt(ago(2), { ...test, readings: [60, 61, 62] }), at)).toMatchObject({
      failure: { kind: "role-refused" },
    });
    await stored(t, lead, ago(2), { ...test, readings: [60, 61, 62] });
    const rack = await loadRack(t.app, lead, "C120");
    expect(rack?.latest.at(-1)?.details.cure_test?.[0]).toMatchObject({ value: 61, asked_lower: 52 });
  });
  test("a trial is compared as it is kept; one result is too few", async () => {
    const trial = (valuesA: number[]) => ({
      kind: "cure-trial",
      question: "one step or two",
      test: "gloss",
      unit: "GU",
      programA: "one",
      programB: "two",
      valuesA,
      valuesB: [80, 81, 82],
      note: "",
    });
    expect(await storeEntry(t.app, lead, entryAt(ago(2), trial([70])), at)).toMatchObject({
      failure: { kind: "bad-entry", field: "valuesA" },
    });
    await stored(t, lead, ago(2), trial([70, 71, 72]));
    const [kept] = (await cureProofs(t.app, lead, at)).trials;
    expect(kept?.compared.difference).toBeCloseTo(10, 9);
    expect(kept?.compared.says).toBe("moved");
  });
});

test("what the shop plans to is a setting, at 110 until a lead changes it", async () => {
  const site = await siteAt(t.app, at);
  expect(site.plannedIndex).toBe(110);
  await addVersion(t.app, lead, {
    entityId: await t.app
      .selectFrom("setup_entity")
      .select("id")
      .where("kind", "=", "site")
      .executeTakeFirstOrThrow()
      .then((r) => r.id),
    at,
    reason: "own rubs",
    data: { ...site, plannedIndex: 120 },
  });
  expect((await siteAt(t.app, now())).plannedIndex).toBe(120);
});
