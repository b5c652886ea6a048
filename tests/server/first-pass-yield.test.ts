import { afterAll, beforeAll, expect, test } from "vitest";
import { newId, now } from "@/server/now";
import { dispose } from "@/server/release/dispose";
import { setupAt } from "@/server/setup/setup-data";
import { firstPassYield, racksBehind, type YieldGroup, yieldGroups } from "@/server/yield/first-pass-yield";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
const DAY = 86_400_000;
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
const ask = { days: 365 };
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const decide = async (rack: string, decision: string, minutesAgo: number, over: object = {}) => {
  const id = newId();
  const done = await dispose(
    t.app,
    lead,
    { id, rack, decision, note: "looked at it", seen: null, ...over },
    new Date(at.getTime() - minutesAgo * 60_000),
  );
  expect(done, decision).toMatchObject({ ok: true });
  return id;
};
/** Every decision on record, the first of each rack, counted without the query under test. */
async function firstDecisions(): Promise<Map<string, { decision: string; at: Date; part: string }>> {
  const rows = await t.app
    .selectFrom("record")
    .innerJoin("disposition", "disposition.record_id", "record.id")
    .innerJoin("rack", "rack.id", "record.rack_id")
    .innerJoin("job", "job.id", "rack.job_id")
    .select(["rack.number", "disposition.decision", "record.happened_at as at", "record.id", "job.part_id as part"])
    .execute();
  const first = new Map<string, { decision: string; at: Date; part: string }>();
  for (const r of rows.sort((a, b) => a.at.getTime() - b.at.getTime() || (a.id < b.id ? -1 : 1)))
    if (r.at <= at && !first.has(r.number)) first.set(r.number, r);
  return first;
}

test("the whole and each group are what the record's decisions come to, counted another way", async () => {
  const all = await firstPassYield(t.app, lead, at, ask);
  const inSpan = [...(await firstDecisions()).values()].filter((d) => d.at.getTime() > at.getTime() - 365 * DAY);
  expect(inSpan.length).toBeGreaterThan(20);
  expect(all.whole).toMatchObject({
    racks: inSpan.length,
    passed: inSpan.filter((d) => d.decision === "accept").length,
  });
  const of = (group: YieldGroup) => all.rows.filter((r) => r.group === group);
  expect(new Set(all.rows.map((r) => r.group))).toEqual(new Set(yieldGroups));
  for (const group of ["week", "part", "powder"] as const) {
    expect(
      of(group).reduce((n, r) => n + r.yield.racks, 0),
      group,
    ).toBe(all.whole?.racks);
    expect(
      of(group).reduce((n, r) => n + r.yield.passed, 0),
      group,
    ).toBe(all.whole?.passed);
  }
  // Of coated racks the shifts cover the clock, and so each rack once.
  const sums = (["shift", "booth", "painter"] as const).map((g) => of(g).reduce((n, r) => n + r.yield.racks, 0));
  expect(new Set(sums).size).toBe(1);
  // As they are called, not by their ids.
  const named = async (kind: "part" | "powder") => [...(await setupAt(t.app, kind, at)).values()];
  for (const { id, data } of await named("part"))
    for (const row of of("part").filter((r) => r.key === id)) expect(row.name).toBe(data.name);
  for (const { id, code, data } of await named("powder"))
    for (const row of of("powder").filter((r) => r.key === id)) expect(row.name).toBe(`${code} ${data.name}`);
  expect(of("painter").map((r) => r.name)).toContain("Maren Stile");
  // Most racks first; weeks as they followed each other; shifts as the day has them.
  for (const group of ["part", "powder", "booth"] as const) {
    const racks = of(group).map((r) => r.yield.racks);
    expect(racks, group).toEqual([...racks].sort((a, b) => b - a));
  }
  const weeks = of("week").map((r) => r.key);
  expect(weeks).toEqual([...weeks].sort());
  expect(of("shift").map((r) => r.name)).toEqual(
    ["Day shift", "Late shift", "Night shift"].filter((name) => of("shift").some((r) => r.name === name)),
  );
  for (const row of of("part")) expect(row.yield.racks, row.name).toBe(inSpan.filter((d) => d.part === row.key).length);
  const names = of("painter").map((r) => r.name);
  expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b)));
});

