"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import { type GaugeReading, readGaugeLine } from "@/core/thickness";
import { countOf } from "../format";

/** The part of Web Serial that is used; where the browser has none, `serial` is missing. */
type SerialPort = {
  readonly readable: ReadableStream<Uint8Array> | null;
  open: (options: { baudRate: number }) => Promise<void>;
  close: () => Promise<void>;
};
type Serial = { requestPort: () => Promise<SerialPort> };
const serialOf = (): Serial | null =>
  typeof navigator === "undefined" ? null : ((navigator as { serial?: Serial }).serial ?? null);
const BAUD = 9600;

export type GaugeState = "off" | "stream" | "serial" | "batch";

/**
 * A film gauge by any of its ways, all through one reader: a stream of lines from the station's converter, a batch it has
 * kept, or a gauge plugged into this computer where the browser can. A line that is no reading is named and passed over.
 */
export function useGauge(onReading: (reading: GaugeReading) => void, unitWithout: "um" | "mil") {
  const [state, setState] = useState<GaugeState>("off");
  const [said, setSaid] = useState<string | null>(null);
  const [canSerial, setCanSerial] = useState(false);
  const stopping = useRef<(() => void) | null>(null);
  const got = useRef(0);
  const reader = useRef(onReading);
  reader.current = onReading;
  useEffect(() => setCanSerial(serialOf() !== null), []);

  const line = useCallback(
    (text: string): void => {
      const read = readGaugeLine(text, unitWithout);
      if (read.ok) {
        got.current++;
        reader.current(read.value);
      } else if (text.trim() !== "") setSaid(`“${text.trim().slice(0, 40)}” is not a reading: passed over.`);
    },
    [unitWithout],
  );
  const stop = useCallback(() => {
    stopping.current?.();
    stopping.current = null;
    setState("off");
  }, []);
  useEffect(() => () => stopping.current?.(), []);
  const lost = useCallback(() => {
    stop();
    setSaid(
      got.current === 0
        ? "The gauge does not answer. Check that it is on, then start it again; readings can be typed meanwhile."
        : `The gauge went silent after ${got.current} readings. What came is kept; start it again to go on.`,
    );
  }, [stop]);
  const begin = useCallback((next: GaugeState) => {
    got.current = 0;
    setSaid(null);
    setState(next);
  }, []);

  const start = useCallback(
    (mode = "") => {
      stop();
      begin("stream");
      const events = new EventSource(`/api/instruments/film-gauge${mode ? `?mode=${encodeURIComponent(mode)}` : ""}`);
      events.onmessage = (e) => line(String(e.data));
      events.onerror = lost;
      stopping.current = () => events.close();
    },
    [stop, begin, line, lost],
  );
  const fetchBatch = useCallback(async () => {
    stop();
    begin("batch");
    try {
      const answer = await fetch("/api/instruments/film-gauge-batch");
      if (!answer.ok) throw new Error(String(answer.status));
      for (const text of (await answer.text()).split(/\r?\n/)) line(text);
      setState("off");
      setSaid(got.current === 0 ? "The gauge holds no readings." : `${countOf(got.current, "reading")} fetched.`);
    } catch {
      lost();
    }
  }, [stop, begin, line, lost]);
  const startSerial = useCallback(async () => {
    const serial = serialOf();
    if (!serial) return;
    stop();
    let port: SerialPort;
    try {
      port = await serial.requestPort();
      await port.open({ baudRate: BAUD });
    } catch {
      setSaid("No port was chosen, or it is in use by another program.");
      return;
    }
    begin("serial");
    const stream = port.readable?.getReader();
    let over = false;
    stopping.current = () => {
      over = true;
      void stream?.cancel().then(() => port.close());
    };
    const decoder = new TextDecoder();
    let rest = "";
    try {
      while (stream) {
        const { value, done } = await stream.read();
        if (done) break;
        const lines = (rest + decoder.decode(value, { stream: true })).split(/\r?\n/);
        rest = lines.pop() ?? "";
        for (const text of lines) line(text);
      }
    } catch {
      // Pulled out, or switched off: said below.
    }
    if (!over) lost();
  }, [stop, begin, line, lost]);
  return { state, said, say: setSaid, canSerial, start, startSerial, fetchBatch, stop };
}
