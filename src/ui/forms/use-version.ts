"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { failureText } from "../words/failures";
import { kept, stillSaid } from "./still-said";
import { useEntryForm } from "./use-entry-form";

const KEPT = { good: true, text: "Kept as a new version, from now on." } as const;

export type VersionOutcome =
  | { readonly ok: true; readonly href?: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** Keeps a new version of something set up, with why it changes; what was typed stays when it is refused. `about` names the form and what it is of; null while it is of nothing yet. */
export function useVersion(
  save: (input: unknown) => Promise<VersionOutcome>,
  about: string | null,
  form?: { readonly done: () => void },
) {
  const router = useRouter();
  const why = useEntryForm(`why ${about ?? "new"}`, { reason: "" });
  const [reason, setReason] = why.field("reason");
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(() =>
    about !== null && stillSaid(about) ? KEPT : null,
  );
  const refuse = (text: string) => setMessage({ good: false, text });
  const keep = async (what: { readonly code: string; readonly seen: string | null; readonly data: object }) => {
    setBusy(true);
    setMessage(null);
    const outcome = await save({ ...what, reason }).catch(
      (): VersionOutcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setBusy(false);
    if (!outcome.ok) {
      refuse(failureText(outcome.failure));
      return outcome;
    }
    form?.done();
    why.done();
    if (about !== null) kept(about);
    setMessage(KEPT);
    setReason("");
    router.refresh();
    return outcome;
  };
  return { reason, setReason, busy, message, refuse, keep, said: why.said };
}
