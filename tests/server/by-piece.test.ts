import * as v from "valibot";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { certificateOf } from "@/app/certificate";
import { loadPanel, panelRegister } from "@/server/bench/panels";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { filmLayers } from "@/server/rack/film-layers";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack, ofPieces, piecesLeft } from "@/server/rack/load-rack";
import { sentBackFor } from "@/server/rack/passes";
import { certificateJsonSchema, certificateSchema } from "@/server/release/certificate-schema";
import { checkFile } from "@/server/release/check-paper";
import { dispose } from "@/server/release/dispose";
import { judgedByPiece } from "@/server/release/judged-by-piece";
import { lookAgainOpen } from "@/server/release/look-again";
import { touchPlaces } from "@/server/release/touch-places";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { firstPassYield } from "@/server/yield/first-pass-yield";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { aCoat, coatedRack, entityId, entryAt, freshRack, stored } from "../support/entries";
import { provenRack } from "../support/proven";

let t: TestDatabase;
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
const operator = person("operator", "maren");
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const load = async (number: string) => {
  const rack = await loadRack(t.app, lead, number);
  if (!rack) throw new Error(`no rack ${number}`);
  return rack;
};
const conditions = async (number: string) => {
  const rack = await load(number);
  return conditionsWhenPassed(t.app, [rack.id], rack.hungAt);
};
const verdict = async (number: string) => judgeRack(await load(number), await conditions(number));
const item = async (number: string, name: string) => (await verdict(number)).items.find((i) => i.item === name);
const standing = (number: string) =>
  t.app.selectFrom("rack_standing").selectAll().where("number", "=", number).executeTakeFirstOrThrow();
const decide = (rack: string, decision: string, minutes: number, over: object = {}) =>
  dispose(t.app, lead, { id: newId(), rack, decision, note: "looked at", seen: null, ...over }, ago(minutes));
const fault = (over: object = {}) => ({
  defect: "inclusions",
  face: "S",
  x: 50,
  y: 40,
  extentPercent: null,
  piecesAffected: null,
  piecesSeen: null,
  subKind: null,
  sizeMm: null,
  count: null,
  pieces: null,
  note: "",
  ...over,
});
const look = (rack: string, minutes: number, over: object = {}) =>
  storeEntry(
    t.app,
    inspector,
    entryAt(ago(minutes), {
      kind: "look",
      rack,
      faces: ["S", "L"],
      distanceM: 0.5,
      lightLux: 1200,
      found: false,
      note: "",
      ...over,
    }),
    at,
  );

describe("the look with what it found", () => {
  test("faults are recorded with it, held against the class of their zone, and settle what they show", async () => {
    await provenRack(t, "BP1", ago);
    const before = await item("BP1", "appearance");
    expect(before).toBeUndefined();
    const outcome = await look("BP1", 150, {
      found: true,
      smoothness: 6,
      seconds: 40,
      faults: [fault({ subKind: "fibre", sizeMm: 0.8, count: 2, face: "L" })],
    });
    expect(outcome).toMatchObject({ ok: true, already: false });
    const seat = await item("BP1", "appearance");
    expect(seat).toMatchObject({ result: expect.stringMatching(/watch|out/), defect: "inclusions", subKind: "fibre" });
    const rack = await load("BP1");
    expect(rack.latest.filter((r) => r.base.kind === "defect")).toHaveLength(1);
    expect(rack.latest.find((r) => r.base.kind === "cure-test")?.details.cure_test?.[0]).toMatchObject({
      test: "smoothness",
      value: 6,
      asked_lower: rack.powder.data.smoothness,
    });
  });
  test("a sub-kind of another defect, a piece that is not there, and faults beside “nothing” are refused, and nothing is kept", async () => {
    await provenRack(t, "BP2", ago);
    for (const [over, kind] of [
      [{ found: true, faults: [fault({ subKind: "coarse" })] }, "unknown-sub-kind"],
      [{ found: true, faults: [fault({ pieces: [3] })] }, "no-such-piece"],
      [{ found: true, faults: [fault({ face: "Z" })] }, "unknown-spot"],
      [{ found: false, faults: [fault()] }, "bad-entry"],
      [{ found: true }, "nothing-on-record"],
    ] as const)
      expect(await look("BP2", 150, over), kind).toMatchObject({ ok: false, failure: { kind } });
    expect((await load("BP2")).latest.some((r) => r.base.kind === "look")).toBe(false);
  });
  test("sent twice it is one look", async () => {
    await provenRack(t, "BP3", ago);
    const entry = entryAt(ago(100), {
      kind: "look",
      rack: "BP3",
      faces: ["S"],
      distanceM: 1,
      lightLux: 900,
      found: true,
      note: "",
      faults: [fault({ sizeMm: 1 })],
    });
    expect(await storeEntry(t.app, inspector, entry, at)).toMatchObject({ ok: true, already: false });
    expect(await storeEntry(t.app, inspector, entry, at)).toMatchObject({ ok: true, already: true });
    expect((await load("BP3")).latest.filter((r) => r.base.kind === "defect")).toHaveLength(1);
  });
});

