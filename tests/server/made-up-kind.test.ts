import { sql } from "kysely";
import { afterAll, beforeAll, expect, test } from "vitest";
import { addKind, entryKinds, kinds, mayEnter } from "@/core/kinds";
import { storeEntry } from "@/server/entries/store-entry";
import { exportJob } from "@/server/jobs/load-job";
import { addMakes } from "@/server/kinds";
import { now } from "@/server/now";
import { contentHash } from "@/server/record/content";
import { readDetails } from "@/server/record/read-details";
import { recentRecords } from "@/server/search/recent";
import { addSay } from "@/ui/kinds";
import { sayRecord } from "@/ui/kinds/say-record";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entryAt, freshRack } from "../support/entries";
import { noise } from "../support/made-up-kind/core";
import { makes } from "../support/made-up-kind/server";
import { say } from "../support/made-up-kind/ui";

let t: TestDatabase;
const at = now();
const inspector = person("inspector", "tomasz");
beforeAll(async () => {
  t = await testDatabase();
  // Its table, as a migration makes one; and one file a layer.
  await sql
    .raw(`create table noise_level (record_id uuid not null references record, ordinal int not null, level_db float8 not null, where_heard text not null, note text, primary key (record_id, ordinal));
      grant select, insert on noise_level to sorrel_app;`)
    .execute(t.owner);
  addKind(noise);
  addMakes(makes);
  addSay("noise", say);
  await freshRack(t, "N100");
});
afterAll(() => t.drop());
const heard = (over: object = {}) =>
  entryAt(at, { kind: "noise", rack: "N100", levelDb: 96, where: "blast room", note: "", ...over });

test("a kind told in one file a layer is entered, checked and stored like any other", async () => {
  expect(entryKinds()).toContain("noise");
  expect(mayEnter("noise")).toBe("inspect");
  expect(await storeEntry(t.app, inspector, heard({ levelDb: 900 }), at)).toMatchObject({
    failure: { kind: "bad-entry", field: "levelDb", value: "900", why: "is over 140" },
  });
  expect(await storeEntry(t.app, person("operator"), heard(), at)).toMatchObject({
    failure: { kind: "role-refused", needs: "inspect" },
  });
  const entry = heard();
  const first = await storeEntry(t.app, inspector, entry, at);
  expect(first).toMatchObject({ ok: true, already: false });
  expect(await storeEntry(t.app, inspector, entry, at)).toMatchObject({ ok: true, already: true });
});

test("it is hashed, read back, exported, filtered and said", async () => {
  const records = await recentRecords(t.app, inspector, now(), 10, { kind: "noise" });
  expect(records).toHaveLength(1);
  const [record] = records;
  expect(record && sayRecord(record, "metric")).toBe("96 dB in the blast room");
  // It changes how things stand, and so the shift before is told of it.
  const changed = await recentRecords(t.app, inspector, now(), 10, { changesSince: new Date(at.getTime() - 1000) });
  expect(changed.map((r) => r.kind)).toContain("noise");
  const id = record?.id ?? "";
  const row = await t.app.selectFrom("record").selectAll().where("id", "=", id).executeTakeFirstOrThrow();
  const details = (await readDetails(t.app, [id])).get(id) ?? {};
  const { content_hash, ...base } = row;
  expect(contentHash(base, details)).toBe(content_hash);
  // What it says is part of what is hashed.
  await sql.raw("update noise_level set level_db = 80").execute(t.owner);
  const altered = (await readDetails(t.app, [id])).get(id) ?? {};
  expect(contentHash(base, altered)).not.toBe(content_hash);
  await sql.raw("update noise_level set level_db = 96").execute(t.owner);
  const file = await exportJob(t.app, person("lead"), "J-N100", now());
  const exported = file?.racks.flatMap((rack) => rack.records).find((r) => r.kind === "noise");
  expect(exported?.details).toMatchObject({ noise_level: [{ level_db: 96, where_heard: "blast room" }] });
  expect(kinds().map((k) => k.kind)).toContain("noise");
});
