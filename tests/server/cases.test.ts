import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { casesOf, proposals, severityOf } from "@/server/causes/board";
import { confirmCause, openCase } from "@/server/causes/case-actions";
import { caseThread, trialsOf } from "@/server/causes/case-thread";
import { keepKnowledge, previewKnowledge } from "@/server/causes/change-knowledge";
import { changedSinceGood } from "@/server/causes/changed-since-good";
import { openActions } from "@/server/causes/corrective-actions";
import { bySite, failingZones, openZoneCase } from "@/server/causes/failing-zones";
import { heldColumns } from "@/server/causes/held-columns";
import { holdAtRisk } from "@/server/causes/hold-at-risk";
import { baseWeights, knownHere } from "@/server/causes/known-here";
import { loadCase } from "@/server/causes/load-case";
import { countsOf, foretoldBy, onWatch } from "@/server/causes/watches";
import { makeStructure } from "@/server/jobs/make-job";
import { newId, now } from "@/server/now";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { freshRack, stored } from "../support/entries";

let t: TestDatabase;
const lead = person("lead", "ines");
const inspector = person("inspector", "tomasz");
const numberOf = (came: { ok: boolean; href?: string }): string => came.href?.split("/").pop() ?? "";
const seenOn = (rack: string, over: object = {}) =>
  stored(t, inspector, now(), {
    kind: "defect",
    rack,
    structure: null,
    defect: "craters",
    face: null,
    x: null,
    y: null,
    extentPercent: null,
    piecesAffected: null,
    piecesSeen: null,
    note: "",
    ...over,
  });
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

