import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { certificateOf } from "@/app/certificate";
import { storeEntry } from "@/server/entries/store-entry";
import { loadLine } from "@/server/line/load-line";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { changedSince, changedSinceDecision, signedItems } from "@/server/release/changed-since";
import { checkFile, checkPaper, markOf } from "@/server/release/check-paper";
import { dispose } from "@/server/release/dispose";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { coatedRack, entryAt, freshRack, stored } from "../support/entries";
import { provenRack, theirWord } from "../support/proven";

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

const proven = (rack: string, asked: object = {}) => provenRack(t, rack, ago, asked);
const judged = async (number: string) => {
  const rack = await loadRack(t.app, lead, number);
  if (!rack) throw new Error("no rack");
  return judgeRack(rack, await conditionsWhenPassed(t.app, [rack.id], rack.hungAt));
};
const decide = (rack: string, decision: string, minutes: number, over: object = {}) =>
  dispose(
    t.app,
    lead,
    { id: newId(), rack, decision, note: "looked at", seen: null, ...theirWord, ...over },
    ago(minutes),
  );
const standings = async (number: string) =>
  (await judged(number)).items.map((i) => [i.item, i.result]).filter(([, r]) => r !== "in" && r !== "watch");

describe("accepted is only what was looked at", () => {
  test("with all that is asked in, it is accepted; its certificate names what it was signed on", async () => {
    await proven("SG1");
    expect(await standings("SG1")).toEqual([]);
    expect(await decide("SG1", "accept", 100)).toMatchObject({ ok: true });
  });
  test("a spot unread, an impact of 5 where 25 was asked, an open bump, a look not made: each closes Accept, by name", async () => {
    await proven("SG2", {
      tests: [{ test: "impact", lower: 25, upper: null }],
      appearance: { distanceM: 1, lightLux: 800, note: "" },
    });
    expect(await standings("SG2")).toEqual([
      ["test", "unknown"],
      ["appearance", "unknown"],
    ]);
    await stored(t, inspector, ago(180), {
      kind: "cure-test",
      rack: "SG2",
      test: "impact",
      readings: [40, 40, 5],
      lower: 25,
      upper: null,
      onPanel: true,
    });
    const look = { kind: "look", rack: "SG2", faces: ["S", "L"], distanceM: 1, lightLux: 500, found: false, note: "" };
    await stored(t, inspector, ago(170), look);
    await stored(t, operator, ago(390), {
      kind: "lamp-check",
      rack: "SG2",
      coatNo: 1,
      faces: ["S"],
      spots: [],
      wiped: null,
      plugsIn: null,
      bumped: true,
      note: "",
    });
    expect(await standings("SG2")).toEqual([
      ["test", "out"],
      ["appearance", "unknown"],
      ["open", "unknown"],
    ]);
    expect(await decide("SG2", "accept", 100)).toMatchObject({
      ok: false,
      failure: { kind: "accept-against-verdict", items: ["test", "appearance", "open"] },
    });
    // A concession covers what was on screen, and no more.
    expect(await decide("SG2", "concession", 100, { conceded: 2 })).toMatchObject({
      ok: false,
      failure: { kind: "concession-unseen" },
    });
    // Enough light, the bump looked at; the low blow stands, whatever is tested after it.
    await stored(t, inspector, ago(160), { ...look, lightLux: 900 });
    await stored(t, operator, ago(150), {
      kind: "item-closed",
      rack: "SG2",
      what: "bump",
      seen: "whole under the lamp",
    });
    await stored(t, inspector, ago(140), {
      kind: "cure-test",
      rack: "SG2",
      test: "impact",
      readings: [60],
      lower: 25,
      upper: null,
      onPanel: true,
    });
    expect(await standings("SG2")).toEqual([["test", "out"]]);
    expect(await decide("SG2", "concession", 90, { conceded: 1 })).toMatchObject({ ok: true });
  });
  test("of two cross-cuts the worse stands, until it is superseded with a reason", async () => {
    await proven("SG3");
    const cut = { kind: "cross-cut", rack: "SG3", squares: 25, spacingMm: 2, onPanel: true };
    const bad = await stored(t, inspector, ago(180), { ...cut, squaresLost: 12 });
    await stored(t, inspector, ago(170), { ...cut, squaresLost: 0 });
    expect(await standings("SG3")).toEqual([["adhesion", "out"]]);
    await stored(t, inspector, ago(160), {
      ...cut,
      squaresLost: 0,
      supersedes: { recordId: bad, reason: "tape of another lot, torn" },
    });
    expect(await standings("SG3")).toEqual([]);
  });
});

