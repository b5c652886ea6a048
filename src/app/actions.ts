"use server";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import * as v from "valibot";
import type { EntryInput } from "@/core/kinds";
import type { Understood } from "@/core/shorthand";
import type { Db } from "@/db/connect";
import { action } from "@/server/action";
import { database } from "@/server/database";
import { entryFromShorthand } from "@/server/entries/from-shorthand";
import { liveTraceSchema, pullLoad } from "@/server/entries/pull-load";
import { storeEntry } from "@/server/entries/store-entry";
import { refuse } from "@/server/outcome";
import { keepPreference, preferences } from "@/server/preferences";
import { places } from "@/server/search/places";
import { auth } from "@/server/sign-in/auth";
import { personWith } from "@/server/sign-in/person";
import type { Person } from "@/server/sign-in/roles";
import { keepTour } from "@/server/tour";
import type { Place } from "@/ui/frame/line-actions";
import { answerTo } from "./answer";

type Now = () => Date;

/** Stores one entry for the person signed in. Every failure comes back as a value; only a broken server throws. */
export const save = action("log-line", "entry", (db: Db, person: Person, entry: EntryInput, clock: Now) =>
  storeEntry(db, person, entry, clock),
);

/** Stores what was understood on the entry line; names are looked up here. */
export const saveShorthand = action(
  "log-line",
  "entry",
  async (db: Db, person: Person, understood: Understood, id: string, happenedAt: string, sure: boolean, clock: Now) => {
    if (understood.kind === "oven-pull")
      return pullLoad(
        db,
        person,
        { oven: String(understood.oven), ...(understood.loadNo ? { loadNo: String(understood.loadNo) } : {}) },
        id,
        clock,
      );
    const entry = await entryFromShorthand(db, person, understood, id, happenedAt);
    if (!entry.ok) return refuse(entry.error);
    const outcome = await storeEntry(db, person, sure ? { ...entry.value, sure } : entry.value, clock);
    if (!outcome.ok) return outcome;
    const { units } = await preferences();
    // It is kept whatever can be said of it.
    const answer = await answerTo(db, person, entry.value, units, clock()).catch(() => null);
    return { ...outcome, answer };
  },
);

const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
/** Closes the open load on the button. `id` is made by the caller, so that a second press is the same pull. */
export const pull = action(
  "log-line",
  "pull",
  async (db: Db, person: Person, recordId: string, id: string, traced: unknown, clock: Now) => {
    if (!uuid.test(recordId) || !uuid.test(id))
      return refuse({ kind: "bad-entry", field: "load", value: "", why: "is not an id" });
    const trace = traced === null ? null : v.safeParse(liveTraceSchema, traced);
    if (trace && !trace.success)
      return refuse({ kind: "bad-entry", field: "trace", value: "", why: trace.issues[0].message });
    return pullLoad(db, person, { recordId }, id, clock, trace?.output ?? null);
  },
);

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

/** Where a person is in the first-shift tour; null leaves it. */
export async function tour(step: number | null): Promise<void> {
  const who = await personWith("look");
  if (who.ok) await keepTour(who.person, step === null ? null : Number(step));
}
