"use client";
import { useState } from "react";
import { readOvenFile } from "@/core/instrument-files";
import { judgeOutgas, type OutgasVerdict } from "@/core/preparation";
import { TraceChart } from "../charts/trace-chart";
import { withUnit } from "../format";
import { RecordRow } from "../forms/recorded";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

type Channels = readonly {
  readonly name: string;
  readonly medium: "air" | "metal";
  readonly timeS: readonly number[];
  readonly tempC: readonly (number | null)[];
}[];

/** What an outgassing bake comes to, in words: what the coolest metal was held at, against what is asked. */
export function OutgasWords({ verdict }: { verdict: OutgasVerdict }) {
  const { units } = usePreferences();
  const degrees = (c: number) => withUnit(c, "temperature", units);
  return (
    <p className="m-0">
      <Verdict result={verdict.result}>
        {verdict.heldC === null
          ? `${verdict.channel}: not held 30 min at any heat`
          : `${verdict.channel} held at ${degrees(verdict.heldC)} for 30 min`}
      </Verdict>{" "}
      <span className="small soft">
        asked {degrees(verdict.askedC)}, 15 °C over the cure’s {degrees(verdict.cureMetalC)};{" "}
        {(verdict.longestS / 60).toFixed(0)} min at it
      </span>
    </p>
  );
}

/** The trace of an outgassing bake, from the recorder or a file: judged before it is kept. */
export function OutgasForm({ rack, cureMetalC }: { rack: string; cureMetalC: number }) {
  const { units } = usePreferences();
  const { send, message, busy } = useRecorder();
  const [channels, setChannels] = useState<Channels | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [reading, setReading] = useState(false);
  const read = (text: string) => {
    const file = readOvenFile(text, units === "us" ? "degF" : "degC");
    setProblem(file.ok ? null : failureText({ ...file.error, of: "oven" }));
    setChannels(file.ok ? file.value.channels.map(({ name, medium, trace }) => ({ name, medium, ...trace })) : null);
  };
  const fromRecorder = async () => {
    setReading(true);
    try {
      const response = await fetch("/api/instruments/oven-recorder");
      const text = await response.text();
      if (response.ok) read(text);
      else setProblem("The recorder did not answer. Take its file instead.");
    } catch {
      setProblem("The recorder did not answer. Take its file instead.");
    }
    setReading(false);
  };
  const judged = channels
    ? judgeOutgas(
        channels.map(({ name, medium, timeS, tempC }) => ({ name, medium, trace: { timeS, tempC } })),
        cureMetalC,
      )
    : null;
  return (
    <form
      className="grid gap-2 py-2"
      onSubmit={async (e) => {
        e.preventDefault();
        if (!channels) return;
        const plain = channels.map((c) => ({ ...c, timeS: [...c.timeS], tempC: [...c.tempC] }));
        if (await send({ kind: "outgas", rack, channels: plain })) setChannels(null);
      }}
    >
      <p className="m-0 flex flex-wrap items-center gap-3">
        <button type="button" className="btn" disabled={reading} onClick={() => void fromRecorder()}>
          {reading ? "Reading …" : "Take it from the recorder"}
        </button>
        <label className="flex items-center gap-2">
          <span className="small soft">or its file</span>
          <input
            type="file"
            aria-label="Trace file of the outgassing bake"
            accept=".csv,.tsv,.txt,text/csv,text/plain"
            className="input"
            onChange={async (e) => {
              const file = e.target.files?.[0];
              if (file) read(await file.text());
            }}
          />
        </label>
      </p>
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      {judged && !judged.ok && <p className="m-0 text-out">{failureText(judged.error)}</p>}
      {channels && judged?.ok && (
        <>
          <OutgasWords verdict={judged.value} />
          <TraceChart
            channels={channels.map((c) => ({
              ...c,
              index: 0,
              deciding: c.name === judged.value.channel,
              dead: false,
            }))}
            points={[{ metalC: judged.value.askedC, minutes: 30 }]}
            onsetC={null}
            gaps={[]}
            crossings={[]}
            pullS={null}
            units={units}
            width={780}
            height={180}
          />
        </>
      )}
      {(channels || message) && (
        <RecordRow busy={busy || !judged?.ok} message={message} primary={false}>
          Keep it as this rack’s outgassing bake
        </RecordRow>
      )}
    </form>
  );
}