describe("the board", () => {
  test("gathers what is alike into a case; joined it is there no more, split off it is again", async () => {
    const before = await proposals(t.app, lead);
    const group = before.find((p) => p.defect === "pinholes");
    if (!group) throw new Error("no pinholes in the demo");
    expect(group.items.length).toBeGreaterThan(3);
    const [first, ...rest] = group.items.map((i) => i.id);
    const opened = await openCase(t.app, lead, { defectRecordId: first, zone: "", alike: rest }, now());
    const again = await openCase(t.app, inspector, { defectRecordId: rest[0], zone: "" }, now());
    expect(again).toEqual(opened);
    expect((await proposals(t.app, lead)).some((p) => p.defect === "pinholes")).toBe(false);
    const number = numberOf(opened as { ok: boolean; href: string });
    const file = await loadCase(t.app, lead, number);
    expect(file?.defects).toHaveLength(group.items.length);
    expect(file?.diagnosis.causes[0]?.cause).toBe("casting-gas");
    await stored(t, inspector, now(), {
      kind: "case-defect",
      caseNumber: number,
      defects: [rest[0]],
      state: "split",
      why: "",
    });
    expect((await loadCase(t.app, lead, number))?.defects).toHaveLength(group.items.length - 1);
    expect((await proposals(t.app, lead)).filter((p) => p.defect === "pinholes")).toHaveLength(1);
    expect((await casesOf(t.app, lead)).find((c) => c.number === number)?.defects).toBe(group.items.length - 1);
    const other = await openCase(t.app, lead, { defectRecordId: rest[0], zone: "", alike: [first] }, now());
    expect(other).toMatchObject({ ok: false, failure: { kind: "in-another-case", number } });
  });
  test("hundreds on one rack are one proposal, and one case", async () => {
    const { held } = await heldColumns(t.app, now());
    const rack = held.numbers.at(-4) as string;
    const ids: string[] = [];
    for (let i = 0; i < 150; i++) ids.push(await seenOn(rack, { note: `crater ${i}` }));
    const mine = (await proposals(t.app, lead)).filter((p) => p.defect === "craters");
    expect(mine).toHaveLength(1);
    expect(mine[0]?.items).toHaveLength(150);
    const opened = await openCase(t.app, lead, { defectRecordId: ids[0], zone: "", alike: ids.slice(1) }, now());
    const file = await loadCase(t.app, lead, numberOf(opened as { ok: boolean; href: string }));
    expect(file?.defects).toHaveLength(150);
    expect(file?.diagnosis.enoughToTell).toBe(false);
    expect(file?.diagnosis.nextChecks.length).toBe(3);
  });
  test("weight: what is in use is high, what weakens the coat or is on many is middle, a slip low", () => {
    const about = { defect: "inclusions", out: false, racks: 1, share: 0.1 };
    expect(severityOf(about)).toBe("low");
    expect(severityOf({ ...about, out: true })).toBe("high");
    expect(severityOf({ ...about, defect: "rust-creep" })).toBe("middle");
    expect(severityOf({ ...about, racks: 3 })).toBe("middle");
    expect(severityOf({ ...about, share: 0.25 })).toBe("middle");
  });
  test("one case opened twice at once is one", async () => {
    const { held } = await heldColumns(t.app, now());
    const id = await seenOn(held.numbers.at(-8) as string, { defect: "sags" });
    const [a, b] = await Promise.all([
      openCase(t.app, lead, { defectRecordId: id, zone: "" }, now),
      openCase(t.app, inspector, { defectRecordId: id, zone: "" }, now),
    ]);
    expect(a).toEqual(b);
    expect(
      await t.app.selectFrom("root_cause_case").selectAll().where("defect_record_id", "=", id).execute(),
    ).toHaveLength(1);
  });
  test("a zone past its limit stands there until it has a case; opened it is one, and once", async () => {
    const failing = await failingZones(t.app, lead);
    expect(failing.length).toBeGreaterThan(0);
    // What has faded stands there as well as what rusts, each once for a structure.
    expect(new Set(failing.map((f) => f.defect))).toContain("chalking");
    expect(new Set(failing.map((f) => `${f.structure} ${f.defect}`)).size).toBe(failing.length);
    const one = failing.find((f) => f.defect !== "chalking");
    if (!one) throw new Error("nothing rusts");
    const input = { structure: one.structure, defect: one.defect, zone: one.zones[0] ?? "" };
    const opened = await openZoneCase(t.app, inspector, input, now);
    expect(opened).toEqual(await openZoneCase(t.app, lead, input, now));
    const file = await loadCase(t.app, lead, numberOf(opened as { ok: boolean; href: string }));
    expect(file?.structure?.code).toBe(one.structure);
    expect(file?.defects).toHaveLength(1);
    const after = await failingZones(t.app, lead);
    expect(after.some((f) => f.structure === one.structure && f.defect === one.defect)).toBe(false);
    expect(await openZoneCase(t.app, inspector, { ...input, structure: "NO-SUCH" }, now)).toMatchObject({
      failure: { kind: "unknown-structure" },
    });
  });
  test("structures of one site that fail alike open as one case, each of which then has it until it is split off", async () => {
    const group = bySite((await failingZones(t.app, lead)).filter((f) => f.defect !== "chalking"))[0] ?? [];
    expect(group.length).toBeGreaterThan(2);
    expect(new Set(group.map((g) => `${g.site} ${g.defect}`)).size).toBe(1);
    const [first, second, ...rest] = group.map((g) => g.structure);
    const defect = group[0]?.defect ?? "";
    // One that stands no longer stops all of it: nothing is put on record of the others.
    const count = async () =>
      (await t.app.selectFrom("record").select("id").where("kind", "=", "defect").execute()).length;
    const before = await count();
    expect(
      await openZoneCase(t.app, inspector, { structure: first, defect, zone: "", alike: [second, "NO-SUCH"] }, now),
    ).toMatchObject({ failure: { kind: "no-longer-failing", structure: "NO-SUCH" } });
    expect(await count()).toBe(before);
    const opened = await openZoneCase(
      t.app,
      inspector,
      { structure: first, defect, zone: "", alike: [second, ...rest.slice(0, 3)] },
      now,
    );
    expect(opened).toMatchObject({ ok: true });
    const file = await loadCase(t.app, lead, numberOf(opened as { ok: boolean; href: string }));
    expect(file?.defects).toHaveLength(2 + Math.min(3, rest.length));
    // What nobody read in a rack of this shop is told of the structure, with what the telling is worth.
    const told = file?.established ?? [];
    expect(told.find((f) => f.finding === "no-primer")?.grade).toMatch(/by-procedure|assumed/);
    expect(told.some((f) => f.finding === "salt-exposure")).toBe(true);
    const left = (await failingZones(t.app, lead)).filter((f) => f.defect === defect).map((f) => f.structure);
    expect(left).not.toContain(first);
    expect(left).not.toContain(second);
    // Whoever opens one of them comes to the same case.
    expect(await openZoneCase(t.app, lead, { structure: second, defect, zone: "" }, now)).toEqual(opened);
  });
});

