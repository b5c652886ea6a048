import { sql } from "kysely";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { openCase } from "@/server/causes/case-actions";
import { findOven } from "@/server/cure/oven-file";
import { saveOven } from "@/server/cure/save-oven";
import { storeEntry } from "@/server/entries/store-entry";
import { addPhoto } from "@/server/field/add-photo";
import { importFile } from "@/server/imports/import-file";
import { makeRack } from "@/server/jobs/make-job";
import { wrongJobs, wrongStanding } from "@/server/line/standing";
import { newId, now } from "@/server/now";
import { changePlan } from "@/server/plan/change-plan";
import { keepMarks } from "@/server/plan/part-marks";
import { dispose } from "@/server/release/dispose";
import { setupAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, entityId, entryAt, freshRack, ownJob, stored } from "../support/entries";
import { theirWord } from "../support/proven";

/** As the actions do it: each with the clock itself, so that the second reads it after the first is done. */
let t: TestDatabase;
const lead = person("lead", "ines");
const other = person("lead", "dagny");
const inspector = person("inspector", "tomasz");
const operator = person("operator", "maren");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());
const kinds = (outcomes: readonly { ok: boolean; failure?: { kind: string } }[]) =>
  outcomes.map((o) => (o.ok ? "ok" : o.failure?.kind)).sort();
const TRIES = 12;

describe("two people at once", () => {
  test("deciding on one rack: one decision is kept, the other is told whose was first, every time", async () => {
    for (let n = 0; n < TRIES; n++) {
      const rack = await freshRack(t, `T1${String(n).padStart(2, "0")}`);
      const decide = (who: typeof lead, decision: string) =>
        dispose(
          t.app,
          who,
          { id: newId(), rack, decision, note: "looked at", seen: null, conceded: 99, ...theirWord },
          now,
        );
      const outcomes = await Promise.all([decide(lead, "concession"), decide(other, "scrap")]);
      expect(kinds(outcomes)).toEqual(["decided-meanwhile", "ok"]);
      const { rows } = await sql<{ n: number }>`
        select count(*)::int as n from record r join rack k on k.id = r.rack_id where k.number = ${rack} and r.kind = 'disposition'`.execute(
        t.app,
      );
      expect(rows[0]?.n).toBe(1);
    }
  });
  test("a rack into two ovens: it rides in one", async () => {
    for (let n = 0; n < TRIES; n++) {
      const rack = await coatedRack(t, `T2${String(n).padStart(2, "0")}`, {
        at: new Date(now().getTime() - 3_600_000),
      });
      const load = (oven: string) =>
        storeEntry(
          t.app,
          operator,
          entryAt(now(), {
            kind: "load",
            oven,
            loadNo: `T${n}`,
            timing: "door-close",
            setPointC: 190,
            places: [{ rack, place: "A1" }],
          }),
          now,
        );
      expect(kinds(await Promise.all([load("Oven 1"), load("Oven 2")]))).toEqual(["ok", "rack-in-oven"]);
    }
  });
  test("a case of one defect: both are led to the one case", async () => {
    const rack = await freshRack(t, "T300");
    const defect = await stored(t, inspector, now(), {
      kind: "defect",
      rack,
      structure: null,
      defect: "orange-peel",
      face: "S",
      x: 10,
      y: 10,
      extentPercent: null,
      piecesAffected: null,
      piecesSeen: null,
      note: "",
    });
    const outcomes = await Promise.all(
      Array.from({ length: 6 }, (_, i) =>
        openCase(t.app, i % 2 ? lead : inspector, { defectRecordId: defect, zone: "face" }, now),
      ),
    );
    expect(new Set(outcomes.map((o) => o.ok && o.href)).size).toBe(1);
    const cases = await t.app
      .selectFrom("root_cause_case")
      .select("id")
      .where("defect_record_id", "=", defect)
      .execute();
    expect(cases).toHaveLength(1);
  });
  test("the first change of a plan: one version 1, the other is told", async () => {
    const job = "J-421";
    const change = (who: typeof lead, pieces: number) =>
      changePlan(t.app, who, { id: newId(), job, seen: 0, reason: "counted again", release: false, pieces }, now);
    const before = await t.app
      .selectFrom("record")
      .innerJoin("job", "job.id", "record.job_id")
      .select("record.id")
      .where("job.number", "=", job)
      .where("record.kind", "=", "plan")
      .execute();
    if (before.length > 0) return expect(kinds([await change(lead, 3)])).toEqual(["changed-meanwhile"]);
    expect(kinds(await Promise.all([change(lead, 3), change(other, 4)]))).toEqual(["changed-meanwhile", "ok"]);
  });
  test("an oven changed from one version: one is kept", async () => {
    const oven = await findOven(t.app, "oven-1", now());
    if (!oven) throw new Error("oven");
    const save = (who: typeof lead, usualSetPointC: number) =>
      saveOven(
        t.app,
        who,
        { code: oven.code, seen: oven.versionId, reason: "set anew", data: { ...oven.data, usualSetPointC } },
        now,
      );
    const outcomes = await Promise.all([save(lead, 196), save(other, 197)]);
    expect(kinds(outcomes)).toEqual(["ok", "set-up-changed"]);
    const kept = outcomes[0]?.ok ? 196 : 197;
    expect((await findOven(t.app, "oven-1", new Date(now().getTime() + 5)))?.data.usualSetPointC).toBe(kept);
  });
  test("places on a part's sketch: the second is told whose came first", async () => {
    const part = await entityId(t, "part", "FERRY-SEAT");
    const seen = (await setupAt(t.app, "part", now())).get(part)?.versionId ?? "";
    const mark = (x: number) => ({ kind: "hang", face: "S", at: [x, 5], note: "" });
    const keep = (who: typeof lead, x: number) => keepMarks(t.app, who, { part, seen, marks: [mark(x)] }, now);
    expect(kinds(await Promise.all([keep(lead, 10), keep(other, 20)]))).toEqual(["ok", "set-up-changed"]);
  });
  test("a rack of one number under two jobs, and more than is left hung twice", async () => {
    await ownJob(t, "J-T4", { pieces: 4 });
    const hang = (number: string, pieces: number) => makeRack(t.app, operator, { job: "J-T4", number, pieces }, now);
    expect(kinds(await Promise.all([hang("T400", 1), hang("T400", 1)]))).toEqual(["number-taken", "ok"]);
    expect(kinds(await Promise.all([hang("T401", 2), hang("T402", 2)]))).toEqual(["more-than-ordered", "ok"]);
  });
});

