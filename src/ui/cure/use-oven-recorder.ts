"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import type { BakeChannel } from "@/core/cure";

export type RecorderState = "off" | "running" | "lost";
/** Redrawn so often at the most, ms: a stream may be far faster than the eye. */
const REDRAW_MS = 250;

/**
 * The oven recorder while a load is in: lines of seconds and temperatures, the heading first. A line cut off, out of order
 * or with a word in it is passed over and counted. What came stays when the stream is lost.
 */
export function useOvenRecorder() {
  const [state, setState] = useState<RecorderState>("off");
  const [channels, setChannels] = useState<readonly BakeChannel[]>([]);
  const [passedOver, setPassedOver] = useState(0);
  const source = useRef<EventSource | null>(null);
  const names = useRef<string[]>([]);
  const timeS = useRef<number[]>([]);
  const temps = useRef<(number | null)[][]>([]);
  const drawnAt = useRef(0);

  const snapshot = useCallback(
    (): BakeChannel[] =>
      names.current.map((name, i) => ({
        name,
        medium: /^air/i.test(name) ? ("air" as const) : ("metal" as const),
        trace: { timeS: [...timeS.current], tempC: [...(temps.current[i] ?? [])] },
      })),
    [],
  );
  const stop = useCallback(() => {
    source.current?.close();
    source.current = null;
    setState("off");
    setChannels(snapshot());
  }, [snapshot]);
  /** As if it had never run. */
  const clear = useCallback(() => {
    source.current?.close();
    source.current = null;
    names.current = [];
    timeS.current = [];
    temps.current = [];
    setState("off");
    setChannels([]);
    setPassedOver(0);
  }, []);
  useEffect(() => () => source.current?.close(), []);

  const start = useCallback(
    (mode: string) => {
      source.current?.close();
      names.current = [];
      timeS.current = [];
      temps.current = [];
      setPassedOver(0);
      setState("running");
      const stream = new EventSource(`/api/instruments/oven-recorder-live?mode=${encodeURIComponent(mode)}`);
      source.current = stream;
      stream.onmessage = (e) => {
        const cells = String(e.data).split(",");
        if (names.current.length === 0) {
          names.current = cells.slice(1);
          temps.current = names.current.map(() => []);
          return;
        }
        const [s, ...values] = cells.map((cell) => (cell.trim() === "" ? Number.NaN : Number(cell)));
        const last = timeS.current.at(-1) ?? -1;
        if (s === undefined || !Number.isFinite(s) || s <= last || values.length !== names.current.length) {
          setPassedOver((n) => n + 1);
          return;
        }
        timeS.current.push(s);
        for (const [i, value] of values.entries()) temps.current[i]?.push(Number.isFinite(value) ? value : null);
        const now = performance.now();
        if (now - drawnAt.current >= REDRAW_MS) {
          drawnAt.current = now;
          setChannels(snapshot());
        }
      };
      stream.onerror = () => {
        stream.close();
        source.current = null;
        setState("lost");
        setChannels(snapshot());
      };
    },
    [snapshot],
  );
  return { state, channels, passedOver, start, stop, clear, snapshot };
}
