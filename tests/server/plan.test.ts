import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { asNew, parseIntakeLine, preparationOf } from "@/core/plan";
import { valueOrThrow } from "@/core/result";
import { workHoursBetween } from "@/core/shifts";
import { establish } from "@/server/causes/establish";
import { loadStructure } from "@/server/field/load-structure";
import { loadJob } from "@/server/jobs/load-job";
import { makeRack } from "@/server/jobs/make-job";
import { newId, now } from "@/server/now";
import { loadCalendar, setStart } from "@/server/plan/calendar";
import { changePlan } from "@/server/plan/change-plan";
import { loadPlanFile } from "@/server/plan/load-plan";
import { answerOffer, makeOffer } from "@/server/plan/offers";
import { partLibrary } from "@/server/plan/part-library";
import { keepMarks } from "@/server/plan/part-marks";
import { optionsPdf, routeCardPdf } from "@/server/plan/plan-pdf";
import { receiveWork } from "@/server/plan/receive";
import { askedSteps } from "@/server/rack/asked-steps";
import { loadRack } from "@/server/rack/load-rack";
import { rackOfJob, travellerOf } from "@/server/rack/racks-of-job";
import { setupAt } from "@/server/setup/setup-data";
import { askedBeside } from "@/ui/words/requirement";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId } from "../support/entries";

let t: TestDatabase;
const at = now();
const later = (minutes: number) => new Date(at.getTime() + minutes * 60_000);
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());
const line = (text: string, over: object = {}) => ({
  ...valueOrThrow(parseIntakeLine(text)),
  condition: asNew,
  system: null,
  overrule: {},
  ...over,
});
const delivery = async (lines: object[], over: object = {}) => ({
  id: newId(),
  customer: await entityId(t, "customer", "C2"),
  powder: await entityId(t, "powder", "GR-210"),
  dueOn: later(14 * 1440)
    .toISOString()
    .slice(0, 10),
  exposure: ["weather"],
  lifeYears: null,
  finish: "standard",
  fabricationComplete: true,
  serviceC: null,
  lines,
  ...over,
});
const received = async (text: string, over: object = {}, lineOver: object = {}): Promise<string> => {
  const outcome = await receiveWork(t.app, lead, await delivery([line(text, lineOver)], over), at);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.failure));
  return outcome.jobs[0] as string;
};
const file = async (number: string, when = later(60)) => {
  const found = await loadPlanFile(t.app, lead, number, when);
  if (!found) throw new Error(number);
  return found;
};

