import fc from "fast-check";
import { sql } from "kysely";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { kinds, tablesOf } from "@/core/kinds";
import { detailTableNames, detailTables } from "@/db/detail-tables";
import { newId, now } from "@/server/now";
import { canonicalText, merkleRoot, sha256 } from "@/server/record/canonical";
import { contentHash, type DetailRows, detailsDigest } from "@/server/record/content";
import { readDetails } from "@/server/record/read-details";
import { storeRecord } from "@/server/record/store-record";
import { setupAt } from "@/server/setup/setup-data";
import { bathRecord, type TestDatabase, testDatabase } from "../support/database";

let t: TestDatabase;
let bathId: string;
const at = new Date("2026-11-23T12:00:00Z");
beforeAll(async () => {
  t = await testDatabase();
  bathId = (
    await t.owner.selectFrom("setup_entity").select("id").where("code", "=", "Tank 3").executeTakeFirstOrThrow()
  ).id;
});
afterAll(() => t.drop());

describe("detail tables", () => {
  test("the list of columns is the database's own, types and nulls included", async () => {
    const names: Record<string, string> = {
      text: "text",
      uuid: "uuid",
      integer: "int",
      "double precision": "float8",
      boolean: "boolean",
      "timestamp with time zone": "timestamptz",
      date: "date",
      jsonb: "jsonb",
      ARRAY: "float8[]",
    };
    for (const table of detailTableNames()) {
      const { rows } = await sql<{
        column_name: string;
        data_type: string;
        is_nullable: string;
      }>`select column_name, data_type, is_nullable from information_schema.columns where table_name = ${table} and column_name <> 'record_id'`.execute(
        t.owner,
      );
      const found = Object.fromEntries(
        rows.map((r) => [r.column_name, `${names[r.data_type]}${r.is_nullable === "YES" ? "?" : ""}`]),
      );
      expect(found, table).toEqual(detailTables[table]);
    }
  });
  test("every table belongs to a record kind", () => {
    expect(new Set(kinds().flatMap((k) => tablesOf(k.kind)))).toEqual(new Set(detailTableNames()));
  });
  test("what is read back hashes as what was stored, whatever was typed", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.record({
            value: fc.double({ min: 0, max: 10000, noNaN: true }),
            typed: fc.string({ minLength: 1, maxLength: 30, unit: "grapheme" }).filter((s) => !s.includes("\u0000")),
            reason: fc.option(
              fc.constantFrom('a "quoted" \\ reason', "NULL", "{1,2}", "it's; drop table record", "\u00b5m \u0394"),
              { nil: null },
            ),
          }),
          { minLength: 1, maxLength: 12 },
        ),
        async (readings) => {
          const id = newId();
          const details: DetailRows = {
            thickness_set: [{ coat_no: 1, source: "typed", typed_unit: "um" }],
            thickness_reading: readings.map((r, i) => ({
              ordinal: i + 1,
              face: "A",
              spot: "A1",
              value_um: r.value,
              typed: r.typed,
              rejected_reason: r.reason,
            })),
          };
          const outcome = await storeRecord(
            t.app,
            { ...bathRecord(bathId), id, kind: "thickness", idempotencyKey: id, details },
            at,
          );
          expect(outcome.kind).toBe("stored");
          const base = await t.app.selectFrom("record").selectAll().where("id", "=", id).executeTakeFirstOrThrow();
          const read = (await readDetails(t.app, [id])).get(id) as DetailRows;
          expect(detailsDigest(read)).toBe(detailsDigest(details));
          expect(contentHash(base, read)).toBe(base.content_hash);
          expect(read.thickness_reading?.map((r) => r.typed)).toEqual(readings.map((r) => r.typed));
        },
      ),
      { numRuns: 25 },
    );
  });
  test("a set of one value in every column, and one of many, come back whole", async () => {
    for (const n of [1, 2, 50_001]) {
      const id = newId();
      const details: DetailRows = {
        thickness_reading: Array.from({ length: n }, (_, i) => ({
          ordinal: i + 1,
          face: "A",
          spot: `A${(i % 5) + 1}`,
          value_um: 70,
          typed: "70",
          rejected_reason: null,
        })),
      };
      await storeRecord(t.app, { ...bathRecord(bathId), id, kind: "thickness", idempotencyKey: id, details }, at);
      const { rows } = await sql<{
        n: string;
        spots: string;
      }>`select count(*) as n, count(distinct spot) as spots from thickness_reading where record_id = ${id}`.execute(
        t.app,
      );
      expect(rows[0]).toEqual({ n: String(n), spots: String(Math.min(5, n)) });
    }
  });
  test("a reading without its record is refused by the database", async () => {
    const failed =
      await sql`insert into thickness_reading (record_id, ordinal, face, spot, value_um, typed) values (${newId()}, 1, 'A', 'A1', 70, '70')`
        .execute(t.app)
        .then(
          () => "went through",
          (e) => (e as { code: string }).code,
        );
    expect(failed).toBe("23503");
  });
  test("a negative film is refused by the database too", async () => {
    const record = bathRecord(bathId);
    const failed = await storeRecord(
      t.app,
      {
        ...record,
        kind: "thickness",
        details: { thickness_reading: [{ ordinal: 1, face: "A", spot: "A1", value_um: -1, typed: "-1" }] },
      },
      at,
    ).then(
      () => "went through",
      (e) => (e as { code: string }).code,
    );
    expect(failed).toBe("23514");
  });
});

