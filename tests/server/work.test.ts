import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { railStages } from "@/core/line";
import { valueOrThrow } from "@/core/result";
import { parseShorthand } from "@/core/shorthand";
import { loadBath } from "@/server/baths/load-bath";
import { confirmCause, openCase } from "@/server/causes/case-actions";
import { loadCase } from "@/server/causes/load-case";
import { entryFromShorthand } from "@/server/entries/from-shorthand";
import { pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { addPhoto } from "@/server/field/add-photo";
import { loadStructure, structuresOfRack } from "@/server/field/load-structure";
import { exportJob, listJobs, loadJob } from "@/server/jobs/load-job";
import { makeRack, makeStructure, nextRackNumber } from "@/server/jobs/make-job";
import { loadLine } from "@/server/line/load-line";
import { railFacts } from "@/server/line/rail-facts";
import { newId, now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import { certificatePdf } from "@/server/release/certificate";
import { places } from "@/server/search/places";
import { recentRecords } from "@/server/search/recent";
import { siteAt } from "@/server/setup/setup-data";
import { may, roles } from "@/server/sign-in/roles";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { dueList } from "@/ui/shift/due-list";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId, ownJob } from "../support/entries";

let t: TestDatabase;
const at = now();
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());
const entry = (rest: object) => {
  const id = newId();
  return { id, idempotencyKey: `w:${id}`, happenedAt: at.toISOString(), ...rest };
};
describe("jobs, racks and structures", () => {
  test("are made, listed, found and put up in the field", async () => {
    await ownJob(t, "J-W1", { at });
    expect(await makeRack(t.app, lead, { job: "J-W1", number: "W1001", pieces: 3 }, at)).toEqual({
      ok: true,
      href: "/racks/W1001",
    });
    expect((await loadJob(t.app, lead, "J-W1", at))?.racks.map((r) => r.number)).toEqual(["W1001"]);
    expect((await listJobs(t.app, lead, at)).jobs[0]?.number).toBe("J-W1");
    const rack = await loadRack(t.app, lead, "W1001");
    expect(rack?.pieces.map((p) => p.serial)).toEqual(["W1001-01", "W1001-02", "W1001-03"]);
    expect(
      await makeStructure(
        t.app,
        lead,
        {
          code: "Gate-1",
          name: "Gate",
          site: "Quay",
          rack: "W1001",
          place: "left",
          putUpOn: null,
          exposure: ["salt"],
        },
        at,
      ),
    ).toEqual({ ok: true, href: "/field/gate-1" });
    expect(await structuresOfRack(t.app, rack?.id ?? "")).toMatchObject([
      { code: "GATE-1", pieces: 3, lastVisit: null },
    ]);
    expect(await loadStructure(t.app, lead, "gate-1", at)).toMatchObject({ name: "Gate", exposure: ["salt"] });
  });
  test("a rack over what is left of the order is asked about, and hung when it is sure", async () => {
    await ownJob(t, "J-W5", { pieces: 5, at });
    const rack = (number: string, pieces: number, sure = false) =>
      makeRack(t.app, lead, { job: "J-W5", number, pieces, sure }, at);
    expect(await rack("W5001", 3)).toMatchObject({ ok: true });
    expect(await rack("W5002", 3)).toEqual({
      ok: false,
      failure: { kind: "more-than-ordered", ordered: 5, hung: 3, pieces: 3 },
    });
    expect(await rack("W5002", 2)).toMatchObject({ ok: true });
    expect(await rack("W5003", 1)).toMatchObject({ failure: { kind: "more-than-ordered", hung: 5 } });
    expect(await rack("W5003", 1, true)).toMatchObject({ ok: true });
    expect(await loadJob(t.app, lead, "J-W5", at)).toMatchObject({ ordered: 5, hung: 6 });
  });
  test("the next number of a tag follows the racks hung last, and is free", async () => {
    const next = (await nextRackNumber(t.app)) ?? "";
    expect(next).toMatch(/^\d{4}$/);
    expect(await makeRack(t.app, lead, { job: "J-W1", number: next, pieces: 1 }, at)).toMatchObject({ ok: true });
    expect(await nextRackNumber(t.app)).toBe(String(Number(next) + 1).padStart(4, "0"));
  });
  test("bad numbers, ranges, names and numbers already taken are refused by name; nothing half-made", async () => {
    for (const pieces of [0, -1, 1.5, 501, Number.NaN, "4"])
      expect(await makeRack(t.app, lead, { job: "J-408", number: "W2001", pieces }, at), String(pieces)).toMatchObject({
        ok: false,
        failure: { kind: "bad-entry", field: "pieces" },
      });
    expect(await makeRack(t.app, lead, { job: "J-408", number: "0942", pieces: 2 }, at)).toMatchObject({
      ok: false,
      failure: { kind: "number-taken", number: "0942" },
    });
    expect(await makeRack(t.app, lead, { job: "J-nope", number: "W2002", pieces: 2 }, at)).toMatchObject({
      ok: false,
      failure: { kind: "unknown-job" },
    });
    expect(
      await makeStructure(
        t.app,
        lead,
        {
          code: "JETTY-A",
          name: "x",
          site: "x",
          rack: "0870",
          place: "x",
          putUpOn: null,
          exposure: [],
        },
        at,
      ),
    ).toMatchObject({ ok: false, failure: { kind: "number-taken" } });
    expect(await loadRack(t.app, lead, "W2001")).toBeNull();
  });
});

