import { generateKeyPairSync } from "node:crypto";
import { sql } from "kysely";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { detailTableNames } from "@/db/detail-tables";
import { newId } from "@/server/now";
import { sha256 } from "@/server/record/canonical";
import { contentHash } from "@/server/record/content";
import { sealRecords, verifyRecord } from "@/server/record/seal";
import { baseRow, storeRecord } from "@/server/record/store-record";
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

const refused = async (run: Promise<unknown>) =>
  expect(
    await run.then(
      () => "went through",
      (error) => (error as { code: string }).code,
    ),
  ).toBe("42501");

describe("the database refuses change", () => {
  const tables = [
    "record",
    "setup_version",
    "setup_entity",
    "job",
    "rack",
    "piece",
    "structure",
    "seal",
    "seal_member",
    "file",
    "root_cause_case",
    ...detailTableNames(),
  ];
  for (const table of tables) {
    test(`${table}: no UPDATE, DELETE or TRUNCATE for the application`, async () => {
      await refused(sql`delete from ${sql.table(table)}`.execute(t.app));
      await refused(sql`truncate ${sql.table(table)} cascade`.execute(t.app));
      const { rows } = await sql<{
        column_name: string;
      }>`select column_name from information_schema.columns where table_name = ${table} limit 1`.execute(t.owner);
      const column = sql.ref(rows[0]?.column_name ?? "id");
      await refused(sql`update ${sql.table(table)} set ${column} = ${column}`.execute(t.app));
    });
  }
  test("nor for the owner of the tables, by trigger", async () => {
    await refused(sql`update record set by_user = 'nobody'`.execute(t.owner));
    await refused(sql`delete from thickness_reading`.execute(t.owner));
    await refused(sql`truncate record cascade`.execute(t.owner));
  });
  test("the application's role owns nothing and is no superuser", async () => {
    const { rows } = await sql<{
      owned: string;
      super: boolean;
    }>`select (select count(*) from pg_tables where schemaname = 'public' and tableowner = current_user) as owned, (select rolsuper from pg_roles where rolname = current_user) as super`.execute(
      t.app,
    );
    expect(rows[0]).toEqual({ owned: "0", super: false });
    await refused(sql`create table sneaky (x int)`.execute(t.app));
    await refused(sql`alter table record disable trigger all`.execute(t.app));
  });
});

describe("storing", () => {
  test("the same entry twice is one record; ten at once are one record", async () => {
    const record = bathRecord(bathId);
    const outcomes = await Promise.all(Array.from({ length: 10 }, () => storeRecord(t.app, record, at)));
    expect(outcomes.filter((o) => o.kind === "stored")).toHaveLength(1);
    expect(outcomes.filter((o) => o.kind === "already-stored")).toHaveLength(9);
    const { rows } = await sql<{
      n: string;
    }>`select count(*) as n from bath_check where record_id = ${record.id}`.execute(t.app);
    expect(rows[0]?.n).toBe("1");
  });
  test("the same key with other content is refused, the stored record named", async () => {
    const record = bathRecord(bathId);
    await storeRecord(t.app, record, at);
    const other = {
      ...record,
      id: newId(),
      details: { bath_check: [{ ordinal: 1, parameter: "ph", value: 5.9, typed: "5.9", typed_unit: "" }] },
    };
    expect(await storeRecord(t.app, other, at)).toEqual({ kind: "key-conflict", recordId: record.id });
  });
  test("two people who correct the same record at once: one is stored, the other is shown the first", async () => {
    const wrong = bathRecord(bathId);
    await storeRecord(t.app, wrong, at);
    const fix = (by: string) =>
      bathRecord(bathId, { by, supersedes: { recordId: wrong.id, reason: `typed wrong, says ${by}` } });
    const outcomes = await Promise.all([storeRecord(t.app, fix("tomasz"), at), storeRecord(t.app, fix("bea"), at)]);
    const stored = outcomes.filter((o) => o.kind === "stored");
    expect(stored).toHaveLength(1);
    const [refusedOne] = outcomes.filter((o) => o.kind === "already-superseded");
    expect(refusedOne).toMatchObject({ kind: "already-superseded", recordId: stored[0]?.recordId });
    const old = await t.app
      .selectFrom("bath_check")
      .select("value")
      .where("record_id", "=", wrong.id)
      .executeTakeFirst();
    expect(old?.value).toBe(5.31);
  });
  test("a correction of another kind, or of nothing, is refused", async () => {
    expect(
      await storeRecord(t.app, bathRecord(bathId, { supersedes: { recordId: newId(), reason: "why" } }), at),
    ).toMatchObject({ kind: "unknown-superseded" });
  });
  test("a detail that cannot be stored leaves nothing behind", async () => {
    const record = bathRecord(bathId, {
      details: {
        bath_check: [
          { ordinal: 1, parameter: "ph", value: 5, typed: "5", typed_unit: "" },
          { ordinal: 1, parameter: "ph", value: 6, typed: "6", typed_unit: "" },
        ],
      },
    });
    await expect(storeRecord(t.app, record, at)).rejects.toThrow();
    expect(
      await t.app.selectFrom("record").select("id").where("id", "=", record.id).executeTakeFirst(),
    ).toBeUndefined();
  });
});

