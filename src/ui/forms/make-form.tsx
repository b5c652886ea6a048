"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, type ReactNode, useState } from "react";
import { Fold } from "../fields/fold";
import { failureText } from "../words/failures";

type Outcome =
  | { readonly ok: true; readonly href?: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** A form that makes something with a page of its own, and goes there. What was typed stays when it is refused. */
export function MakeForm({
  title,
  button,
  make,
  read,
  anyway,
  children,
}: {
  title: string;
  button: string;
  make: (input: unknown) => Promise<Outcome>;
  /** What is sent; `sure` once what was asked about is to stand. */
  read: (form: FormData, sure: boolean) => unknown;
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
  const send = async (form: HTMLFormElement, sure: boolean) => {
    setState({ busy: true, text: "", asked: false });
    const outcome = await make(read(new FormData(form), sure)).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setState({
      busy: false,
      text: outcome.ok ? "" : failureText(outcome.failure),
      asked: !outcome.ok && outcome.failure.kind === "more-than-ordered",
    });
    if (outcome.ok && outcome.href) router.push(outcome.href);
  };
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    void send(e.currentTarget, false);
  };
  return (
    <Fold className="no-print mt-6 max-w-[640px]" summaryClassName="btn list-none" summary={title}>
      <form onSubmit={submit} className="mt-3 grid gap-3">
        {children}
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
            <button
              type="button"
              className="btn"
              onClick={(e) => {
                const { form } = e.currentTarget;
                if (form) void send(form, true);
              }}
            >
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
  defaultValue?: string | number;
  required?: boolean;
  min?: number;
  max?: number;
  maxLength?: number;
  step?: string;
  placeholder?: string;
}) {
  return (
    <div className="field">
      <label htmlFor={name}>{label}</label>
      <input id={name} name={name} className="input" {...input} />
    </div>
  );
}
