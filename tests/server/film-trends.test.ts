import { sql } from "kysely";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { filmTrends, trendGroups } from "@/server/film/film-trends";
import { now } from "@/server/now";
import { faceSums } from "@/server/record/film-faces";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId, freshRack, seatFilm, stored } from "../support/entries";

let t: TestDatabase;
const at = now();
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());
const inspector = person("inspector", "tomasz");
const lead = person("lead", "ines");

describe("what a set comes to on each face", () => {
  test("is added up from the means of its spots, readings left out left out", () => {
    const row = (spot: string, value_um: number, rejected_reason: string | null = null, face = "S") => ({
      record_id: "r1",
      values: { face, spot, value_um, rejected_reason },
    });
    const [seat, leg] = faceSums([
      row("S1", 70),
      row("S1", 74),
      row("S2", 60),
      row("S2", 900, "dirt"),
      row("L1", 80, null, "L"),
    ]);
    expect(seat).toMatchObject({ face: "S", spots: 2, readings: 3, sumUm: 132, lowestUm: 60, highestUm: 72 });
    expect(seat?.sumSqUm).toBe(72 * 72 + 60 * 60);
    expect(leg).toMatchObject({ face: "L", spots: 1, readings: 1 });
    expect(faceSums([row("S1", 70, "dirt")])).toEqual([]);
  });
  test("stands beside every set of the demo, and is what the readings give", async () => {
    const { rows } = await sql<{ wrong: number; sets: number }>`
      with own as (select record_id, face, count(*) as spots, sum(um) as s, min(um) as low from (select record_id, face, spot, avg(value_um) as um from thickness_reading where rejected_reason is null group by 1, 2, 3) m group by 1, 2)
      select count(*)::int as sets, (count(*) filter (where f.record_id is null or f.spots <> own.spots or abs(f.sum_um - own.s) > 1e-6 or abs(f.lowest_um - own.low) > 1e-9))::int as wrong
      from own left join film_face f using (record_id, face)`.execute(t.app);
    expect(rows[0]?.sets).toBeGreaterThan(200);
    expect(rows[0]?.wrong).toBe(0);
  });
});

describe("film over time", () => {
  test("a painter's own film is named to a lead, and to themselves, and to nobody else", async () => {
    const ask = { days: 90, powderId: null, partId: null };
    const painters = async (who: ReturnType<typeof person>) =>
      (await filmTrends(t.app, who, at, ask)).rows.filter((r) => r.group === "painter").map((r) => r.name);
    expect((await painters(lead)).length).toBeGreaterThan(0);
    expect(await painters(person("operator", "maren"))).toEqual(["Maren Stile"]);
    expect(await painters(inspector)).toEqual([]);
    // What is not of people is the same for all.
    const rest = async (who: ReturnType<typeof person>) =>
      (await filmTrends(t.app, who, at, ask)).rows.filter((r) => r.group !== "painter");
    expect(await rest(inspector)).toEqual(await rest(lead));
  });
  test("groups add up to the whole; a set recorded now is in it, a corrected one leaves it", async () => {
    const [powderId, partId] = [await entityId(t, "powder", "GR-505"), await entityId(t, "part", "FERRY-SEAT")];
    const ask = { days: 30, powderId, partId };
    const before = await filmTrends(t.app, lead, at, ask);
    expect(before.all?.n).toBeGreaterThan(100);
    for (const group of ["painter", "part", "face"] as const)
      expect(
        before.rows.filter((r) => r.group === group).reduce((n, r) => n + r.summary.n, 0),
        group,
      ).toBe(before.all?.n);
    expect(new Set(before.rows.map((r) => r.group))).toEqual(new Set(trendGroups));
    expect(before.limits).toEqual({ minUm: 60, maxUm: 90 });
    expect(before.capability?.ppkInterval[0]).toBeLessThan(before.capability?.ppk ?? 0);
    expect(before.chart?.chart.size).toBe(5);
    expect(before.over?.racks).toBeGreaterThan(10);
    await freshRack(t, "T100", { at });
    const set = (um: number, over: object = {}) =>
      stored(t, inspector, at, {
        kind: "thickness",
        rack: "T100",
        source: "typed",
        typedUnit: "um",
        coatNo: 1,
        readings: seatFilm(um),
        ...over,
      });
    const wrong = await set(400);
    const later = new Date(at.getTime() + 1000);
    expect((await filmTrends(t.app, lead, later, ask)).all?.n).toBe((before.all?.n ?? 0) + 10);
    await set(75, { supersedes: { recordId: wrong, reason: "read as mil" } });
    const after = await filmTrends(t.app, lead, later, ask);
    expect(after.all?.n).toBe((before.all?.n ?? 0) + 10);
    expect(after.all?.mean).toBeLessThan(80);
  });
  test("without a powder there is nothing to hold it against; an empty span says so", async () => {
    const all = await filmTrends(t.app, lead, at, { days: 30, powderId: null, partId: null });
    expect(all).toMatchObject({ capability: null, limits: null, chart: null, over: null });
    expect(all.rows.filter((r) => r.group === "part").length).toBeGreaterThan(3);
    const none = await filmTrends(t.app, lead, new Date(at.getTime() - 5 * 365 * 86_400_000), {
      days: 7,
      powderId: null,
      partId: null,
    });
    expect(none).toMatchObject({ all: null, rows: [], sets: 0 });
  });
  test("the enclosures' inside corners stand apart from their doors since the fan was turned up", async () => {
    const ask = {
      days: 8,
      powderId: await entityId(t, "powder", "GR-815"),
      partId: await entityId(t, "part", "CHARGER-BOX"),
    };
    const faces = (await filmTrends(t.app, lead, at, ask)).rows.filter((r) => r.group === "face");
    const [corner, door] = ["C", "D"].map((f) => faces.find((r) => r.name === f)?.summary);
    expect(corner?.interval?.[1]).toBeLessThan((door?.interval?.[0] ?? 0) - 10);
  });
});
