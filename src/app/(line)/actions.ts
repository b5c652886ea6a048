"use server";
import { receiveChemical } from "@/server/baths/chemical-stock";
import { confirmCause, openCase } from "@/server/causes/case-actions";
import { receiveLots, savePowder, saveSheet } from "@/server/coat/save-powder";
import { saveCurePlan } from "@/server/cure/save-cure-plan";
import { saveOven } from "@/server/cure/save-oven";
import { database } from "@/server/database";
import { addPhoto } from "@/server/field/add-photo";
import { type ImportOutcome, importFile } from "@/server/imports/import-file";
import { makeJob, makeRack, makeStructure } from "@/server/jobs/make-job";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { setStart } from "@/server/plan/calendar";
import { changePlan } from "@/server/plan/change-plan";
import { answerOffer, makeOffer } from "@/server/plan/offers";
import { keepMarks } from "@/server/plan/part-marks";
import { type ReceiveOutcome, receiveWork } from "@/server/plan/receive";
import { dispose } from "@/server/release/dispose";
import { saveBath, startWash } from "@/server/setup/save-bath";
import { saveLine } from "@/server/setup/save-line";
import { noteAttempt, tooManyAttempts } from "@/server/sign-in/attempts";
import { passwordFits, personWith } from "@/server/sign-in/person";
import { beginUpkeep, saveUpkeep } from "@/server/upkeep/save-upkeep";

export type ActionOutcome =
  | { readonly ok: true; readonly recordId?: string; readonly href?: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

async function guarded(what: string, run: () => Promise<ActionOutcome>): Promise<ActionOutcome> {
  try {
    return await run();
  } catch (error) {
    log("error", `${what} failed`, { error: errorText(error) });
    return { ok: false, failure: { kind: "not-saved" } };
  }
}

/** A lead's decision on a rack, signed with their password. */
export async function decide(input: {
  id: string;
  rack: string;
  decision: string;
  note: string;
  seen: string | null;
  password: string;
}): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("disposition", async () => {
    const at = now();
    if (await tooManyAttempts(database(), `sign:${who.person.username}`, `sign:${who.person.username}`, at))
      return { ok: false, failure: { kind: "too-many-tries" } };
    const fits = await passwordFits(who.person, String(input.password).slice(0, 200));
    await noteAttempt(database(), `sign:${who.person.username}`, `sign:${who.person.username}`, fits, at);
    if (!fits) return { ok: false, failure: { kind: "wrong-password" } };
    return dispose(database(), who.person, input, at);
  });
}

export async function startCase(input: { defectRecordId: string; zone: string }): Promise<ActionOutcome> {
  const who = await personWith("inspect");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("case", () => openCase(database(), who.person, input, now()));
}

/** A drum of a bath's chemical taken into stock. */
export async function takeDrum(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("log-line");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("drum", () => receiveChemical(database(), who.person, input, now()));
}

export async function confirm(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("confirmation", () => confirmCause(database(), who.person, input, now()));
}

export async function attachPhoto(form: FormData): Promise<ActionOutcome> {
  // Who works on the line photographs its strips and its metal; parts as they came in and structures are an inspector's.
  const onLine = form.has("rack") || form.has("bath");
  const who = await personWith(onLine ? "log-line" : "inspect");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("photo", () => addPhoto(database(), who.person, form, now()));
}

/** Step one reads and shows; step two, with `store` set, reads again and stores all or nothing. */
export async function importUpload(form: FormData): Promise<ImportOutcome> {
  const who = await personWith("inspect");
  if (!who.ok) return { ok: false, failure: who.refusal };
  try {
    return await importFile(database(), who.person, form, now());
  } catch (error) {
    log("error", "import failed", { error: errorText(error) });
    return { ok: false, failure: { kind: "not-saved" } };
  }
}

/** A lead takes a job in; anyone on the line hangs a rack; an inspector puts a structure on record. */
export async function createJob(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("job", () => makeJob(database(), who.person, input, now()));
}

export async function createRack(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("log-line");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("rack", () => makeRack(database(), who.person, input, now()));
}

export async function createStructure(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("inspect");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("structure", () => makeStructure(database(), who.person, input));
}

/** Plan: a lead receives deliveries, changes and releases plans, offers options, notes the customer's answers, sets a start. */
export async function receiveDelivery(input: unknown): Promise<ReceiveOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  try {
    return await receiveWork(database(), who.person, input, now());
  } catch (error) {
    log("error", "delivery not received", { error: errorText(error) });
    return { ok: false, failure: { kind: "not-saved" } };
  }
}

export async function planChange(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("plan", () => changePlan(database(), who.person, input, now()));
}

export async function offerOption(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("offer", () => makeOffer(database(), who.person, input, now()));
}

export async function noteAnswer(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("answer", () => answerOffer(database(), who.person, input, now()));
}

export async function pinStart(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("start", () => setStart(database(), who.person, input, now()));
}

export async function placeMarks(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("places", () => keepMarks(database(), who.person, input, now()));
}

/** The wash as it is set up: a lead or administrator changes a bath, or begins from a usual wash. */
export async function keepBath(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("bath", () => saveBath(database(), who.person, input, now()));
}

export async function keepLine(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("line", () => saveLine(database(), who.person, input, now()));
}

export async function beginWash(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("wash", async () => {
    const begun = await startWash(database(), who.person, input, now());
    return begun.ok ? { ok: true } : begun;
  });
}

/** What is looked after at fixed intervals: a lead sets it up. */
export async function keepUpkeep(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("upkeep", async () => {
    const saved = await saveUpkeep(database(), who.person, input, now());
    return saved.ok ? { ok: true } : saved;
  });
}

export async function beginUsualUpkeep(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("upkeep", async () => {
    const begun = await beginUpkeep(database(), who.person, input, now());
    return begun.ok ? { ok: true } : begun;
  });
}

/** Ovens: a lead sets them up, from now on and with a reason. */
export async function keepOven(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("oven", async () => {
    const saved = await saveOven(database(), who.person, input, now());
    return saved.ok ? { ok: true } : saved;
  });
}

/** What the shop plans its loads to, and how often cure is proven: a lead's, from now on and with a reason. */
export async function keepCurePlan(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("cure plan", async () => {
    const saved = await saveCurePlan(database(), who.person, input, now());
    return saved.ok ? { ok: true } : saved;
  });
}

/** Powders and set-up sheets: a lead puts them on record; who works on the line takes lots into stock. */
export async function keepPowder(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("powder", async () => {
    const saved = await savePowder(database(), who.person, input, now());
    return saved.ok ? { ok: true } : saved;
  });
}

export async function keepSheet(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("release");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("set-up sheet", async () => {
    const saved = await saveSheet(database(), who.person, input, now());
    return saved.ok ? { ok: true } : saved;
  });
}

export async function takeLots(input: unknown): Promise<ActionOutcome> {
  const who = await personWith("log-line");
  if (!who.ok) return { ok: false, failure: who.refusal };
  return guarded("lots", async () => {
    const taken = await receiveLots(database(), who.person, input, now());
    return taken.ok ? { ok: true } : taken;
  });
}
