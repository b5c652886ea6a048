import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { loadKnowledge } from "@/core/diagnosis";
import { type EntryInput, entryKinds, mayEnter } from "@/core/kinds";
import { conditionQuantityNames } from "@/core/preparation";
import { confirmCause, openCase } from "@/server/causes/case-actions";
import { storeEntry } from "@/server/entries/store-entry";
import { makeStructure } from "@/server/jobs/make-job";
import { newId, now } from "@/server/now";
import { readDetails } from "@/server/record/read-details";
import { storeRecord } from "@/server/record/store-record";
import { may, roles } from "@/server/sign-in/roles";
import { saveTestPlan } from "@/server/test-plan/save-test-plan";
import { failureText } from "@/ui/words/failures";
import { asBefore } from "../support/as-before";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { aCoat, coatedRack, entryAt, freshRack, stored } from "../support/entries";

type Kind = EntryInput["kind"];
let t: TestDatabase;
const at = now();
const ago = (minutes: number) => new Date(at.getTime() - minutes * 60_000);
const inspector = person("inspector", "tomasz");
const other = person("inspector", "bea");
const lead = person("lead", "ines");
/** Whoever may enter it and no more. */
const whoMay = (kind: string) => (mayEnter(kind) === "release" ? lead : inspector);
let caseNumber = "";
/** A defect that no case has yet, one for each test that joins it; and a trial that is planned. */
let looseDefects: string[] = [];
let trialId = "";
let complaintId = "";
let photoId = "00000000-0000-7000-8000-000000000001";
/** Stops to be taken back: one for each test that does. */
const stops: string[] = [];

