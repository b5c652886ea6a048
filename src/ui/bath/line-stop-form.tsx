"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { parseNumber } from "@/core/units";
import { Choice } from "../fields/choice";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useShell } from "../frame/shell";
import { failureText } from "../words/failures";

const MINUTE = 60_000;
/** Longest stop that can be noted here, min. */
const LONGEST_MIN = 24 * 60;

/** The line stood: how long ago it began, for how long, and why. The racks inside are found and judged. */
export function LineStopForm({ lines }: { lines: readonly string[] }) {
  const { actions } = useShell();
  const router = useRouter();
  const id = useRef<{ content: string; id: string; from: number } | null>(null);
  const held = useEntryForm("line stop", { line: lines[0] ?? "", ago: "", minutes: "", cause: "" });
  const [line, setLine] = held.field("line");
  const [ago, setAgo] = held.field("ago");
  const [minutes, setMinutes] = held.field("minutes");
  const [cause, setCause] = held.field("cause");
  const [state, setState] = useState<{ busy: boolean; message: { good: boolean; text: string } | null }>({
    busy: false,
    message: null,
  });
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const say = (text: string) => setState({ busy: false, message: { good: false, text } });
    const [began, stood] = [parseNumber(ago), parseNumber(minutes)];
    for (const read of [began, stood]) if (!read.ok) return say(failureText(read.error));
    if (!began.ok || !stood.ok) return;
    if (stood.value <= 0 || stood.value > LONGEST_MIN) return say(`A stop of ${stood.value} min cannot be.`);
    if (began.value < stood.value)
      return say("It began less long ago than it lasted. Note it when the line runs again.");
    const content = JSON.stringify([line, ago, minutes, cause]);
    if (id.current?.content !== content)
      id.current = { content, id: uuidv7(), from: Date.now() - began.value * MINUTE };
    const { id: key, from } = id.current;
    setState({ busy: true, message: null });
    const outcome = await actions
      .save({
        kind: "line-stop",
        id: key,
        idempotencyKey: `stop:${key}`,
        happenedAt: new Date(from).toISOString(),
        until: new Date(from + stood.value * MINUTE).toISOString(),
        line,
        cause,
      })
      .catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    if (!outcome.ok) return say(failureText(outcome.failure));
    id.current = null;
    held.done();
    setState({ busy: false, message: { good: true, text: "Recorded; the racks inside are listed." } });
    setAgo("");
    setMinutes("");
    setCause("");
    router.refresh();
  };
  return (
    <form onSubmit={submit} className="grid gap-2" noValidate>
      {held.said}
      {lines.length > 1 && (
        <Choice aria-label="Line" className="input" value={line} onChange={setLine}>
          {lines.map((l) => (
            <option key={l}>{l}</option>
          ))}
        </Choice>
      )}
      <div className="grid grid-cols-2 gap-2">
        <TypedNumber id="stop-ago" label="Began, min ago" text={ago} change={setAgo} required />
        <TypedNumber id="stop-minutes" label="Stood for, min" text={minutes} change={setMinutes} required />
      </div>
      <TextField id="stop-cause" label="Why" text={cause} change={setCause} most={200} required />
      <RecordRow busy={state.busy} message={state.message} primary={false}>
        Record the stop
      </RecordRow>
    </form>
  );
}