describe("a case with places, trials and an end", () => {
  let number = "";
  let rack = "";
  test("what is said of one place counts there, and each place has its own causes", async () => {
    const { held } = await heldColumns(t.app, now());
    rack = held.numbers.at(-12) as string;
    const id = await seenOn(rack, { defect: "light-coverage" });
    number = numberOf(
      (await openCase(t.app, lead, { defectRecordId: id, zone: "" }, now())) as { ok: boolean; href: string },
    );
    const say = (finding: string, state: string, zone: string | null) =>
      stored(t, inspector, now(), { kind: "finding", caseNumber: number, finding, state, note: "", zone });
    for (const [finding, zone] of [
      ["only-recesses", "corner"],
      ["deep-recess", "corner"],
      ["film-low", "corner"],
      ["only-far-faces", "underside"],
      ["hidden-face", "underside"],
    ] as const)
      await say(finding, "present", zone);
    const file = await loadCase(t.app, lead, number);
    const lead_ = (zone: string) => file?.zones.find((z) => z.zone === zone)?.diagnosis.causes[0]?.cause;
    expect(lead_("corner")).toBe("faraday-recess");
    expect(lead_("underside")).toBe("face-not-reached");
    for (const finding of ["only-recesses", "hidden-face"])
      expect(file?.diagnosis.checks.map((c) => c.finding)).not.toContain(finding);
  });
  test("a trial adds up over its results", async () => {
    const trial = await stored(t, inspector, now(), {
      kind: "trial",
      caseNumber: number,
      cause: "faraday-recess",
      plan: "Six corners at full voltage, six at 45 kV",
      panels: 6,
      expectWith: 0.9,
      expectWithout: 0.1,
      certainty: 0.95,
    });
    for (const [arm, panels, withIt] of [
      ["repeated", 4, 4],
      ["repeated", 2, 2],
      ["taken-away", 6, 0],
    ] as const)
      await stored(t, inspector, now(), { kind: "trial-result", trial, arm, panels, withIt, note: "" });
    const file = await loadCase(t.app, lead, number);
    const [seen] = await trialsOf(t.app, file?.id ?? "");
    expect(seen?.counts).toEqual({ repeated: { panels: 6, withIt: 6 }, "taken-away": { panels: 6, withIt: 0 } });
    const kinds = (await caseThread(t.app, file?.id ?? "")).map((e) => e.kind);
    expect(kinds.filter((k) => k === "trial-result")).toHaveLength(3);
  });
  const confirmation = (over: object = {}) => ({
    id: newId(),
    caseNumber: number,
    cause: "faraday-recess",
    zone: "corner",
    sharePercent: 70,
    alsoActing: [{ cause: "face-not-reached", zone: "underside", sharePercent: 30 }],
    proof: "six of six against none of six",
    chain: ["The voltage stayed at its full figure in corners", "The sheet names no voltage for corners"],
    correction: "resprayed at 45 kV",
    correctiveAction: "the sheet asks 45 kV in recesses",
    tiedTo: "other",
    tiedCode: "spray card",
    who: "M. Stile",
    dueOn: null,
    seen: null,
    ...over,
  });
  test("several causes are confirmed with place and share; what does not add up is refused", async () => {
    for (const [over, field] of [
      [{ sharePercent: 80 }, "sharePercent"],
      [{ alsoActing: [{ cause: "faraday-recess", zone: "corner", sharePercent: 10 }] }, "alsoActing"],
      [{ alsoActing: [{ cause: "mill-scale", zone: "", sharePercent: null }] }, "cause"],
    ] as const)
      expect(await confirmCause(t.app, lead, confirmation(over), now)).toMatchObject({
        failure: { kind: "bad-entry", field },
      });
    expect(
      await confirmCause(t.app, lead, confirmation({ tiedTo: "setup-sheet", tiedCode: "no such" }), now),
    ).toMatchObject({
      failure: { kind: "unknown-set-up" },
    });
    const kept = await confirmCause(t.app, lead, confirmation(), now);
    expect(kept.ok).toBe(true);
    const file = await loadCase(t.app, lead, number);
    expect(file?.confirmation).toMatchObject({
      cause: "faraday-recess",
      chain: ["The voltage stayed at its full figure in corners", "The sheet names no voltage for corners"],
      tied_to: "other",
      causes: [
        { cause: "faraday-recess", zone: "corner", sharePercent: 70 },
        { cause: "face-not-reached", zone: "underside", sharePercent: 30 },
      ],
    });
    const second = await confirmCause(t.app, lead, confirmation({ cause: "booth-draught", alsoActing: [] }), now);
    expect(second).toMatchObject({ failure: { kind: "confirmed-meanwhile" } });
  });
  test("what was confirmed moves how common causes are taken to be, slowly, not for its own case, and can be put back", async () => {
    const here = await knownHere(t.app, now());
    const shipped = here.knowledge.defects.get("light-coverage")?.causes.get("faraday-recess") ?? 0;
    const learned = baseWeights(here, "light-coverage").get("faraday-recess") ?? 0;
    expect(learned).toBeGreaterThan(shipped);
    expect(learned / shipped).toBeLessThan(1.3);
    const file = await loadCase(t.app, lead, number);
    expect(file?.weights.get("faraday-recess")).toBeCloseTo(shipped, 9);
    const put = await keepKnowledge(
      t.app,
      lead,
      {
        change: { kind: "learn-anew", defect: "light-coverage" },
        seen: here.item?.versionId ?? null,
        reason: "a new gun",
      },
      now,
    );
    expect(put.ok).toBe(true);
    expect(baseWeights(await knownHere(t.app, now()), "light-coverage").get("faraday-recess")).toBeCloseTo(shipped, 9);
  });
  test("a weight set otherwise says first which cases it would re-rank, and then counts; of two at once one is told", async () => {
    const change = {
      kind: "weight",
      defect: "light-coverage",
      cause: "faraday-recess",
      finding: "only-recesses",
      whenPresent: -5,
      whenAbsent: 0,
      because: "Recesses are sprayed apart here",
    };
    const preview = await previewKnowledge(t.app, lead, { change }, now);
    expect(preview).toMatchObject({ ok: true });
    if (preview.ok) {
      const mine = preview.reRanked.find((r) => r.number === number);
      expect(mine?.confirmed?.before ?? 0).toBeLessThan(mine?.confirmed?.after ?? 0);
      expect(mine?.confirmed?.cause).toBe("faraday-recess");
    }
    const before = await loadCase(t.app, lead, number);
    const seen = before?.known.item?.versionId ?? null;
    expect((await keepKnowledge(t.app, lead, { change, seen, reason: "seen often" }, now)).ok).toBe(true);
    const strength = (f: typeof before) => f?.diagnosis.causes.find((c) => c.cause === "faraday-recess")?.strength ?? 0;
    expect(strength(await loadCase(t.app, lead, number))).toBeLessThan(strength(before));
    expect(
      await keepKnowledge(t.app, lead, { change: { ...change, whenPresent: 1 }, seen, reason: "late" }, now),
    ).toMatchObject({
      failure: { kind: "set-up-changed" },
    });
    for (const wrong of [
      { ...change, whenPresent: 9 },
      { ...change, cause: "gremlins" },
      { ...change, finding: "full-moon" },
      { ...change, because: "" },
    ])
      expect(await keepKnowledge(t.app, lead, { change: wrong, seen: null, reason: "try" }, now)).toMatchObject({
        failure: { kind: "bad-entry" },
      });
  });
});