/** One good entry of each kind, on a rack, bath, structure and case of this file's own. */
const good = (): Record<Kind, object> => ({
  "bath-check": {
    bath: "tank 3",
    values: [{ parameter: "ph", value: 5.3, typed: "5.3", typedUnit: "" }],
  },
  "bath-event": { bath: "tank 3", event: "recharge", product: "", amountL: null, note: "" },
  "wash-panel": {
    bath: "tank 3",
    beforeG: 41.32,
    afterG: 41.305,
    areaM2: 0.03,
    colour: "gold",
    look: "uniform-dull",
    note: "",
  },
  complaint: {
    rack: "E100",
    saidBy: "Their buyer",
    saidOn: ago(2 * 1440)
      .toISOString()
      .slice(0, 10),
    theirNumber: "RMA 77",
    defect: "orange-peel",
    what: "two of them look like orange skin",
    piecesReturned: 2,
    piecesAffected: 2,
    wants: "recoat",
  },
  "complaint-answer": {
    complaint: complaintId,
    answer: "We look into it and write again.",
    sentTo: "Their buyer",
    sentBy: "mail",
  },
  sludge: { bath: "tank 3", what: "measured", depthMm: 40, note: "" },
  upkeep: { item: "U-1", result: "put-right", value: null, who: "", note: "strainer cleaned" },
  "pre-flight": {
    rack: "E100",
    situation: "first-coat",
    sheet: "GR-505 booth 1",
    lot: "GR-505/2610-2",
    items: [
      { item: "hook-part", how: "measured", value: 0.3, good: null, note: "" },
      { item: "gloves", how: "by-procedure", value: null, good: true, note: "" },
      { item: "blotter", how: "skipped", value: null, good: null, note: "no blotter left" },
    ],
  },
  "lamp-check": {
    rack: "E100",
    coatNo: 1,
    faces: ["S", "L"],
    spots: [{ face: "L", x: 50, y: 90, what: "light-resprayed" }],
    wiped: true,
    plugsIn: 8,
    bumped: false,
    note: "",
  },
  "powder-height": { rack: "E100", readings: [{ face: "S", spot: "S1", heightUm: 118 }] },
  "first-panel": { lot: "GR-505/2611-4", result: "matches", gloss: 61, deltaE: 0.4, filmUm: 72, note: "" },
  "gauge-check": {
    instrument: "731",
    shims: [{ certifiedUm: 75, toleranceUm: 1, readingsUm: [75.2, 74.9, 75.1] }],
    note: "",
  },
  "bake-event": { oven: "Oven 1", loadNo: "E-LOAD", event: "infrared", valueC: 190, aim: "coated-part", note: "" },
  "oven-survey": {
    oven: "Oven 1",
    setPointC: 200,
    holdFromS: 0,
    holdToS: 600,
    doorAtS: null,
    places: ["door", "back"].map((place, i) => ({
      place,
      timeS: [0, 200, 400, 600],
      tempC: [198 + 4 * i, 199 + 4 * i, 199 + 4 * i, 198 + 4 * i],
    })),
    note: "",
  },
  "cure-test": { rack: "E100", test: "gloss-60", readings: [61, 60.5, 62], lower: 52, upper: 68, onPanel: true },
  "cure-trial": {
    question: "preheated or not",
    test: "gloss 60°",
    unit: "GU",
    programA: "from cold",
    programB: "preheated",
    valuesA: [70, 72, 71],
    valuesB: [76, 75, 77],
    note: "",
  },
  "film-plan": {
    rack: "E100",
    rule: "spot-area",
    areaM2: 60,
    inFt2: false,
    seed: 7,
    risks: { lot: 200, aql: 0.02, rql: 0.15, producerRisk: 0.05, consumerRisk: 0.1 },
  },
  "base-metal": { rack: "E100", readingsUm: [9, 11, 10, 12, 8, 10, 9, 11, 10, 10], note: "" },
  "round-skip": { bath: "tank 3", reason: "no titrant left" },
  "line-stop": { line: "Washer 1", until: ago(27).toISOString(), cause: "a hook caught" },
  "dry-off": { rack: "E100", airC: 130, metalC: 38, partsDry: true, hollowBlown: null, note: "" },
  outgas: {
    rack: "E100",
    channels: [{ name: "Hood", medium: "metal", timeS: [0, 600, 2700, 3000], tempC: [20, 225, 226, 120] }],
  },
  "cross-cut-photo": {
    rack: "E100",
    photo: photoId,
    squares: 25,
    spacingMm: 2,
    machinePercent: 3.1,
    shares: Array.from({ length: 25 }, (_, i) => (i === 3 ? 0.9 : 0)),
    onPanel: false,
  },
  "x-cut": { rack: "E100", off: "tear", tearMm: 1.2, onPanel: true },
  "wipe-off": { rack: "E112", note: "too light at the foot", rinsed: false, minutes: 12 },
  "touch-up": {
    rack: "E100",
    withWhat: "touch-up paint 7",
    places: [{ what: "hang mark, S", defect: null, face: "S", x: 50, y: 2, done: true }],
  },
  "fit-check": { rack: "E100", tries: [{ fit: "M8 threads", gauge: "M8 6H plug", goes: true }] },
  "panel-film": { panel: "E100-P0", layer: "primer", valuesUm: [55, 58, 61], note: "" },
  "structure-zone": { structure: "E-FIELD", zone: "leg foot", what: "foot", heightM: 0.2, bearingDeg: 180, note: "" },
  "structure-fact": {
    structure: "E-FIELD",
    toldYear: 2019,
    toldCoater: "a shop upriver",
    toldSystem: "one coat on blasted steel",
    saltM: 40,
    note: "",
  },
  "zone-visit": {
    structure: "E-FIELD",
    zone: "leg foot",
    sound: false,
    from: "chip",
    widthsMm: [3, 3.2, 2.8, 3.1, 3, 2.9],
    rustPercent: 0.4,
    blisterDensity: 2,
    blisterSize: 3,
    chalk: 1,
    flake: { back: "scale", under: "bright", filmUm: 48, bag: "F-12" },
    note: "",
  },
  "site-plan": {
    structure: "E-FIELD",
    document: {
      lines: [
        [
          [0.1, 0.2],
          [0.8, 0.2],
        ],
      ],
      words: [{ at: [0.5, 0.1], text: "the road" }],
      marks: [{ structure: "E-FIELD", at: [0.4, 0.6] }],
    },
    note: "",
  },
  "extra-work": { rack: "E100", what: "weld repaired", minutes: 25, charged: false },
  "test-skip": { rack: "E100", test: "bend", reason: "the mandrel is away for its yearly check" },
  panel: {
    rack: "E100",
    alsoFor: ["E110"],
    number: "E100-P1",
    metal: "hot-rolled-steel",
    madeFrom: "sheet 12",
    hungAt: "lower row",
    note: "",
  },
  "panel-reading": {
    panel: "E100-P0",
    cabinet: "salt-spray",
    hours: 240,
    widthsMm: [1.2, 1.4, 1, 1.1, 1.3, 1.2],
    scribeMm: 0.5,
    blisters: "",
    rustRi: 0,
    nextHours: 20_000,
    note: "",
  },
  "metal-mark": { rack: "E100", what: "pits", face: "S", x: 40, y: 60, decision: "go-on", reason: "under the slat" },
  "panel-test": {
    bath: "tank 3",
    test: "adhesion",
    washedAt: ago(2000).toISOString(),
    squaresLost: 0,
    squares: 25,
    hours: null,
    creepMm: null,
    coating: "GR-505, 76 µm",
    note: "",
  },
  "line-stop-back": { stop: stops[0] ?? "", reason: "noted for the other line" },
  passage: { rack: "E110", stage: "rinse" },
  "line-run": { rack: "E110", line: "Washer 1", speedMPerMin: 1.5 },
  "prep-step": { rack: "E100", step: "blast", done: true, value: 45, note: "" },
  conditions: { place: "hall", values: [{ quantity: conditionQuantityNames[0], value: 20 }] },
  coat: {
    rack: "E100",
    coatNo: 1,
    layer: "top",
    lot: "GR-505/2610-2",
    booth: "booth 1",
    kv: 70,
    currentUa: 20,
    gunAirKPa: 60,
    distanceMm: 200,
    earthMohm: 0.3,
    hookCycles: 1,
    sprayedHot: false,
    colourChangeBefore: true,
    reclaimPercent: 10,
  },
  load: {
    oven: "oven 1",
    loadNo: "E-1",
    timing: "door-close",
    setPointC: 200,
    places: [{ rack: "E101", place: "A1" }],
  },
  trace: {
    rack: "E111",
    oven: "oven 1",
    place: "A1",
    loadNo: "import e1",
    channels: [{ name: "Metal", medium: "metal", timeS: [0, 600, 1200], tempC: [20, 180, 190] }],
  },
  thickness: {
    rack: "E100",
    source: "typed",
    typedUnit: "um",
    coatNo: 1,
    readings: [{ face: "S", spot: "S1", valueUm: 71, typed: "71" }],
  },
  "cross-cut": { rack: "E100", squaresLost: 1, squares: 25, spacingMm: 2, onPanel: false },
  "solvent-rub": { rack: "E100", doubleRubs: 50, limit: 50, grade: 5, onPanel: false },
  look: { rack: "E100", faces: ["S", "L"], distanceM: 1, lightLux: 900, found: false, note: "" },
  "item-closed": { rack: "E100", what: "bump", seen: "whole, nothing rubbed off" },
  "pull-off": {
    rack: "E100",
    dollyMm: 20,
    forceN: 1885,
    adhesivePercent: 10,
    cohesivePercent: 90,
    gluePercent: 0,
    askedMPa: 5,
    onPanel: true,
  },
  defect: {
    rack: "E100",
    structure: null,
    defect: "orange-peel",
    face: "S",
    x: 40,
    y: 60,
    extentPercent: 10,
    piecesAffected: 1,
    piecesSeen: 2,
    note: "",
  },
  "action-check": { caseNumber, state: "done", seen: "two light passes asked", sheet: null, againOn: "2099-01-05" },
  finding: { caseNumber, finding: "profile-low", state: "present", note: "", zone: "the left edge" },
  "case-defect": { caseNumber, defects: looseDefects, state: "joined", why: "the same look, the same day" },
  "case-note": { caseNumber, text: "The fan was heard to race at noon", people: "M. Stile" },
  trial: {
    caseNumber,
    cause: "film-too-thick",
    plan: "Five panels at 110 µm, five at 75 µm, otherwise alike",
    panels: 5,
    expectWith: 0.9,
    expectWithout: 0.1,
    certainty: 0.95,
  },
  "trial-result": { trial: trialId, arm: "repeated", panels: 5, withIt: 4, note: "coarse on four" },
  visit: {
    structure: "E-FIELD",
    weather: "dry",
    note: "",
    creep: [{ zone: "edge", from: "scribe", scribeMm: 1, widthsMm: [3, 3, 3, 3, 3, 3] }],
  },
});
const kinds = entryKinds() as Kind[];
const make = (kind: Kind, over: object = {}) => entryAt(ago(30), { kind, ...good()[kind], ...over });
const count = async () =>
  Number(
    (
      await t.app
        .selectFrom("record")
        .select(({ fn }) => fn.countAll<string>().as("n"))
        .executeTakeFirstOrThrow()
    ).n,
  );

