import { sql } from "kysely";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { storeEntry } from "@/server/entries/store-entry";
import { loadLine } from "@/server/line/load-line";
import { CARRIED_PER_STAGE, listRacks, rackFilterFrom } from "@/server/line/racks";
import { racksToCure, showRacks } from "@/server/line/show-racks";
import { completeStanding, refreshStanding, wrongJobs, wrongStanding } from "@/server/line/standing";
import { newId, now } from "@/server/now";
import { loadRack } from "@/server/rack/load-rack";
import { dispose } from "@/server/release/dispose";
import { setupAt } from "@/server/setup/setup-data";
import { dueList } from "@/ui/shift/due-list";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { aCoat, entityId, entryAt, freshRack, seatFilm, stored } from "../support/entries";
import { theirWord } from "../support/proven";

let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
const operator = person("operator", "maren");
const standing = async (number: string) =>
  t.app.selectFrom("rack_standing").selectAll().where("number", "=", number).executeTakeFirstOrThrow();
const names = async () => ({
  parts: await setupAt(t.app, "part", at),
  customers: await setupAt(t.app, "customer", at),
});

beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

describe("a rack's standing is kept with what changes it", () => {
  test("from hung to decided, each entry moves it in its own transaction", async () => {
    await freshRack(t, "S100", { at: ago(600), stages: ["blast", "conversion", "booth", "oven"] });
    expect(await standing("S100")).toMatchObject({ stage: "prepare", next: "prepare", gone_at: null, asked: 30 });
    await stored(t, operator, ago(500), { kind: "passage", rack: "S100", stage: "blast" });
    expect(await standing("S100")).toMatchObject({ passage: "blast", next: "wash", open: true });
    await stored(t, operator, ago(400), { kind: "passage", rack: "S100", stage: "conversion" });
    expect(await standing("S100")).toMatchObject({ stage: "pretreat", next: "coat", unsealed_since: ago(400) });
    await stored(t, operator, ago(300), { kind: "passage", rack: "S100", stage: "booth" });
    expect(await standing("S100")).toMatchObject({ stage: "coat", next: "cure" });
    expect((await racksToCure(t.app, operator, at)).map((r) => r.number)).toContain("S100");
    await stored(t, operator, ago(290), { ...aCoat(), rack: "S100" });
    await stored(t, operator, ago(200), {
      kind: "load",
      oven: "Oven 1",
      loadNo: "S-1",
      timing: "door-close",
      setPointC: 200,
      places: [{ rack: "S100", place: "A1" }],
    });
    const inOven = await standing("S100");
    expect(inOven).toMatchObject({ stage: "cure", next: "pull" });
    expect(inOven.bake_id).not.toBeNull();
    expect((await loadLine(t.app, operator, at)).bakes.map((b) => b.load)).toContain("S-1");
    const { pullLoad } = await import("@/server/entries/pull-load");
    expect(await pullLoad(t.app, operator, { recordId: inOven.bake_id ?? "" }, newId(), ago(160))).toMatchObject({
      ok: true,
    });
    expect(await standing("S100")).toMatchObject({ stage: "test", next: "trace", bake_id: null, result: "unknown" });
    await stored(t, inspector, ago(100), {
      kind: "thickness",
      rack: "S100",
      source: "typed",
      typedUnit: "um",
      coatNo: 1,
      readings: seatFilm(76),
    });
    expect(await standing("S100")).toMatchObject({ next: "trace", readings: 30 });
    expect(
      await dispose(
        t.app,
        lead,
        {
          id: newId(),
          rack: "S100",
          decision: "concession",
          note: "taken as it is",
          seen: null,
          conceded: 99,
          ...theirWord,
        },
        ago(10),
      ),
    ).toMatchObject({ ok: true });
    expect(await standing("S100")).toMatchObject({ gone_at: ago(10), next: null });
    expect((await loadRack(t.app, lead, "S100"))?.standing).toMatchObject({ next: null, gone_at: ago(10) });
  });
  test("a refused entry moves nothing; a correction moves it back", async () => {
    await freshRack(t, "S101", { at: ago(300) });
    const before = await standing("S101");
    expect(await storeEntry(t.app, operator, entryAt(ago(20), { kind: "coat", rack: "S101" }), at)).toMatchObject({
      ok: false,
    });
    expect(await standing("S101")).toEqual(before);
    const readings = seatFilm(76);
    const first = await stored(t, inspector, ago(60), {
      kind: "thickness",
      rack: "S101",
      source: "typed",
      typedUnit: "um",
      coatNo: 1,
      readings,
    });
    expect((await standing("S101")).readings).toBe(30);
    await stored(t, inspector, ago(50), {
      kind: "thickness",
      rack: "S101",
      source: "typed",
      typedUnit: "um",
      coatNo: 1,
      readings: readings.slice(0, 4),
      supersedes: { recordId: first, reason: "another rack's" },
    });
    expect(await standing("S101")).toMatchObject({ readings: 4, state: "film-open" });
  });
  test("verify works it out again and names what differs", async () => {
    expect(await wrongStanding(t.app)).toEqual([]);
    await sql`update rack_standing set stage = 'release', readings = 7 where number = 'S101'`.execute(t.app);
    expect(await wrongStanding(t.app)).toEqual([{ number: "S101", columns: ["stage", "readings"] }]);
    await sql`delete from rack_standing where number = 'S101'`.execute(t.owner);
    expect(await wrongStanding(t.app)).toEqual([{ number: "S101", columns: ["missing"] }]);
    expect(await completeStanding(t.app)).toBe(1);
    expect(await wrongJobs(t.app)).toEqual([]);
    await sql`update job_standing set hung = 99, in_hand = false where job_id = (select id from job where number = 'J-S101')`.execute(
      t.app,
    );
    expect(await wrongJobs(t.app)).toEqual(["J-S101"]);
    await refreshStanding(t.app, [(await standing("S101")).rack_id]);
    expect(await wrongJobs(t.app)).toEqual([]);
    expect(await wrongStanding(t.app)).toEqual([]);
  });
});

