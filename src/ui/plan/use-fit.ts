"use client";
import { useEffect, useRef, useState } from "react";
import type { FitAnswer, FitInShort, FitQuestion } from "./fit-answer";

/** The fit of every part of a delivery, found in a worker: empty until its answer is there, the newest question only. */
export function useFit(question: Omit<FitQuestion, "number">): readonly FitInShort[] {
  const [found, setFound] = useState<readonly FitInShort[]>([]);
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const key = JSON.stringify(question);
  useEffect(() => {
    worker.current = new Worker(new URL("./fit-worker.ts", import.meta.url), { type: "module" });
    worker.current.onmessage = (event: MessageEvent<FitAnswer>) => {
      if (event.data.number !== asked.current) return;
      // A part whose fit is as it was keeps its object, so that only what changed is drawn again.
      setFound((before) =>
        event.data.found.map((fit, i) => {
          const known = before[i];
          return known && JSON.stringify(known) === JSON.stringify(fit) ? known : fit;
        }),
      );
    };
    return () => worker.current?.terminate();
  }, []);
  useEffect(() => {
    asked.current++;
    worker.current?.postMessage({ ...JSON.parse(key), number: asked.current } satisfies FitQuestion);
  }, [key]);
  return found;
}