test("each figure leads to its racks: as many as it says, those that did not pass first", async () => {
  const all = await firstPassYield(t.app, lead, at, ask);
  const one = yieldGroups.flatMap((group) => all.rows.filter((r) => r.group === group).slice(0, 2));
  for (const { group, key, yield: y } of one) {
    const { racks, total } = await racksBehind(t.app, lead, at, { ...ask, of: { group, key }, page: 1 });
    expect(total, `${group} ${key}`).toBe(y.racks);
    expect(racks.filter((r) => r.decision === "accept").length, `${group} ${key}`).toBe(
      Math.max(0, Math.min(100, y.racks) - (y.racks - y.passed)),
    );
    const passed = racks.map((r) => r.decision === "accept");
    expect(passed).toEqual([...passed].sort());
  }
  for (const { defect, count } of all.defects) {
    const { total } = await racksBehind(t.app, lead, at, { ...ask, of: { group: "defect", key: defect }, page: 1 });
    expect(total, defect).toBe(count);
  }
  expect(await racksBehind(t.app, lead, at, { ...ask, of: { group: "part", key: "' or 1=1 --" }, page: 1 })).toEqual({
    racks: [],
    total: 0,
  });
});

test("a rack held first did not pass, whatever is decided later; one not decided on is in no figure and is told", async () => {
  const before = await firstPassYield(t.app, lead, at, ask);
  const hung = new Date(at.getTime() - 300 * 60_000);
  await coatedRack(t, "Y1", { at: hung });
  const waiting = await firstPassYield(t.app, lead, at, ask);
  expect(waiting.whole).toEqual(before.whole);
  expect(waiting.undecided).toBe(before.undecided + 1);

  const held = await decide("Y1", "hold", 60);
  await decide("Y1", "scrap", 30, { seen: held });
  const after = await firstPassYield(t.app, lead, at, ask);
  expect(after.undecided).toBe(before.undecided);
  expect(after.whole).toMatchObject({ racks: (before.whole?.racks ?? 0) + 1, passed: before.whole?.passed });
  // As it stood before either was decided, it is as it was.
  expect((await firstPassYield(t.app, lead, new Date(at.getTime() - 61 * 60_000), ask)).undecided).toBe(
    waiting.undecided,
  );

  const peel = (over: object) =>
    stored(t, inspector, new Date(at.getTime() - 20 * 60_000), {
      kind: "defect",
      rack: "Y1",
      structure: null,
      defect: "orange-peel",
      face: null,
      x: null,
      y: null,
      extentPercent: null,
      piecesAffected: 2,
      piecesSeen: 2,
      note: "",
      ...over,
    });
  await peel({});
  await peel({});
  const count = (y: typeof after) => y.defects.find((d) => d.defect === "orange-peel")?.count ?? 0;
  // Twice on one rack is one rack.
  expect(count(await firstPassYield(t.app, lead, at, ask))).toBe(count(after) + 1);
});

test("a painter is named to a lead and to themselves, and to nobody else", async () => {
  const painters = async (who: ReturnType<typeof person>) =>
    (await firstPassYield(t.app, who, at, ask)).rows.filter((r) => r.group === "painter").map((r) => r.key);
  const all = await painters(lead);
  expect(all.length).toBeGreaterThan(1);
  const [one, other] = all as [string, string];
  expect(await painters(person("operator", one))).toEqual([one]);
  expect(await painters(person("inspector", "nobody-who-coats"))).toEqual([]);
  const asked = { ...ask, of: { group: "painter" as const, key: other }, page: 1 };
  expect((await racksBehind(t.app, person("operator", one), at, asked)).total).toBe(0);
  expect((await racksBehind(t.app, lead, at, asked)).total).toBeGreaterThan(0);
});
