import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Asked, explore, racksBehind } from "@/server/causes/explore";
import { heldColumns } from "@/server/causes/held-columns";
import { whatTheyMet } from "@/server/causes/rack-met";
import { now } from "@/server/now";
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

const asked = (over: Partial<Asked> = {}): Asked => ({
  defect: "sags",
  partId: null,
  from: new Date(at.getTime() - 4000 * DAY),
  to: at,
  where: null,
  by: null,
  ...over,
});
const shows = (rack: string, defect: string) =>
  stored(t, inspector, now(), {
    kind: "defect",
    rack,
    structure: null,
    defect,
    face: null,
    x: null,
    y: null,
    extentPercent: null,
    piecesAffected: null,
    piecesSeen: null,
    note: "",
  });

describe("what racks met, kept for comparing", () => {
  test("is what the record says of each, and stays so when something is recorded since", async () => {
    const { held, left } = await heldColumns(t.app, at);
    expect(left).toBe(false);
    const met = await whatTheyMet(t.app, held.ids, at);
    for (const [i, id] of held.ids.entries())
      for (const column of held.columns) {
        const now = met.get(id)?.[column.variable] ?? null;
        const kept =
          column.kind === "figure"
            ? Number.isNaN(column.values[i])
              ? null
              : column.values[i]
            : (column.labels[column.codes[i] as number] ?? null);
        expect(kept, column.variable).toBe(column.kind === "category" && now !== null ? String(now) : now);
      }
    expect(held.columns.map((c) => c.variable)).toEqual(
      expect.arrayContaining(["part", "lot", "painter", "place", "hour", "weekday", "humidity", "film", "wet", "wait"]),
    );
  });
  test("a prep step recorded later is in it at the next look, of that rack alone", async () => {
    const before = (await heldColumns(t.app, at)).held;
    const i = before.ids.length - 1;
    const number = before.numbers[i] as string;
    const step = {
      kind: "prep-step",
      rack: number,
      step: "blow-off",
      done: false,
      value: null,
      note: "no air that hour",
    };
    await stored(t, inspector, now(), step);
    const after = (await heldColumns(t.app, now())).held;
    const column = after.columns.find((c) => c.variable === "done:blow-off");
    expect(column?.kind).toBe("category");
    if (column?.kind === "category") expect(column.labels[column.codes[i] as number]).toBe("left out");
  });
});

describe("the contrast over everything", () => {
  test("by part, by time, by a value: only those racks are compared, and the racks behind a value are those", async () => {
    const { held } = await heldColumns(t.app, at);
    const part = held.partIds.at(-1) as string;
    const ofPart = held.ids.flatMap((_, i) => (held.partIds[i] === part ? [i] : []));
    for (const i of ofPart.slice(-8)) await shows(held.numbers[i] as string, "sags");
    const all = await explore(t.app, lead, asked(), now());
    if (!all || "failure" in all) throw new Error("nothing compared");
    expect(all.contrast.affected).toBe(8);
    expect(all.compared).toBe(held.ids.length);
    const ours = await explore(t.app, lead, asked({ partId: part }), now());
    if (!ours || "failure" in ours) throw new Error("nothing compared");
    expect(ours.compared).toBe(ofPart.length);
    const oven = held.columns.find((c) => c.variable === "oven");
    if (oven?.kind !== "category") throw new Error("no ovens");
    const value = oven.labels[0] as string;
    const there = held.ids.filter((_, i) => oven.codes[i] === 0).length;
    const behind = await racksBehind(t.app, lead, asked({ where: { variable: "oven", value } }), now(), 5);
    expect(behind.all).toBe(there);
    expect(behind.racks).toHaveLength(Math.min(5, there));
    // A figure is gone into by its range, both ends in it; what was never read there is not.
    const film = held.columns.find((c) => c.variable === "film");
    if (film?.kind !== "figure") throw new Error("no film");
    const known = [...film.values].filter((v) => !Number.isNaN(v)).sort((a, b) => a - b);
    const [low, high] = [known[Math.floor(known.length / 4)], known[Math.floor((3 * known.length) / 4)]] as [
      number,
      number,
    ];
    const within = await racksBehind(
      t.app,
      lead,
      asked({ where: { variable: "film", value: `${low}..${high}` } }),
      now(),
      5,
    );
    expect(within.all).toBe(known.filter((v) => v >= low && v <= high).length);
    for (const value of ["", "x..y", `${high}..${low}`, "1..2..3"])
      expect((await racksBehind(t.app, lead, asked({ where: { variable: "film", value } }), now(), 5)).all).toBe(0);
    const told = all.groups.flat().find((g) => g.spread.kind === "figure");
    if (told?.spread.kind === "figure") expect(told.spread.range[0]).toBeLessThanOrEqual(told.spread.range[1]);
    const none = await explore(t.app, lead, asked({ to: new Date(at.getTime() - 3999 * DAY) }), now());
    expect(none).toBeNull();
  });
  test("with one variable held still each of the others is told within its values", async () => {
    const found = await explore(t.app, lead, asked({ by: "weekday" }), now());
    if (!found || "failure" in found) throw new Error("nothing compared");
    const told = found.groups.flat().filter((g) => g.difference.variable !== "weekday");
    expect(told.length).toBeGreaterThan(0);
    expect(told.some((g) => g.adjusted !== null)).toBe(true);
    for (const g of told) if (g.adjusted) expect(g.adjusted.strata).toBeGreaterThan(0);
  });
  test("a customer's person compares that customer's racks alone", async () => {
    const { held } = await heldColumns(t.app, at);
    const customer = held.customerIds.at(-1) as string;
    const found = await explore(t.app, person("viewer", "guest", customer), asked(), now());
    if (!found || "failure" in found) throw new Error("nothing compared");
    expect(found.compared).toBe(held.customerIds.filter((c) => c === customer).length);
  });
  test("a piece of which none shows it any more is on the side of those that do not", async () => {
    const { held } = await heldColumns(t.app, at);
    await stored(t, inspector, now(), {
      kind: "defect",
      rack: held.numbers[0] as string,
      structure: null,
      defect: "sags",
      face: null,
      x: null,
      y: null,
      extentPercent: null,
      piecesAffected: 0,
      piecesSeen: 1,
      note: "looked for, none",
    });
    const found = await explore(t.app, lead, asked(), now());
    if (!found || "failure" in found) throw new Error("nothing compared");
    expect(found.contrast.affected).toBe(8);
  });
});
