"use client";
import { useRouter } from "next/navigation";
import { createContext, type FormEvent, type ReactNode, useContext, useState } from "react";
import { Fold } from "../fields/fold";
import { failureText } from "../words/failures";
import { type EntryForm, useEntryForm } from "./use-entry-form";

type Outcome =
  | { readonly ok: true; readonly href?: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

type Held = EntryForm<Record<string, string | readonly string[]>>;
const HeldContext = createContext<Held | null>(null);
/** The form that a field stands in. */
export function useHeld(): Held {
  const held = useContext(HeldContext);
  if (!held) throw new Error("a field outside its form");
  return held;
}

/** A form that makes something with a page of its own, and goes there. What was typed stays when it is refused. */
export function MakeForm({
  title,
  button,
  about,
  begun,
  make,
  read,
  anyway,
  children,
}: {
  title: string;
  button: string;
  /** Which form it is, and of what: its draft is kept under it. */
  about: string;
  /** What stands in its fields at first, by name. */
  begun: Record<string, string | readonly string[]>;
  make: (input: unknown) => Promise<Outcome>;
  /** What is sent; `sure` once what was asked about is to stand. */
  read: (values: Record<string, string | readonly string[]>, sure: boolean) => unknown;
  /** What the button says that keeps it as it stands, where a refusal only asks. */
  anyway?: string;
  children: ReactNode;
}) {
  const router = useRouter();
  const [state, setState] = useState<{ busy: boolean; text: string; asked: boolean }>({
    busy: false,
    text: "",
    asked: false,
  });
  const held = useEntryForm(about, begun);
  const send = async (sure: boolean) => {
    setState({ busy: true, text: "", asked: false });
    const outcome = await make(read(held.values, sure)).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setState({
      busy: false,
      text: outcome.ok ? "" : failureText(outcome.failure),
      asked: !outcome.ok && outcome.failure.kind === "more-than-ordered",
    });
    if (!outcome.ok) return;
    held.done();
    if (outcome.href) router.push(outcome.href);
  };
  const submit = (e: FormEvent) => {
    e.preventDefault();
    void send(false);
  };
  return (
    <Fold className="no-print mt-6 max-w-[640px]" summaryClassName="btn list-none" summary={title}>
      <form onSubmit={submit} className="mt-3 grid gap-3">
        {held.said}
        <HeldContext value={held}>{children}</HeldContext>
        {state.text && (
          <p role="alert" className="border-l-4 border-out pl-3 text-out">
            {state.text}
          </p>
        )}
        <p className="flex flex-wrap gap-3">
          <button type="submit" className="btn pri" disabled={state.busy}>
            {state.busy ? "Recording …" : button}
          </button>
          {state.asked && anyway && (
            <button type="button" className="btn" onClick={() => void send(true)}>
              {anyway}
            </button>
          )}
        </p>
      </form>
    </Fold>
  );
}

export function Field({
  name,
  label,
  ...input
}: {
  name: string;
  label: string;
  type?: string;
  required?: boolean;
  min?: number;
  max?: number;
  maxLength?: number;
  step?: string;
  placeholder?: string;
}) {
  const held = useHeld();
  return (
    <div className="field">
      <label htmlFor={name}>{label}</label>
      <input id={name} {...held.register(name)} className="input" {...input} />
    </div>
  );
}
