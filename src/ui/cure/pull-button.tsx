"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { useShell } from "../frame/shell";
import { failureText } from "../words/failures";

/** Pull: one press, stored once however often it is pressed. */
export function PullButton({ recordId, load }: { recordId: string; load: string }) {
  const { actions } = useShell();
  const router = useRouter();
  const id = useRef(uuidv7());
  const [state, setState] = useState<{ busy: boolean; text: string }>({ busy: false, text: "" });
  const press = async () => {
    setState({ busy: true, text: "" });
    const outcome = await actions
      .pull(recordId, id.current)
      .catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    setState({ busy: false, text: outcome.ok ? "" : failureText(outcome.failure) });
    if (outcome.ok) router.refresh();
  };
  return (
    <span className="flex items-center gap-3">
      <button
        type="button"
        className="btn pri"
        disabled={state.busy}
        onClick={() => void press()}
        aria-label={`Pull load ${load} now`}
      >
        {state.busy ? "Recording …" : "Pulled now"}
      </button>
      {state.text && <output className="text-out">{state.text}</output>}
    </span>
  );
}