describe("a delivery", () => {
  test("makes a job for each part, numbered on, each with its plan and its route", async () => {
    const outcome = await receiveWork(
      t.app,
      lead,
      await delivery([
        line("Gate leaf,steel,1200x60x1600,5,28,2.1,4,sharp"),
        line("Gate post,steel,100x100x2000,6,24,0.8,8"),
      ]),
      at,
    );
    expect(outcome).toMatchObject({ ok: true, already: false, href: "/plan" });
    if (!outcome.ok) return;
    const [a, b] = outcome.jobs.map((n) => Number(n.slice(2)));
    expect(b).toBe((a ?? 0) + 1);
    const leaf = await file(outcome.jobs[0] as string);
    expect(leaf.plan).toMatchObject({
      pieces: 4,
      primer: false,
      version: 0,
      system: { preparation: "blast", breakEdges: true, family: "polyester", topUm: [60, 90] },
    });
    expect(leaf.plan.stages).toEqual(["blast", "clean", "conversion", "rinse", "dry-off", "booth", "oven"]);
    expect(leaf.route.at(-1)?.code).toBe("release");
    expect(leaf.requirement.film).toEqual({ rule: "spot-area", minUm: 60, maxUm: 90, level: 3 });
  });
  test("what is asked is kept with the job as it was asked, with the customer's own numbers", async () => {
    const requirement = {
      film: { rule: "nominal", nominalUm: 80, maxUm: 120 },
      adhesionWorstIso: 0,
      cureDecidedBy: "hold",
      rub: { leastGrade: 4 },
      appearance: { distanceM: 1, lightLux: 500, note: "no runs on the face" },
      tests: [{ test: "impact", lower: 25, upper: null }],
    };
    const lines = [line("Asked bracket,steel,200x100x100,4,1.2,0.1,50")];
    const whole = await delivery(lines, { requirement, customerOrder: "PO 7781", deliveryNote: "DN-12" });
    const outcome = await receiveWork(t.app, lead, whole, at);
    if (!outcome.ok) throw new Error(JSON.stringify(outcome.failure));
    const job = await loadJob(t.app, lead, outcome.jobs[0] ?? "", at);
    expect(job).toMatchObject({ requirement, customerOrder: "PO 7781", deliveryNote: "DN-12", ordered: 50, hung: 0 });
    if (!job) throw new Error("job");
    expect(askedBeside(job.requirement)).toEqual([
      ["Solvent rub", "grade 4 or better"],
      ["Look", "no runs on the face, from 1 m, in 500 lux"],
      ["Impact without a crack", "at least 25 kg·cm"],
    ]);
    // The same delivery with other limits is no retry.
    expect(
      await receiveWork(t.app, lead, { ...whole, requirement: { ...requirement, adhesionWorstIso: 2 } }, at),
    ).toMatchObject({ failure: { kind: "key-conflict" } });
  });
  test.each([
    ["film of nothing", { film: { rule: "spot-area", minUm: 0, maxUm: 90, level: 3 } }, "film", "µm is not over 0"],
    ["film limits crossed", { film: { rule: "spot-area", minUm: 90, maxUm: 90, level: 3 } }, "film", "is no range"],
    [
      "film in another unit",
      { film: { rule: "nominal", nominalUm: 80_000, maxUm: null } },
      "film",
      "µm is beyond any film: check the unit",
    ],
    ["test limits crossed", { tests: [{ test: "gloss-60", lower: 70, upper: 60 }] }, "gloss-60", "is no range"],
    [
      "one test twice",
      {
        tests: [
          { test: "bend", lower: null, upper: 5 },
          { test: "bend", lower: null, upper: 6 },
        ],
      },
      "tests",
      "have one of them twice",
    ],
    ["a look from nowhere", { appearance: { distanceM: 0, lightLux: null, note: "" } }, "distance", "is not over 0"],
    ["a look in no light", { appearance: { distanceM: null, lightLux: -5, note: "" } }, "light", "is not over 0"],
  ])("asked wrongly it is refused with its value, and nothing is made: %s", async (_, over, field, why) => {
    const count = async () => (await t.app.selectFrom("job").select("id").execute()).length;
    const before = await count();
    const usual = {
      film: { rule: "spot-area", minUm: 60, maxUm: 90, level: 3 },
      adhesionWorstIso: 1,
      cureDecidedBy: "index",
    };
    const lines = [line("Refused bracket,steel,200x100x100,4,1.2,0.1,50")];
    expect(
      await receiveWork(t.app, lead, await delivery(lines, { requirement: { ...usual, ...over } }), at),
    ).toMatchObject({
      failure: { kind: "bad-entry", field, why },
    });
    expect(await count()).toBe(before);
  });
  test("sent twice, or ten times at once, it is one", async () => {
    const same = await delivery([line("Twice bracket,steel,200x100x100,4,1.2,0.1,50")]);
    const outcomes = await Promise.all(Array.from({ length: 10 }, () => receiveWork(t.app, lead, same, at)));
    const numbers = outcomes.map((o) => o.ok && o.jobs.join());
    expect(new Set(numbers).size).toBe(1);
    expect(outcomes.filter((o) => o.ok && !o.already)).toHaveLength(1);
  });
  test("a known part is used as it is; measured anew it gets a version, and the old job keeps the old measures", async () => {
    const first = await received("Shelf bar,sheet,800x40x40,2,1.4,0.13,10");
    const again = await received("Shelf bar,sheet,800x40x40,2,1.4,0.13,10");
    const versions = async (id: string) =>
      Number(
        (
          await t.app
            .selectFrom("setup_version")
            .select(({ fn }) => fn.countAll<string>().as("n"))
            .where("entity_id", "=", id)
            .executeTakeFirstOrThrow()
        ).n,
      );
    const part = (await file(first)).partItem;
    expect((await file(again)).partItem.id).toBe(part.id);
    expect(await versions(part.id)).toBe(1);
    const outcome = await receiveWork(
      t.app,
      lead,
      await delivery([line("shelf bar,sheet,820x40x40,2,1.5,0.14,10")]),
      later(5),
    );
    expect(outcome.ok).toBe(true);
    expect(await versions(part.id)).toBe(2);
    expect((await loadPlanFile(t.app, lead, first, later(1)))?.part?.box.lengthMm).toBe(800);
    expect((await loadPlanFile(t.app, lead, first, later(10)))?.part?.box.lengthMm).toBe(820);
  });
  test.each([
    ["a mass no metal has", { lines: [{ massKg: 900 }] }, { kind: "mass-beyond-box", line: 1 }],
    ["no size", { lines: [{ box: { lengthMm: 0, widthMm: 1, heightMm: 1 } }] }, { kind: "bad-size", line: 1 }],
    ["a metal nobody has", { lines: [{ substrate: "oak" }] }, { kind: "bad-entry", field: "lines, part 1, substrate" }],
    ["nowhere to live", { exposure: [] }, { kind: "bad-entry", field: "exposure" }],
    ["a due date gone by", { dueOn: "2020-01-01" }, { kind: "in-the-past", value: "2020-01-01" }],
    ["a life of -1 years", { lifeYears: -1 }, { kind: "bad-entry", field: "lifeYears" }],
    ["a customer nobody knows", { customer: newId() }, { kind: "unknown-set-up", what: "customer" }],
    ["welding still to do", { fabricationComplete: false }, { kind: "bad-entry", field: "fabricationComplete" }],
    ["no parts", { lines: [] }, { kind: "bad-entry", field: "lines" }],
    ["half a piece", { lines: [{ pieces: 0.5 }] }, { kind: "bad-entry" }],
  ])("with %s is refused whole", async (_, over, failure) => {
    const jobs = async () =>
      Number(
        (
          await t.app
            .selectFrom("job")
            .select(({ fn }) => fn.countAll<string>().as("n"))
            .executeTakeFirstOrThrow()
        ).n,
      );
    const before = await jobs();
    const good = line("Good part,steel,400x300x200,5,9,0.5,2");
    const lines =
      "lines" in over
        ? (over.lines as object[]).map((o) => ({ ...line("Bad part,steel,400x300x200,5,9,0.5,2"), ...o }))
        : [good];
    expect(await receiveWork(t.app, lead, await delivery(lines, { ...over, lines }), at)).toMatchObject({
      ok: false,
      failure,
    });
    expect(await jobs()).toBe(before);
  });
  test("a bad part among good ones refuses them all, and names its line", async () => {
    const outcome = await receiveWork(
      t.app,
      lead,
      await delivery([
        line("Fine one,steel,400x300x200,5,9,0.5,2"),
        { ...line("Bad one,steel,400x300x200,5,9,0.5,2"), areaM2: 0.01 },
      ]),
      at,
    );
    expect(outcome).toMatchObject({ ok: false, failure: { kind: "area-under-face", line: 2 } });
    expect([...(await setupAt(t.app, "part", later(5))).values()].some((p) => p.data.name === "Fine one")).toBe(false);
  });
  test("what cannot work wants a reason, which stays with the plan and its name", async () => {
    const hybrid = { powder: await entityId(t, "powder", "GR-120") };
    const refused = await receiveWork(
      t.app,
      lead,
      await delivery([line("Patio frame,steel,600x300x200,4,9,0.6,2")], hybrid),
      at,
    );
    expect(refused).toMatchObject({
      ok: false,
      failure: { kind: "refused-system", refusal: "hybrid-outdoors", line: 1 },
    });
    const number = await received("Patio frame,steel,600x300x200,4,9,0.6,2", hybrid, {
      overrule: { "hybrid-outdoors": "a film set, up for one week" },
    });
    expect((await file(number)).plan.overruled).toEqual([
      { kind: "hybrid-outdoors", reason: "a film set, up for one week", by: "ines" },
    ]);
  });
});