test("a passage that the washer's speed foretells has not happened: not passed, then still in, then judged from both ends", async () => {
  await freshRack(t, "SG5", { at: ago(100), stages: ["clean", "conversion", "rinse", "booth", "oven"] });
  await stored(t, operator, ago(60), { kind: "line-run", rack: "SG5", line: "Washer 1", speedMPerMin: 1.2 });
  const rack = await loadRack(t.app, lead, "SG5");
  if (!rack) throw new Error("no rack");
  const conditions = await conditionsWhenPassed(t.app, [rack.id], rack.hungAt);
  const conversion = conditions.passages.find((p) => p.stage === "conversion");
  if (!conversion?.leftAt) throw new Error("no passage");
  const at = (ms: number) => judgeRack(rack, conditions, new Date(conversion.enteredAt.getTime() + ms)).items;
  const wash = (items: ReturnType<typeof at>) => items.find((i) => i.item === "pretreatment");
  const contact = (items: ReturnType<typeof at>) => items.find((i) => i.item === "contact" && i.stage === "conversion");
  expect(wash(at(-1))).toMatchObject({ result: "unknown", notPassed: ["conversion", "rinse"] });
  expect(contact(at(-1))).toBeUndefined();
  expect(contact(at(10_000))).toMatchObject({ result: "unknown", seconds: null });
  const stay = conversion.leftAt.getTime() - conversion.enteredAt.getTime();
  expect(contact(at(stay))).toMatchObject({ result: "in", seconds: 90, grade: "by-procedure" });
});
test("two seconds in a conversion of 60 to 120 asked are too short, and keep the rack back", async () => {
  await freshRack(t, "SG6", { at: ago(100), stages: ["clean", "conversion", "rinse", "booth", "oven"] });
  await stored(t, operator, ago(60), { kind: "passage", rack: "SG6", stage: "conversion" });
  await stored(t, operator, new Date(ago(60).getTime() + 2000), { kind: "passage", rack: "SG6", stage: "rinse" });
  const contact = (await judged("SG6")).items.find((i) => i.item === "contact" && i.stage === "conversion");
  expect(contact).toMatchObject({ result: "out", seconds: 2, window: [60, 120] });
});

test("a look that found something is none that found nothing, though the defect turned out to be none", async () => {
  await proven("SG7", { appearance: { distanceM: null, lightLux: null, note: "" } });
  const defect = {
    kind: "defect",
    rack: "SG7",
    structure: null,
    defect: "sags",
    face: null,
    x: null,
    y: null,
    extentPercent: null,
    piecesSeen: 2,
    note: "",
  };
  const seen = await stored(t, inspector, ago(180), { ...defect, piecesAffected: 1 });
  const look = { kind: "look", rack: "SG7", faces: ["S", "L"], distanceM: null, lightLux: null, note: "" };
  await stored(t, inspector, ago(170), { ...look, found: true });
  await stored(t, inspector, ago(160), {
    ...defect,
    piecesAffected: 0,
    supersedes: { recordId: seen, reason: "wiped off: a hair" },
  });
  expect(await standings("SG7")).toEqual([["appearance", "unknown"]]);
  await stored(t, inspector, ago(150), { ...look, found: false });
  expect(await standings("SG7")).toEqual([]);
});
test("of a load shared with another customer's rack the certificate names neither that rack nor its probe", async () => {
  await coatedRack(t, "SH1", { at: ago(400) });
  await coatedRack(t, "SH2", { at: ago(400), part: "SHELTER-POST", powder: "GR-210", customer: "C2" });
  await stored(t, operator, ago(300), {
    kind: "load",
    oven: "Oven 1",
    loadNo: "SHARED",
    timing: "metal-at-temperature",
    setPointC: 200,
    places: ["SH1", "SH2"].map((rack) => ({ rack, place: "B2" })),
  });
  const timeS = Array.from({ length: 181 }, (_, i) => i * 10);
  await stored(t, inspector, ago(300), {
    kind: "trace",
    rack: "SH1",
    oven: "oven 1",
    place: "B2",
    loadNo: "SHARED",
    channels: ["SH2", "Post foot of SH2"].map((name) => ({
      name,
      medium: "metal" as const,
      timeS,
      tempC: timeS.map((s) => Math.min(192, 20 + s * 0.6)),
    })),
  });
  expect(await decide("SH1", "concession", 90, { conceded: 99 })).toMatchObject({ ok: true });
  const made = await certificateOf(t.app, lead, "SH1", "metric", now);
  expect(made.ok).toBe(true);
  const row = await t.app
    .selectFrom("certificate")
    .select("document")
    .where("number", "like", "SH1-%")
    .executeTakeFirstOrThrow();
  const text = JSON.stringify(row.document);
  expect(text).toContain("Probe 1");
  expect(text).not.toContain("SH2");
});