describe("canonical text", () => {
  test("order of keys, absent keys and nulls change nothing; any value does", () => {
    expect(canonicalText({ b: 1, a: [1, null, "x"], c: undefined, d: null })).toBe(
      canonicalText({ a: [1, null, "x"], b: 1 }),
    );
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.oneof(fc.string(), fc.integer(), fc.boolean())), (value) => {
        expect(canonicalText(Object.fromEntries(Object.entries(value).reverse()))).toBe(canonicalText(value));
        expect(canonicalText(JSON.parse(JSON.stringify(value)))).toBe(canonicalText(value));
      }),
    );
    expect(canonicalText(new Date("2026-01-02T03:04:05.678Z"))).toBe('"2026-01-02T03:04:05.678Z"');
    expect(() => canonicalText(Number.NaN)).toThrow(RangeError);
  });
  test("a Merkle root tells apart order, content and number of leaves", () => {
    const roots = [["a"], ["a", "b"], ["b", "a"], ["a", "b", "c"], ["a", "b", "b"]].map(merkleRoot);
    expect(new Set(roots).size).toBe(roots.length);
    expect(merkleRoot(["a"])).toBe(sha256("leaf:a"));
    expect(() => merkleRoot([])).toThrow(RangeError);
  });
});

describe("set-up data", () => {
  test("a judgement of last year finds the limits of last year", async () => {
    const bath = (await setupAt(t.app, "bath", at)).get(bathId);
    if (!bath) throw new Error("bath");
    const narrower = {
      ...bath.data,
      windows: { ...bath.data.windows, ph: { lower: 5, upper: 5.5, watchLower: null, watchUpper: null } },
    };
    await t.app
      .insertInto("setup_version")
      .values({
        id: newId(),
        entity_id: bathId,
        valid_from: new Date("2026-11-24T00:00:00Z"),
        recorded_at: now(),
        by_user: "dagny",
        reason: "New product",
        data: JSON.stringify(narrower),
      })
      .execute();
    expect((await setupAt(t.app, "bath", at)).get(bathId)?.data.windows.ph?.upper).toBe(5.8);
    expect((await setupAt(t.app, "bath", new Date("2026-11-25T00:00:00Z"))).get(bathId)?.data.windows.ph?.upper).toBe(
      5.5,
    );
    expect((await setupAt(t.app, "bath", new Date("1999-01-01T00:00:00Z"))).size).toBe(0);
  });
  test("set-up data that no longer fits its schema is not used silently", async () => {
    const id = newId();
    await t.app.insertInto("setup_entity").values({ id, kind: "oven", code: "Oven 9" }).execute();
    await t.app
      .insertInto("setup_version")
      .values({
        id: newId(),
        entity_id: id,
        valid_from: new Date("2026-01-01T00:00:00Z"),
        recorded_at: now(),
        by_user: "dagny",
        reason: "test",
        data: JSON.stringify({ nome: "x" }),
      })
      .execute();
    await expect(setupAt(t.app, "oven", at)).rejects.toThrow();
  });
});
