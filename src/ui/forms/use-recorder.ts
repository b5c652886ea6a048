"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { useShell } from "../frame/shell";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;
type Message = { good: boolean; text: string } | null;

type Sent = DistributiveOmit<
  Parameters<ReturnType<typeof useShell>["actions"]["save"]>[0],
  "id" | "idempotencyKey" | "happenedAt"
>;
/** Refusals that one who may can set aside with a reason. */
export const ORDER_OF_WORK: ReadonlySet<string> = new Set([
  "out-of-order",
  "open-before-oven",
  "metal-not-ready",
  "recoat-not-ready",
  "first-piece-first",
]);

/**
 * Sends an entry once: the same form content keeps its id through retries, and changes it when anything is changed. Once it
 * is recorded the form's draft is done.
 */
export function useRecorder(form?: { readonly done: () => void }) {
  const { actions } = useShell();
  const router = useRouter();
  const { units } = usePreferences();
  const id = useRef<{ content: string; id: string } | null>(null);
  const [message, setMessage] = useState<Message>(null);
  const [busy, setBusy] = useState(false);
  const [refused, setRefused] = useState<{ readonly kind: string; readonly [detail: string]: unknown } | null>(null);
  const last = useRef<Sent | null>(null);
  const send = async (entry: Sent) => {
    last.current = entry;
    if (busy) return false;
    setBusy(true);
    // What came of the press before must not stand for this one.
    setMessage(null);
    const content = JSON.stringify(entry);
    if (id.current?.content !== content) id.current = { content, id: uuidv7() };
    const outcome = await actions
      .save({
        ...entry,
        id: id.current.id,
        idempotencyKey: `form:${id.current.id}`,
        happenedAt: new Date().toISOString(),
      } as Parameters<typeof actions.save>[0])
      .catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    setBusy(false);
    setRefused(outcome.ok ? null : outcome.failure);
    setMessage(
      outcome.ok
        ? { good: true, text: outcome.already ? "Already recorded." : "Recorded." }
        : { good: false, text: failureText(outcome.failure, units) },
    );
    if (outcome.ok) {
      id.current = null;
      form?.done();
      router.refresh();
    }
    return outcome.ok;
  };
  /** Of what was refused for its order: sent again, set aside with a reason by one who may. */
  const setAside =
    refused && ORDER_OF_WORK.has(refused.kind) && last.current
      ? (reason: string) => send({ ...last.current, leftOut: reason } as Sent)
      : null;
  return { send, message, busy, refused, setAside };
}