describe("what was signed stays", () => {
  const signedOn = async (number: string) => {
    const rack = await loadRack(t.app, lead, number);
    const row = rack?.current.findLast((r) => r.base.kind === "disposition")?.details.disposition?.[0];
    return signedItems(row?.verdict);
  };
  test("a certificate fetched again is the same file, after later evidence too, also when two fetch it at once", async () => {
    const both = await Promise.all([
      certificateOf(t.app, lead, "SG1", "metric", now),
      certificateOf(t.app, inspector, "SG1", "us", now),
    ]);
    const [first, second] = both.map((c) => (c.ok ? c.kept : null));
    expect(first?.bytes.equals(second?.bytes ?? Buffer.alloc(0))).toBe(true);
    const kept = await t.app
      .selectFrom("record")
      .innerJoin("certificate", "certificate.record_id", "record.id")
      .select(["certificate.document", "record.file_id"])
      .where("record.kind", "=", "certificate")
      .where("certificate.number", "like", "SG1-%")
      .execute();
    expect(kept).toHaveLength(1);
    expect(kept[0]?.document).toMatchObject({
      customer: expect.any(String),
      items: expect.arrayContaining([expect.objectContaining({ name: "Film", word: "In" })]),
      named: expect.arrayContaining([
        ["Lots", "GR-505/2611-4"],
        ["Oven", expect.stringContaining("load S-SG1")],
      ]),
      conceded: [],
    });
    await stored(t, inspector, ago(50), {
      kind: "defect",
      rack: "SG1",
      structure: null,
      defect: "orange-peel",
      face: null,
      x: null,
      y: null,
      extentPercent: null,
      piecesAffected: 1,
      piecesSeen: 2,
      note: "",
    });
    const again = await certificateOf(t.app, lead, "SG1", "metric", now);
    expect(again.ok && first && again.kept.bytes.equals(first.bytes)).toBe(true);
  });
  test("what came since is told beside it: signed without a defect, now with one", async () => {
    const signed = await signedOn("SG1");
    const changed = changedSince(signed ?? [], (await judged("SG1")).items);
    expect(changed.map((c) => [c.was?.item ?? null, c.is.item, c.is.result])).toEqual([[null, "appearance", "out"]]);
    expect(changedSince(signed ?? [], signed ?? [])).toEqual([]);
  });
  test("what came since stands on Shift for a lead, until one looked at it; what comes after that asks anew", async () => {
    await proven("SG9");
    expect(await decide("SG9", "accept", 100)).toMatchObject({ ok: true });
    const asked = async (who = lead) =>
      (await loadLine(t.app, who, now())).lookAgain
        .filter((l) => l.rack === "SG9")
        .map((l) => l.changed.map((c) => [c.item, c.is]));
    expect(await asked()).toEqual([]);
    const cut = (lost: number, minutes: number) =>
      stored(t, inspector, ago(minutes), {
        kind: "cross-cut",
        rack: "SG9",
        squaresLost: lost,
        squares: 25,
        spacingMm: 2,
        onPanel: true,
      });
    await cut(9, 60);
    expect(await asked()).toEqual([[["adhesion", "out"]]]);
    // It is for whoever may decide anew.
    expect(await asked(inspector)).toEqual([]);
    const close = (who: typeof lead, minutes: number) =>
      storeEntry(
        t.app,
        who,
        entryAt(ago(minutes), {
          kind: "item-closed",
          rack: "SG9",
          what: "look-again",
          seen: "the panel of another load, told the customer",
        }),
        now(),
      );
    expect(await close(inspector, 50)).toMatchObject({ failure: { kind: "role-refused", needs: "release" } });
    expect(await close(lead, 50)).toMatchObject({ ok: true });
    expect(await asked()).toEqual([]);
    expect(await close(lead, 49)).toMatchObject({ failure: { kind: "not-open" } });
    // The same again asks for nothing; a new thing does.
    await cut(10, 40);
    expect(await asked()).toEqual([]);
    await stored(t, inspector, ago(30), {
      kind: "defect",
      rack: "SG9",
      structure: null,
      defect: "orange-peel",
      face: null,
      x: null,
      y: null,
      extentPercent: null,
      piecesAffected: 1,
      piecesSeen: 2,
      note: "",
    });
    expect((await asked())[0]?.map(([item]) => item)).toContain("appearance");
  });
  test("a concession's certificate names each gap; a rack on hold has none", async () => {
    const made = await certificateOf(t.app, lead, "SG2", "metric", now);
    expect(made.ok).toBe(true);
    const rows = await t.app.selectFrom("certificate").select("document").where("number", "like", "SG2-%").execute();
    const document = rows[0]?.document as { conceded: string[]; notMeasured: string[] };
    expect(document.conceded).toEqual([
      "Impact without a crack: Out. 5 kg·cm, the worst of 2; 25 kg·cm or more asked for",
      "Taken by Their buyer: taken so, in writing",
    ]);
    expect(document.notMeasured).toContain("Solvent rub (not asked)");
    // Steps are on record by procedure: nobody measured them, and the paper says so.
    expect(document.notMeasured).toContain("Preparation (asked; by procedure)");
    expect(await certificateOf(t.app, lead, "SG3", "metric", now)).toMatchObject({
      ok: false,
      failure: { kind: "not-released" },
    });
  });
  test("a certificate's paper is checked by number and mark, its file by every byte; both say when it is replaced", async () => {
    await proven("SG8");
    expect(await decide("SG8", "accept", 100)).toMatchObject({ ok: true });
    const made = await certificateOf(t.app, lead, "SG8", "metric", now);
    if (!made.ok) throw new Error(made.failure.kind);
    const { number, bytes } = made.kept;
    const documentOf = async (like: string) =>
      (await t.app.selectFrom("certificate").select("document").where("number", "like", like).executeTakeFirstOrThrow())
        .document as { check: { mark: string; address: string }; decision: string; recordId: string };
    const { check, ...said } = await documentOf(number);
    expect(check.mark).toBe(markOf(said));
    expect(check.mark).toMatch(/^([0-9a-f]{4} ){4}[0-9a-f]{4}$/);
    expect(Object.fromEntries(new URL(check.address).searchParams)).toEqual({
      number,
      mark: check.mark.replaceAll(" ", ""),
    });
    // As printed, as typed in haste, as the code has it.
    for (const mark of [
      check.mark,
      check.mark.toUpperCase(),
      check.mark.replaceAll(" ", "-"),
      check.mark.replaceAll(" ", ""),
    ])
      expect(await checkPaper(t.app, { number: ` ${number} `, mark }), mark).toBe("stands");
    expect(await checkFile(t.app, bytes)).toBe("stands");

    // A word of it changed gives another mark; another's mark, a piece of it and a number that never was read alike.
    const others = (await documentOf("SG1-%")).check.mark;
    for (const mark of [
      markOf({ ...said, decision: "accepted without a look" }),
      others,
      check.mark.slice(0, 9),
      "",
      "%",
    ])
      expect(await checkPaper(t.app, { number, mark }), mark).toBe("not-on-record");
    expect(await checkPaper(t.app, { number: "SG8-000000", mark: check.mark })).toBe("not-on-record");
    expect(await checkFile(t.app, Buffer.concat([bytes, Buffer.from(" ")]))).toBe("not-on-record");
    // A photo that is on record is no certificate.
    const photo = await t.app
      .selectFrom("file")
      .select("bytes")
      .where("media_type", "<>", "application/pdf")
      .limit(1)
      .execute();
    if (photo[0]) expect(await checkFile(t.app, photo[0].bytes)).toBe("not-on-record");

    expect(await decide("SG8", "hold", 5, { seen: said.recordId })).toMatchObject({ ok: true });
    expect(await checkPaper(t.app, { number, mark: check.mark })).toBe("replaced");
    expect(await checkFile(t.app, bytes)).toBe("replaced");
  });
  test("a decision from before it was kept whole: what is out now asks for a look, if it was not conceded", async () => {
    expect(signedItems({ decidedOn: "demo" })).toBeNull();
    expect(signedItems(null)).toBeNull();
    const { items } = await judged("SG1");
    const before = { verdict: { decidedOn: "demo" } };
    const since = changedSinceDecision({ decision: "accept", ...before }, items);
    expect(since.map((c) => [c.was, c.is.item, c.is.result])).toEqual([[null, "appearance", "out"]]);
    for (const decision of ["concession", "hold", "scrap"])
      expect(changedSinceDecision({ decision, ...before }, items), decision).toEqual([]);
    expect(changedSinceDecision(undefined, items)).toEqual([]);
  });
});
