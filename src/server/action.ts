import "server-only";
import type { Kysely } from "kysely";
import type { Ability } from "@/core/kinds";
import type { Failure } from "@/core/result";
import type { Database } from "@/db/schema";
import { database } from "./database";
import { errorText, log } from "./log";
import { now } from "./now";
import { personWith } from "./sign-in/person";
import type { Person } from "./sign-in/roles";

export type Refused = { readonly ok: false; readonly failure: Failure };

/**
 * The one shape of an action: who is signed in may do it, and then it is done with the database and the clock. A refusal
 * comes back as a value; what breaks is logged by its name and comes back as `not-saved`. The ability may hang on what is
 * sent.
 */
export function action<In extends readonly unknown[], Out extends { readonly ok: boolean }>(
  ability: Ability | ((...input: In) => Ability),
  what: string,
  run: (db: Kysely<Database>, person: Person, ...rest: [...In, () => Date]) => Promise<Out>,
): (...input: In) => Promise<Out | Refused> {
  return async (...input) => {
    const who = await personWith(typeof ability === "function" ? ability(...input) : ability);
    if (!who.ok) return { ok: false, failure: who.refusal };
    try {
      return await run(database(), who.person, ...input, now);
    } catch (error) {
      log("error", `${what} failed`, { error: errorText(error) });
      return { ok: false, failure: { kind: "not-saved" } };
    }
  };
}
