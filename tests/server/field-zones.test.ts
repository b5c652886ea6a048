import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { fieldReport } from "@/app/field-report";
import { fieldFindings } from "@/server/causes/findings/field";
import { storeEntry } from "@/server/entries/store-entry";
import { loadStructure, structuresOfRack } from "@/server/field/load-structure";
import { roundOf } from "@/server/field/round-of";
import { factOf, structuresByDue } from "@/server/field/structure-facts";
import { type ZoneFile, zonesOf } from "@/server/field/zones-of";
import { makeStructure } from "@/server/jobs/make-job";
import { newId, now } from "@/server/now";
import { storeRecord } from "@/server/record/store-record";
import { failureText } from "@/ui/words/failures";
import { zoneFound, zonePlace } from "@/ui/words/field-zones";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId, entryAt, freshRack, stored } from "../support/entries";

let t: TestDatabase;
const lead = person("lead", "ines");
const bea = { ...person("inspector", "bea"), name: "Bea Nandy" };
const tomasz = { ...person("inspector", "tomasz"), name: "Tomasz Reed" };
const at = now();
const iso = (moment: Date) => moment.toISOString().slice(0, 10);
const days = (n: number) => new Date(at.getTime() - n * 86_400_000);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const structure = (over: object) =>
  makeStructure(
    t.app,
    lead,
    {
      code: "FZ-1",
      name: "Gate by the slip",
      site: "North slip",
      rack: null,
      place: "left",
      putUpOn: null,
      exposure: ["weather"],
      ...over,
    },
    at,
  );
const idOf = async (code: string) =>
  (await t.app.selectFrom("structure").select("id").where("code", "=", code).executeTakeFirstOrThrow()).id;
const capture = (who: typeof bea, code: string, zone: string, when: Date, over: object) =>
  stored(t, who, when, { kind: "zone-visit", structure: code, zone, note: "", ...over });
const zones = async (code: string, coatedOn: Date | null = null) => zonesOf(t.app, await idOf(code), coatedOn);

describe("a structure", () => {
  test("of some pieces of a rack has these and no others; a serial that is none of its own is refused", async () => {
    await freshRack(t, "FZR", { at: days(900) });
    expect(await structure({ code: "FZ-P", rack: "FZR", serials: ["FZR-09"] })).toMatchObject({
      failure: { kind: "no-such-serial", serial: "FZR-09" },
    });
    expect(await structure({ code: "FZ-P", rack: "FZR", serials: ["FZR-02"] })).toMatchObject({ ok: true });
    const file = await loadStructure(t.app, lead, "FZ-P", at);
    expect(file?.pieces.map((p) => p.serial)).toEqual(["FZR-02"]);
  });
  test("of unknown origin is somebody's, and what is told of it has its grades", async () => {
    expect(await structure({ code: "FZ-1" })).toMatchObject({ failure: { kind: "unknown-set-up", what: "customer" } });
    expect(await structure({ code: "FZ-1", customer: "C1" })).toMatchObject({ ok: true });
    const fact = (over: object) =>
      entryAt(days(1), {
        kind: "structure-fact",
        structure: "FZ-1",
        toldCoater: "",
        toldSystem: "",
        note: "",
        ...over,
      });
    expect(await storeEntry(t.app, bea, fact({}), at)).toMatchObject({ failure: { kind: "nothing-said" } });
    expect(await storeEntry(t.app, bea, fact({ latitude: 52 }), at)).toMatchObject({
      failure: { kind: "bad-entry", field: "longitude" },
    });
    expect(
      await storeEntry(
        t.app,
        bea,
        fact({ toldYear: 2019, toldYearGrade: "by-procedure", toldCoater: "a shop upriver" }),
        at,
      ),
    ).toMatchObject({ ok: true });
    expect(await factOf(t.app, await idOf("FZ-1"))).toMatchObject({
      told_year: 2019,
      told_year_grade: "by-procedure",
      told_coater: "a shop upriver",
      told_coater_grade: "assumed",
      told_system_grade: null,
    });
  });
});