describe("seals", () => {
  const privateKey = () => process.env.SEAL_PRIVATE_KEY ?? "";
  const publicKey = () => process.env.SEAL_PUBLIC_KEY ?? "";
  /** What a superuser can do when the triggers are out of the way. */
  const tamper = (run: (db: typeof t.owner) => Promise<unknown>) =>
    t.owner.connection().execute(async (db) => {
      await sql`set session_replication_role = replica`.execute(db);
      await run(db as typeof t.owner);
      await sql`set session_replication_role = origin`.execute(db);
    });
  const differences = async () => (await verifyRecord(t.app, publicKey())).discrepancies;

  test("an honest record verifies, and late records join the next seal", async () => {
    await sealRecords(t.app, privateKey(), at);
    expect(await differences()).toEqual([]);
    const late = bathRecord(bathId, { happenedAt: new Date("2026-11-01T06:00:00Z") });
    await storeRecord(t.app, late, at);
    expect((await verifyRecord(t.app, publicKey())).unsealed).toBe(1);
    expect((await sealRecords(t.app, privateKey(), at))?.members).toBe(1);
    expect(await sealRecords(t.app, privateKey(), at)).toBeNull();
    expect(await differences()).toEqual([]);
  });
  test("a changed value, a removed record, one slipped in and a forged seal are each named", async () => {
    const [changed, removed, slipped] = [bathRecord(bathId), bathRecord(bathId), bathRecord(bathId)];
    await storeRecord(t.app, changed, at);
    await storeRecord(t.app, removed, at);
    await sealRecords(t.app, privateKey(), new Date("2026-11-23T12:10:00Z"));
    await storeRecord(t.app, bathRecord(bathId), new Date("2026-11-23T12:15:00Z"));
    const newest = await sealRecords(t.app, privateKey(), new Date("2026-11-23T12:20:00Z"));
    await tamper(async (db) => {
      await sql`update bath_check set value = 5.2 where record_id = ${changed.id}`.execute(db);
      await sql`delete from bath_check where record_id = ${removed.id}`.execute(db);
      await sql`delete from record where id = ${removed.id}`.execute(db);
    });
    await storeRecord(t.app, slipped, new Date("2026-11-23T11:00:00Z"));
    let found = await differences();
    expect(found).toContainEqual(expect.objectContaining({ kind: "changed", recordId: changed.id }));
    expect(found).toContainEqual(expect.objectContaining({ kind: "removed", recordId: removed.id }));
    expect(found).toContainEqual(expect.objectContaining({ kind: "slipped-in", recordId: slipped.id }));
    await tamper((db) =>
      sql`update seal set merkle_root = repeat('0', 64) where number = ${newest?.number ?? 0}`.execute(db),
    );
    found = await differences();
    expect(found).toContainEqual({ kind: "seal-altered", seal: newest?.number });
    await tamper((db) => sql`delete from seal where number = 1`.execute(db));
    expect(await differences()).toContainEqual({ kind: "seal-missing", seal: 1 });
  });
  test.each([
    ["its reason", "reason = 'another reason' where supersedes is not null and id"],
    ["who made it", "by_user = 'nobody' where id"],
    ["its grade", "grade = 'assumed' where id"],
    ["when it happened", "happened_at = happened_at + interval '1 millisecond' where id"],
    ["when it was stored", "stored_at = stored_at - interval '1 day' where id"],
    ["that it follows in course", "in_course = true where supersedes is not null and id"],
    ["its key", "idempotency_key = idempotency_key || 'x' where id"],
  ])("a record whose %s was changed is named, sealed or not", async (_, change) => {
    const first = bathRecord(bathId);
    await storeRecord(t.app, first, at);
    const second = bathRecord(bathId, { supersedes: { recordId: first.id, reason: "typed wrong" } });
    await storeRecord(t.app, second, at);
    await tamper((db) => sql`update record set ${sql.raw(change)} = ${second.id}`.execute(db));
    const unsealed = await differences();
    expect(unsealed).toContainEqual({ kind: "changed", recordId: second.id, seal: null });
    // Sealed as it then is it would pass: what was sealed before is what is held against it.
    const third = bathRecord(bathId, { supersedes: { recordId: second.id, reason: "read again" } });
    await storeRecord(t.app, third, at);
    const seal = await sealRecords(t.app, privateKey(), at);
    await tamper((db) => sql`update record set ${sql.raw(change)} = ${third.id}`.execute(db));
    expect(await differences()).toContainEqual({ kind: "changed", recordId: third.id, seal: seal?.number });
  });
  test("half a sign is stored as it is hashed; an honest record from before is not called changed", async () => {
    const half = (over: string) => bathRecord(bathId, { idempotencyKey: `half:${newId()}${over}` });
    const kept = half("\ud83d");
    await storeRecord(t.app, kept, at);
    expect(await differences()).not.toContainEqual({ kind: "changed", recordId: kept.id, seal: null });
    // As it was stored before: hashed with the half, kept by the database as the sign for what is lost.
    const before = half("\ufffd");
    await storeRecord(t.app, before, at);
    const { content_hash: _, ...row } = baseRow(
      { ...before, idempotencyKey: before.idempotencyKey.replace("\ufffd", "\ud83d") },
      at,
    );
    await tamper((db) =>
      sql`update record set content_hash = ${contentHash(row, before.details)}, request_hash = ${row.request_hash} where id = ${before.id}`.execute(
        db,
      ),
    );
    expect(await differences()).not.toContainEqual({ kind: "changed", recordId: before.id, seal: null });
    // Anything else that was changed beside it is still named.
    await tamper((db) => sql`update record set by_user = 'nobody' where id = ${before.id}`.execute(db));
    expect(await differences()).toContainEqual({ kind: "changed", recordId: before.id, seal: null });
  });
  test("a file whose bytes were changed is named with its record", async () => {
    const id = newId();
    const bytes = Buffer.from("Spot,um\nA1,72\n");
    await t.app
      .insertInto("file")
      .values({
        id,
        sha256: sha256(bytes),
        media_type: "text/plain",
        name: "a.csv",
        size_bytes: bytes.length,
        bytes,
        added_by: "rufus",
        added_at: at,
      })
      .execute();
    const record = bathRecord(bathId, { fileId: id });
    await storeRecord(t.app, record, at);
    const changed = { kind: "file-changed", recordId: record.id, seal: null };
    expect(await differences()).not.toContainEqual(changed);
    await tamper((db) => sql`update file set bytes = ${Buffer.from("Spot,um\nA1,82\n")} where id = ${id}`.execute(db));
    expect(await differences()).toContainEqual(changed);
  });
  test("a seal signed with another key, and one whose chain was cut, are named", async () => {
    await storeRecord(t.app, bathRecord(bathId), at);
    const seal = await sealRecords(t.app, privateKey(), at);
    const { publicKey: other } = generateKeyPairSync("ed25519");
    const otherPem = other.export({ type: "spki", format: "pem" }).toString();
    const wrong = (await verifyRecord(t.app, otherPem)).discrepancies;
    expect(wrong).toContainEqual({ kind: "signature-wrong", seal: seal?.number });
    await tamper((db) =>
      sql`update seal set previous_hash = repeat('1', 64) where number = ${seal?.number ?? 0}`.execute(db),
    );
    const cut = await differences();
    expect(cut).toContainEqual({ kind: "chain-broken", seal: seal?.number });
    expect(cut).toContainEqual({ kind: "seal-altered", seal: seal?.number });
  });
  test("a member taken off a seal's list is named by the seal", async () => {
    await storeRecord(t.app, bathRecord(bathId), at);
    await storeRecord(t.app, bathRecord(bathId), at);
    const seal = await sealRecords(t.app, privateKey(), at);
    expect(seal?.members).toBe(2);
    await tamper((db) =>
      sql`delete from seal_member where seal_number = ${seal?.number ?? 0} and position = 0`.execute(db),
    );
    expect(await differences()).toContainEqual({ kind: "seal-altered", seal: seal?.number });
  });
});
