"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import { err } from "@/core/result";
import type { CutAnswer, CutQuestion } from "./cut-photo-reader";

/** A photo read in a worker, so that the page goes on meanwhile: the newest question's answer, or that it is being read. */
export function useCutPhoto() {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [busy, setBusy] = useState(false);
  const [answer, setAnswer] = useState<CutAnswer | null>(null);
  useEffect(() => () => worker.current?.terminate(), []);
  const ask = useCallback((question: Omit<CutQuestion, "number">) => {
    if (!worker.current) {
      worker.current = new Worker(new URL("./cut-photo-worker.ts", import.meta.url), { type: "module" });
      worker.current.onmessage = (event: MessageEvent<CutAnswer>) => {
        if (event.data.number !== asked.current) return;
        setBusy(false);
        setAnswer(event.data);
      };
      // A worker that stops of itself is told of, and the next photo has a new one.
      worker.current.onerror = () => {
        worker.current?.terminate();
        worker.current = null;
        setBusy(false);
        setAnswer({ number: asked.current, read: err({ kind: "bad-photo" }), shown: null });
      };
    }
    asked.current++;
    setBusy(true);
    worker.current.postMessage({ ...question, number: asked.current } satisfies CutQuestion);
  }, []);
  const drop = useCallback(() => setAnswer(null), []);
  return { ask, busy, answer, drop };
}
