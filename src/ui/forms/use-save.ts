"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { failureText } from "../words/failures";
import { kept, stillSaid } from "./still-said";

/** What a form says that keeps a new version of something set up. */
export const KEPT = "Kept as a new version, from now on.";

export type Outcome =
  | { readonly ok: true; readonly href?: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
export type Save<I = unknown> = (input: I) => Promise<Outcome>;

/**
 * Saves something set up; what was typed stays when it is refused. `said` stands once it is saved, also where its form is
 * made anew by that: `about` then names it. `keyed` sends an `id` with it, the same for the same content until it is saved.
 */
export function useSave<I>(
  save: Save<I>,
  form: { readonly done: () => void },
  {
    said = "Saved, from now on.",
    about = null,
    keyed = false,
  }: { said?: string; about?: string | null; keyed?: boolean } = {},
) {
  const router = useRouter();
  const good = { good: true, text: said };
  const id = useRef<{ content: string; id: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(() =>
    about !== null && stillSaid(about) ? good : null,
  );
  const send = async (input: I): Promise<boolean> => {
    setBusy(true);
    setMessage(null);
    const content = JSON.stringify(input);
    if (id.current?.content !== content) id.current = { content, id: uuidv7() };
    const outcome = await save(keyed ? { id: id.current.id, ...input } : input).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setBusy(false);
    setMessage(outcome.ok ? good : { good: false, text: failureText(outcome.failure) });
    if (!outcome.ok) return false;
    id.current = null;
    form.done();
    if (about !== null) kept(about);
    if (outcome.href) router.push(outcome.href);
    else router.refresh();
    return true;
  };
  return { send, busy, message };
}
