"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { failureText } from "../words/failures";
import { NotReadable } from "./setup-texts";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
export type SaveSetup = (input: unknown) => Promise<Outcome>;

/** Saves a form of set-up: what cannot be read is said before anything is sent. */
export function useSetupSave(save: SaveSetup, form: { readonly done: () => void }) {
  const router = useRouter();
  const [state, setState] = useState<{ busy: boolean; message: { good: boolean; text: string } | null }>({
    busy: false,
    message: null,
  });
  const refuse = (text: string) => setState({ busy: false, message: { good: false, text } });
  const send = async (read: () => unknown, done: string): Promise<boolean> => {
    let input: unknown;
    try {
      input = read();
    } catch (error) {
      if (!(error instanceof NotReadable)) throw error;
      refuse(error.message);
      return false;
    }
    setState({ busy: true, message: null });
    const outcome = await save(input).catch((): Outcome => ({ ok: false, failure: { kind: "not-saved" } }));
    if (!outcome.ok) {
      refuse(failureText(outcome.failure));
      return false;
    }
    form.done();
    setState({ busy: false, message: { good: true, text: done } });
    router.refresh();
    return true;
  };
  return { ...state, send };
}