describe("fits and thick films", () => {
  test("a fit that does not go is out until it is tried again", async () => {
    await provenRack(t, "BF1", ago, { fits: true });
    expect(await item("BF1", "fits")).toMatchObject({ result: "unknown" });
    const tried = (goes: boolean, minutes: number) =>
      stored(t, inspector, ago(minutes), {
        kind: "fit-check",
        rack: "BF1",
        tries: [{ fit: "M8 threads", gauge: "plug", goes }],
      });
    await tried(false, 150);
    expect(await item("BF1", "fits")).toMatchObject({ result: "out", stuck: ["M8 threads"] });
    await tried(true, 140);
    expect(await item("BF1", "fits")).toMatchObject({ result: "in", tried: 1 });
  });
  test("an X-cut stands for adhesion by what it is worth", async () => {
    await provenRack(t, "BF2", ago);
    await stored(t, inspector, ago(150), { kind: "x-cut", rack: "BF2", off: "tear", tearMm: 2, onPanel: true });
    expect(await item("BF2", "adhesion")).toMatchObject({ result: "out", iso: 3, astm: "2A" });
    expect(await standing("BF2")).toMatchObject({ iso: 3, state: "adhesion-out" });
  });
});

describe("panels", () => {
  const onPanel = (rack: string, panel: string, over: object = {}) =>
    storeEntry(
      t.app,
      inspector,
      entryAt(ago(90), {
        kind: "cross-cut",
        rack,
        squaresLost: 20,
        squares: 25,
        spacingMm: 2,
        onPanel: true,
        panel,
        ...over,
      }),
      at,
    );
  test("what is done on a panel speaks for every rack that it stands for, and for no other", async () => {
    for (const rack of ["PA1", "PA2", "PA3"]) await coatedRack(t, rack, { at: ago(400) });
    await stored(t, operator, ago(300), {
      kind: "panel",
      rack: "PA1",
      alsoFor: ["PA2"],
      number: "PA1-P1",
      metal: "hot-rolled-steel",
      madeFrom: "",
      hungAt: "",
      note: "",
    });
    expect(await onPanel("PA3", "PA1-P1")).toMatchObject({
      failure: { kind: "panel-of-another-load", racks: ["PA1", "PA2"] },
    });
    expect(await onPanel("PA1", "nowhere")).toMatchObject({ failure: { kind: "unknown-panel" } });
    expect(await onPanel("PA1", "pa1-p1", { squaresLost: 20 })).toMatchObject({ ok: true });
    for (const rack of ["PA1", "PA2"]) {
      expect(await item(rack, "adhesion"), rack).toMatchObject({ result: "out", iso: 5 });
      expect((await standing(rack)).state, rack).toBe("adhesion-out");
    }
    expect(await item("PA3", "adhesion")).toMatchObject({ result: "unknown" });
  });
  test("a test that fails on it asks for another look at every released rack that it stands for", async () => {
    for (const rack of ["PB1", "PB2"]) await provenRack(t, rack, ago);
    await stored(t, operator, ago(150), {
      kind: "panel",
      rack: "PB1",
      alsoFor: ["PB2"],
      number: "PB1-P1",
      metal: "hot-rolled-steel",
      madeFrom: "",
      hungAt: "",
      note: "",
    });
    expect(await decide("PB2", "accept", 100)).toMatchObject({ ok: true });
    const { id } = await load("PB2");
    expect(await lookAgainOpen(t.app, id)).toBe(false);
    expect(await onPanel("PB1", "PB1-P1")).toMatchObject({ ok: true });
    expect(await lookAgainOpen(t.app, id)).toBe(true);
  });
  test("whose racks are another customer's are not named by a panel that stood for both", async () => {
    await coatedRack(t, "PC1", { at: ago(400), customer: "C1" });
    await coatedRack(t, "PC2", { at: ago(400), customer: "C2" });
    await stored(t, operator, ago(300), {
      kind: "panel",
      rack: "PC1",
      alsoFor: ["PC2"],
      number: "PC1-P1",
      metal: "hot-rolled-steel",
      madeFrom: "",
      hungAt: "",
      note: "",
    });
    const theirs = { ...person("viewer", "otto"), customerId: await entityId(t, "customer", "C1") };
    expect((await loadPanel(t.app, theirs, "PC1-P1"))?.racks).toEqual(["PC1"]);
    expect((await loadPanel(t.app, inspector, "PC1-P1"))?.racks).toEqual(["PC1", "PC2"]);
    const { rows } = await panelRegister(t.app, theirs, "", 0);
    expect(rows.every((p) => !p.racks.includes("PC2"))).toBe(true);
    expect((await panelRegister(t.app, inspector, "pc2", 0)).rows.map((p) => p.number)).toEqual(["PC1-P1"]);
  });
  test("a panel's number is its own; its hours only run on, and end when it comes out", async () => {
    const same = entryAt(ago(80), {
      kind: "panel",
      rack: "PA3",
      number: "pa1-P1",
      metal: "aluminium",
      madeFrom: "",
      hungAt: "",
      note: "",
    });
    expect(await storeEntry(t.app, operator, same, at)).toMatchObject({ failure: { kind: "panel-there-already" } });
    const read = (hours: number, next: number | null, widths: number[] = []) =>
      storeEntry(
        t.app,
        inspector,
        entryAt(ago(70), {
          kind: "panel-reading",
          panel: "PA1-P1",
          cabinet: "salt-spray",
          hours,
          widthsMm: widths,
          scribeMm: widths.length > 0 ? 0.5 : null,
          blisters: "",
          rustRi: null,
          nextHours: next,
          note: "",
        }),
        at,
      );
    expect(await read(0, 240)).toMatchObject({ ok: true });
    expect(await read(240, 480, [1.5, 1.5, 2.5, 1.5, 1.5, 2.5])).toMatchObject({ ok: true });
    expect(await read(240, 480)).toMatchObject({ failure: { kind: "hours-run-back", had: 240 } });
    expect(await read(480, null, [0.4])).toMatchObject({ failure: { kind: "narrower-than-scribe" } });
    expect(await read(480, null)).toMatchObject({ ok: true });
    expect(await read(960, null)).toMatchObject({ failure: { kind: "series-ended", hours: 480 } });
  });
});

