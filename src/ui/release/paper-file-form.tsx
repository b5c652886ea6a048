"use client";
import { useActionState } from "react";
import type { CheckState } from "@/server/release/check-paper";
import { failureText } from "../words/failures";
import { PaperAnswer } from "./paper-standing";

/** The certificate's PDF, compared with what was given out; the file is not kept. */
export function PaperFileForm({ check }: { check: (state: CheckState, form: FormData) => Promise<CheckState> }) {
  const [state, action, busy] = useActionState(check, { name: "", standing: null, failure: null });
  return (
    <form action={action} className="mt-3 grid gap-4">
      <div className="field">
        <label htmlFor="file">PDF file of the certificate</label>
        <input id="file" name="file" type="file" accept="application/pdf,.pdf" className="input" required />
      </div>
      <button type="submit" className="btn justify-center" disabled={busy}>
        {busy ? "Comparing …" : "Compare the file"}
      </button>
      {state.failure && (
        <p role="alert" className="m-0 border-out border-l-4 pl-3 text-out">
          {failureText(state.failure)}
        </p>
      )}
      {state.standing && (
        <div>
          <p className="soft small m-0">{state.name}</p>
          <PaperAnswer standing={state.standing} of="file" />
        </div>
      )}
    </form>
  );
}
