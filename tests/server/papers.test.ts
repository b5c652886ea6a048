import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import sharp from "sharp";
import { afterAll, beforeAll, expect, test } from "vitest";
import { certificateOf } from "@/app/certificate";
import { inspectionReport } from "@/app/inspection-report";
import { addPhoto } from "@/server/field/add-photo";
import { newId, now } from "@/server/now";
import { filmLayers } from "@/server/rack/film-layers";
import { loadRack } from "@/server/rack/load-rack";
import { dispose } from "@/server/release/dispose";
import { setupAt } from "@/server/setup/setup-data";
import { saveCustomerLogo } from "@/server/shop/customer-logo";
import { saveCustomer } from "@/server/shop/save-shop";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { aCoat, entityId, freshRack, seatFilm, stored } from "../support/entries";
import { provenRack } from "../support/proven";

const directory = mkdtempSync(path.join(tmpdir(), "papers-"));
let t: TestDatabase;
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(async () => {
  rmSync(directory, { recursive: true });
  await t.drop();
});
const run = (command: string, ...args: string[]) => execFileSync(command, args, { encoding: "utf8" });
function read(pdf: Buffer) {
  const file = path.join(directory, "p.pdf");
  writeFileSync(file, pdf);
  return {
    text: run("pdftotext", "-layout", file, "-"),
    images: run("pdfimages", "-list", file).split("\n").slice(2).filter(Boolean).length,
    structure: run("pdfinfo", "-struct-text", file),
  };
}
const customer = async () => {
  const known = [...(await setupAt(t.app, "customer", now())).values()].find((c) => c.code === "C1");
  if (!known) throw new Error("no customer");
  return known;
};
const logo = async (over: { bytes?: Buffer; remove?: boolean } = {}) => {
  const form = new FormData();
  form.set("customer", "C1");
  if (over.remove) form.set("remove", "yes");
  else {
    const png =
      over.bytes ??
      (await sharp({ create: { width: 60, height: 20, channels: 4, background: "#00000000" } })
        .png()
        .toBuffer());
    form.set("photo", new File([new Uint8Array(png)], "mark.png", { type: "image/png" }));
  }
  return saveCustomerLogo(t.app, lead, form, now);
};

test("a customer's words and mark stand on what is signed from then on, and not on what was signed before", async () => {
  await provenRack(t, "PP1", ago);
  await provenRack(t, "PP2", ago);
  const accept = (rack: string) =>
    dispose(t.app, lead, { id: newId(), rack, decision: "accept", note: "as asked", seen: null }, now());
  expect(await accept("PP1")).toMatchObject({ ok: true });
  expect(await logo()).toMatchObject({ ok: true });
  const known = await customer();
  const { paper, ...data } = known.data;
  expect(paper.logo).not.toBeNull();
  const wording = "Coated to our drawing 4711, sheet 2.\nRetain seven years.";
  expect(
    await saveCustomer(
      t.app,
      lead,
      { code: "C1", seen: known.versionId, reason: "their order", data: { ...data, wording } },
      now,
    ),
  ).toMatchObject({ ok: true });
  // Their mark stays when what is typed changes.
  expect((await customer()).data.paper).toEqual({ wording, logo: paper.logo });
  expect(await accept("PP2")).toMatchObject({ ok: true });
  const paperOf = async (rack: string) => {
    const made = await certificateOf(t.app, lead, rack, "metric", now);
    if (!made.ok) throw new Error(JSON.stringify(made.failure));
    return read(made.kept.bytes);
  };
  const [before, after] = [await paperOf("PP1"), await paperOf("PP2")];
  expect(after.text).toContain("As agreed with Saltmarsh Ferries");
  expect(after.text).toContain("Retain seven years.");
  expect(before.text).not.toContain("As agreed with");
  expect(after.images).toBe(before.images + 1);
  expect(after.structure).toContain("Figure");
  expect(await logo({ remove: true })).toMatchObject({ ok: true });
  expect((await customer()).data.paper).toEqual({ wording, logo: null });
});

test("a mark that is no picture is refused, and nothing changes", async () => {
  const before = (await customer()).versionId;
  expect(await logo({ bytes: Buffer.from("not a picture at all, whatever its name") })).toMatchObject({
    ok: false,
    failure: { kind: "wrong-kind-of-file" },
  });
  expect((await customer()).versionId).toBe(before);
});