describe("its zones", () => {
  test("are walked as they are numbered, else what fails first; said anew they are as they were said last", async () => {
    const zone = (name: string, what: string, over: object = {}) =>
      stored(t, bea, days(800), { kind: "structure-zone", structure: "FZ-1", zone: name, what, note: "", ...over });
    await zone("lee side", "sheltered");
    await zone("panel", "face", { bearingDeg: 180 });
    await zone("lap", "seam", { lengthMm: 1200 });
    await zone("hinge", "contact", { place: 1 });
    await zone("old sign", "face");
    await stored(t, bea, days(700), {
      kind: "structure-zone",
      structure: "FZ-1",
      zone: "Old sign",
      what: "face",
      note: "",
      gone: true,
    });
    const all = await zones("FZ-1");
    expect(all.map((z) => z.name)).toEqual(["hinge", "lap", "panel", "lee side"]);
    expect(all.map((z) => zonePlace(z))).toContain("open face, faces south");
    expect(zoneFound(all[0] as (typeof all)[0], "metric", iso)).toBe("not looked at yet");
  });
  test.each([
    ["nothing", {}, "zone-empty"],
    ["blisters without a size", { blisterDensity: 2 }, "blisters-need-size"],
    ["a seam longer than all of it", { seamRustedMm: 900, seamMm: 600 }, "longer-than-all"],
    [
      "a scribe wider than what was read",
      { from: "scribe", scribeMm: 2, widthsMm: [1, 1, 1, 1, 1, 1] },
      "narrower-than-scribe",
    ],
  ])("with %s are refused in words that name the zone", async (_, over, kind) => {
    const entry = entryAt(days(1), { kind: "zone-visit", structure: "FZ-1", zone: "lap", note: "", ...over });
    const refused = await storeEntry(t.app, bea, entry, at);
    expect(refused).toMatchObject({ ok: false, failure: { kind } });
    if (!refused.ok) expect(failureText(refused.failure)).not.toMatch(/undefined|Refused/);
  });
  test("have two verdicts, by the worse of two who read the same zone, both of them kept", async () => {
    await capture(bea, "FZ-1", "lap", days(400), { seamRustedMm: 12, seamMm: 1200, rustPercent: 0 });
    await capture(bea, "FZ-1", "lap", days(2), { seamRustedMm: 30, seamMm: 1200, rustPercent: 0.02, tapeIso: 0 });
    await capture(tomasz, "FZ-1", "Lap", days(1.5), { seamRustedMm: 90, seamMm: 1200 });
    const lap = (await zones("FZ-1")).find((z) => z.name === "lap");
    expect(lap?.newest.map((c) => c.by)).toEqual(["Tomasz Reed", "Bea Nandy"]);
    expect(lap?.found).toMatchObject({ seam: { rustedMm: 90, ofMm: 1200 }, rustPercent: 0.02, tapeIso: 0 });
    expect(lap?.verdict).toMatchObject({ protection: "out", appearance: "unknown" });
    expect(zoneFound(lap as NonNullable<typeof lap>, "metric", iso)).toContain("seam 90 of 1200 mm rusted");
  });
  test("stand by each reading until it is read again: a later look at the gloss alone takes nothing away", async () => {
    const widthsMm = [5, 5.2, 4.9, 5.1, 5, 4.8];
    await capture(bea, "FZ-1", "old lap", days(740), { from: "chip", widthsMm, blisterDensity: 3, blisterSize: 4 });
    await capture(tomasz, "FZ-1", "old lap", days(739), { rustPercent: 3 });
    await capture(bea, "FZ-1", "old lap", days(5), { glossGu: [50], glossDeg: 60, blisterDensity: 0 });
    const lap = (await zones("FZ-1")).find((z) => z.name === "old lap") as ZoneFile;
    expect(lap.found).toMatchObject({ creepMm: 5, rustPercent: 3, blisters: { density: 0 } });
    expect(lap.verdict.protection).toBe("out");
    expect(lap.readAt).toMatchObject({ creep: days(740), rust: days(739), blisters: days(5) });
    const said = zoneFound(lap, "metric", iso);
    expect(said).toContain(`creep 5.0 mm (${iso(days(740))})`);
    expect(said).toContain(`rust 3\u00a0% (${iso(days(739))})`);
    expect(said).toMatch(/no blisters(,|$)/);
    // Half a year after trouble it is looked at: the visit for the gloss did not see that through.
    const due = async () => (await structuresByDue(t.app, lead)).find((s) => s.code === "FZ-1")?.due.why;
    expect(await due()).toBe("trouble");
    await capture(bea, "FZ-1", "old lap", days(4), { from: "chip", widthsMm: widthsMm.map(() => 0.2), rustPercent: 0 });
    expect((await zones("FZ-1")).find((z) => z.name === "old lap")?.verdict.protection).toBe("in");
  });
  test("are held to the sheltered zone's gloss where none was read at release", async () => {
    await capture(bea, "FZ-1", "lee side", days(2), { glossGu: [80, 82, 78], glossDeg: 60 });
    await capture(bea, "FZ-1", "panel", days(2), { glossGu: [36, 36], glossDeg: 60, chalk: 1 });
    const panel = (await zones("FZ-1")).find((z) => z.name === "panel");
    expect(panel?.glossOfRelease).toBeNull();
    expect(panel?.glossOfSheltered).toBeCloseTo(45, 6);
    expect(panel?.verdict).toMatchObject({ protection: "unknown", appearance: "out" });
  });
  test("and to what was read at release where it was", async () => {
    await stored(t, tomasz, days(880), {
      kind: "cure-test",
      rack: "FZR",
      test: "gloss-60",
      readings: [60, 60, 60],
      lower: null,
      upper: null,
      onPanel: false,
    });
    await capture(bea, "FZ-P", "panel", days(2), { glossGu: [54, 54, 54], glossDeg: 60 });
    const [panel] = await zones("FZ-P");
    expect(panel?.glossOfRelease).toBeCloseTo(90, 6);
  });
  test("tell how creep grows from ninety days on, and until when, with a range", async () => {
    const creep = (mean: number) => ({ from: "chip", widthsMm: [0.9, 1.1, 1, 1, 0.95, 1.05].map((f) => f * mean) });
    await capture(bea, "FZ-1", "hinge", days(430), creep(0.8));
    await capture(bea, "FZ-1", "hinge", days(2), creep(1.9));
    const hinge = (await zones("FZ-1")).find((z) => z.name === "hinge");
    expect(hinge?.creepRate?.ok && hinge.creepRate.value.rate).toBeCloseTo(1.1 / (428 / 365.25), 3);
    expect(hinge?.forecast?.ok && hinge.forecast.value.years[0]).toBeGreaterThan(0.9);
    await capture(bea, "FZ-P", "foot", days(40), creep(0.8));
    await capture(bea, "FZ-P", "foot", days(2), creep(1.9));
    const foot = (await zones("FZ-P", days(900))).find((z) => z.name === "foot");
    expect(foot?.creepRate).toMatchObject({ ok: false, error: { kind: "too-soon", days: 38 } });
  });
  test("noted all at once at a visit stand beside those of a round", async () => {
    await stored(t, bea, days(3), {
      kind: "visit",
      structure: "FZ-P",
      weather: "",
      note: "",
      creep: [],
      rust: [{ zone: "knee", sharePercent: 0.3 }],
    });
    expect((await zones("FZ-P")).find((z) => z.name === "knee")).toMatchObject({
      registered: false,
      found: { rustPercent: 0.3 },
      verdict: { protection: "watch" },
    });
  });
});

