"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import { type BenchReading, readBenchLine } from "@/core/bench";

/**
 * A meter at the bench: what it says line by line, each read whole or named and passed over. It ends by itself; silence is said.
 */
export function useBenchInstrument(
  device: "gloss-meter" | "colour-meter" | "pull-off-tester",
  onReading: (reading: BenchReading) => void,
) {
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const stopping = useRef<(() => void) | null>(null);
  const take = useRef(onReading);
  take.current = onReading;
  useEffect(() => () => stopping.current?.(), []);
  const read = useCallback(
    (mode = "") => {
      stopping.current?.();
      setBusy(true);
      setSaid(null);
      let got = 0;
      const line = (text: string) => {
        if (text.trim() === "") return;
        const reading = readBenchLine(text);
        if (reading.ok) {
          got++;
          take.current(reading.value);
        } else setSaid(`“${text.trim().slice(0, 40)}” is not a reading: passed over.`);
      };
      const over = () => {
        stopping.current?.();
        stopping.current = null;
        setBusy(false);
        if (got === 0) setSaid("The instrument does not answer. Check that it is on; readings can be typed meanwhile.");
      };
      const address = `/api/instruments/${device}${mode ? `?mode=${encodeURIComponent(mode)}` : ""}`;
      if (device === "gloss-meter") {
        const events = new EventSource(address);
        events.onmessage = (e) => line(String(e.data));
        events.onerror = over;
        stopping.current = () => events.close();
        return;
      }
      const abort = new AbortController();
      stopping.current = () => abort.abort();
      fetch(address, { signal: abort.signal })
        .then((answer) => (answer.ok ? answer.text() : ""))
        .catch(() => "")
        .then((text) => {
          if (abort.signal.aborted) return;
          for (const one of text.split(/\r?\n/)) line(one);
          over();
        });
    },
    [device],
  );
  return { read, busy, said };
}