describe("versions of a plan", () => {
  const change = (number: string, seen: number, over: object = {}, when = later(10), id = newId()) =>
    changePlan(t.app, lead, { id, job: number, seen, reason: "", release: false, ...over }, when);
  test("each change is a version on the one before; two at once, the second is shown the first", async () => {
    const number = await received("Version frame,steel,600x300x200,4,9,0.6,6");
    expect(await change(number, 0, { pieces: 8 })).toMatchObject({ ok: true });
    expect(await change(number, 0, { pieces: 9 })).toMatchObject({
      ok: false,
      failure: { kind: "changed-meanwhile", by: "Ines Calder", version: 1 },
    });
    expect((await file(number)).plan).toMatchObject({ version: 1, pieces: 8, released: false });
    const both = await Promise.all([change(number, 1, { pieces: 10 }), change(number, 1, { pieces: 11 })]);
    expect(both.filter((o) => o.ok)).toHaveLength(1);
  });
  test("after release a change wants its reason; pressed twice it is one version", async () => {
    const number = await received("Release frame,steel,600x300x200,4,9,0.6,6");
    expect(await change(number, 0, { release: true, reason: "Released to the shop" })).toMatchObject({ ok: true });
    expect((await file(number)).plan.released).toBe(true);
    expect(await change(number, 1, { pieces: 7 })).toMatchObject({ ok: false, failure: { kind: "reason-needed" } });
    const id = newId();
    expect(await change(number, 1, { pieces: 7, reason: "one came bent" }, later(12), id)).toMatchObject({
      ok: true,
      already: false,
    });
    expect(await change(number, 1, { pieces: 7, reason: "one came bent" }, later(13), id)).toMatchObject({
      ok: true,
      already: true,
    });
    expect((await file(number)).plan.versions.map((x) => x.reason)).toEqual(["Released to the shop", "one came bent"]);
  });
  test("another system remakes the route; one that cannot work is refused until a reason is given", async () => {
    const number = await received("System frame,steel,600x300x200,4,9,0.6,6");
    const { plan } = await file(number);
    const primed = { ...plan.system, primer: "zinc", primerUm: [50, 80], curing: "primer-gelled" };
    expect(await change(number, 0, { system: primed })).toMatchObject({ ok: true });
    const after = await file(number);
    expect(after.plan.primer).toBe(true);
    expect(after.route.map((s) => s.code)).toEqual(expect.arrayContaining(["primer", "gel-primer"]));
    const thick = { ...primed, family: "polyester-tgic-free", topUm: [80, 140] };
    expect(await change(number, 1, { system: thick })).toMatchObject({
      ok: false,
      failure: { kind: "refused-system", refusal: "too-thick-for-family" },
    });
    expect(await change(number, 1, { system: thick, overrule: { "too-thick-for-family": "no" } })).toMatchObject({
      failure: { kind: "bad-entry" },
    });
    expect(
      await change(number, 1, { system: thick, overrule: { "too-thick-for-family": "two thin passes" } }),
    ).toMatchObject({ ok: true });
  });
  test("a rack carries the plan as it stood when it was hung", async () => {
    const number = await received("Hung frame,steel,600x300x200,4,9,0.6,6");
    await change(
      number,
      0,
      { pieces: 6, exposure: ["weather"], release: true, reason: "Released to the shop" },
      later(1),
    );
    expect(await makeRack(t.app, lead, { job: number, number: "PL1", pieces: 3 }, later(2))).toMatchObject({
      ok: true,
    });
    await change(number, 1, { exposure: ["weather", "salt"], reason: "it goes by the road" }, later(3));
    await makeRack(t.app, lead, { job: number, number: "PL2", pieces: 3 }, later(4));
    expect((await loadRack(t.app, lead, "PL1"))?.job.plan.exposure).toEqual(["weather"]);
    expect((await loadRack(t.app, lead, "PL2"))?.job.plan.exposure).toEqual(["weather", "salt"]);
  });
  test("a job that was never measured cannot be planned, and says so", async () => {
    expect(await change("J-999999", 0)).toMatchObject({ failure: { kind: "unknown-job" } });
    expect(await changePlan(t.app, lead, { id: "x" }, at)).toMatchObject({
      failure: { kind: "bad-entry", field: "id" },
    });
  });
});