describe("shorthand to entries", () => {
  const turn = async (text: string) =>
    entryFromShorthand(t.app, inspector, valueOrThrow(parseShorthand(text)), newId(), at.toISOString());
  test("a titration is worked out with the bath's own factor, and stored with what was typed", async () => {
    const made = valueOrThrow(await turn("tank 3 titr 8.4 ph 5.2"));
    expect(made).toMatchObject({
      kind: "bath-check",
      bath: "Tank 3",
      values: [
        { parameter: "concentration", typed: "8.4", titrantMl: 8.4, blankMl: 0.2 },
        { parameter: "ph", value: 5.2 },
      ],
    });
    expect((made as { values: { value: number }[] }).values[0]?.value).toBeCloseTo(2.05, 9);
    expect(await storeEntry(t.app, inspector, made, at)).toMatchObject({ ok: true });
    const series = (await loadBath(t.app, "Tank 3", new Date(at.getTime() + 1000)))?.series.find(
      (s) => s.parameter === "concentration",
    );
    expect(series?.points.at(-1)).toMatchObject({ typed: "8.4" });
  });
  test("what cannot be is said: a rinse has no titration, a film wants its rack and spot, a spot the part", async () => {
    expect(await turn("tank 4 titr 8.4")).toMatchObject({ ok: false, error: { kind: "expected" } });
    expect(await turn("tank 77 ph 5")).toMatchObject({ ok: false, error: { kind: "unknown-bath", name: "Tank 77" } });
    expect(await turn("dft a1 70")).toMatchObject({ ok: false, error: { kind: "expected", what: "the rack" } });
    expect(await turn("rack 0869 dft 70 71")).toMatchObject({
      ok: false,
      error: { kind: "expected", what: "the spot" },
    });
    expect(await turn("rack 0869 dft z9 70")).toMatchObject({ ok: false, error: { kind: "unknown-spot" } });
    expect(valueOrThrow(await turn("rack 0869 dft s2 2.9mil"))).toMatchObject({
      kind: "thickness",
      readings: [{ face: "S", spot: "S2", valueUm: 73.66, typed: "2.9mil" }],
    });
    expect(valueOrThrow(await turn("rack 0869 cut 3/25"))).toMatchObject({ kind: "cross-cut", squaresLost: 3 });
  });
});