describe("a rack leaves by decision only", () => {
  test("neither its age nor how many others there are takes it off a list", async () => {
    await freshRack(t, "S200", { at: new Date(at.getTime() - 400 * 86_400_000) });
    const line = await loadLine(t.app, lead, at);
    const listed = await listRacks(t.app, lead, {}, { at, perPage: 1000 }, await names());
    expect(listed.racks.map((r) => r.number)).toContain("S200");
    // Sixty more at one stage: the page carries the most pressing and says how many there are.
    const job = await t.app.selectFrom("job").select("id").where("number", "=", "J-S200").executeTakeFirstOrThrow();
    const ids = Array.from({ length: 60 }, () => newId());
    await t.app
      .insertInto("rack")
      .values(
        ids.map((id, i) => ({
          id,
          number: `S3${String(i).padStart(2, "0")}`,
          job_id: job.id,
          hung_at: ago(30),
          created_by: "maren",
        })),
      )
      .execute();
    await refreshStanding(t.app, ids);
    const more = await loadLine(t.app, lead, at);
    expect(more.counts.prepare).toBe(line.counts.prepare + 60);
    expect(more.racks.filter((r) => r.stage === "prepare")).toHaveLength(CARRIED_PER_STAGE);
    // The oldest is among those carried.
    expect(more.racks.map((r) => r.number)).toContain("S200");
    const rest = dueList(more, "metric").find((d) => d.href === "/racks?stage=prepare");
    expect(rest?.what).toBe(`${more.counts.prepare - CARRIED_PER_STAGE} more racks`);
  });
  test("they are paged, every one on one page, and filtered by stage, job, state, customer and age", async () => {
    const total = (await listRacks(t.app, lead, {}, { at }, await names())).total;
    const seen = new Set<string>();
    for (let page = 1; page <= Math.ceil(total / 20); page++)
      for (const r of (await listRacks(t.app, lead, {}, { at, page, perPage: 20 }, await names())).racks)
        seen.add(r.number);
    expect(seen.size).toBe(total);
    const only = async (search: Record<string, string>) => (await showRacks(t.app, lead, search, at)).racks;
    expect((await only({ job: "J-S200" })).length).toBe(50);
    expect((await showRacks(t.app, lead, { job: "J-S200", page: "2" }, at)).racks).toHaveLength(11);
    for (const r of await only({ stage: "test" })) expect(r.stage).toBe("test");
    for (const r of await only({ state: "film-open" })) expect(r.what).toBe("film-open");
    expect((await only({ older: "5000" })).map((r) => r.number)).toEqual(["S200"]);
    const customer = await entityId(t, "customer", "C1");
    const name = (await setupAt(t.app, "customer", at)).get(customer)?.data.name;
    for (const r of await only({ customer })) expect(r.customer).toBe(name);
    // What is no stage, state or page is left out of the filter.
    expect(rackFilterFrom({ stage: "moon", state: "x", customer: "1'; drop", older: "-3", page: "0" })).toEqual({
      filter: { stage: null, state: null, customer: null, job: null, olderThanHours: null },
      page: 1,
    });
  });
  test("a person held to one customer sees theirs alone, and counts theirs alone", async () => {
    const customerId = await entityId(t, "customer", "C2");
    const otto = person("viewer", "otto", customerId);
    const theirs = (await setupAt(t.app, "customer", at)).get(customerId)?.data.name;
    const list = await showRacks(t.app, otto, {}, at);
    expect(list.total).toBeGreaterThan(0);
    for (const r of list.racks) expect(r.customer).toBe(theirs);
    expect(list.customers).toEqual([]);
    const line = await loadLine(t.app, otto, at);
    expect(Object.values(line.counts).reduce((a, b) => a + b, 0)).toBe(list.total);
    expect(await racksToCure(t.app, otto, at)).toEqual(
      (await listRacks(t.app, otto, { next: "cure" }, { at }, await names())).racks,
    );
  });
});