describe("options", () => {
  const offer = (job: string, over: object = {}) => ({
    id: newId(),
    job,
    code: "zinc-primer",
    what: "Zinc primer",
    quantity: null,
    unit: null,
    price: 200,
    currency: "GBP",
    risk: "creeps from knocks",
    ...over,
  });
  const answer = (id: string, over: object = {}) => ({
    id: newId(),
    offer: id,
    taken: false,
    who: "the works office",
    how: "by mail",
    on: at.toISOString().slice(0, 10),
    note: "",
    ...over,
  });
  test("open until answered; declined it is a finding of every rack, with who said so", async () => {
    const number = await received("Option rail,steel,1200x60x300,5,8,0.8,4", { exposure: ["weather", "knocks"] });
    const one = offer(number);
    expect(await makeOffer(t.app, lead, one, later(1))).toMatchObject({ ok: true });
    expect((await file(number)).plan.offered).toMatchObject([
      { code: "zinc-primer", state: "open", price: 200, by: "" },
    ]);
    expect(await answerOffer(t.app, lead, answer(one.id), later(2))).toMatchObject({ ok: true });
    expect((await file(number)).plan.offered).toMatchObject([
      { state: "declined", by: "the works office", how: "by mail" },
    ]);
    await makeRack(t.app, lead, { job: number, number: "OP1", pieces: 1 }, later(3));
    const rack = await loadRack(t.app, lead, "OP1");
    if (!rack) throw new Error("rack");
    const finding = (await establish(t.app, rack, null, null)).find((f) => f.finding === "no-primer");
    expect(finding?.what).toMatchObject({ kind: "option-declined", what: "Zinc primer", by: "the works office" });
  });
  test.each([
    ["blast", "no-blast"],
    ["seam-seal", "open-lap-seam"],
  ])("a declined %s is found as %s", async (code, findingName) => {
    const number = await received(`Declined ${code},steel,1200x60x300,5,8,0.8,4,laps 1`);
    const one = offer(number, { code, what: code });
    await makeOffer(t.app, lead, one, later(1));
    await answerOffer(t.app, lead, answer(one.id), later(2));
    await makeRack(t.app, lead, { job: number, number: `D-${code}`, pieces: 1 }, later(3));
    const rack = await loadRack(t.app, lead, `D-${code}`);
    if (!rack) throw new Error("rack");
    expect((await establish(t.app, rack, null, null)).find((f) => f.finding === findingName)).toMatchObject({
      state: "present",
      what: { kind: "option-declined" },
    });
  });
  test("an answer changes system, cost, route card and risks at once, and says so as a version of the plan", async () => {
    const number = await received("Answered rail,steel,1200x60x300,5,8,0.8,4,laps 1.2", { exposure: ["weather"] });
    const before = await file(number);
    const seal = offer(number, { code: "seam-seal", what: "Seams sealed" });
    await makeOffer(t.app, lead, seal, later(1));
    const sealed = before.plan.system?.sealSeams ?? false;
    expect(await answerOffer(t.app, lead, answer(seal.id, { taken: !sealed }), later(2))).toMatchObject({ ok: true });
    const after = await file(number);
    expect(after.plan.system).toMatchObject({ sealSeams: !sealed });
    expect(after.plan.version).toBe(before.plan.version + 1);
    expect(after.plan.versions.at(-1)?.reason).toBe(`The customer ${sealed ? "declined" : "took"}: Seams sealed`);
    const has = (f: typeof after) => ({
      cost: f.costing?.ok && f.costing.value.lines.some((l) => l.code === "sealer"),
      card: f.route.some((step) => step.code === "seam-seal"),
    });
    expect(has(after)).toEqual({ cost: !sealed, card: !sealed });
    expect(has(before)).toEqual({ cost: sealed, card: sealed });
    // What it changes nothing of makes no version.
    await answerOffer(t.app, lead, answer(seal.id, { taken: !sealed, how: "signed" }), later(3));
    expect((await file(number)).plan.version).toBe(after.plan.version);
  });
  test("racks that hang stay under the plan they were hung by, are named, and go over with a reason", async () => {
    const number = await received("Hung rail,steel,1200x60x300,5,8,0.8,4,laps 1.2", { exposure: ["weather"] });
    await makeRack(t.app, lead, { job: number, number: "HG1", pieces: 1 }, later(1));
    await makeRack(t.app, lead, { job: number, number: "HG2", pieces: 1 }, later(1));
    const seen = await file(number);
    const system = { ...seen.plan.system, breakEdges: !seen.plan.system?.breakEdges };
    const change = { id: newId(), job: number, seen: seen.plan.version, reason: "", release: false, system };
    // What the plan says is what is asked of the rack.
    const broken = async () => {
      const rack = await loadRack(t.app, lead, "HG1");
      const planned = rack?.job.plan.system?.breakEdges;
      expect(rack && askedSteps(rack).includes("break-edges")).toBe(planned);
      return planned;
    };
    const before = await broken();
    expect(await changePlan(t.app, lead, change, later(2))).toMatchObject({ ok: true });
    const after = await file(number);
    expect(after.plan.system?.breakEdges).toBe(system.breakEdges);
    expect(after.racks.map((r) => [r.number, r.version])).toEqual([
      ["HG1", seen.plan.version],
      ["HG2", seen.plan.version],
    ]);
    expect(await broken()).toBe(before);
    const move = { id: newId(), job: number, seen: after.plan.version, release: false, move: true };
    expect(await changePlan(t.app, lead, { ...move, reason: "" }, later(3))).toMatchObject({
      failure: { kind: "reason-needed" },
    });
    expect(await changePlan(t.app, lead, { ...move, reason: "edges cut the hand" }, later(3))).toMatchObject({
      ok: true,
    });
    expect(await broken()).toBe(system.breakEdges);
    expect((await file(number)).racks.map((r) => r.version)).toEqual([after.plan.version + 1, after.plan.version + 1]);
    // An answer that changes the system leaves them where they are, or takes them along.
    const one = offer(number, { code: "edge-breaking", what: "Edges" });
    await makeOffer(t.app, lead, one, later(4));
    await answerOffer(t.app, lead, answer(one.id, { taken: !system.breakEdges }), later(5));
    expect(await broken()).toBe(system.breakEdges);
    await answerOffer(t.app, lead, answer(one.id, { taken: system.breakEdges }), later(6));
    const along = answer(one.id, { taken: !system.breakEdges, move: true });
    expect(await answerOffer(t.app, lead, along, later(7))).toMatchObject({ ok: true });
    expect(await broken()).toBe(!system.breakEdges);
    // The card and what is asked are one list.
    const rack = await loadRack(t.app, lead, "HG1");
    expect(rack && askedSteps(rack)).toEqual(preparationOf((await file(number)).route));
  });
  test("a later answer stands, the earlier stays on record", async () => {
    const number = await received("Mind changed,steel,400x300x200,5,9,0.5,2");
    const one = offer(number);
    await makeOffer(t.app, lead, one, later(1));
    await answerOffer(t.app, lead, answer(one.id), later(2));
    await answerOffer(t.app, lead, answer(one.id, { taken: true, how: "signed" }), later(3));
    expect((await file(number)).plan.offered[0]).toMatchObject({ state: "taken", how: "signed" });
    expect((await loadPlanFile(t.app, lead, number, later(2.5)))?.plan.offered[0]?.state).toBe("declined");
    expect(
      Number(
        (
          await t.app
            .selectFrom("offer_answer")
            .select(({ fn }) => fn.countAll<string>().as("n"))
            .where("offer_id", "=", one.id)
            .executeTakeFirstOrThrow()
        ).n,
      ),
    ).toBe(2);
  });
  test.each([
    ["a price under zero", { price: -1 }, "price"],
    ["no risk named", { risk: " " }, "risk"],
    ["a price as text", { price: "200" }, "price"],
    ["a name of 500 letters", { what: "x".repeat(500) }, "what"],
  ])("%s is refused at its field", async (_, over, field) => {
    expect(await makeOffer(t.app, lead, offer("J-421", over), at)).toMatchObject({
      ok: false,
      failure: { kind: "bad-entry", field },
    });
  });
  test("an answer from tomorrow, or to nothing, is refused", async () => {
    const one = offer("J-421", { code: "test-panels", what: "Panels" });
    await makeOffer(t.app, lead, one, at);
    expect(
      await answerOffer(
        t.app,
        lead,
        answer(one.id, {
          on: later(3 * 1440)
            .toISOString()
            .slice(0, 10),
        }),
        at,
      ),
    ).toMatchObject({ failure: { kind: "in-the-future" } });
    expect(await answerOffer(t.app, lead, answer(newId()), at)).toMatchObject({ failure: { kind: "unknown-offer" } });
  });
  test("another customer's person sees neither the job nor its offers", async () => {
    const other = person("viewer", "otto", await entityId(t, "customer", "C3"));
    expect(await loadPlanFile(t.app, other, "J-421", at)).toBeNull();
    expect(await makeOffer(t.app, other, offer("J-421"), at)).toMatchObject({ failure: { kind: "unknown-job" } });
  });
});