describe("the line", () => {
  test("each stage has a fact, racks hang where they are, and what is due comes before what is to come, in order", async () => {
    const line = await loadLine(t.app, lead, at);
    const facts = railFacts(line, (moment) => moment.toISOString().slice(11, 16));
    expect(facts.stages.map((s) => s.id)).toEqual([...railStages]);
    for (const stage of ["prepare", "pretreat", "coat", "cure", "test"])
      expect(facts.stages.find((s) => s.id === stage)?.tags.length, stage).toBeGreaterThan(0);
    const due = dueList(line, "metric");
    expect(due.length).toBeGreaterThan(4);
    const times = due.map((d) => d.atMs ?? Number.POSITIVE_INFINITY);
    const near = (pressing: string | undefined) => at.getTime() + (pressing === "minutes" ? 30 * 60_000 : 0);
    const now = due.filter((d, i) => (times[i] as number) <= near(d.pressing));
    expect(due.slice(0, now.length)).toEqual(now);
    const toCome = times.slice(now.length);
    expect(toCome).toEqual([...toCome].sort((a, b) => a - b));
    const rank = { out: 0, watch: 1, unknown: 2, in: 3 };
    const waiting = now.filter((d) => !d.pressing).map((d) => rank[d.result]);
    expect(waiting).toEqual([...waiting].sort((a, b) => a - b));
    for (const item of due) expect(`${item.what} ${item.why} ${item.word}`).not.toMatch(/undefined|NaN|null/);
  });
  test("a passage scanned in moves the rack along the rail", async () => {
    const bare = (await loadLine(t.app, lead, at)).racks.find((r) => r.stage === "prepare");
    expect(
      await storeEntry(
        t.app,
        lead,
        entry({ kind: "passage", rack: bare?.number, stage: "booth", leftOut: "washed elsewhere, by the customer" }),
        at,
      ),
    ).toMatchObject({ ok: true });
    expect(
      (await loadLine(t.app, lead, new Date(at.getTime() + 1000))).racks.find((r) => r.number === bare?.number)?.stage,
    ).toBe("coat");
  });
  test("the shift before began by the clock on the wall, the night the clocks change too", async () => {
    const began = async (moment: string) =>
      (await loadLine(t.app, lead, new Date(moment))).shift.previousBegan.toISOString();
    const zone = (await siteAt(t.app, at)).timeZone;
    const said =
      zone === "Europe/London"
        ? [
            ["2027-03-27T09:00:00Z", "2027-03-26T22:00:00.000Z"],
            ["2027-03-28T09:00:00Z", "2027-03-27T22:00:00.000Z"],
            ["2027-10-31T09:00:00Z", "2027-10-30T21:00:00.000Z"],
          ]
        : [
            ["2027-03-14T13:00:00Z", "2027-03-14T01:30:00.000Z"],
            ["2027-11-07T13:00:00Z", "2027-11-07T00:30:00.000Z"],
          ];
    for (const [moment, previous] of said) expect(await began(moment as string), moment).toBe(previous);
  });
  test("a long quiet night is an overdue round, not an error", async () => {
    const line = await loadLine(t.app, lead, new Date(at.getTime() + 30 * 3_600_000));
    expect(dueList(line, "metric").some((d) => d.word === "Check overdue")).toBe(true);
  });
});

test("oven pull closes the load that is named once; the open one stays on record, superseded", async () => {
  const before = (await loadLine(t.app, lead, at)).bakes;
  expect(before.length).toBeGreaterThan(0);
  const operator = person("operator", "maren");
  const id = newId();
  const inOne = before.filter((b) => b.oven === "Oven 1");
  const loadNo = inOne.at(-1)?.load ?? "";
  // Of several nobody guesses.
  expect(inOne.length).toBeGreaterThan(1);
  expect(await pullLoad(t.app, operator, { oven: "1" }, id, at)).toMatchObject({ failure: { kind: "which-load" } });
  expect(await pullLoad(t.app, operator, { oven: "1", loadNo }, id, at)).toMatchObject({ ok: true, already: false });
  expect(await pullLoad(t.app, operator, { oven: "1", loadNo }, id, at)).toMatchObject({ ok: true, already: true });
  const after = (await loadLine(t.app, lead, at)).bakes;
  expect(after.length).toBe(before.length - 1);
  const rack = before.find((b) => !after.some((a) => a.load === b.load))?.racks[0] ?? "";
  const file = await loadRack(t.app, lead, rack);
  expect(file?.current.filter((r) => r.base.kind === "bake")).toHaveLength(1);
  expect(file?.current.find((r) => r.base.kind === "bake")?.details.bake?.[0]?.pulled_at).toEqual(at);
  expect(file?.thread.filter((r) => r.base.kind === "bake")).toHaveLength(2);
  expect(await pullLoad(t.app, operator, { oven: "9" }, newId(), at)).toMatchObject({
    ok: false,
    failure: { kind: "unknown-oven-name" },
  });
  expect(await pullLoad(t.app, person("viewer"), { oven: "1" }, newId(), at)).toMatchObject({
    ok: false,
    failure: { kind: "role-refused" },
  });
});