describe("wiped off before the bake", () => {
  test("the powder is gone with its coat and its look; the metal's evidence stays, and it waits to be coated again", async () => {
    await freshRack(t, "WO1", { at: ago(300) });
    const wipe = (minutes: number) =>
      storeEntry(
        t.app,
        operator,
        entryAt(ago(minutes), { kind: "wipe-off", rack: "WO1", note: "light at the foot", rinsed: false, minutes: 10 }),
        at,
      );
    expect(await wipe(250)).toMatchObject({ failure: { kind: "nothing-to-wipe" } });
    await stored(t, operator, ago(290), {
      kind: "prep-step",
      rack: "WO1",
      step: "degrease",
      done: true,
      value: null,
      note: "",
    });
    await stored(t, operator, ago(280), {
      kind: "prep-step",
      rack: "WO1",
      step: "blast",
      done: true,
      value: 45,
      note: "",
    });
    await stored(t, lead, ago(240), { ...aCoat(), rack: "WO1" });
    expect(await wipe(230)).toMatchObject({ ok: true });
    const rack = await load("WO1");
    expect(rack.evidence.some((r) => r.base.kind === "coat")).toBe(false);
    expect(rack.evidence.some((r) => r.details.prep_step?.[0]?.step === "blast")).toBe(true);
    expect(await standing("WO1")).toMatchObject({
      state: "to-coat-again",
      next: "coat-again",
      stage: "coat",
      gone_at: null,
    });
    const row = rack.current.find((r) => r.base.kind === "disposition")?.details.disposition?.[0];
    expect(row?.cost).toBeGreaterThan(0);
    expect(row?.powder_kg).toBeGreaterThan(0);
    await stored(t, lead, ago(200), { ...aCoat(), rack: "WO1", coatNo: 1 });
    expect((await standing("WO1")).next).toBe("cure");
  });
  test("over a film that was sent back, powder wiped off leaves it a recoat: scuffed once, over the same film", async () => {
    await provenRack(t, "WO3", ago);
    expect(await decide("WO3", "scuff-and-recoat", 100)).toMatchObject({ ok: true });
    await stored(t, operator, ago(95), {
      kind: "prep-step",
      rack: "WO3",
      step: "scuff",
      done: true,
      value: null,
      note: "",
    });
    const coat = (minutes: number) =>
      storeEntry(
        t.app,
        lead,
        entryAt(ago(minutes), { ...aCoat(), rack: "WO3", coatNo: 2, earthMohm: 0.4, kv: 50 }),
        at,
      );
    expect(await coat(90)).toMatchObject({ ok: true });
    await stored(t, operator, ago(80), {
      kind: "wipe-off",
      rack: "WO3",
      note: "light at the foot",
      rinsed: false,
      minutes: 5,
    });
    const rack = await load("WO3");
    expect(rack.passes).toHaveLength(3);
    expect(sentBackFor(rack)).toBe("scuff-and-recoat");
    expect(filmLayers({ ...rack, latest: [] })?.underSpots).toBeGreaterThan(0);
    expect(await coat(70)).toMatchObject({ ok: true });
    // Without its scuffing on record it is refused, wiped off or not.
    await provenRack(t, "WO4", ago);
    expect(await decide("WO4", "scuff-and-recoat", 100)).toMatchObject({ ok: true });
    const bare = entryAt(ago(60), { ...aCoat(), rack: "WO4", coatNo: 2, earthMohm: 0.4, kv: 50 });
    expect(await storeEntry(t.app, operator, bare, at)).toMatchObject({ failure: { kind: "recoat-not-ready" } });
  });
  test("what has been in the oven is not wiped off", async () => {
    await provenRack(t, "WO2", ago);
    const entry = entryAt(ago(50), { kind: "wipe-off", rack: "WO2", note: "too light", rinsed: true, minutes: null });
    expect(await storeEntry(t.app, operator, entry, at)).toMatchObject({ failure: { kind: "baked-already" } });
  });
});

