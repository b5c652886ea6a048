"use client";
import { type FormEvent, useState } from "react";
import { BASE_READINGS } from "@/core/thickness";
import { milToUm, parseNumber } from "@/core/units";
import { withUnit } from "../format";
import { RecordRow } from "../forms/recorded";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

/** Ten readings on the bare metal of the part, to be taken off its film: profile counts as film otherwise. */
export function BaseMetalForm({ rack }: { rack: string }) {
  const { units } = usePreferences();
  const held = useEntryForm(`base metal ${rack}`, { text: "" });
  const [text, setText] = held.field("text");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const words = text.split(/[\s;]+/).filter((w) => w !== "");
  const values = words.flatMap((w) => {
    const read = parseNumber(w);
    return read.ok ? [units === "us" ? milToUm(read.value) : read.value] : [];
  });
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    for (const word of words) {
      const read = parseNumber(word);
      if (!read.ok) return setProblem(failureText(read.error));
    }
    if (values.length === 0) return setProblem("Type the readings with spaces between.");
    if (await send({ kind: "base-metal", rack, readingsUm: values, note: "" })) setText("");
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-2">
      {held.said}
      <div className="field">
        <label htmlFor="base-readings">{`${BASE_READINGS} readings on the bare part, ${units === "us" ? "mil" : "µm"}`}</label>
        <input id="base-readings" className="input fig" value={text} onChange={(e) => setText(e.target.value)} />
      </div>
      {values.length > 0 && (
        <p className="small soft m-0">
          {values.length} of {BASE_READINGS};{" "}
          {withUnit(values.reduce((a, b) => a + b, 0) / values.length, "thickness", units)} would be taken off every
          reading
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Record the bare metal
      </RecordRow>
    </form>
  );
}