describe("cases", () => {
  test("an answered finding moves the ranking; the newest answer counts; confirmation needs its proof", async () => {
    const before = await loadCase(t.app, lead, "29");
    const strength = (file: typeof before, cause: string) =>
      file?.diagnosis.causes.find((c) => c.cause === cause)?.strength ?? 0;
    const answer = (state: string) =>
      storeEntry(
        t.app,
        inspector,
        entry({ kind: "finding", caseNumber: "29", finding: "cut-after-coating", state, note: "" }),
        at,
      );
    await answer("present");
    const seen = await loadCase(t.app, lead, "29");
    expect(strength(seen, "bare-cut-edge")).toBeGreaterThan(strength(before, "bare-cut-edge"));
    await answer("absent");
    const after = await loadCase(t.app, lead, "29");
    expect(strength(after, "bare-cut-edge")).toBeLessThan(strength(before, "bare-cut-edge"));
    expect(after?.diagnosis.causes.find((c) => c.cause === "bare-cut-edge")?.role).toBe("other");
    const confirmation = {
      id: newId(),
      caseNumber: "29",
      cause: "no-barrier-primer",
      proof: "Primed sisters are sound",
      correction: "",
      correctiveAction: "Primer in every quayside quote",
      who: "Ines",
      dueOn: null,
    };
    expect(await confirmCause(t.app, lead, { ...confirmation, proof: " " }, at)).toMatchObject({
      ok: false,
      failure: { kind: "bad-entry", field: "proof" },
    });
    expect(await confirmCause(t.app, lead, { ...confirmation, cause: "oven-dirt" }, at)).toMatchObject({
      ok: false,
      failure: { kind: "bad-entry", field: "cause" },
    });
    expect(await confirmCause(t.app, lead, confirmation, at)).toMatchObject({ ok: true });
    expect((await loadCase(t.app, lead, "29"))?.confirmation?.cause).toBe("no-barrier-primer");
  });
  test("two leads who open two cases at once get two numbers", async () => {
    const defects = await t.app
      .selectFrom("record")
      .select("id")
      .where("kind", "=", "defect")
      .orderBy("id")
      .limit(4)
      .execute();
    const opened = await Promise.all(
      defects.map((d) => openCase(t.app, lead, { defectRecordId: d.id, zone: "x" }, at)),
    );
    const hrefs = opened.map((o) => (o.ok ? o.href : ""));
    expect(new Set(hrefs).size).toBe(defects.length);
    expect(await openCase(t.app, lead, { defectRecordId: "not-an-id", zone: "" }, at)).toMatchObject({ ok: false });
    expect(await openCase(t.app, lead, { defectRecordId: newId(), zone: "" }, at)).toMatchObject({ ok: false });
  });
});