describe("touched up", () => {
  test("a fault that was touched up is out no more once it was looked at again; the list is empty then", async () => {
    await provenRack(t, "TU1", ago);
    expect(await look("TU1", 150, { found: true, faults: [fault({ sizeMm: 9 })] })).toMatchObject({ ok: true });
    expect(await item("TU1", "appearance")).toMatchObject({ result: "out" });
    const rack = await load("TU1");
    const [place] = touchPlaces(rack).filter((p) => p.defect !== null);
    expect(place).toMatchObject({ what: expect.stringContaining("inclusions"), face: "S" });
    expect(await decide("TU1", "touch-up", 140, { minutes: 20 })).toMatchObject({ ok: true });
    expect(await standing("TU1")).toMatchObject({ state: "to-touch-up", next: "touch-up" });
    const { key: _, ...told } = place ?? { key: "" };
    await stored(t, operator, ago(130), {
      kind: "touch-up",
      rack: "TU1",
      withWhat: "paint",
      places: [{ ...told, done: true }],
    });
    expect(await item("TU1", "appearance")).toMatchObject({ result: "unknown", touchedUp: 1 });
    expect((await standing("TU1")).state).not.toBe("to-touch-up");
    expect(await look("TU1", 120)).toMatchObject({ ok: true });
    expect(await item("TU1", "appearance")).toMatchObject({ result: "watch", touchedUp: 1 });
    expect(touchPlaces(await load("TU1")).filter((p) => p.defect !== null)).toEqual([]);
  });
  test("a fault of another rack is none of it", async () => {
    const other = (await load("TU1")).current.find((r) => r.base.kind === "defect")?.base.id;
    await provenRack(t, "TU2", ago);
    const entry = entryAt(ago(50), {
      kind: "touch-up",
      rack: "TU2",
      withWhat: "",
      places: [{ what: "it", defect: other, face: null, x: null, y: null, done: true }],
    });
    expect(await storeEntry(t.app, operator, entry, at)).toMatchObject({ failure: { kind: "not-of-this-rack" } });
  });
});