beforeAll(async () => {
  t = await testDatabase();
  for (const number of ["E100", "E101", "E102", "E110", "E111", "E112", "E113"])
    await freshRack(t, number, { at: ago(400) });
  const planned = await saveTestPlan(
    t.app,
    lead,
    {
      code: null,
      seen: null,
      reason: "so that one may be left out",
      data: {
        name: "Of one job",
        scope: { customer: null, part: null, job: "J-E100", exposure: [] },
        lines: [{ test: "bend", every: "rack", n: null, first: false }],
        switching: { backAfter: 5, easeAfter: null },
        retired: false,
      },
    },
    () => ago(380),
  );
  if (!planned.ok) throw new Error(JSON.stringify(planned.failure));
  // Oil comes off before the blast that one of the entries is.
  const oilOff = { kind: "prep-step", rack: "E100", step: "degrease", done: true, value: null, note: "" };
  await stored(t, inspector, ago(390), oilOff);
  await stored(t, inspector, ago(200), { kind: "coat", ...good().coat });
  for (const rack of ["E101", "E102", "E111", "E112", "E113"])
    await stored(t, inspector, ago(250), { ...aCoat(), rack });
  // Bumped after whatever closes it: open for every test.
  await stored(t, inspector, ago(5), { kind: "lamp-check", ...good()["lamp-check"], bumped: true });
  await stored(t, inspector, ago(60), { ...good().panel, kind: "panel", number: "E100-P0" });
  const rack = await t.app.selectFrom("rack").select("id").where("number", "=", "E100").executeTakeFirstOrThrow();
  photoId = newId();
  await storeRecord(
    t.app,
    {
      id: photoId,
      kind: "photo",
      happenedAt: ago(70),
      by: "tomasz",
      grade: "measured",
      idempotencyKey: `photo:${photoId}`,
      rackId: rack.id,
      details: { photo: [{ caption: "the cut", zone: null }] },
    },
    at,
  );
  await coatedRack(t, "E109", { at: ago(401) });
  await stored(t, inspector, ago(399), {
    kind: "load",
    oven: "Oven 1",
    loadNo: "E-LOAD",
    timing: "door-close",
    setPointC: 205,
    places: [{ rack: "E109", place: "B2" }],
  });
  const structure = await makeStructure(
    t.app,
    person("lead", "ines"),
    {
      rack: "E100",
      code: "E-FIELD",
      name: "Bench by the gate",
      site: "North pier",
      place: "left",
      putUpOn: ago(300).toISOString().slice(0, 10),
      exposure: ["weather"],
    },
    at,
  );
  if (!structure.ok) throw new Error(JSON.stringify(structure.failure));
  const defectRecordId = await stored(t, inspector, ago(40), { kind: "defect", ...good().defect });
  await stored(t, inspector, ago(39), { ...good().complaint, kind: "complaint" });
  complaintId = (
    await t.app.selectFrom("record").select("id").where("kind", "=", "complaint").executeTakeFirstOrThrow()
  ).id;
  const opened = await openCase(t.app, inspector, { defectRecordId, zone: "" }, at);
  if (!opened.ok) throw new Error(JSON.stringify(opened.failure));
  caseNumber = opened.href?.split("/").at(-1) ?? "";
  looseDefects = [
    await stored(t, inspector, ago(38), { kind: "defect", ...good().defect }),
    await stored(t, inspector, ago(37), { kind: "defect", ...good().defect }),
  ];
  trialId = await stored(t, inspector, ago(36), { kind: "trial", ...good().trial });
  const [cause = ""] = [...(loadKnowledge().defects.get("orange-peel")?.causes.keys() ?? [])];
  const confirmed = await confirmCause(
    t.app,
    lead,
    {
      id: newId(),
      caseNumber,
      cause,
      proof: "seen",
      correction: "",
      correctiveAction: "two passes",
      who: "I",
      dueOn: null,
    },
    at,
  );
  if (!confirmed.ok) throw new Error(JSON.stringify(confirmed.failure));
  for (const began of [120, 90]) {
    await stored(t, inspector, ago(began), {
      ...good()["line-stop"],
      kind: "line-stop",
      until: ago(began - 4).toISOString(),
    });
    const { id } = await t.app
      .selectFrom("record")
      .select("id")
      .where("kind", "=", "line-stop")
      .orderBy("stored_at", "desc")
      .orderBy("happened_at", "desc")
      .executeTakeFirstOrThrow();
    stops.push(id);
  }
});
afterAll(() => t.drop());