describe("photos", () => {
  const form = (bytes: Buffer, name = "a.jpg", structure = "JETTY-A") => {
    const f = new FormData();
    f.set("photo", new File([new Uint8Array(bytes)], name));
    f.set("structure", structure);
    f.set("id", newId());
    f.set("caption", "leg");
    return f;
  };
  test("pictures are taken; text, svg, half a picture and an unknown structure are not", async () => {
    const picture = await sharp({ create: { width: 900, height: 600, channels: 3, background: "#17695a" } })
      .jpeg()
      .toBuffer();
    const good = form(picture, "../../etc/passwd.jpg");
    expect(await addPhoto(t.app, inspector, good, at)).toMatchObject({ ok: true });
    expect(await addPhoto(t.app, inspector, good, at)).toMatchObject({ ok: true });
    const files = await t.app.selectFrom("file").select(["name", "media_type"]).execute();
    expect(files).toEqual([{ name: expect.not.stringContaining("/"), media_type: "image/jpeg" }]);
    expect(await addPhoto(t.app, inspector, form(Buffer.from("<svg onload=alert(1)>")), at)).toMatchObject({
      ok: false,
      failure: { kind: "wrong-kind-of-file" },
    });
    expect(await addPhoto(t.app, inspector, form(picture.subarray(0, picture.length >> 1)), at)).toMatchObject({
      ok: false,
      failure: { kind: "cut-off-upload" },
    });
    expect(await addPhoto(t.app, inspector, form(Buffer.alloc(0)), at)).toMatchObject({
      ok: false,
      failure: { kind: "empty-file" },
    });
    expect(await addPhoto(t.app, inspector, form(Buffer.alloc(11 * 1024 * 1024)), at)).toMatchObject({
      ok: false,
      failure: { kind: "too-large" },
    });
    expect(await addPhoto(t.app, inspector, form(picture, "a.jpg", "NOWHERE"), at)).toMatchObject({
      ok: false,
      failure: { kind: "unknown-structure" },
    });
  });
});

describe("leaving", () => {
  test("a job's export holds every record of its racks, superseded ones too, with hashes", async () => {
    const whole = await exportJob(t.app, lead, "J-273", at);
    expect(whole).toMatchObject({ format: "sorrel-job", version: 1, job: { number: "J-273" } });
    const rack = whole?.racks.find((r) => r.number === "0869");
    expect(rack?.records.map((r) => r.kind)).toEqual(
      expect.arrayContaining(["passage", "coat", "bake", "thickness", "cross-cut", "disposition"]),
    );
    for (const record of rack?.records ?? []) expect(record.contentHash).toMatch(/^[0-9a-f]{64}$/);
    expect(() => JSON.stringify(whole)).not.toThrow();
  });
  test("a certificate is a PDF of a page or two, however long its words", async () => {
    const long = "a very long note that goes on and on, ".repeat(12);
    const pdf = await certificatePdf({
      number: "1",
      site: "Site",
      customer: "C",
      job: "J",
      rack: "R",
      part: "P",
      pieces: "3",
      powder: "GR",
      named: [["Your order", long]],
      conceded: ["Look: Not looked at"],
      coatedOn: "today",
      decision: "Accepted",
      note: long,
      signedBy: "I. Calder",
      signedAt: "now",
      steps: [{ name: "Blast", proof: "47 µm ".repeat(30), grade: "measured" }],
      verdictWord: "in",
      items: [{ name: "Film", word: "In", text: long, grade: "measured" }],
      readings: [
        {
          face: "A",
          spots: Array.from({ length: 40 }, (_, i) => ({ spot: `A${i}`, mean: "70.1", readings: "70 71 72" })),
        },
      ],
      notMeasured: ["Gloss"],
      seal: "none",
      units: "metric",
      recordId: "x",
    });
    expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
    expect(pdf.length).toBeGreaterThan(8000);
  });
  test("records are paged by time and filtered by kind and rack", async () => {
    const first = await recentRecords(t.app, lead, at, 20);
    expect(first).toHaveLength(20);
    const older = await recentRecords(t.app, lead, first.at(-1)?.storedAt as Date, 20);
    expect((older.at(-1)?.storedAt.getTime() ?? 0) <= (first.at(-1)?.storedAt.getTime() ?? 0)).toBe(true);
    const run = (await recentRecords(t.app, lead, at, 60)).map((r) => [r.storedAt.getTime(), r.id] as const);
    // Some were stored in the same moment, and a page may end between them.
    expect(new Set(run.map(([ms]) => ms)).size).toBeLessThan(run.length);
    const walked: (readonly [number, string])[] = [];
    while (walked.length < run.length) {
      const [ms, id] = walked.at(-1) ?? [at.getTime(), null];
      const page = await recentRecords(t.app, lead, new Date(ms), 1, { beforeId: id });
      walked.push(...page.map((r) => [r.storedAt.getTime(), r.id] as const));
    }
    expect(walked).toEqual(run);
    for (const r of await recentRecords(t.app, lead, at, 30, { kind: "cross-cut" })) expect(r.kind).toBe("cross-cut");
    for (const r of await recentRecords(t.app, lead, at, 30, { rack: "0869" })) expect(r.rack).toBe("0869");
  });
  test("places are found by rack, piece, job, bath, case, structure and view; nothing for nothing", async () => {
    const first = async (word: string) => (await places(t.app, lead, word))[0]?.href;
    expect(await first("0869")).toBe("/racks/0869");
    expect(await first("0869-03")).toBe("/racks/0869");
    expect(await first("j-273")).toBe("/jobs/J-273");
    expect(await first("tank 3")).toBe("/pretreat/tank-3");
    expect(await first("t3")).toBe("/pretreat/tank-3");
    expect(await first("case 29")).toBe("/causes/29");
    expect(await first("jetty")).toBe("/field/jetty-a");
    expect(await first("import")).toBe("/records/import");
    const found = async (word: string, who = lead) => (await places(t.app, who, word)).map((p) => [p.label, p.href]);
    expect(await found("shelter")).toContainEqual(["Tram shelter post", expect.stringContaining("/plan/parts#")]);
    expect(await found("gr-505/2611-4")).toEqual([["Lot GR-505/2611-4", "/coat/powders#GR-505/2611-4"]]);
    expect(await found("saltmarsh")).toContainEqual([
      "Saltmarsh Ferries",
      expect.stringMatching(/^\/racks\?customer=/),
    ]);
    expect(await found("nandy")).toContainEqual(["Bea Nandy", "/records?by=bea"]);
    // A customer's person finds none of the shop's own.
    const otto = { ...person("viewer", "otto"), customerId: await entityId(t, "customer", "C1") };
    for (const word of ["shelter", "2611-4", "saltmarsh", "nandy"]) expect(await found(word, otto), word).toEqual([]);
    for (const r of await recentRecords(t.app, lead, at, 30, { by: "bea" })) expect(r.by).toBe("Bea Nandy");
    expect(await places(t.app, lead, "%")).toEqual([]);
    expect(await places(t.app, lead, "'; drop table rack; --")).toEqual([]);
    expect(await places(t.app, lead, "  ")).toEqual([]);
  });
});