describe("decided by piece", () => {
  const concession = {
    customerName: "Their foreman",
    theirWord: "taken so, by letter of Monday",
    zone: "underside",
    limit: "marks to 9 mm",
    until: "2027-03-31",
  };
  test("the good piece leaves with its own certificate, the bad one keeps the rack, and is conceded by name", async () => {
    await provenRack(t, "DP1", ago);
    await look("DP1", 150, {
      found: true,
      faults: [fault({ sizeMm: 9, pieces: [2], piecesAffected: 1, piecesSeen: 2 })],
    });
    expect(await decide("DP1", "accept", 120)).toMatchObject({ failure: { kind: "accept-against-verdict" } });
    const { verdicts, of } = judgedByPiece(await load("DP1"), await conditions("DP1"));
    expect(verdicts[of[1] ?? -1]?.out).toEqual([]);
    expect(verdicts[of[2] ?? -1]?.out.map((i) => i.item)).toEqual(["appearance"]);
    expect(await decide("DP1", "accept", 119, { pieces: [2] })).toMatchObject({
      failure: { kind: "accept-against-verdict" },
    });
    expect(await decide("DP1", "hold", 118, { pieces: [1] })).toMatchObject({ failure: { kind: "part-only-leaves" } });
    expect(await decide("DP1", "accept", 118, { pieces: [7] })).toMatchObject({ failure: { kind: "no-such-piece" } });
    const good = await decide("DP1", "accept", 110, { pieces: [1] });
    if (!good.ok) throw new Error(JSON.stringify(good.failure));
    const rack = await load("DP1");
    expect(piecesLeft(rack.pieces, rack.current).map((p) => p.position)).toEqual([2]);
    expect(await standing("DP1")).toMatchObject({ gone_at: null, state: "defect" });
    const first = await certificateOf(t.app, lead, "DP1", "metric", () => at, good.recordId);
    if (!first.ok) throw new Error(JSON.stringify(first.failure));
    expect(await checkFile(t.app, first.kept.bytes)).toBe("stands");
    // Whoever had the rack on screen before sees what was decided first.
    expect(await decide("DP1", "scrap", 100)).toMatchObject({ failure: { kind: "decided-meanwhile" } });
    const seen = good.recordId;
    expect(await decide("DP1", "accept", 100, { seen, pieces: [1] })).toMatchObject({
      failure: { kind: "piece-gone" },
    });
    expect(await decide("DP1", "concession", 100, { seen, conceded: 1 })).toMatchObject({
      failure: { kind: "concession-unnamed" },
    });
    const taken = await decide("DP1", "concession", 90, {
      seen,
      conceded: 1,
      concession,
      madeAt: "coat",
      foundAt: "test",
    });
    if (!taken.ok) throw new Error(JSON.stringify(taken.failure));
    expect((await standing("DP1")).gone_at).not.toBeNull();
    const second = await certificateOf(t.app, lead, "DP1", "metric", () => at);
    if (!second.ok) throw new Error(JSON.stringify(second.failure));
    expect(second.kept.number).not.toBe(first.kept.number);
    expect(await checkFile(t.app, first.kept.bytes)).toBe("stands");
    const { document } = await t.app
      .selectFrom("certificate")
      .select("document")
      .where("number", "=", second.kept.number)
      .executeTakeFirstOrThrow();
    // What is given out as JSON is what the published schema says, no more and no less.
    expect(Object.keys(v.parse(v.strictObject(certificateSchema.entries), document)).sort()).toEqual(
      Object.keys(document as object).sort(),
    );
    const schema = certificateJsonSchema("http://shop") as { $id: string; required: string[]; properties: object };
    expect(schema.$id).toBe("http://shop/api/schemas/certificate");
    expect(schema.required).toContain("conceded");
    expect(Object.keys(schema.properties)).toEqual(Object.keys(certificateSchema.entries));
    expect(document).toMatchObject({
      pieces: expect.stringContaining("1 piece"),
      conceded: expect.arrayContaining([
        "Taken by Their foreman: taken so, by letter of Monday",
        "Where: underside",
        "How far: marks to 9 mm",
        "Until: 2027-03-31",
      ]),
    });
  });
  test("downgraded only to a class that is named; the last pieces decided on are the whole of the rest", async () => {
    await provenRack(t, "DP2", ago);
    await look("DP2", 150, { found: true, faults: [fault({ sizeMm: 9 })] });
    expect(await decide("DP2", "downgrade", 100, { conceded: 1 })).toMatchObject({
      failure: { kind: "class-missing" },
    });
    expect(await decide("DP2", "downgrade", 100, { conceded: 0, classGiven: "B" })).toMatchObject({
      failure: { kind: "concession-unseen" },
    });
    const one = await decide("DP2", "downgrade", 99, { conceded: 1, classGiven: "B", pieces: [1] });
    if (!one.ok) throw new Error(JSON.stringify(one.failure));
    const rest = await decide("DP2", "scrap", 90, { seen: one.recordId, pieces: [2], madeAt: "coat", foundAt: "test" });
    expect(rest).toMatchObject({ ok: true });
    const rack = await load("DP2");
    const rows = rack.current.flatMap((r) => r.details.disposition ?? []);
    expect(rows.map((r) => [r.decision, r.pieces, r.class_given])).toEqual([
      ["downgrade", 1, "B"],
      ["scrap", null, null],
    ]);
    expect((await standing("DP2")).gone_at).not.toBeNull();
    expect(await decide("DP2", "accept", 80, { seen: rest.ok ? rest.recordId : null, pieces: [2] })).toMatchObject({
      ok: false,
    });
  });
  test("two who decide on different pieces at once lose nothing: the second sees the first", async () => {
    await provenRack(t, "DP3", ago);
    const both = await Promise.all([
      decide("DP3", "accept", 60, { pieces: [1] }),
      dispose(
        t.app,
        person("lead", "dagny"),
        { id: newId(), rack: "DP3", decision: "accept", note: "looked at", seen: null, pieces: [2] },
        ago(60),
      ),
    ]);
    expect(both.filter((o) => o.ok)).toHaveLength(1);
    expect(both.find((o) => !o.ok)).toMatchObject({ failure: { kind: "decided-meanwhile" } });
    const rack = await load("DP3");
    expect(judgeRack(ofPieces(rack, [rack.pieces[0] as never]), await conditions("DP3")).result).not.toBe("out");
  });
});

test("yield says where faults were made and found, and what it cost to do those racks again", async () => {
  await provenRack(t, "YE1", ago);
  await look("YE1", 150, { found: true, faults: [fault({ sizeMm: 9, defect: "craters" })] });
  const sent = await decide("YE1", "scuff-and-recoat", 60, { madeAt: "coat", foundAt: "test", minutes: 90 });
  expect(sent).toMatchObject({ ok: true });
  const { escapes, defects } = await firstPassYield(t.app, lead, at, { days: 1 });
  const own = escapes.find((e) => e.made === "coat" && e.found === "test");
  expect(own).toMatchObject({ stages: 2 });
  expect(own?.racks).toBeGreaterThanOrEqual(1);
  expect(own?.cost).toBeGreaterThan(0);
  expect(defects.find((d) => d.defect === "craters")?.cost).toBeGreaterThan(0);
});