test("jobs in hand count those with no due date, and those past their day as late", async () => {
  const before = (await loadLine(t.app, lead, at)).jobs;
  await freshRack(t, "S400", { at: ago(20) });
  expect((await loadLine(t.app, lead, at)).jobs).toEqual({ open: before.open + 1, overdue: before.overdue });
  await sql`update job_standing set due_on = '2020-01-01' where job_id = (select id from job where number = 'J-S400')`.execute(
    t.owner,
  );
  expect((await loadLine(t.app, lead, at)).jobs).toEqual({ open: before.open + 1, overdue: before.overdue + 1 });
  expect(
    await dispose(t.app, lead, { id: newId(), rack: "S400", decision: "scrap", note: "bent", seen: null }, at),
  ).toMatchObject({ ok: true });
  // Its only rack is decided, but not all its pieces were hung: it is still in hand where more were ordered.
  const pieces = await t.app.selectFrom("job").select("plan").where("number", "=", "J-S400").executeTakeFirstOrThrow();
  expect((pieces.plan as { pieces?: number | null }).pieces ?? null).toBeNull();
  expect((await loadLine(t.app, lead, at)).jobs).toEqual({ open: before.open, overdue: before.overdue });
});

test("of several cross-cuts the worst stands, as in the verdict", async () => {
  await freshRack(t, "S500", { at: ago(60) });
  const cut = (minutes: number, squaresLost: number) =>
    stored(t, inspector, ago(minutes), {
      kind: "cross-cut",
      rack: "S500",
      squaresLost,
      squares: 25,
      spacingMm: 2,
      onPanel: true,
    });
  await cut(50, 12);
  const row = async () =>
    t.app.selectFrom("rack_standing").select(["iso", "state"]).where("number", "=", "S500").executeTakeFirstOrThrow();
  const bad = await row();
  expect(bad.state).toBe("adhesion-out");
  await cut(40, 0);
  expect(await row()).toEqual(bad);
});