const kept: [kind: string, rows: unknown][] = [];
/** What an entry left on record, ids named as such and moments as minutes before now: alike on every day. */
async function keptBy(key: string): Promise<unknown> {
  const records = await t.app
    .selectFrom("record")
    .selectAll()
    .where((eb) => eb.or([eb("idempotency_key", "=", key), eb("idempotency_key", "like", `${key}:%`)]))
    .orderBy("idempotency_key")
    .execute();
  const details = await readDetails(
    t.app,
    records.map((r) => r.id),
  );
  const plain = (value: unknown): unknown => {
    if (value instanceof Date) return `${Math.round((at.getTime() - value.getTime()) / 60_000)} min before`;
    if (typeof value === "string")
      return /^[0-9a-f]{8}-[0-9a-f-]{27}$/.test(value) ? "id" : /^\d{4}-\d\d-\d\d/.test(value) ? "moment" : value;
    if (Array.isArray(value)) return value.map(plain);
    return value && typeof value === "object"
      ? Object.fromEntries(Object.entries(value).map(([k, v]) => [k, plain(v)]))
      : value;
  };
  const told = records.map((r) => ({
    of: r.idempotency_key.slice(key.length).replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, "id"),
    kind: r.kind,
    grade: r.grade,
    at: plain(r.happened_at),
    on: ["job_id", "rack_id", "bath_id", "structure_id", "case_id", "instrument_id", "bake_id"].filter(
      (c) => r[c as keyof typeof r] !== null,
    ),
    details: plain(details.get(r.id) ?? {}),
  }));
  return told.sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
}