describe("what is odd about a case", () => {
  test("a rack without any record, and a structure of which nothing is known, have a case that says what it does not know", async () => {
    await freshRack(t, "C-EMPTY", { at: now() });
    const id = await seenOn("C-EMPTY", { defect: "pinholes" });
    const opened = await openCase(t.app, lead, { defectRecordId: id, zone: "" }, now());
    const file = await loadCase(t.app, lead, numberOf(opened as { ok: boolean; href: string }));
    expect(file?.diagnosis.nextChecks).toHaveLength(3);
    expect(file?.established.filter((f) => f.state === "unknown").length).toBeGreaterThan(5);
    const { code: customer } = await t.app
      .selectFrom("setup_entity")
      .select("code")
      .where("kind", "=", "customer")
      .executeTakeFirstOrThrow();
    const made = await makeStructure(
      t.app,
      inspector,
      {
        rack: null,
        customer,
        code: "S-UNKNOWN",
        name: "A gate nobody knows",
        site: "Old mill",
        place: "gate",
        putUpOn: null,
        exposure: [],
      },
      now(),
    );
    expect(made.ok).toBe(true);
    const onGate = await stored(t, inspector, now(), {
      kind: "defect",
      rack: null,
      structure: "S-UNKNOWN",
      defect: "delamination",
      face: null,
      x: null,
      y: null,
      extentPercent: null,
      piecesAffected: null,
      piecesSeen: null,
      note: "",
    });
    const gate = await openCase(t.app, lead, { defectRecordId: onGate, zone: "foot" }, now());
    const seen = await loadCase(t.app, lead, numberOf(gate as { ok: boolean; href: string }));
    expect(seen?.rack).toBeNull();
    expect(seen?.diagnosis.enoughToTell).toBe(false);
    for (const check of seen?.diagnosis.nextChecks ?? [])
      expect(seen?.known.knowledge.findings.get(check.finding)?.check?.at).toContain("field");
  });
  test("findings that contradict each other move it and break nothing", async () => {
    const say = (finding: string) =>
      stored(t, inspector, now(), {
        kind: "finding",
        caseNumber: "29",
        finding,
        state: "present",
        note: "",
        zone: null,
      });
    for (const finding of ["film-high", "film-low", "film-right", "flake-back-clean", "flake-back-rust"])
      await say(finding);
    const file = await loadCase(t.app, lead, "29");
    for (const c of file?.diagnosis.causes ?? []) expect(c.strength).toBeLessThanOrEqual(1);
  });
  test("an action that worked is open again once the defect is back on the part", async () => {
    const { held } = await heldColumns(t.app, now());
    const rack = held.numbers.at(-20) as string;
    const id = await seenOn(rack, { defect: "gloss-off" });
    const number = numberOf(
      (await openCase(t.app, lead, { defectRecordId: id, zone: "" }, now())) as { ok: boolean; href: string },
    );
    await confirmCause(
      t.app,
      lead,
      {
        id: newId(),
        caseNumber: number,
        cause: "overcure",
        proof: "index 190",
        correction: "",
        correctiveAction: "pull alarm",
        who: "R. Oke",
        dueOn: null,
        seen: null,
      },
      now,
    );
    const checked = {
      kind: "action-check",
      caseNumber: number,
      state: "worked",
      seen: "ten loads without it",
      sheet: null,
      againOn: null,
    };
    await stored(t, inspector, now(), checked);
    const open = async () => (await openActions(t.app, lead)).find((a) => a.caseNumber === number);
    expect(await open()).toBeUndefined();
    expect((await casesOf(t.app, lead)).find((c) => c.number === number)?.action).toBe("worked");
    await new Promise((done) => setTimeout(done, 20));
    const part = held.partIds[held.numbers.indexOf(rack)];
    const sister = held.numbers[held.partIds.findIndex((p, i) => p === part && held.numbers[i] !== rack)] as string;
    await seenOn(sister, { defect: "gloss-off" });
    expect(await open()).toMatchObject({ state: "did-not-work" });
    expect((await casesOf(t.app, lead)).find((c) => c.number === number)?.action).toBe("did-not-work");
  });
});