describe("the demo's planned work", () => {
  test.each([
    ["J-421", "zinc-primer", "salt-no-primer"],
    ["J-422", "blast", "scale-under-film"],
    ["J-423", "seam-seal", "open-lap"],
  ])("%s: what was declined is on record, and the risk it leaves is named", async (number, code, risk) => {
    const found = await file(number, at);
    expect(found.plan.offered.find((o) => o.code === code)).toMatchObject({ state: "declined" });
    expect(found.risks.map((r) => r.id)).toContain(risk);
    expect(found.costing).toMatchObject({ ok: true });
    expect(found.fit).toMatchObject({ ok: true, value: { best: expect.anything() } });
  });
  test("heavy plates and thin covers of one delivery want ovens of their own time", async () => {
    const [plate, cover] = [await file("J-424", at), await file("J-425", at)];
    const minutes = (f: typeof plate) => (f.costing?.ok ? f.costing.value.bakeMinutes : 0);
    expect(minutes(plate)).toBeGreaterThan(2 * minutes(cover));
    expect(plate.risks.map((r) => r.id)).toContain("heavy-section");
  });
});

describe("what a step adds", () => {
  test("is the difference of two costings, never nothing, and only what is not done yet", async () => {
    const found = await file("J-422", at);
    expect(Object.keys(found.optionPrices)).toEqual(expect.arrayContaining(["blast", "zinc-primer", "two-coats"]));
    for (const price of Object.values(found.optionPrices)) expect(price).toBeGreaterThan(0);
    const plate = await file("J-424", at);
    expect(plate.optionPrices.blast).toBeUndefined();
    expect(plate.optionPrices["zinc-primer"]).toBeUndefined();
  });
  test("a life beyond the system is known as such", async () => {
    const frame = await file("J-422", at);
    expect(frame.plan.lifeYears).toBe(6);
    expect(frame.life?.years.to).toBeLessThan(6);
  });
});