test("a share read from a photo keeps the machine's beside the accepted one, and its photo is of that structure", async () => {
  const photoOf = async (code: string) => {
    const id = newId();
    await storeRecord(
      t.app,
      {
        id,
        kind: "photo",
        happenedAt: days(2),
        by: "bea",
        grade: "measured",
        idempotencyKey: `photo:${id}`,
        structureId: await idOf(code),
        details: { photo: [{ caption: "rust", zone: "panel" }] },
      },
      at,
    );
    return id;
  };
  const entry = (photo: string) =>
    entryAt(days(2), {
      kind: "zone-visit",
      structure: "FZ-P",
      zone: "panel",
      rustPercent: 0.4,
      photos: [{ of: "rust", photo, machine: 0.52, removedPercent: 0.12, scale: null, pxPerMm: null }],
      note: "",
    });
  expect(await storeEntry(t.app, bea, entry(await photoOf("FZ-1")), at)).toMatchObject({
    failure: { kind: "not-of-this-structure" },
  });
  expect(await storeEntry(t.app, bea, entry(await photoOf("FZ-P")), at)).toMatchObject({ ok: true });
  const panel = (await zones("FZ-P")).find((z) => z.name === "panel");
  expect(panel?.newest[0]?.row).toMatchObject({ rust_percent: 0.4 });
  expect(panel?.newest[0]?.photos).toMatchObject([{ of: "rust", machine: 0.52, removed_percent: 0.12 }]);
});