describe("what passed like it, what changed, what could have been foretold", () => {
  test("held in one step: those in the shop are held, those held or gone are told of, again it holds nothing twice", async () => {
    const { rows } = { rows: await t.app.selectFrom("rack_standing").select(["number", "gone_at"]).execute() };
    const gone = rows.find((r) => r.gone_at)?.number ?? "";
    const here = rows
      .filter((r) => !r.gone_at)
      .slice(0, 3)
      .map((r) => r.number);
    const input = { caseNumber: "29", racks: [...here, gone, "NO-SUCH"], note: "the bath was off" };
    const came = await holdAtRisk(t.app, lead, input, now);
    if (!came.ok) throw new Error(JSON.stringify(came));
    expect([...came.held, ...came.already].sort()).toEqual([...here].sort());
    expect(came.refused.map((r) => r.failure.kind).sort()).toEqual(["rack-has-left", "unknown-rack"]);
    const again = await holdAtRisk(t.app, lead, input, now);
    expect(again).toMatchObject({ ok: true, held: [] });
    expect(await holdAtRisk(t.app, lead, { ...input, caseNumber: "9999" }, now)).toMatchObject({
      failure: { kind: "unknown-case" },
    });
  });
  test("what changed since it was last good names what is otherwise and since when; the wrong addition's pH is among it", async () => {
    const group = (await proposals(t.app, lead)).find((p) => p.defect === "adhesion-loss");
    const { held } = await heldColumns(t.app, now());
    // One of the middle of the spell: the first was hung before the pH had drifted far.
    const number = group?.items[Math.floor(group.items.length / 2)]?.rack ?? "";
    const found = await changedSinceGood(t.app, held.ids[held.numbers.indexOf(number)] as string, now());
    expect(found?.good).not.toBeNull();
    const ph = found?.changed.find((c) => c.variable.startsWith("bath:") && c.variable.endsWith(":ph"));
    expect(Number(ph?.now)).toBeGreaterThan(Number(ph?.good));
    expect(ph?.since).not.toBeNull();
  });
  test("a confirmed case whose conditions are on record offers a watch; taken up it tells of racks in the shop, stopped it does not", async () => {
    const group = (await proposals(t.app, lead)).find((p) => p.defect === "flash-rust");
    if (!group) throw new Error("no flash rust in the demo");
    const [first, ...rest] = group.items.map((i) => i.id);
    const number = numberOf(
      (await openCase(t.app, lead, { defectRecordId: first, zone: "", alike: rest }, now())) as {
        ok: boolean;
        href: string;
      },
    );
    expect(foretoldBy((await loadCase(t.app, lead, number)) as never)).toBeNull();
    await confirmCause(
      t.app,
      lead,
      {
        id: newId(),
        caseNumber: number,
        cause: "flash-rust-before-coat",
        proof: "the line stood",
        correction: "",
        correctiveAction: "start the washer dry",
        who: "R. Oke",
        dueOn: null,
        seen: null,
      },
      now,
    );
    const file = await loadCase(t.app, lead, number);
    const when = file && foretoldBy(file);
    expect(when?.map((c) => c.variable)).toContain("wet");
    if (!when || !file) return;
    const counts = await countsOf(t.app, when, "flash-rust", now());
    expect(counts.met.withIt).toBeGreaterThan(0);
    expect(counts.met.withIt / counts.met.racks).toBeGreaterThan(
      counts.notMet.withIt / Math.max(1, counts.notMet.racks),
    );
    expect(await onWatch(t.app, lead, now())).toEqual([]);
    // One that every rack in the shop meets, so that it tells of them whatever the hour.
    const wide = [{ variable: "wet", over: -1, under: null }];
    const kept = await keepKnowledge(
      t.app,
      lead,
      {
        change: { kind: "watch", defect: "flash-rust", cause: "flash-rust-before-coat", when: wide, fromCase: number },
        seen: file.known.item?.versionId ?? null,
        reason: `case ${number}`,
      },
      now,
    );
    expect(kept.ok).toBe(true);
    const [told] = await onWatch(t.app, lead, now());
    expect(told?.racks.length).toBeGreaterThan(0);
    const here = await knownHere(t.app, now());
    const stop = {
      change: { kind: "watch-stop", id: here.own.watches[0]?.id },
      seen: here.item?.versionId ?? null,
      reason: "too wide",
    };
    expect((await keepKnowledge(t.app, lead, stop, now)).ok).toBe(true);
    expect(await onWatch(t.app, lead, now())).toEqual([]);
  });
});
