"use server";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import * as v from "valibot";
import type { Understood } from "@/core/shorthand";
import { database } from "@/server/database";
import type { EntryInput } from "@/server/entries/entry";
import { entryFromShorthand } from "@/server/entries/from-shorthand";
import { liveTraceSchema, pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { keepPreference } from "@/server/preferences";
import { places } from "@/server/search/places";
import { auth } from "@/server/sign-in/auth";
import { personWith } from "@/server/sign-in/person";
import type { Place, Saved } from "@/ui/frame/line-actions";

/** Stores one entry for the person signed in. Every failure comes back as a value; only a broken server throws. */
export async function save(entry: EntryInput): Promise<Saved> {
  const who = await personWith("log-line");
  if (!who.ok) return { ok: false, failure: who.refusal };
  try {
    return await storeEntry(database(), who.person, entry, now());
  } catch (error) {
    log("error", "entry not saved", { error: errorText(error) });
    return { ok: false, failure: { kind: "not-saved" } };
  }
}

/** Stores what was understood on the entry line; names are looked up here. */
export async function saveShorthand(understood: Understood, id: string, happenedAt: string): Promise<Saved> {
  const who = await personWith("log-line");
  if (!who.ok) return { ok: false, failure: who.refusal };
  try {
    if (understood.kind === "oven-pull")
      return await pullLoad(database(), who.person, { oven: String(understood.oven) }, id, now());
    const entry = await entryFromShorthand(database(), who.person, understood, id, happenedAt);
    return entry.ok
      ? await storeEntry(database(), who.person, entry.value, now())
      : { ok: false, failure: entry.error };
  } catch (error) {
    log("error", "entry not saved", { error: errorText(error) });
    return { ok: false, failure: { kind: "not-saved" } };
  }
}

const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
/** Closes the open load on the button. `id` is made by the caller, so that a second press is the same pull. */
export async function pull(recordId: string, id: string, traced: unknown = null): Promise<Saved> {
  const who = await personWith("log-line");
  if (!who.ok) return { ok: false, failure: who.refusal };
  if (!uuid.test(recordId) || !uuid.test(id))
    return { ok: false, failure: { kind: "bad-entry", field: "load", value: "", why: "is not an id" } };
  try {
    const trace = traced === null ? null : v.safeParse(liveTraceSchema, traced);
    if (trace && !trace.success)
      return { ok: false, failure: { kind: "bad-entry", field: "trace", value: "", why: trace.issues[0].message } };
    return await pullLoad(database(), who.person, { recordId }, id, now(), trace?.output ?? null);
  } catch (error) {
    log("error", "load not pulled", { error: errorText(error) });
    return { ok: false, failure: { kind: "not-saved" } };
  }
}

export async function findPlaces(word: string): Promise<readonly Place[]> {
  const who = await personWith("look");
  return who.ok ? places(database(), who.person, String(word).slice(0, 60)) : [];
}

export async function signOut(): Promise<void> {
  await auth()
    .api.signOut({ headers: await headers() })
    .catch(() => {});
  redirect("/sign-in");
}

/** A person's own choice of units, theme or shortcuts. */
export async function choose(name: string, value: string): Promise<void> {
  const who = await personWith("look");
  if (who.ok) await keepPreference(String(name), String(value));
}
