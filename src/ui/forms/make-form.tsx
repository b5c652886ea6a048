"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, type ReactNode, useState } from "react";
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
  children,
}: {
  title: string;
  button: string;
  make: (input: unknown) => Promise<Outcome>;
  read: (form: FormData) => unknown;
  children: ReactNode;
}) {
  const router = useRouter();
  const [state, setState] = useState<{ busy: boolean; text: string }>({ busy: false, text: "" });
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    setState({ busy: true, text: "" });
    const outcome = await make(read(new FormData(e.currentTarget))).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setState({ busy: false, text: outcome.ok ? "" : failureText(outcome.failure) });
    if (outcome.ok && outcome.href) router.push(outcome.href);
  };
  return (
    <details className="no-print mt-6 max-w-[640px]">
      <summary className="btn cursor-pointer list-none">{title}</summary>
      <form onSubmit={submit} className="mt-3 grid gap-3">
        {children}
        {state.text && (
          <p role="alert" className="border-l-4 border-out pl-3 text-out">
            {state.text}
          </p>
        )}
        <p>
          <button type="submit" className="btn pri" disabled={state.busy}>
            {state.busy ? "Recording …" : button}
          </button>
        </p>
      </form>
    </details>
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

export function Choose({
  name,
  label,
  options,
}: {
  name: string;
  label: string;
  options: readonly { readonly id: string; readonly label: string }[];
}) {
  return (
    <div className="field">
      <label htmlFor={name}>{label}</label>
      <select id={name} name={name} className="input">
        {options.map((o) => (
          <option key={o.id} value={o.id}>
            {o.label}
          </option>
        ))}
      </select>
    </div>
  );
}