describe("every kind of entry", () => {
  test.each(kinds)("%s: sent five times at once it is one, sent again it says so", async (kind) => {
    const entry = make(kind);
    const start = await count();
    const outcomes = await Promise.all(Array.from({ length: 5 }, () => storeEntry(t.app, whoMay(kind), entry, at)));
    for (const outcome of outcomes) expect(outcome).toMatchObject({ ok: true });
    expect(outcomes.filter((o) => o.ok && !o.already)).toHaveLength(1);
    expect(new Set(outcomes.map((o) => o.ok && o.recordId)).size).toBe(1);
    const made = (await count()) - start;
    expect(made).toBeGreaterThan(0);
    expect(await storeEntry(t.app, whoMay(kind), entry, at)).toMatchObject({ ok: true, already: true });
    expect((await count()) - start).toBe(made);
    // What a stop of the line moves hangs on what was in the washer just then.
    if (!kind.startsWith("line-stop")) kept.push([kind, await keptBy(entry.idempotencyKey)]);
  });
  test("what each of them keeps, column by column, as before", () => asBefore("entries", kept));
  test.each(kinds)("%s: its key under another moment is refused, and the first stands", async (kind) => {
    // A panel has one number, and its hours only run on.
    const other =
      { panel: { number: "E100-P2" }, "panel-reading": { hours: 480 }, "wipe-off": { rack: "E113" } }[kind as string] ??
      {};
    const rack =
      kind === "load"
        ? { loadNo: "E-2", places: [{ rack: "E102", place: "" }] }
        : kind === "line-stop-back"
          ? { stop: stops[1] }
          : {};
    // The line cannot stand twice at once: this stop is another one than the test before made.
    const when = kind === "line-stop" ? { until: ago(50).toISOString() } : {};
    const entry = {
      ...make(kind, { ...rack, ...other, ...when }),
      ...(kind === "line-stop" && { happenedAt: ago(55).toISOString() }),
    };
    expect(await storeEntry(t.app, whoMay(kind), entry, at)).toMatchObject({ ok: true, already: false });
    const start = await count();
    const moved = { ...entry, happenedAt: ago(kind === "line-stop" ? 54 : 29).toISOString() };
    expect(await storeEntry(t.app, whoMay(kind), moved, at)).toMatchObject({
      ok: false,
      failure: { kind: "key-conflict" },
    });
    expect(await count()).toBe(start);
  });
  test.each(kinds)("%s: only who may do it stores it", async (kind) => {
    for (const role of roles.filter((r) => !may(r, mayEnter(kind) ?? "administer"))) {
      const start = await count();
      const outcome = await storeEntry(t.app, person(role, "ghost"), make(kind), at);
      expect(outcome).toMatchObject({ ok: false, failure: { kind: "role-refused", role, needs: mayEnter(kind) } });
      expect(await count()).toBe(start);
    }
  });
  test.each(kinds)("%s: not before its time, nor long before any record", async (kind) => {
    const ahead = { ...make(kind), happenedAt: new Date(at.getTime() + 20 * 60_000).toISOString() };
    expect(await storeEntry(t.app, whoMay(kind), ahead, at)).toMatchObject({ failure: { kind: "in-the-future" } });
    const ancient = { ...make(kind), happenedAt: "1969-07-20T20:17:00.000Z" };
    expect(await storeEntry(t.app, whoMay(kind), ancient, at)).toMatchObject({ failure: { kind: "too-long-ago" } });
  });
  test.each(kinds)(
    "%s: without its own fields, or with a foreign one in their place, it is refused at that field",
    async (kind) => {
      for (const field of Object.keys(good()[kind])) {
        for (const wrong of [{ nothing: true }, "x".repeat(3000), "a\u0000b", Number.NaN]) {
          const start = await count();
          const outcome = await storeEntry(t.app, whoMay(kind), make(kind, { [field]: wrong }), at);
          expect(outcome, `${field} ${String(wrong).slice(0, 9)}`).toMatchObject({ ok: false });
          if (!outcome.ok) expect(failureText(outcome.failure).length, field).toBeLessThan(400);
          expect(await count()).toBe(start);
        }
      }
    },
  );
});