test("the inspection report shows film where it was read, faults where they are, the trace, tests and photos", async () => {
  await provenRack(t, "PP3", ago);
  await stored(t, inspector, ago(150), {
    kind: "look",
    rack: "PP3",
    faces: ["S", "L"],
    distanceM: 1,
    lightLux: 900,
    found: true,
    seconds: 40,
    smoothness: null,
    note: "",
    faults: [
      {
        defect: "inclusions",
        face: "S",
        x: 50,
        y: 40,
        extentPercent: null,
        piecesAffected: null,
        piecesSeen: null,
        subKind: "fibre",
        sizeMm: 3,
        count: null,
        pieces: null,
        note: "",
      },
    ],
  });
  const photo = await sharp({ create: { width: 80, height: 60, channels: 3, background: "#887766" } })
    .jpeg()
    .toBuffer();
  const { id: rackId } = await t.app
    .selectFrom("rack")
    .select("id")
    .where("number", "=", "PP3")
    .executeTakeFirstOrThrow();
  const file = newId();
  await t.owner
    .insertInto("file")
    .values({
      id: file,
      sha256: "x",
      media_type: "image/jpeg",
      name: "p.jpg",
      size_bytes: photo.length,
      bytes: photo,
      added_by: "tomasz",
      added_at: at,
    })
    .execute();
  const { storeRecord } = await import("@/server/record/store-record");
  const record = newId();
  await storeRecord(
    t.app,
    {
      id: record,
      kind: "photo",
      happenedAt: ago(140),
      by: "tomasz",
      grade: "measured",
      idempotencyKey: `photo:${record}`,
      rackId,
      fileId: file,
      details: { photo: [{ caption: "fibre beside the hole", zone: null }] },
    },
    at,
  );
  const pdf = await inspectionReport(t.app, lead, "PP3", "metric", at);
  if (!pdf) throw new Error("no report");
  const { text, images, structure } = read(pdf);
  for (const said of [
    "Inspection report, rack PP3",
    "What was asked and found",
    "S1",
    "76",
    "fibre",
    "Oven trace, load S-PP3",
    "cross-cut grade 0",
    "fibre beside the hole",
    "This is no certificate",
  ])
    expect(text, said).toContain(said);
  expect(images).toBe(1);
  expect(structure.match(/Figure/g)?.length).toBeGreaterThanOrEqual(5);
  const us = await inspectionReport(t.app, lead, "PP3", "us", at);
  if (!us) throw new Error("no report");
  expect(read(us).text).toContain("Film on the part, mil");
});

test("a person held to one customer gets none of another's racks", async () => {
  const viewer = { ...person("viewer", "otto"), customerId: await entityId(t, "customer", "C2") };
  expect(await inspectionReport(t.app, viewer, "PP3", "metric", at)).toBeNull();
  const own = { ...viewer, customerId: await entityId(t, "customer", "C1") };
  expect(await inspectionReport(t.app, own, "PP3", "metric", at)).not.toBeNull();
});

test("one of which nothing is on record yet is a report all the same", async () => {
  const rack = await t.app
    .selectFrom("rack_standing")
    .select("number")
    .where("stage", "=", "prepare")
    .executeTakeFirstOrThrow();
  const pdf = await inspectionReport(t.app, lead, rack.number, "metric", at);
  if (!pdf) throw new Error("no report");
  expect(read(pdf).text).toContain("No film reading is on record");
});

test("a photo may show a test of its rack, and of no other", async () => {
  await provenRack(t, "PP5", ago);
  await provenRack(t, "PP6", ago);
  const cutOf = async (rack: string) =>
    (
      await t.app
        .selectFrom("record")
        .innerJoin("rack", "rack.id", "record.rack_id")
        .select("record.id")
        .where("rack.number", "=", rack)
        .where("record.kind", "=", "cross-cut")
        .executeTakeFirstOrThrow()
    ).id;
  const attach = async (shows: string) => {
    const jpeg = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#445566" } })
      .jpeg()
      .toBuffer();
    const form = new FormData();
    form.set("id", newId());
    form.set("rack", "PP5");
    form.set("caption", "the tape");
    form.set("shows", shows);
    form.set("photo", new File([new Uint8Array(jpeg)], "t.jpg", { type: "image/jpeg" }));
    return addPhoto(t.app, inspector, form, now);
  };
  expect(await attach(await cutOf("PP6"))).toMatchObject({ ok: false, failure: { kind: "not-of-this-rack" } });
  expect(await attach("nothing")).toMatchObject({ ok: false, failure: { kind: "not-of-this-rack" } });
  expect(await attach(await cutOf("PP5"))).toMatchObject({ ok: true });
  const pdf = await inspectionReport(t.app, lead, "PP5", "metric", now());
  expect(pdf && read(pdf).text).toContain("the tape (cross-cut grade 0)");
});

test("a top coat over a primer that only a panel shows is total less the panel's primer, by procedure", async () => {
  await freshRack(t, "PP7", { powder: "GR-505", stages: ["booth", "oven"], primer: true, at: ago(300) });
  const primer = [...(await setupAt(t.app, "powder", now())).values()].find((p) => p.data.traits.includes("primer"));
  const lot = [...(await setupAt(t.app, "lot", now())).values()].find((l) => l.data.powderCode === primer?.code);
  if (!lot) throw new Error("no lot of a primer");
  await stored(t, lead, ago(290), { ...aCoat(), rack: "PP7", lot: lot.code, layer: "primer", system: "dry-on-dry" });
  await stored(t, lead, ago(280), { ...aCoat(), rack: "PP7", coatNo: 2 });
  await stored(t, inspector, ago(270), {
    kind: "panel",
    rack: "PP7",
    alsoFor: [],
    number: "PP7-P",
    metal: "hot-rolled-steel",
    madeFrom: "",
    hungAt: "",
    note: "",
  });
  await stored(t, inspector, ago(200), {
    kind: "thickness",
    rack: "PP7",
    source: "typed",
    typedUnit: "um",
    coatNo: 2,
    sure: true,
    readings: seatFilm(120),
  });
  const layers = async () => {
    const rack = await loadRack(t.app, lead, "PP7");
    if (!rack) throw new Error("no rack");
    return filmLayers(rack);
  };
  expect(await layers()).toBeNull();
  await stored(t, inspector, ago(190), {
    kind: "panel-film",
    panel: "PP7-P",
    layer: "primer",
    valuesUm: [48, 50, 52],
    note: "",
  });
  const told = await layers();
  expect(told).toMatchObject({ panel: "PP7-P", underUm: 50, underSpots: 3 });
  expect(told?.top?.ok && told.top.value.topUm).toBeCloseTo(70, 6);
  expect(told?.top?.ok && told.top.value.by).toBe("means");
});
