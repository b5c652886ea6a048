"use client";
import { useActionState } from "react";
import { failureText } from "../words/failures";

type State = { readonly failure: { readonly kind: string } | null; readonly username: string };

export function SignInForm({ signIn, to }: { signIn: (state: State, form: FormData) => Promise<State>; to: string }) {
  const [state, action, busy] = useActionState(signIn, { failure: null, username: "" });
  return (
    <form action={action} className="mt-6 grid max-w-[340px] gap-4">
      <input type="hidden" name="to" value={to} />
      <div className="field">
        <label htmlFor="username">User name</label>
        <input
          id="username"
          name="username"
          className="input"
          autoComplete="username"
          autoCapitalize="none"
          defaultValue={state.username}
          required
        />
      </div>
      <div className="field">
        <label htmlFor="password">Password</label>
        <input
          id="password"
          name="password"
          type="password"
          className="input"
          autoComplete="current-password"
          required
        />
      </div>
      {state.failure && (
        <p role="alert" className="border-l-4 border-out pl-3 text-out">
          {failureText(state.failure)}
        </p>
      )}
      <button type="submit" className="btn pri justify-center" disabled={busy}>
        {busy ? "Signing in …" : "Sign in"}
      </button>
    </form>
  );
}
