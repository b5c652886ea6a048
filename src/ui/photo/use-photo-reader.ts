"use client";
import { useCallback, useEffect, useRef, useState } from "react";

type Numbered = { readonly number: number };

/** A photo read in a worker of its own, so that the page goes on meanwhile: the newest question's answer, or that it is being read. */
export function usePhotoReader<Q extends Numbered, A extends Numbered>(
  make: () => Worker,
  /** What is answered where the worker stopped of itself. */
  stopped: (number: number) => A,
) {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [busy, setBusy] = useState(false);
  const [answer, setAnswer] = useState<A | null>(null);
  useEffect(() => () => worker.current?.terminate(), []);
  const begin = useRef({ make, stopped });
  const ask = useCallback((question: Omit<Q, "number">) => {
    if (!worker.current) {
      worker.current = begin.current.make();
      worker.current.onmessage = (event: MessageEvent<A>) => {
        if (event.data.number !== asked.current) return;
        setBusy(false);
        setAnswer(event.data);
      };
      // A worker that stops of itself is told of, and the next photo has a new one.
      worker.current.onerror = () => {
        worker.current?.terminate();
        worker.current = null;
        setBusy(false);
        setAnswer(begin.current.stopped(asked.current));
      };
    }
    asked.current++;
    setBusy(true);
    worker.current.postMessage({ ...question, number: asked.current });
  }, []);
  const drop = useCallback(() => setAnswer(null), []);
  return { ask, busy, answer, drop };
}