describe("what an entry is about must be there", () => {
  const stray: [Kind, object, string][] = [
    ["bath-check", { bath: "tank 99" }, "unknown-bath"],
    ["bath-event", { bath: "tank 99" }, "unknown-bath"],
    ["passage", { rack: "E999" }, "unknown-rack"],
    ["line-run", { rack: "E999" }, "unknown-rack"],
    ["line-run", { line: "no such line" }, "unknown-set-up"],
    ["prep-step", { rack: "E999" }, "unknown-rack"],
    ["coat", { rack: "E999" }, "unknown-rack"],
    ["coat", { lot: "XX/1" }, "unknown-set-up"],
    ["coat", { lot: "GR-210/2610-2" }, "wrong-powder"],
    ["coat", { layer: "primer" }, "not-a-primer"],
    ["load", { oven: "oven 99" }, "unknown-oven-name"],
    ["load", { places: [{ rack: "E999", place: "" }] }, "unknown-rack"],
    [
      "load",
      {
        places: [
          { rack: "E100", place: "" },
          { rack: "E100", place: "" },
        ],
      },
      "value-given-twice",
    ],
    ["thickness", { rack: "E999" }, "unknown-rack"],
    ["thickness", { readings: [{ face: "S", spot: "S9", valueUm: 70, typed: "70" }] }, "unknown-spot"],
    ["cross-cut", { rack: "E999" }, "unknown-rack"],
    ["cross-cut", { squaresLost: 26 }, "bad-squares"],
    ["solvent-rub", { rack: "E999" }, "unknown-rack"],
    ["solvent-rub", { doubleRubs: 51 }, "bad-rubs"],
    ["pull-off", { rack: "E999" }, "unknown-rack"],
    ["look", { rack: "E999" }, "unknown-rack"],
    ["look", { faces: ["S", "Q"] }, "unknown-spot"],
    ["look", { faces: [] }, "bad-entry"],
    ["item-closed", { rack: "E999" }, "unknown-rack"],
    ["item-closed", { what: "pre-flight-off" }, "not-open"],
    ["pull-off", { dollyMm: 0 }, "bad-entry"],
    ["pull-off", { cohesivePercent: 80 }, "shares-do-not-add"],
    ["defect", { rack: "E999" }, "unknown-rack"],
    ["defect", { rack: null, structure: "NO-SUCH" }, "unknown-structure"],
    ["defect", { piecesAffected: 3 }, "more-affected-than-seen"],
    ["finding", { caseNumber: "C-9999" }, "unknown-case"],
    ["site-plan", { structure: "NO-SUCH" }, "unknown-structure"],
    ["site-plan", { picture: "01a208b1-7efb-7fd9-ad4e-654fd57dba4a" }, "not-of-this-site"],
    ["site-plan", { document: { lines: [[[0.1, 0.2]]], words: [], marks: [] } }, "bad-entry"],
    [
      "site-plan",
      { document: { lines: [], words: [], marks: [{ structure: "NO-SUCH", at: [0.5, 0.5] }] } },
      "unknown-structure",
    ],
    ["case-note", { caseNumber: "C-9999" }, "unknown-case"],
    ["case-note", { text: "?" }, "bad-entry"],
    ["case-defect", { caseNumber: "C-9999" }, "unknown-case"],
    ["case-defect", { defects: ["01a208b1-7efb-7fd9-ad4e-654fd57dba4a"] }, "unknown-superseded"],
    ["trial", { caseNumber: "C-9999" }, "unknown-case"],
    ["trial", { cause: "mill-scale" }, "bad-entry"],
    ["trial", { expectWith: 0.1, expectWithout: 0.4 }, "bad-entry"],
    ["trial-result", { trial: "01a208b1-7efb-7fd9-ad4e-654fd57dba4a" }, "bad-entry"],
    ["trial-result", { withIt: 9 }, "bad-entry"],
    ["action-check", { caseNumber: "C-9999" }, "unknown-case"],
    ["action-check", { sheet: "no such sheet" }, "unknown-set-up"],
    ["action-check", { againOn: "2020-01-05" }, "bad-entry"],
    ["visit", { structure: "NO-SUCH" }, "unknown-structure"],
    [
      "visit",
      { creep: [{ zone: "edge", from: "scribe", scribeMm: 4, widthsMm: [3, 3, 3, 3, 3, 3] }] },
      "narrower-than-scribe",
    ],
    [
      "visit",
      { creep: [{ zone: "edge", from: "area", scribeMm: 1, widthsMm: [], areaMm2: 20, lengthMm: 50 }] },
      "narrower-than-scribe",
    ],
    ["visit", { creep: [{ zone: "edge", from: "area", scribeMm: 1, widthsMm: [], areaMm2: 200 }] }, "bad-entry"],
    ["visit", { creep: [{ zone: "edge", from: "chip", scribeMm: null, widthsMm: [] }] }, "bad-entry"],
    ["visit", { rust: [{ zone: "edge", sharePercent: 101 }] }, "bad-entry"],
    [
      "visit",
      {
        rust: [
          { zone: "edge", sharePercent: 1 },
          { zone: "Edge", sharePercent: 2 },
        ],
      },
      "bad-entry",
    ],
  ];
  test.each(stray)("%s %j: %s", async (kind, over, failure) => {
    const start = await count();
    const outcome = await storeEntry(t.app, inspector, make(kind, over), at);
    expect(outcome).toMatchObject({ ok: false, failure: { kind: failure } });
    if (!outcome.ok) expect(failureText(outcome.failure)).not.toMatch(/^Refused:|undefined|null|NaN/);
    expect(await count()).toBe(start);
  });
});

