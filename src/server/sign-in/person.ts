import "server-only";
import { verify } from "@node-rs/argon2";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { cache } from "react";
import { database } from "../database";
import { auth } from "./auth";
import { type Ability, may, type Person, type Role, roles } from "./roles";

/** Who is signed in, or null. Read once per request. */
export const currentPerson = cache(async (): Promise<Person | null> => {
  const session = await auth().api.getSession({ headers: await headers() });
  if (!session) return null;
  const { id, name, username, role, customerId, lockedAt } = session.user as {
    id: string;
    name: string;
    username?: string | null;
    role?: string;
    customerId?: string | null;
    lockedAt?: Date | string | null;
  };
  if (lockedAt) return null;
  const known = roles.find((r) => r === role) as Role | undefined;
  return known ? { id, name, username: username ?? name, role: known, customerId: customerId ?? null } : null;
});

/** Of the session this request came in; null without one. */
export const sessionToken = async (): Promise<string | null> =>
  (await auth().api.getSession({ headers: await headers() }))?.session.token ?? null;

/** For pages: sends to sign-in, and back here after it. */
export async function personOnPage(ability: Ability = "look"): Promise<Person> {
  const person = await currentPerson();
  if (!person) redirect(`/sign-in?to=${encodeURIComponent((await headers()).get("x-path") ?? "/")}`);
  if (!may(person.role, ability)) redirect(`/refused?needs=${ability}`);
  return person;
}

export type Refusal =
  | { readonly kind: "signed-out" }
  | { readonly kind: "role-refused"; readonly role: Role; readonly needs: Ability };

/** For actions and routes: the person, or why not. */
export async function personWith(
  ability: Ability,
): Promise<{ ok: true; person: Person } | { ok: false; refusal: Refusal }> {
  const person = await currentPerson();
  if (!person) return { ok: false, refusal: { kind: "signed-out" } };
  return may(person.role, ability)
    ? { ok: true, person }
    : { ok: false, refusal: { kind: "role-refused", role: person.role, needs: ability } };
}

/** Whether a password is this person's own: signing is done with it. */
export async function passwordFits(person: Person, password: string): Promise<boolean> {
  const account = await database()
    .selectFrom("account")
    .select("password")
    .where("userId", "=", person.id)
    .where("providerId", "=", "credential")
    .executeTakeFirst();
  return account?.password ? verify(account.password, password) : false;
}