describe("corrections", () => {
  test("a corrected film set is judged anew; the old one is out of the verdict and still on the thread", async () => {
    const rack = await loadRack(t.app, lead, "0870");
    const old = rack?.current.find((r) => r.base.kind === "thickness");
    const readings = (old?.details.thickness_reading ?? []).map((r) => ({
      face: r.face,
      spot: r.spot,
      valueUm: 30,
      typed: "30",
    }));
    expect(
      await storeEntry(
        t.app,
        inspector,
        entry({
          kind: "thickness",
          rack: "0870",
          source: "typed",
          typedUnit: "um",
          coatNo: 1,
          readings,
          supersedes: { recordId: old?.base.id, reason: "gauge was off" },
        }),
        at,
      ),
    ).toMatchObject({ ok: true });
    const after = await loadRack(t.app, lead, "0870");
    if (!after) throw new Error("rack");
    const film = judgeRack(after, await conditionsWhenPassed(t.app, [after.id], at)).items.find(
      (i) => i.item === "film",
    );
    expect(film?.result).toBe("out");
    expect(after.thread.find((r) => r.base.id === old?.base.id)?.supersededBy).toBeTruthy();
    expect(
      await storeEntry(
        t.app,
        person("inspector", "bea"),
        entry({
          kind: "thickness",
          rack: "0870",
          source: "typed",
          typedUnit: "um",
          coatNo: 1,
          readings,
          supersedes: { recordId: old?.base.id, reason: "me too" },
        }),
        at,
      ),
    ).toMatchObject({ ok: false, failure: { kind: "already-superseded", by: "Tomasz Reed", reason: "gauge was off" } });
  });
});

test("what each role may do", () => {
  const table = Object.fromEntries(
    roles.map((role) => [
      role,
      (["look", "log-line", "inspect", "release", "administer"] as const).filter((a) => may(role, a)).length,
    ]),
  );
  expect(table).toEqual({ administrator: 5, lead: 4, inspector: 3, operator: 2, viewer: 1 });
});
