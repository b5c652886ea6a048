"use server";
import { APIError } from "better-auth/api";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { database } from "@/server/database";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { lockedOut, passwordByCode } from "@/server/shop/people";
import { addressOf } from "@/server/sign-in/address";
import { noteAttempt, tooManyAttempts } from "@/server/sign-in/attempts";
import { auth } from "@/server/sign-in/auth";
import { ownPath } from "@/server/sign-in/own-path";

export type SignInState = { readonly failure: { readonly kind: string } | null; readonly username: string };

export type CodeState = {
  readonly failure: { readonly kind: string; readonly [detail: string]: unknown } | null;
  readonly username: string;
};
/** A password of one's own, by the code the administrator gave; then signed in with it. */
export async function signInByCode(_: CodeState, form: FormData): Promise<CodeState> {
  const [username, code, password, again] = ["username", "code", "password", "again"].map((name) =>
    String(form.get(name) ?? "").slice(0, 200),
  ) as [string, string, string, string];
  if (password !== again) return { failure: { kind: "passwords-differ" }, username };
  const head = await headers();
  try {
    const set = await passwordByCode(database(), { username, code, password }, addressOf(head), now);
    if (!set.ok) return { failure: set.failure, username };
    await auth().api.signInUsername({ body: { username: set.username, password }, headers: head });
  } catch (error) {
    log("error", "password by code failed", { error: errorText(error) });
    return { failure: { kind: "not-saved" }, username };
  }
  redirect("/");
}

export async function signIn(_: SignInState, form: FormData): Promise<SignInState> {
  const username = String(form.get("username") ?? "")
    .trim()
    .toLowerCase()
    .slice(0, 80);
  const password = String(form.get("password") ?? "").slice(0, 200);
  const to = String(form.get("to") ?? "/");
  const head = await headers();
  const address = addressOf(head);
  if (username === "" || password === "") return { failure: { kind: "wrong-sign-in" }, username };
  const at = now();
  try {
    if (await tooManyAttempts(database(), username, address, at))
      return { failure: { kind: "too-many-tries" }, username };
    // Said alike of a wrong password: who is locked out is nobody else's business.
    if (await lockedOut(database(), username)) {
      await noteAttempt(database(), username, address, false, at);
      return { failure: { kind: "wrong-sign-in" }, username };
    }
    await auth().api.signInUsername({ body: { username, password }, headers: head });
    await noteAttempt(database(), username, address, true, at);
  } catch (error) {
    if (!(error instanceof APIError)) {
      log("error", "sign-in failed", { error: errorText(error) });
      return { failure: { kind: "not-saved" }, username };
    }
    await noteAttempt(database(), username, address, false, at);
    return { failure: { kind: "wrong-sign-in" }, username };
  }
  // Only a path of our own: an address given from outside must not lead away.
  redirect(ownPath(to));
}