describe("the library of parts", () => {
  test("lists each with its versions and jobs; a customer's person sees their own only", async () => {
    const all = await partLibrary(t.app, lead, at);
    expect(all.find((p) => p.name === "Gangway rail")).toMatchObject({ jobs: 1, substrate: "hot-rolled-steel" });
    expect(all.every((p) => p.versions.length >= 1)).toBe(true);
    const other = await partLibrary(t.app, person("viewer", "otto", await entityId(t, "customer", "C3")), at);
    expect(other.map((p) => p.name)).toEqual(["Cast lamp head", "Polished lamp collar"]);
  });
});

describe("in the field", () => {
  test("what was offered when it was made is there to read", async () => {
    const structure = await loadStructure(t.app, lead, "jetty-a", at);
    expect(structure?.offered).toMatchObject([{ what: expect.stringContaining("primer"), state: "declined" }]);
  });
});

describe("places on the sketch", () => {
  test("are kept as a new version of the part, and decide how it hangs", async () => {
    const number = await received("Hook plate,steel,600x20x300,20,20,0.38,4");
    const { partItem, hanging } = await file(number);
    expect(hanging?.result).toMatchObject({ ok: false, error: { kind: "no-hang-points" } });
    const marks = [20, 80].map((x) => ({ kind: "hang", face: "F", at: [x, 5], note: "hole" }));
    expect(
      await keepMarks(t.app, lead, { part: partItem.id, seen: partItem.versionId, marks }, later(20)),
    ).toMatchObject({ ok: true });
    expect((await file(number)).hanging).toMatchObject({
      points: 2,
      result: { ok: true, value: { hangs: "level", shares: [0.5, 0.5] } },
    });
    const left = [5, 30].map((x) => ({ kind: "hang", face: "F", at: [x, 5], note: "" }));
    const other = { part: partItem.id, seen: partItem.versionId, marks: left };
    // Kept by another meanwhile: the second is told whose, and keeps what it placed.
    expect(await keepMarks(t.app, lead, other, later(25))).toMatchObject({
      failure: { kind: "set-up-changed", by: "Ines Calder" },
    });
    await keepMarks(t.app, lead, { ...other, seen: (await file(number)).partItem.versionId }, later(30));
    expect((await file(number)).hanging?.result).toMatchObject({ value: { hangs: "tips" } });
  });
  test("off the sketch, on no face, or on no part they are refused", async () => {
    const { partItem } = await file("J-424", at);
    const mark = { kind: "hang", face: "F", at: [50, 5], note: "" };
    expect(
      await keepMarks(
        t.app,
        lead,
        { part: partItem.id, seen: partItem.versionId, marks: [{ ...mark, at: [150, 5] }] },
        at,
      ),
    ).toMatchObject({
      ok: false,
      failure: { kind: "bad-entry" },
    });
    expect(
      await keepMarks(
        t.app,
        lead,
        { part: partItem.id, seen: partItem.versionId, marks: [{ ...mark, face: "Z" }] },
        at,
      ),
    ).toMatchObject({
      failure: { kind: "unknown-spot" },
    });
    expect(await keepMarks(t.app, lead, { part: newId(), seen: partItem.versionId, marks: [mark] }, at)).toMatchObject({
      failure: { kind: "unknown-set-up" },
    });
  });
});

