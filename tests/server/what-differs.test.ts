import { group } from "d3";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { openCase } from "@/server/causes/case-actions";
import { loadCase } from "@/server/causes/load-case";
import { whatDiffers } from "@/server/causes/what-differs";
import { newId, now } from "@/server/now";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { stored } from "../support/entries";

let t: TestDatabase;
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
const at = now();
const DAY = 86_400_000;
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

type Rack = { id: string; number: string; hung_at: Date; lot: string | null; customer_id: string };
const racks = async (): Promise<Rack[]> => {
  const found = await t.app
    .selectFrom("rack")
    .innerJoin("job", "job.id", "rack.job_id")
    .select(["rack.id", "rack.number", "rack.hung_at", "job.customer_id"])
    .where("rack.hung_at", ">", new Date(at.getTime() - 30 * DAY))
    .orderBy("rack.hung_at")
    .orderBy("rack.id")
    .execute();
  const coats = await t.app
    .selectFrom("record")
    .innerJoin("coat", "coat.record_id", "record.id")
    .innerJoin("setup_entity", "setup_entity.id", "coat.lot_id")
    .select(["record.rack_id", "setup_entity.code"])
    .orderBy("record.happened_at")
    .execute();
  const lots = new Map(coats.map((c) => [c.rack_id, c.code]));
  return found.map((r) => ({ ...r, lot: lots.get(r.id) ?? null }));
};
const shows = (r: Rack, defect: string, structure: string | null = null) =>
  stored(t, inspector, at, {
    kind: "defect",
    rack: structure ? null : r.number,
    structure,
    defect,
    face: null,
    x: null,
    y: null,
    extentPercent: null,
    piecesAffected: null,
    piecesSeen: null,
    note: "",
  });

describe("what differs about the racks that show a defect", () => {
  test("the lot they have in common stands first, counted on both sides", async () => {
    const all = await racks();
    const counts = group(all, (r) => r.lot);
    // A lot that several racks have, and most do not.
    const [lot = "", mine = []] =
      [...counts].filter(([name, of]) => name && of.length >= 6 && of.length < all.length / 2)[0] ?? [];
    for (const r of mine) await shows(r, "craters");
    const newest = mine.at(-1) as Rack;
    const found = await whatDiffers(t.app, lead, { defect: "craters", hungAt: newest.hung_at });
    const within = all.filter((r) => Math.abs(r.hung_at.getTime() - newest.hung_at.getTime()) <= 30 * DAY);
    const affected = within.filter((r) => r.lot === lot);
    expect(found?.compared).toBe(within.length);
    expect(found?.contrast.affected).toBe(affected.length);
    expect(found?.contrast.others).toBe(within.length - affected.length);
    const byLot = found?.contrast.differences.find(
      (d) => d.variable === "lot" && d.kind === "category" && d.value === lot,
    );
    expect(byLot).toMatchObject({ affected: { n: affected.length, with: affected.length }, others: { with: 0 } });
    // What goes with the lot throughout is told beside it, as not to be told apart.
    expect(found?.groups[0]?.map((g) => g.difference)).toContain(byLot);
  });

  test("a rack whose defect was corrected to another is no longer among the affected", async () => {
    const [first, second] = await racks();
    if (!first || !second) throw new Error("no racks");
    const record = await shows(first, "sags");
    await shows(second, "sags");
    expect((await whatDiffers(t.app, lead, { defect: "sags", hungAt: first.hung_at }))?.contrast.affected).toBe(2);
    await stored(t, inspector, at, {
      kind: "defect",
      rack: first.number,
      structure: null,
      defect: "orange-peel",
      face: null,
      x: null,
      y: null,
      extentPercent: null,
      piecesAffected: null,
      piecesSeen: null,
      note: "",
      supersedes: { recordId: record, reason: "looked again in daylight" },
    });
    expect((await whatDiffers(t.app, lead, { defect: "sags", hungAt: first.hung_at }))?.contrast.affected).toBe(1);
  });

  test("it began on the day from which it shows, with what was changed about then", async () => {
    const all = await racks();
    const from = all[Math.floor((2 * all.length) / 3)] as Rack;
    const day = new Intl.DateTimeFormat("en-CA", { timeZone: "Europe/London" });
    const first = all.find((r) => day.format(r.hung_at) === day.format(from.hung_at)) as Rack;
    for (const r of all.filter((x) => x.hung_at >= first.hung_at)) await shows(r, "pinpoint-rust");
    const found = await whatDiffers(t.app, lead, { defect: "pinpoint-rust", hungAt: first.hung_at });
    expect(found?.onset).toMatchObject({
      day: day.format(first.hung_at),
      change: { rateBefore: 0, rateAfter: 1, onset: true },
    });
    for (const r of found?.onset?.near ?? []) {
      expect(["defect", "disposition", "certificate"]).not.toContain(r.kind);
      expect(Math.abs(r.storedAt.getTime() - first.hung_at.getTime())).toBeLessThanOrEqual(DAY);
    }
  });

  test("none where no rack shows it; a customer's person is told of that customer's racks only", async () => {
    const all = await racks();
    expect(await whatDiffers(t.app, lead, { defect: "chalking", hungAt: at })).toBeNull();
    const [customer = "", theirs = []] =
      [...group(all, (r) => r.customer_id)].find(([, of]) => of.length > 2 && of.length < all.length) ?? [];
    await shows(theirs[0] as Rack, "chalking");
    const others = all.find((r) => r.customer_id !== customer) as Rack;
    await shows(others, "chalking");
    const about = { defect: "chalking", hungAt: (theirs[0] as Rack).hung_at };
    const held = await whatDiffers(t.app, person("viewer", "guest", customer), about);
    expect(held).toMatchObject({ compared: theirs.length, contrast: { affected: 1, others: theirs.length - 1 } });
    expect((await whatDiffers(t.app, lead, about))?.contrast.affected).toBe(2);
  });

  test("a defect found in the field counts for the racks whose pieces stand there", async () => {
    const [one] = await racks();
    const structure = newId();
    await t.app
      .insertInto("structure")
      .values({
        id: structure,
        code: "FENCE-9",
        customer_id: (one as Rack).customer_id,
        site: "quay",
        name: "Fence",
        put_up_on: null,
        exposure: "[]",
        created_by: "ines",
      })
      .execute();
    const piece = await t.app
      .selectFrom("piece")
      .select("id")
      .where("rack_id", "=", (one as Rack).id)
      .executeTakeFirst();
    await t.app
      .insertInto("structure_piece")
      .values({ structure_id: structure, piece_id: piece?.id ?? "", place: "1" })
      .execute();
    await shows(one as Rack, "delamination", "FENCE-9");
    const found = await whatDiffers(t.app, lead, { defect: "delamination", hungAt: (one as Rack).hung_at });
    expect(found?.contrast.affected).toBe(1);
  });

  test("a case's page has what it asks by: its defect and when its rack was hung", async () => {
    const all = await racks();
    const id = await shows(all[0] as Rack, "gloss-off");
    const opened = await openCase(t.app, lead, { defectRecordId: id, zone: "" }, now);
    const number = opened.ok ? opened.href.split("/").pop() : "";
    const file = await loadCase(t.app, lead, number ?? "");
    const found = await whatDiffers(t.app, lead, { defect: file?.defect ?? "", hungAt: file?.rack?.hungAt ?? at });
    expect(found?.contrast).toMatchObject({ affected: 1, others: all.length - 1 });
  });
});
