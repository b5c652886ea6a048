"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { useShell } from "../frame/shell";
import { failureText } from "../words/failures";

/** The end of a load: stored once however often it is pressed, with the recorder's channels where there are some. */
export function usePull(recordId: string) {
  const { actions } = useShell();
  const router = useRouter();
  const id = useRef(uuidv7());
  const [state, setState] = useState<{ busy: boolean; text: string }>({ busy: false, text: "" });
  const pull = async (traced: Parameters<typeof actions.pull>[2] = null) => {
    setState({ busy: true, text: "" });
    const outcome = await actions
      .pull(recordId, id.current, traced)
      .catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    setState({ busy: false, text: outcome.ok ? "" : failureText(outcome.failure) });
    if (outcome.ok) router.refresh();
  };
  return { ...state, pull };
}
