"use client";
import { useActionState } from "react";
import { failureText } from "../words/failures";

type State = {
  readonly failure: { readonly kind: string; readonly [detail: string]: unknown } | null;
  readonly username: string;
};

/** A password set by a one-time code, and signed in with it. */
export function CodeForm({
  signIn,
  least,
}: {
  signIn: (state: State, form: FormData) => Promise<State>;
  least: number;
}) {
  const [state, action, busy] = useActionState(signIn, { failure: null, username: "" });
  const field = (name: string, label: string, more: object) => (
    <div className="field">
      <label htmlFor={`code-${name}`}>{label}</label>
      <input id={`code-${name}`} name={name} className="input" required maxLength={200} {...more} />
    </div>
  );
  const secret = { type: "password", minLength: least, autoComplete: "new-password" };
  return (
    <form action={action} className="mt-4 grid gap-4">
      {field("username", "User name", {
        autoComplete: "username",
        autoCapitalize: "none",
        defaultValue: state.username,
      })}
      {field("code", "One-time code", { autoComplete: "one-time-code", className: "input fig" })}
      {field("password", `New password, ${least} characters or more`, secret)}
      {field("again", "The new password once more", secret)}
      {state.failure && (
        <p role="alert" className="m-0 border-l-4 border-out pl-3 text-out">
          {failureText(state.failure)}
        </p>
      )}
      <button type="submit" className="btn pri justify-center" disabled={busy}>
        {busy ? "Setting it …" : "Set it and sign in"}
      </button>
    </form>
  );
}