test("what is derived of a rack and a job is right whoever changed them at once", async () => {
  await ownJob(t, "J-T6");
  const racks = Array.from({ length: 6 }, (_, i) => `T60${i}`);
  expect(
    kinds(await Promise.all(racks.map((number) => makeRack(t.app, operator, { job: "J-T6", number, pieces: 1 }, now)))),
  ).toEqual(racks.map(() => "ok"));
  await Promise.all([
    ...racks
      .slice(0, 3)
      .map((rack) => dispose(t.app, lead, { id: newId(), rack, decision: "scrap", note: "bent", seen: null }, now)),
    ...racks
      .slice(3)
      .flatMap((rack) => [
        storeEntry(t.app, operator, entryAt(now(), { kind: "passage", rack, stage: "booth" }), now),
        storeEntry(
          t.app,
          inspector,
          entryAt(now(), { kind: "cross-cut", rack, squaresLost: 0, squares: 25, spacingMm: 2, onPanel: false }),
          now,
        ),
      ]),
  ]);
  expect(await wrongStanding(t.app)).toEqual([]);
  expect(await wrongJobs(t.app)).toEqual([]);
});

describe("the same thing sent twice at once", () => {
  test("an entry is stored once, and the retry hears that it is there", async () => {
    const rack = await freshRack(t, "T500");
    const entry = entryAt(now(), {
      kind: "cross-cut",
      rack,
      squaresLost: 0,
      squares: 25,
      spacingMm: 2,
      onPanel: false,
    });
    const outcomes = await Promise.all(Array.from({ length: 5 }, () => storeEntry(t.app, inspector, entry, now)));
    expect(outcomes.map((o) => o.ok && o.already).sort()).toEqual([false, true, true, true, true]);
  });
  test("a photo and a file are kept once", async () => {
    const rack = await freshRack(t, "T501");
    const sharp = (await import("sharp")).default;
    const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: "#884422" } })
      .png()
      .toBuffer();
    const id = newId();
    const photo = () => {
      const form = new FormData();
      form.set("photo", new File([new Uint8Array(png)], "a.png", { type: "image/png" }));
      form.set("id", id);
      form.set("rack", rack);
      form.set("caption", "face");
      return addPhoto(t.app, operator, form, now);
    };
    const photos = await Promise.all([photo(), photo(), photo()]);
    expect(photos.map((o) => o.ok && o.already).sort()).toEqual([false, true, true]);
    const files = await t.app.selectFrom("file").select("id").where("name", "=", "a.png").execute();
    expect(files).toHaveLength(1);
    const text = `Spot,Thickness (um)\n${["S1", "S2", "S3", "S4", "S5"].flatMap((s) => [`${s},71`, `${s},73`, `${s},72`]).join("\n")}\n`;
    const upload = () => {
      const form = new FormData();
      form.set("file", new File([text], "twice.csv"));
      for (const [key, value] of Object.entries({ store: "yes", rack, sure: "yes" })) form.set(key, value);
      return importFile(t.app, inspector, form, now);
    };
    const imports = await Promise.all([upload(), upload(), upload()]);
    expect(imports.map((o) => (o.ok ? o.already : o.failure.kind)).sort()).toEqual([false, true, true]);
    expect(await t.app.selectFrom("file").select("id").where("name", "=", "twice.csv").execute()).toHaveLength(1);
  });
});