describe("calendar", () => {
  test("the jobs on hand stand on their stages without overlap, what is due counted in working hours", async () => {
    const calendar = await loadCalendar(t.app, lead, at);
    const numbers = calendar.jobs.map((j) => j.number);
    for (const n of ["J-421", "J-422", "J-423", "J-424", "J-425"]) expect(numbers).toContain(n);
    expect(calendar.plan.ok).toBe(true);
    if (!calendar.plan.ok) return;
    for (const stage of ["blast", "wash", "booth", "oven"] as const) {
      const bars = calendar.plan.value.jobs
        .flatMap((j) => j.stages.filter((s) => s.stage === stage))
        .sort((a, b) => a.fromHour - b.fromHour);
      for (let i = 1; i < bars.length; i++)
        expect(bars[i]?.fromHour).toBeGreaterThanOrEqual((bars[i - 1]?.toHour ?? 0) - 1e-9);
    }
  });
  test("bars, due dates and starts are counted in the hours the stages work: Sunday is not one of them", async () => {
    const calendar = await loadCalendar(t.app, lead, at);
    expect(calendar.week).toMatchObject({ startsAt: "06:00", hoursPerDay: 16, days: [1, 2, 3, 4, 5, 6] });
    for (const job of calendar.jobs) {
      if (!job.dueOn) continue;
      const due = new Date(`${job.dueOn}T23:59:59Z`);
      expect(job.dueInHours).toBeCloseTo(valueOrThrow(workHoursBetween(at, due, calendar.week)), 6);
    }
  });
  test("a person's start stands; given back, the schedule places it again", async () => {
    const startAt = later(2 * 1440).toISOString();
    expect(await setStart(t.app, lead, { id: newId(), job: "J-424", startAt }, at)).toMatchObject({ ok: true });
    const pinned = await loadCalendar(t.app, lead, at);
    expect(pinned.jobs.find((j) => j.number === "J-424")?.pinned?.toISOString()).toBe(startAt);
    const planned = pinned.plan.ok ? pinned.plan.value.jobs.find((j) => j.job === "J-424") : null;
    expect(planned).toMatchObject({ pinned: true, because: "pinned" });
    expect(planned?.stages[0]?.fromHour).toBeCloseTo(
      valueOrThrow(workHoursBetween(at, new Date(startAt), pinned.week)),
      6,
    );
    await setStart(t.app, lead, { id: newId(), job: "J-424", startAt: null }, later(1));
    const free = await loadCalendar(t.app, lead, later(1));
    expect(free.jobs.find((j) => j.number === "J-424")?.pinned).toBeNull();
  });
  test("a start in the past, a moment that is none, and a job that is none are refused", async () => {
    expect(
      await setStart(t.app, lead, { id: newId(), job: "J-424", startAt: later(-1440).toISOString() }, at),
    ).toMatchObject({ failure: { kind: "in-the-past" } });
    expect(await setStart(t.app, lead, { id: newId(), job: "J-424", startAt: "soon" }, at)).toMatchObject({
      failure: { kind: "bad-entry", field: "startAt" },
    });
    expect(await setStart(t.app, lead, { id: newId(), job: "J-0", startAt: null }, at)).toMatchObject({
      failure: { kind: "unknown-job" },
    });
  });
});

describe("the code on a route card", () => {
  test("leads to the only rack's traveller, to the job while none or several hang, and nowhere for another customer", async () => {
    const number = await received("Code rail,steel,900x100x100,4,6,0.6,2");
    expect(await travellerOf(t.app, lead, number)).toBe(`/jobs/${number}#racks`);
    const hang = async (rack: string) => {
      const made = await makeRack(t.app, lead, { id: newId(), job: number, number: rack, pieces: 1 }, later(1));
      if (!made.ok) throw new Error(JSON.stringify(made.failure));
    };
    await hang("7001");
    expect(await travellerOf(t.app, lead, number)).toBe("/racks/7001");
    await hang("7002");
    expect(await travellerOf(t.app, lead, number)).toBe(`/jobs/${number}#racks`);
    const otto = { ...person("viewer", "otto"), customerId: await entityId(t, "customer", "C1") };
    expect(await travellerOf(t.app, otto, number)).toBeNull();
    expect(await travellerOf(t.app, lead, "J-0")).toBeNull();
    const { jobId } = await file(number);
    expect(await rackOfJob(t.app, jobId, "7002")).toMatchObject({ number: "7002", pieces: expect.any(Number) });
    const other = await file("J-421");
    expect(await rackOfJob(t.app, other.jobId, "7002")).toBeNull();
  });
});

