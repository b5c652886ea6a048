"use server";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { database } from "@/server/database";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { beginShop } from "@/server/shop/begin-shop";
import { auth } from "@/server/sign-in/auth";

type Refused = { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** The shop begun and its administrator signed in. Refused once anybody is there: this needs no sign-in. */
export async function begin(input: unknown): Promise<Refused> {
  try {
    const begun = await beginShop(database(), input, now);
    if (!begun.ok) return begun;
    await auth().api.signInUsername({
      body: { username: begun.username, password: String((input as { password: string }).password) },
      headers: await headers(),
    });
  } catch (error) {
    log("error", "the shop was not begun", { error: errorText(error) });
    return { ok: false, failure: { kind: "not-saved" } };
  }
  redirect("/");
}