describe("a round", () => {
  test("is taken up again within the day with what was done, and is another one after", async () => {
    const begun = roundOf(await zones("FZ-1"), bea, at);
    expect(begun.done.size).toBe(0);
    expect(roundOf(await zones("FZ-1"), bea, at).id).toBe(begun.id);
    expect(roundOf(await zones("FZ-1"), tomasz, at).id).not.toBe(begun.id);
    await capture(bea, "FZ-1", "hinge", new Date(at.getTime() - 3_600_000), { round: begun.id, sound: true });
    const again = roundOf(await zones("FZ-1"), bea, at);
    expect(again.id).toBe(begun.id);
    expect([...again.done]).toEqual(["hinge"]);
    expect(roundOf(await zones("FZ-1"), bea, new Date(at.getTime() + 86_400_000)).done.size).toBe(0);
  });
});

test("a visit that read gloss alone does not say that a structure has no trouble", async () => {
  expect(await structure({ code: "FZ-G", customer: "C1" })).toMatchObject({ ok: true });
  const line = async () => (await structuresByDue(t.app, lead)).find((s) => s.code === "FZ-G");
  await capture(bea, "FZ-G", "panel", days(3), { glossGu: [60, 61], glossDeg: 60 });
  expect(await line()).toMatchObject({ looked: false, trouble: false });
  expect((await line())?.lastVisit).not.toBeNull();
  await capture(bea, "FZ-G", "panel", days(2), { rustPercent: 0 });
  expect(await line()).toMatchObject({ looked: true, trouble: false });
});

describe("when it is looked at", () => {
  test("nothing drops off: what nobody looked at is first, what has trouble is soon, a customer's person sees their own", async () => {
    expect(await structure({ code: "FZ-2", customer: "C2" })).toMatchObject({ ok: true });
    const all = await structuresByDue(t.app, lead);
    expect(all[0]).toMatchObject({ code: "FZ-2", due: { why: "never-seen" } });
    // Told to be of 2019, out at its newest visit.
    const told = all.find((s) => s.code === "FZ-1");
    expect(told?.since?.getUTCFullYear()).toBe(2019);
    expect(told?.due.why).toBe("trouble");
    const viewer = { ...person("viewer", "otto"), customerId: await entityId(t, "customer", "C1") };
    const own = (await structuresByDue(t.app, viewer)).map((s) => s.code);
    expect(own).toContain("FZ-1");
    expect(own).not.toContain("FZ-2");
    expect(
      await storeEntry(
        t.app,
        viewer as never,
        entryAt(at, { id: newId(), kind: "zone-visit", structure: "FZ-1", zone: "lap", sound: true, note: "" }),
        at,
      ),
    ).toMatchObject({ ok: false });
  });
  test("the rack its pieces came from tells the worst that was found on it", async () => {
    const { id } = await t.app.selectFrom("rack").select("id").where("number", "=", "FZR").executeTakeFirstOrThrow();
    const [of] = await structuresOfRack(t.app, id);
    expect(of).toMatchObject({ code: "FZ-P", pieces: 1 });
    expect(of?.worstCreepMm).toBeCloseTo(1.9, 6);
  });
});