describe("a premium finish", () => {
  test("taken in with its hand steps, they are on the card and in the cost, and survive a change of plan", async () => {
    const number = await received("Panel,sheet,900x40x600,2,9,1.1,4", { handSteps: 2 });
    const plan = await file(number);
    expect(plan.route.filter((s) => s.code === "hand-finish")).toHaveLength(2);
    expect(plan.costing?.ok && plan.costing.value.lines.some((l) => l.code === "hand-finish")).toBe(true);
    const change = { id: newId(), job: number, seen: 0, reason: "", release: false, pieces: 6 };
    expect(await changePlan(t.app, lead, change, later(5))).toMatchObject({ ok: true });
    expect((await file(number)).plan).toMatchObject({ handSteps: 2, pieces: 6 });
  });
  test("more than five steps are refused with the field", async () => {
    const order = await delivery([line("Panel,sheet,900x40x600,2,9,1.1,4")], { handSteps: 6 });
    expect(await receiveWork(t.app, lead, order, at)).toMatchObject({
      failure: { kind: "bad-entry", field: "handSteps", why: "is over 5" },
    });
  });
});

describe("how it hangs", () => {
  test("by a centre of mass that a person placed, and drains or not as it then hangs", async () => {
    const number = await received("Tube post,steel,2000x80x80,4,17,0.65,3,hollow");
    const part = (await file(number)).partItem.id;
    const seen = async () => (await file(number)).partItem.versionId;
    const hang = (x: number, y = 4) => ({ kind: "hang", face: "F", at: [x, y], note: "" });
    const marks = async (...placed: object[]) => {
      expect(
        await keepMarks(t.app, lead, { part, seen: await seen(), marks: placed }, later(placed.length)),
      ).toMatchObject({ ok: true });
      return (await file(number)).hanging;
    };
    const assumed = await marks(hang(10), hang(90));
    expect(assumed).toMatchObject({ centre: "assumed", result: { value: { hangs: "level", shares: [0.5, 0.5] } } });
    expect(assumed?.draining).toMatchObject({ value: { drains: "no-drain" } });
    const placed = await marks(hang(10), hang(90), {
      kind: "centre-of-mass",
      face: "F",
      at: [70, 50],
      note: "weighed",
    });
    expect(placed?.centre).toBe("by-procedure");
    expect(placed?.result.ok && placed.result.value.shares[1]).toBeCloseTo(0.75, 9);
    const drain = (x: number) => ({ kind: "drain", face: "F", at: [x, 100], note: "" });
    const tilted = await marks(hang(10, 4), hang(90, 80), drain(100), drain(100));
    expect(tilted).toMatchObject({ result: { value: { lowEnd: "left" } }, draining: { value: { drains: "holds" } } });
    const right = await marks(hang(10, 4), hang(90, 80), drain(0), drain(0), drain(0));
    expect(right?.draining).toMatchObject({ value: { drains: "runs-out", lowest: "left" } });
  });
});

describe("sheets to print", () => {
  test("options and route card are PDFs, however long their words", async () => {
    const options = await optionsPdf({
      site: "Test shop",
      customer: "x".repeat(200),
      job: "J-1",
      part: "Part",
      system: "blasted",
      life: "3 to 5 years until rust",
      day: "Monday",
      options: Array.from({ length: 30 }, (_, i) => ({
        what: `Option ${i} ${"long ".repeat(20)}`,
        price: "£1",
        risk: "risk ".repeat(40),
        state: i % 2 ? "declined" : "",
        said: "by mail",
      })),
      notices: ["n ".repeat(300)],
      photos: [
        {
          bytes: await sharp({ create: { width: 40, height: 30, channels: 3, background: "#884422" } })
            .jpeg()
            .toBuffer(),
          caption: "pits on the rail as it came in",
        },
      ],
      morePhotos: 2,
    });
    expect(options.subarray(0, 5).toString()).toBe("%PDF-");
    // How the metal came in is on the paper itself.
    expect(options.includes("/Subtype /Image")).toBe(true);
    const card = await routeCardPdf({
      site: "Test shop",
      customer: "Customer",
      job: "J-1",
      part: "Part",
      pieces: "4 pieces",
      powder: "GR",
      version: "version 1",
      address: "http://127.0.0.1:3000/jobs/J-1/traveller",
      rack: null,
      order: "PO 77",
      due: "2026-12-01",
      steps: Array.from({ length: 40 }, (_, i) => ({
        stage: "Coat",
        name: `Step ${i}`,
        parameters: "film 60–90 µm",
        checks: "check ".repeat(20),
        hold: i % 3 === 0,
      })),
      marks: [],
      reworks: [],
      cautions: ["careful"],
    });
    expect(card.subarray(0, 5).toString()).toBe("%PDF-");
    expect(card.length).toBeGreaterThan(5000);
  });
});