describe("corrections", () => {
  const check = (value: number) => ({
    kind: "bath-check",
    bath: "tank 3",
    values: [{ parameter: "ph", value, typed: String(value), typedUnit: "" }],
  });
  const correcting = (recordId: string, value: number, reason: string) =>
    entryAt(ago(20), { ...check(value), supersedes: { recordId, reason } });
  test("of two people at once one is kept, and the other is told whose", async () => {
    const wrong = await stored(t, inspector, ago(25), check(9.9));
    const outcomes = await Promise.all([
      storeEntry(t.app, inspector, correcting(wrong, 10.1, "electrode was dry"), at),
      storeEntry(t.app, other, correcting(wrong, 10.2, "read off by a line"), at),
    ]);
    expect(outcomes.filter((o) => o.ok)).toHaveLength(1);
    const lost = outcomes.find((o) => !o.ok);
    if (!lost || lost.ok) throw new Error("both stored");
    expect(lost.failure).toMatchObject({ kind: "already-superseded" });
    const winner = outcomes[0]?.ok ? ["Tomasz Reed", "electrode was dry"] : ["Bea Nandy", "read off by a line"];
    for (const word of winner) expect(failureText(lost.failure)).toContain(word);
  });
  test("want their reason, and a record of the same kind", async () => {
    const wrong = await stored(t, inspector, ago(25), check(9.8));
    expect(await storeEntry(t.app, inspector, correcting(wrong, 10, "  "), at)).toMatchObject({
      failure: { kind: "bad-entry", field: "supersedes.reason" },
    });
    expect(await storeEntry(t.app, inspector, correcting(newId(), 10, "slip"), at)).toMatchObject({
      failure: { kind: "unknown-superseded" },
    });
    const cut = make("cross-cut", { supersedes: { recordId: wrong, reason: "slip" } });
    expect(await storeEntry(t.app, inspector, cut, at)).toMatchObject({ failure: { kind: "unknown-superseded" } });
  });
  test("an entry of several readings is corrected reading by reading", async () => {
    const wrong = await stored(t, inspector, ago(25), { kind: "conditions", ...good().conditions });
    const again = make("conditions", { supersedes: { recordId: wrong, reason: "slip" } });
    expect(await storeEntry(t.app, inspector, again, at)).toMatchObject({ failure: { kind: "correct-one-by-one" } });
  });
});
