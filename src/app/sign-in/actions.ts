"use server";
import { APIError } from "better-auth/api";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { database } from "@/server/database";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { addressOf } from "@/server/sign-in/address";
import { noteAttempt, tooManyAttempts } from "@/server/sign-in/attempts";
import { auth } from "@/server/sign-in/auth";
import { ownPath } from "@/server/sign-in/own-path";

export type SignInState = { readonly failure: { readonly kind: string } | null; readonly username: string };

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
