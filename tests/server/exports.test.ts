import { sql } from "kysely";
import Papa from "papaparse";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { detailTables } from "@/core/kinds";
import { exportStock } from "@/server/exports/export-stock";
import { csvCell, csvLines, exportTable, exportTables, localCell, offsetCell } from "@/server/exports/export-table";
import { now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";

let t: TestDatabase;
const at = now();
const inspector = person("inspector", "tomasz");
const style = { decimalMark: ".", timeZone: "Europe/London" } as const;
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const taken = async (table: string, who = inspector, own: Parameters<typeof exportTable>[3]["style"] = style) => {
  let text = "";
  const span = { from: new Date(0), to: new Date(at.getTime() + 1), style: own };
  for await (const part of exportTable(t.app, who, table, span)) text += part;
  return Papa.parse<Record<string, string>>(text.trimEnd(), { header: true }).data;
};

describe("what leaves as CSV", () => {
  test("every table of every kind, a row for each row there is, read back as it was", async () => {
    for (const { table } of exportTables()) {
      const rows = await taken(table);
      const lists = Object.entries(detailTables[table] ?? {}).filter(([, type]) => type.startsWith("float8[]"));
      const [list] = lists;
      const counted = list
        ? sql<{
            n: number;
          }>`select coalesce(sum(greatest(${sql.join(lists.map(([c]) => sql`coalesce(array_length(${sql.ref(c)}, 1), 0)`))})), 0)::int as n from ${sql.table(table)}`
        : sql<{ n: number }>`select count(*)::int as n from ${sql.table(table)}`;
      expect(rows.length, table).toBe((await counted.execute(t.app)).rows[0]?.n);
    }
  });
  test("film: its rack, its value and the shop's clock; what was corrected says so", async () => {
    const rows = await taken("thickness_reading");
    const first = rows[0];
    const stored = await t.app
      .selectFrom("record")
      .innerJoin("thickness_reading", "thickness_reading.record_id", "record.id")
      .innerJoin("rack", "rack.id", "record.rack_id")
      .select(["record.happened_at", "rack.number", "value_um", "spot", "record.id"])
      .where("record.id", "=", first?.record_id ?? "")
      .orderBy("ordinal")
      .executeTakeFirstOrThrow();
    expect(first).toMatchObject({
      rack: stored.number,
      value_um: String(stored.value_um),
      spot: stored.spot,
      when: localCell(stored.happened_at, "Europe/London"),
      utc_offset: offsetCell(stored.happened_at, "Europe/London"),
      stands: expect.stringMatching(/^(yes|no, corrected later)$/),
    });
    const { rows: corrected } = await sql<{ n: number }>`
      select count(*)::int as n from thickness_reading x where exists (select 1 from record r where r.supersedes = x.record_id)`.execute(
      t.app,
    );
    expect(rows.filter((r) => r.stands !== "yes").length).toBe(corrected[0]?.n);
  });
  test("whom a customer holds sees no one else's, and not what is in stock", async () => {
    const customer = [...(await setupAt(t.app, "customer", at)).values()].find((c) => c.code === "C1");
    const held = { ...person("viewer", "otto"), customerId: customer?.id ?? null };
    const own = await taken("thickness_reading", held);
    const all = await taken("thickness_reading");
    expect(own.length).toBeGreaterThan(0);
    expect(own.length).toBeLessThan(all.length);
    const racks = await t.app
      .selectFrom("rack")
      .innerJoin("job", "job.id", "rack.job_id")
      .select("rack.number")
      .where("job.customer_id", "=", customer?.id ?? "")
      .execute();
    const theirs = new Set(racks.map((r) => r.number));
    expect(own.every((r) => theirs.has(r.rack ?? ""))).toBe(true);
    expect(await taken("bath_check", held)).toEqual([]);
  });
  test("numbers as the shop writes them, clocks of the shop, words that are no formula", () => {
    const comma = { decimalMark: ",", timeZone: "America/St_Johns" } as const;
    expect(csvCell(72.5, comma)).toBe("72,5");
    expect(csvCell(-20.5, style)).toBe("-20.5");
    // Where a comma is of the number, cells stand between semicolons; what holds one of its own is quoted.
    const rows = [
      ["film", 72.5],
      ["a;b,c", 3],
    ];
    expect(csvLines(rows, comma)).toBe('film;72,5\r\n"a;b,c";3\r\n');
    expect(csvLines(rows, style)).toBe('film,72.5\r\n"a;b,c",3\r\n');
    expect(csvLines([], style)).toBe("");
    expect(csvCell("=cmd()", style)).toBe("'=cmd()");
    expect(csvCell("-", style)).toBe("'-");
    expect(csvCell(null, style)).toBe("");
    const summer = new Date("2026-07-01T12:00:00Z");
    expect(localCell(summer, "Europe/London")).toBe("2026-07-01 13:00:00");
    expect(offsetCell(summer, "Europe/London")).toBe("UTC+01:00");
    expect(offsetCell(summer, "America/St_Johns")).toBe("UTC-02:30");
  });
  test("stock: each lot of powder and each drum, with what is left", async () => {
    const rows = Papa.parse<Record<string, string>>((await exportStock(t.app, at, style)).trimEnd(), {
      header: true,
    }).data;
    const lots = (await setupAt(t.app, "lot", at)).size;
    const drums = (await setupAt(t.app, "chemical", at)).size;
    expect(rows.filter((r) => r.what === "powder").length).toBe(lots);
    expect(rows.filter((r) => r.what === "chemical").length).toBe(drums);
  });
  test("a table that is none gives nothing", async () => {
    expect(await taken("user")).toEqual([]);
    expect(await taken("setup_version")).toEqual([]);
  });
});
