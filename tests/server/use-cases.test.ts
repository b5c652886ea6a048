import { readFileSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { loadBath } from "@/server/baths/load-bath";
import { openCase } from "@/server/causes/case-actions";
import { candidates, passedLike } from "@/server/causes/containment";
import { establish } from "@/server/causes/establish";
import { loadCase } from "@/server/causes/load-case";
import { coolingOf } from "@/server/cure/cooling";
import { storeEntry } from "@/server/entries/store-entry";
import { importFile } from "@/server/imports/import-file";
import { exportJob } from "@/server/jobs/load-job";
import { recentDryOffs } from "@/server/line/dry-offs";
import { loadLineStops } from "@/server/line/line-stops";
import { loadLine } from "@/server/line/load-line";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { dispose } from "@/server/release/dispose";
import { places } from "@/server/search/places";
import { recentRecords } from "@/server/search/recent";
import { siteAt } from "@/server/setup/setup-data";
import { MOST_FAILURES_PER_NAME, noteAttempt, tooManyAttempts } from "@/server/sign-in/attempts";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { freshRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const inspector = person("inspector", "tomasz");
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const entry = (rest: object) => {
  const id = newId();
  return { id, idempotencyKey: `t:${id}`, happenedAt: at.toISOString(), ...rest };
};
const rackWith = async (decision: string | null, part?: string) => {
  const rows = await t.app
    .selectFrom("rack")
    .innerJoin("job", "job.id", "rack.job_id")
    .innerJoin("setup_entity as e", "e.id", "job.part_id")
    .leftJoin("record as r", (j) => j.onRef("r.rack_id", "=", "rack.id").on("r.kind", "=", "disposition"))
    .leftJoin("disposition as d", "d.record_id", "r.id")
    .select(["rack.number", "rack.id", "d.decision", "job.customer_id", "rack.hung_at"])
    .$if(part !== undefined, (q) => q.where("e.code", "=", part as string))
    .orderBy("rack.hung_at", "desc")
    .execute();
  const found = rows.find((row) => row.decision === decision);
  if (!found) throw new Error(`no rack with decision ${decision}`);
  return found;
};

describe("entries", () => {
  test("wrong type, empty, huge, negative, future, unknown: each refused with its value, nothing stored", async () => {
    const before = (
      await t.app
        .selectFrom("record")
        .select(({ fn }) => fn.countAll<string>().as("n"))
        .executeTakeFirstOrThrow()
    ).n;
    const reading = (valueUm: unknown) =>
      entry({
        kind: "thickness",
        rack: "0942",
        source: "typed",
        typedUnit: "um",
        coatNo: 1,
        readings: [{ face: "A", spot: "A1", valueUm, typed: String(valueUm) }],
      });
    const bad: [object, string][] = [
      [{}, "bad-entry"],
      [entry({ kind: "melancholy" }), "bad-entry"],
      [reading("72"), "bad-entry"],
      [reading(-4), "bad-entry"],
      [reading(1e9), "bad-entry"],
      [reading(Number.NaN), "bad-entry"],
      [entry({ kind: "bath-check", bath: "Tank 3", values: [] }), "bad-entry"],
      [
        entry({
          kind: "bath-check",
          bath: "Tank 3",
          values: [{ parameter: "ph", value: 51, typed: "51", typedUnit: "" }],
        }),
        "bad-entry",
      ],
      [
        entry({
          kind: "bath-check",
          bath: "Tank 99",
          values: [{ parameter: "ph", value: 5, typed: "5", typedUnit: "" }],
        }),
        "unknown-bath",
      ],
      [
        entry({
          kind: "bath-check",
          bath: "Tank 3",
          values: [
            { parameter: "ph", value: 5, typed: "5", typedUnit: "" },
            { parameter: "ph", value: 6, typed: "6", typedUnit: "" },
          ],
        }),
        "value-given-twice",
      ],
      [
        {
          ...entry({ kind: "passage", rack: "0942", stage: "booth" }),
          happenedAt: new Date(at.getTime() + 86_400_000).toISOString(),
        },
        "in-the-future",
      ],
      [entry({ kind: "passage", rack: "9999", stage: "booth" }), "unknown-rack"],
      [entry({ kind: "passage", rack: "0942", stage: "kitchen" }), "bad-entry"],
      [
        entry({ kind: "cross-cut", rack: "0942", squaresLost: 30, squares: 25, spacingMm: null, onPanel: true }),
        "bad-squares",
      ],
      [
        entry({
          kind: "defect",
          rack: "0942",
          structure: null,
          defect: "craters",
          face: null,
          x: null,
          y: null,
          extentPercent: null,
          piecesAffected: 9,
          piecesSeen: 3,
          note: "",
        }),
        "more-affected-than-seen",
      ],
      [
        entry({
          kind: "visit",
          structure: "JETTY-A",
          weather: "",
          note: "",
          creep: [{ zone: "bay", from: "scribe", scribeMm: 3, widthsMm: [1, 1, 1, 1, 1, 1] }],
        }),
        "narrower-than-scribe",
      ],
      [entry({ kind: "finding", caseNumber: "29", finding: "full-moon", state: "present", note: "" }), "bad-entry"],
      [{ ...entry({ kind: "passage", rack: "0942", stage: "booth" }), id: "1; drop table record" }, "bad-entry"],
    ];
    for (const [input, kind] of bad)
      expect(await storeEntry(t.app, inspector, input, at), JSON.stringify(input)).toMatchObject({
        ok: false,
        failure: { kind },
      });
    expect(
      (
        await t.app
          .selectFrom("record")
          .select(({ fn }) => fn.countAll<string>().as("n"))
          .executeTakeFirstOrThrow()
      ).n,
    ).toBe(before);
  });
  test("a spot the part does not have is refused by name", async () => {
    const rack = await rackWith(null, "SHELTER-POST");
    expect(
      await storeEntry(
        t.app,
        inspector,
        entry({
          kind: "thickness",
          rack: rack.number,
          source: "typed",
          typedUnit: "um",
          coatNo: 1,
          readings: [{ face: "A", spot: "Z9", valueUm: 70, typed: "70" }],
        }),
        at,
      ),
    ).toMatchObject({ ok: false, failure: { kind: "unknown-spot", spot: "Z9" } });
  });
  test("roles: a viewer stores nothing, an operator no film, an inspector both", async () => {
    const check = () =>
      entry({
        kind: "bath-check",
        bath: "tank 3",
        values: [{ parameter: "ph", value: 5.3, typed: "5.3", typedUnit: "" }],
      });
    expect(await storeEntry(t.app, person("viewer"), check(), at)).toMatchObject({
      ok: false,
      failure: { kind: "role-refused" },
    });
    expect(await storeEntry(t.app, person("operator"), check(), at)).toMatchObject({ ok: true });
    const rack = await rackWith(null, "SHELTER-POST");
    const film = () =>
      entry({
        kind: "thickness",
        rack: rack.number,
        source: "typed",
        typedUnit: "um",
        coatNo: 1,
        readings: [{ face: "A", spot: "A1", valueUm: 70.5, typed: "70.5" }],
      });
    expect(await storeEntry(t.app, person("operator"), film(), at)).toMatchObject({
      ok: false,
      failure: { kind: "role-refused" },
    });
    const kept = film();
    expect(await storeEntry(t.app, inspector, kept, at)).toMatchObject({ ok: true, already: false });
    expect(await storeEntry(t.app, inspector, kept, at)).toMatchObject({ ok: true, already: true });
  });
});

describe("a customer's viewer", () => {
  test("sees no one else's racks, jobs, records, places, cases or structures", async () => {
    const ferries = await t.app
      .selectFrom("setup_entity")
      .select("id")
      .where("kind", "=", "customer")
      .where("code", "=", "C1")
      .executeTakeFirstOrThrow();
    const otto = person("viewer", "otto", ferries.id);
    const all = await t.app
      .selectFrom("rack")
      .innerJoin("job", "job.id", "rack.job_id")
      .select(["rack.number", "job.number as job", "job.customer_id"])
      .execute();
    const foreign = all.filter((r) => r.customer_id !== ferries.id);
    const own = all.filter((r) => r.customer_id === ferries.id);
    expect(foreign.length).toBeGreaterThan(20);
    for (const row of foreign.slice(0, 10)) {
      expect(await loadRack(t.app, otto, row.number)).toBeNull();
      expect(await exportJob(t.app, otto, row.job, at)).toBeNull();
      expect(await places(t.app, otto, row.number)).toEqual([]);
    }
    expect(await loadRack(t.app, otto, own[0]?.number ?? "")).not.toBeNull();
    const numbers = new Set(own.map((r) => r.number));
    for (const record of await recentRecords(t.app, otto, at, 500))
      if (record.rack) expect(numbers).toContain(record.rack);
    const line = await loadLine(t.app, otto, at);
    for (const rack of line.racks) expect(numbers).toContain(rack.number);
    for (const bake of line.bakes) for (const rack of bake.racks) expect(numbers).toContain(rack);
  });
});

describe("the trace", () => {
  test("bath values at the minute of passage, between the checks around it, never across an addition", async () => {
    const rack = await rackWith("accept");
    const { baths, passages } = await conditionsWhenPassed(t.app, [rack.id], at);
    expect(passages.map((p) => p.stage)).toEqual(expect.arrayContaining(["blast", "conversion", "booth", "oven"]));
    const ph = baths.find((b) => b.parameter === "ph");
    expect(ph?.found.grade).toBe("measured");
    expect(ph?.found.sources.length).toBeGreaterThan(0);
    const series = (await loadBath(t.app, "tank 3", at))?.series.find((s) => s.parameter === "ph")?.points ?? [];
    const around = series
      .filter((p) => Math.abs(p.at.getTime() - (ph?.at.getTime() ?? 0)) < 13 * 3_600_000)
      .map((p) => p.value);
    expect(ph?.found.value).toBeGreaterThanOrEqual(Math.min(...around) - 1e-9);
    expect(ph?.found.value).toBeLessThanOrEqual(Math.max(...around) + 1e-9);
  });
  test("contact time is judged by the bath's own window, and unknown where none is set", async () => {
    const rack = await loadRack(t.app, lead, (await rackWith("accept")).number);
    if (!rack) throw new Error("rack");
    const conditions = await conditionsWhenPassed(t.app, [rack.id], rack.hungAt);
    const contact = async (contactS: readonly [number, number] | null) =>
      (
        await establish(t.app, rack, null, null, {
          ...conditions,
          baths: conditions.baths.map((b) => ({ ...b, contactS })),
        })
      ).find((f) => f.finding === "contact-time-short");
    expect(conditions.baths.find((b) => b.role === "conversion")?.contactS).toEqual([60, 120]);
    expect(await contact([60, 120])).toMatchObject({ state: "absent", what: { value: 90, lower: 60, upper: 120 } });
    expect(await contact([91, 200])).toMatchObject({ state: "present", what: { lower: 91 } });
    expect(await contact(null)).toMatchObject({ state: "unknown", what: { kind: "never-recorded" } });
  });
  test("one rack alone and among all gives the same", async () => {
    const racks = await t.app.selectFrom("rack").select("id").orderBy("hung_at", "desc").limit(40).execute();
    const all = await conditionsWhenPassed(
      t.app,
      racks.map((r) => r.id),
      at,
    );
    for (const { id } of racks.slice(0, 6)) {
      const one = await conditionsWhenPassed(t.app, [id], at);
      expect(all.baths.filter((b) => b.rackId === id)).toEqual(one.baths);
    }
  });
});

describe("the demo's stories can be found", () => {
  test("story 3: racks of the wrong addition lift at the cross-cut, and the conversion bath leads the causes", async () => {
    const failed = await t.app
      .selectFrom("record")
      .innerJoin("defect", "defect.record_id", "record.id")
      .select("record.id")
      .where("defect.defect", "=", "adhesion-loss")
      .execute();
    expect(failed.length).toBeGreaterThan(5);
    const opened = await openCase(t.app, lead, { defectRecordId: failed[0]?.id ?? "", zone: "Panel" }, at);
    const again = await openCase(t.app, lead, { defectRecordId: failed[0]?.id ?? "", zone: "Panel" }, at);
    expect(again).toEqual(opened);
    const file = await loadCase(t.app, lead, opened.ok && opened.href ? (opened.href.split("/").pop() as string) : "");
    expect(file?.diagnosis.causes[0]?.cause).toBe("conversion-thin");
    const conversion = file?.established.find((f) => f.finding === "conversion-out");
    expect(conversion).toMatchObject({ state: "present", grade: "measured" });
    expect(conversion?.sources.length).toBeGreaterThan(0);
    if (!file?.rack) throw new Error("no rack");
    const about = { rackId: file.rack.id, defect: file.defect, established: file.established };
    const found = await candidates(t.app, lead, about, "conversion-thin", at);
    expect(found.byColumns).toContain("conversion-out");
    expect(found.among).toBeGreaterThan(found.ids.length);
    const others = await passedLike(t.app, lead, found.ids, found, file.defect, at);
    expect(others.length).toBeGreaterThan(5);
    // Looked into one by one they are the same: the columns leave none of them out.
    const everyRack = await t.app.selectFrom("rack").select(["id", "number"]).execute();
    const bearing: string[] = [];
    for (const { id, number } of everyRack) {
      const other = id === file.rack.id ? null : await loadRack(t.app, lead, number);
      const findings = other ? await establish(t.app, other, null, null) : [];
      if (other && found.shared.every((s) => findings.some((f) => f.finding === s.finding && f.state === "present")))
        bearing.push(number);
    }
    expect(others.map((o) => o.number).sort()).toEqual(bearing.sort());
  });
  test("story 2: pinholed lamp heads without their outgassing bake lead to gas from the casting", async () => {
    const holes = await t.app
      .selectFrom("record")
      .innerJoin("defect", "defect.record_id", "record.id")
      .select(["record.id", "defect.pieces_affected"])
      .where("defect.defect", "=", "pinholes")
      .orderBy("defect.pieces_affected", "desc")
      .execute();
    const opened = await openCase(t.app, lead, { defectRecordId: holes[0]?.id ?? "", zone: "Hood" }, at);
    const file = await loadCase(t.app, lead, opened.ok && opened.href ? (opened.href.split("/").pop() as string) : "");
    expect(file?.diagnosis.causes[0]?.cause).toBe("casting-gas");
    expect(file?.diagnosis.causes.find((c) => c.cause === "zinc-gas")?.role).toBe("ruled-out");
  });
  test("story 4: the seats' creep leads to no primer and knocks, with the declined offer as its evidence", async () => {
    const file = await loadCase(t.app, lead, "29");
    expect(file?.diagnosis.causes.slice(0, 3).map((c) => c.cause)).toEqual(
      expect.arrayContaining(["no-barrier-primer", "service-damage"]),
    );
    const acting = file?.diagnosis.causes.filter((c) => c.strength >= 0.5).map((c) => c.cause);
    expect(acting).toEqual(expect.arrayContaining(["no-barrier-primer", "service-damage"]));
    expect(file?.diagnosis.chains[0]?.map((step) => step.cause)).toEqual(
      expect.arrayContaining(["no-barrier-primer", "service-damage"]),
    );
    expect(file?.established.find((f) => f.finding === "no-primer")?.what).toMatchObject({ kind: "option-declined" });
  });
  const traced = async (defect: string) => {
    const rows = await t.app
      .selectFrom("record")
      .innerJoin("defect", "defect.record_id", "record.id")
      .innerJoin("rack", "rack.id", "record.rack_id")
      .select(["record.id", "record.happened_at", "rack.number", "rack.hung_at"])
      .where("defect.defect", "=", defect)
      .orderBy("record.happened_at")
      .execute();
    const opened = await openCase(t.app, lead, { defectRecordId: rows[0]?.id ?? "", zone: "Rack" }, at);
    const file = await loadCase(t.app, lead, opened.ok && opened.href ? (opened.href.split("/").pop() as string) : "");
    return { rows, file };
  };
  test("story 6: Monday's racks rust where the line stood wet and the inhibitor had worn off", async () => {
    const { rows, file } = await traced("flash-rust");
    expect(rows.length).toBeGreaterThan(1);
    expect(rows.every((r) => r.happened_at.getUTCDay() === 1)).toBe(true);
    expect(file?.diagnosis.causes[0]?.cause).toBe("flash-rust-before-coat");
    for (const finding of ["inhibitor-low", "line-stopped-wet", "flash-rust-seen"])
      expect(file?.established.find((f) => f.finding === finding)?.state, finding).toBe("present");
    // The chart shows it on the day, and the stop lists the rack that stood in it.
    const tank = await loadBath(t.app, "Tank 3", new Date((rows.at(-1)?.happened_at.getTime() ?? 0) + 60_000));
    const inhibitor = tank?.series.find((s) => s.parameter === "inhibitor");
    expect(inhibitor?.points.at(-1)?.result).toBe("out");
    expect(inhibitor?.reaction?.what).toContain("inhibitor");
    const stops = await loadLineStops(t.app, lead, rows.at(-1)?.happened_at ?? at);
    expect(stops[0]?.racks.map((r) => r.number)).toContain(rows.at(-1)?.number);
    expect(stops[0]?.racks.find((r) => r.number === rows.at(-1)?.number)?.result).toBe("out");
  });
  test("story 7: tube ends of greenhouse frames blister in wet weather, and dry in fair", async () => {
    const { rows, file } = await traced("blistering");
    expect(rows.length).toBeGreaterThan(1);
    expect(file?.diagnosis.causes[0]?.cause).toBe("trapped-moisture");
    expect(file?.established.find((f) => f.finding === "moisture-left")).toMatchObject({
      state: "present",
      what: { kind: "seen", what: "tubes and laps not blown out" },
    });
    expect(file?.established.find((f) => f.finding === "hollow-section")?.state).toBe("present");
    for (const row of rows) {
      const air = await t.app
        .selectFrom("record")
        .innerJoin("condition", "condition.record_id", "record.id")
        .select("condition.value")
        .where("condition.quantity", "=", "humidity")
        .where("record.happened_at", "<", row.hung_at)
        .orderBy("record.happened_at", "desc")
        .executeTakeFirst();
      expect(air?.value, row.number).toBeGreaterThan(66);
    }
    // The chart over the hall's humidity shows them on their day, and lists them.
    const day = new Date((rows[0]?.happened_at.getTime() ?? 0) + 60_000);
    const then = (await recentDryOffs(t.app, lead, day)).seen.filter((s) => s.result === "out");
    expect(then.map((s) => s.rack)).toContain(rows[0]?.number);
    const now = await recentDryOffs(t.app, lead, at);
    const listed = now.seen.filter((s) => s.result === "out");
    for (const row of rows.filter((r) => r.hung_at > now.from)) expect(listed.map((s) => s.rack)).toContain(row.number);
    for (const s of listed) expect(s.humidityPercent ?? 100, s.rack).toBeGreaterThan(66);
    expect(listed.every((s) => s.reasons.includes("hollow-not-blown"))).toBe(true);
    const frames = await t.app
      .selectFrom("rack")
      .innerJoin("job", "job.id", "rack.job_id")
      .innerJoin("setup_entity", "setup_entity.id", "job.part_id")
      .select("rack.number")
      .where("setup_entity.code", "=", "GREENHOUSE-FRAME")
      .execute();
    expect(frames.length).toBeGreaterThan(rows.length + 3);
  });
  test("a rack without a record says never recorded, not absent", async () => {
    const rack = await loadRack(t.app, lead, (await rackWith("accept")).number);
    if (!rack) throw new Error("rack");
    const bare = { ...rack, current: [], latest: [], evidence: [], thread: [] };
    for (const f of await establish(t.app, bare, null, null))
      if (["film-high", "cure-index-low", "air-wet", "ground-poor"].includes(f.finding))
        expect(f).toMatchObject({ state: "unknown", what: { kind: "never-recorded" } });
  });
});

describe("release", () => {
  test("an accepted rack keeps its verdict, numbers and sources; a second lead is shown the first", async () => {
    const rack = await rackWith("accept");
    const file = await loadRack(t.app, lead, rack.number);
    const seen = file?.current.findLast((r) => r.base.kind === "disposition")?.base.id ?? null;
    const first = await dispose(
      t.app,
      lead,
      { id: newId(), rack: rack.number, decision: "hold", note: "Second look asked for", seen },
      at,
    );
    expect(first.ok).toBe(true);
    expect(
      await dispose(
        t.app,
        person("lead", "other"),
        { id: newId(), rack: rack.number, decision: "scrap", note: "no longer needed", seen },
        at,
      ),
    ).toMatchObject({ ok: false, failure: { kind: "decided-meanwhile", decision: "hold" } });
    const row = await t.app
      .selectFrom("disposition")
      .selectAll()
      .where("record_id", "=", first.ok ? first.recordId : "")
      .executeTakeFirstOrThrow();
    expect(row.verdict).toMatchObject({
      items: expect.arrayContaining([expect.objectContaining({ item: "film", sources: expect.any(Array) })]),
    });
  });
  test("a rack whose cross-cut is out, or with a proof missing, cannot be accepted", async () => {
    const running = await rackWith(null, "LAMP-HEAD");
    const file = await loadRack(t.app, lead, running.number);
    const seen = file?.current.findLast((r) => r.base.kind === "disposition")?.base.id ?? null;
    expect(
      await dispose(
        t.app,
        lead,
        { id: newId(), rack: running.number, decision: "accept", note: "looks fine", seen },
        at,
      ),
    ).toMatchObject({ ok: false, failure: { kind: "accept-against-verdict" } });
  });
  test("warm metal is not accepted until it is read cool, or still air has cooled it", async () => {
    const { number } = await rackWith("accept", "FERRY-SEAT");
    const file = await loadRack(t.app, lead, number);
    const bake = file?.current.findLast((r) => r.base.kind === "bake")?.details.bake?.[0];
    if (!file || !bake?.pulled_at) throw new Error("no bake");
    const pulledAt = bake.pulled_at;
    const minutesOn = (minutes: number) => new Date(pulledAt.getTime() + minutes * 60_000);
    const accept = (minutes: number, seen: string | null) =>
      dispose(
        t.app,
        lead,
        { id: newId(), rack: number, decision: "accept", note: "all in order", seen },
        minutesOn(minutes),
      );
    const seen = file.current.findLast((r) => r.base.kind === "disposition")?.base.id ?? null;
    const warm = await accept(5, seen);
    expect(warm).toMatchObject({ ok: false, failure: { kind: "still-warm", belowC: 40, load: bake.load_no } });
    expect(await coolingOf(t.app, file, minutesOn(5))).toMatchObject({ state: "warm", grade: "assumed" });
    expect(await coolingOf(t.app, file, minutesOn(240))).toMatchObject({
      state: "cool",
      grade: "assumed",
      coolAt: null,
    });
    const cool = { kind: "bake-event", oven: "Oven 1", loadNo: bake.load_no, event: "cool", note: "" };
    await stored(t, lead, minutesOn(6), { ...cool, valueC: 71 });
    expect(await accept(7, seen)).toMatchObject({ failure: { kind: "still-warm" } });
    await stored(t, lead, minutesOn(8), { ...cool, valueC: 33 });
    expect(await coolingOf(t.app, file, minutesOn(9))).toMatchObject({ state: "cool", grade: "measured", nowC: 33 });
    expect(await accept(9, seen)).toMatchObject({ ok: true });
  });
  test("the verdict is recomputed from the record and agrees with itself", async () => {
    const rack = await loadRack(t.app, lead, (await rackWith("accept", "FERRY-SEAT")).number);
    if (!rack) throw new Error("rack");
    const conditions = await conditionsWhenPassed(t.app, [rack.id], rack.hungAt);
    expect(judgeRack(rack, conditions)).toEqual(judgeRack(rack, conditions));
  });
});

describe("imports", () => {
  const form = (name: string, rest: Record<string, string> = {}) => {
    const f = new FormData();
    f.set("file", new File([readFileSync(`tests/samples/${name}`)], name));
    for (const [key, value] of Object.entries(rest)) f.set(key, value);
    return f;
  };
  test("read first, store after; the same file for the same rack once", async () => {
    const rack = await rackWith("accept", "SHELTER-POST");
    const count = async () =>
      Number(
        (
          await t.app
            .selectFrom("thickness_reading")
            .select(({ fn }) => fn.countAll<string>().as("n"))
            .executeTakeFirstOrThrow()
        ).n,
      );
    const before = await count();
    expect(await importFile(t.app, inspector, form("gauge-semicolon.csv"), at)).toMatchObject({
      ok: true,
      stored: null,
    });
    expect(await count()).toBe(before);
    expect(
      await importFile(t.app, inspector, form("gauge-semicolon.csv", { store: "yes", rack: rack.number }), at),
    ).toMatchObject({ ok: true, stored: 30 });
    expect(
      await importFile(t.app, inspector, form("gauge-semicolon.csv", { store: "yes", rack: rack.number }), at),
    ).toMatchObject({ ok: true, already: true });
    expect(await count()).toBe(before + 30);
  });
  test("broken, cut off, no text, for an unknown rack: refused whole", async () => {
    expect(
      await importFile(t.app, inspector, form("gauge-broken.csv", { store: "yes", rack: "0942" }), at),
    ).toMatchObject({ ok: false, failure: { kind: "bad-rows" } });
    expect(await importFile(t.app, inspector, form("gauge-mil.csv", { size: "999999" }), at)).toMatchObject({
      ok: false,
      failure: { kind: "cut-off-upload" },
    });
    const picture = new FormData();
    picture.set("file", new File([Buffer.from([0x54, 0xb5, 0x00, 0xff, 0xfe])], "picture.csv"));
    expect(await importFile(t.app, inspector, picture, at)).toMatchObject({ ok: false, failure: { kind: "not-text" } });
    expect(await importFile(t.app, inspector, form("gauge-mil.csv", { store: "yes", rack: "nope" }), at)).toMatchObject(
      { ok: false, failure: { kind: "unknown-rack" } },
    );
  });
  test("a trace of a rack with no coat on record: refused for its order, set aside with a reason by a lead alone, which stands", async () => {
    const rack = await freshRack(t, "IO1", { at: new Date(at.getTime() - 10 * 3_600_000) });
    const upload = (over: Record<string, string> = {}) => {
      const rows = Array.from({ length: 61 }, (_, i) => `${i * 30},${(205 - 185 * Math.exp(-i / 10)).toFixed(1)}`);
      const form = new FormData();
      form.set("file", new File([`time s,Leg metal °C\n${rows.join("\n")}\n`], "uncoated.csv"));
      const startedAt = new Date(at.getTime() - 5 * 3_600_000).toISOString();
      for (const [key, value] of Object.entries({
        store: "yes",
        unit: "degC",
        rack,
        startedAt,
        oven: "oven 1",
        ...over,
      }))
        form.set(key, value);
      return form;
    };
    expect(await importFile(t.app, lead, upload(), at)).toMatchObject({
      ok: false,
      failure: { kind: "out-of-order", fault: { kind: "not-coated" } },
    });
    const leftOut = "coated at the other shop, its sheet is with the job";
    expect(await importFile(t.app, inspector, upload({ leftOut }), at)).toMatchObject({
      ok: false,
      failure: { kind: "role-refused", needs: "release" },
    });
    expect(await importFile(t.app, lead, upload({ leftOut: "x" }), at)).toMatchObject({
      ok: false,
      failure: { kind: "bad-entry", field: "leftOut" },
    });
    expect(await importFile(t.app, lead, upload({ leftOut }), at)).toMatchObject({ ok: true, stored: 61 });
    const row = await t.app
      .selectFrom("bake")
      .innerJoin("bake_place", "bake_place.record_id", "bake.record_id")
      .innerJoin("rack", "rack.id", "bake_place.rack_id")
      .select("bake.left_out")
      .where("rack.number", "=", "IO1")
      .executeTakeFirstOrThrow();
    expect(row.left_out).toBe(leftOut);
  });
  test("a value in a bath's file that looks like a slip is asked about, and stored once it was looked at", async () => {
    const { timeZone } = await siteAt(t.app, at);
    const local = new Date(at.getTime() - 120_000).toLocaleString("en-GB", { timeZone });
    const upload = (over: Record<string, string> = {}) => {
      const text = `date,time,tank,parameter,value,unit,by\n${local.slice(0, 10)},${local.slice(12, 17)},Tank 4,Conductivity,6.1,µS/cm,RO\n`;
      const form = new FormData();
      form.set("file", new File([text], "slip.csv"));
      for (const [key, value] of Object.entries({ store: "yes", dates: "day", ...over })) form.set(key, value);
      return form;
    };
    const files = async () =>
      (await t.app.selectFrom("file").select("id").where("name", "=", "slip.csv").execute()).length;
    expect(await importFile(t.app, inspector, upload(), at)).toMatchObject({
      ok: false,
      failure: { kind: "value-in-question", bath: "Tank 4" },
    });
    expect(await files()).toBe(0);
    expect(await importFile(t.app, inspector, upload({ sure: "yes" }), at)).toMatchObject({ ok: true, stored: 1 });
    expect(await importFile(t.app, inspector, upload({ sure: "yes" }), at)).toMatchObject({ ok: true, already: true });
    expect(await files()).toBe(1);
  });
  test("a bath log is stored at site time", async () => {
    expect(await importFile(t.app, inspector, form("bath-log.csv", { store: "yes" }), at)).toMatchObject({
      ok: true,
      stored: 36,
    });
    const first = await t.app
      .selectFrom("record")
      .innerJoin("bath_check", "bath_check.record_id", "record.id")
      .select("record.happened_at")
      .where("bath_check.value", "=", 4.81)
      .executeTakeFirstOrThrow();
    // A quarter past six by the site's clock, in summer: an hour, or two and a half, from UTC.
    const { timeZone } = await siteAt(t.app, at);
    const utc = { "Europe/London": "05:15", "America/St_Johns": "08:45" }[timeZone];
    expect(first.happened_at.toISOString()).toBe(`2026-05-06T${utc}:00.000Z`);
  });
});

describe("sign-in", () => {
  test("rests after several failures, by name, and counts them in the database", async () => {
    for (let i = 0; i < MOST_FAILURES_PER_NAME; i++) {
      expect(await tooManyAttempts(t.app, "mallory", "10.0.0.9", at)).toBe(false);
      await noteAttempt(t.app, "mallory", "10.0.0.9", false, at);
    }
    expect(await tooManyAttempts(t.app, "mallory", "10.0.0.9", at)).toBe(true);
    expect(await tooManyAttempts(t.app, "tomasz", "10.0.0.8", at)).toBe(false);
    expect(await tooManyAttempts(t.app, "mallory", "10.0.0.9", new Date(at.getTime() + 11 * 60_000))).toBe(false);
  });
});