describe("the report for its owner", () => {
  const directory = mkdtempSync(path.join(tmpdir(), "field-"));
  afterAll(() => rmSync(directory, { recursive: true }));
  const text = (pdf: Buffer) => {
    const file = path.join(directory, "f.pdf");
    writeFileSync(file, pdf);
    return execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" }).replace(/\s+/g, " ");
  };
  test("says in short how it stands, what was not looked at, what to do and with what care, in words for laymen", async () => {
    const pdf = await fieldReport(t.app, lead, "FZ-1", "metric", at);
    if (!pdf) throw new Error("no report");
    const said = text(pdf);
    for (const words of [
      "The coating no longer keeps the metal at: lap.",
      "It no longer looks as it did at: panel.",
      "Not looked at for rust:",
      "by a shop upriver (assumed)",
      "Open the lap, rinse the salt out",
      "Cost: middle",
      "have them sealed",
      "No cause is confirmed yet.",
    ])
      expect(said, words).toContain(words);
  });
  test("of one that nobody looked at says so, and is none for another customer's person", async () => {
    const pdf = await fieldReport(t.app, lead, "FZ-2", "us", at);
    if (!pdf) throw new Error("no report");
    expect(text(pdf)).toContain("Nobody has looked at it yet.");
    const viewer = { ...person("viewer", "otto"), customerId: await entityId(t, "customer", "C1") };
    expect(await fieldReport(t.app, viewer, "FZ-2", "metric", at)).toBeNull();
  });
});

describe("what the zones say of a cause", () => {
  const said = async (zone: string) =>
    new Map(
      fieldFindings(await zones("FZ-C"), { zone, exposure: ["sun"], years: 4.2 }).map((f) => [f.finding, f.state]),
    );
  test("is a flake's back first of all, where it fails and where it does not, and nothing of what was not looked at", async () => {
    expect(await structure({ code: "FZ-C", customer: "C1" })).toMatchObject({ ok: true });
    const zone = (name: string, what: string, over: object = {}) =>
      stored(t, bea, days(800), { kind: "structure-zone", structure: "FZ-C", zone: name, what, note: "", ...over });
    expect([...(await said("edge"))]).toEqual([["years-in-sun", "present"]]);
    await zone("edge", "edge", { heightM: 0.2 });
    await zone("top face", "face", { heightM: 1.8, bearingDeg: 180 });
    await zone("back face", "face", { heightM: 1.6, bearingDeg: 0 });
    await capture(bea, "FZ-C", "edge", days(3), {
      rustPercent: 4,
      flake: { back: "scale", under: "bright", filmUm: 60, bag: "F-3" },
      saltMgPerM2: 80,
    });
    // The face was not looked at yet: whether it is the edges only is not known.
    expect((await said("edge")).has("only-edges")).toBe(false);
    await capture(bea, "FZ-C", "top face", days(3), { rustPercent: 0, chalk: 2, glossGu: [30, 30], glossDeg: 60 });
    const found = await said("edge");
    for (const [finding, state] of [
      ["flake-back-scale", "present"],
      ["flake-back-rust", "absent"],
      ["flake-back-clean", "absent"],
      ["breaks-between-coats", "absent"],
      ["only-edges", "present"],
      ["only-seams", "absent"],
      ["low-on-structure", "present"],
      ["salt-exposure", "present"],
      ["chalk-rubs-off", "present"],
    ] as const)
      expect(found.get(finding), finding).toBe(state);
    expect(found.has("sun-side")).toBe(false);
    // It fails high up as well: neither the edges only, nor low down only.
    await capture(bea, "FZ-C", "back face", days(3), { rustPercent: 3 });
    const later = await said("edge");
    expect(later.get("only-edges")).toBe("absent");
    expect(later.get("low-on-structure")).toBe("absent");
  });
});
