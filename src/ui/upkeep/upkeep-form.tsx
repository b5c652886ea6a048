"use client";
import { type FormEvent, useState } from "react";
import { parseNumber } from "@/core/units";
import { measureHolds, type UpkeepHands, type UpkeepMeasure, type UpkeepResult, upkeepResults } from "@/core/upkeep";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";
import { measureWindow, upkeepResultName } from "../words/upkeep";

/** One upkeep recorded: the value where there is one, what was found, by whom where it is not the line's own. */
export function UpkeepForm({
  code,
  hands,
  measure,
}: {
  code: string;
  hands: UpkeepHands;
  measure: UpkeepMeasure | null;
}) {
  const held = useEntryForm(`upkeep ${code}`, { result: null as UpkeepResult | null, value: "", who: "", note: "" });
  const [result, setResult] = held.field("result");
  const [value, setValue] = held.field("value");
  const [who, setWho] = held.field("who");
  const [note, setNote] = held.field("note");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const read = value.trim() === "" ? null : parseNumber(value);
  const holds = read?.ok ? measureHolds(measure, read.value) : null;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (read && !read.ok) return setProblem(failureText(read.error));
    if (result === null) return setProblem("Say what was found: in order, put right, or not in order.");
    if (!(await send({ kind: "upkeep", item: code, result, value: read?.ok ? read.value : null, who, note }))) return;
    setResult(null);
    setValue("");
    setNote("");
  };
  const noteLabel =
    hands === "supplier" ? "What was found, and what is to be changed by when" : "What was found and done";
  return (
    <form onSubmit={submit} className="grid max-w-[720px] gap-3 pb-4" noValidate>
      {held.said}
      {measure && (
        <div className="flex flex-wrap items-end gap-3">
          <div className="w-[200px]">
            <TypedNumber
              id={`${code}-value`}
              label={`${measure.name}${measure.unit ? `, ${measure.unit}` : ""}`}
              text={value}
              change={setValue}
            />
          </div>
          <span className="soft pb-2">
            {holds === null ? (
              measureWindow(measure)
            ) : (
              <Verdict result={holds ? "in" : "out"}>{measureWindow(measure)}</Verdict>
            )}
          </span>
        </div>
      )}
      <fieldset className="m-0 border-0 p-0">
        <legend className="small soft mb-1">Found</legend>
        <span className="flex flex-wrap gap-2">
          {upkeepResults.map((r) => (
            <button
              key={r}
              type="button"
              aria-pressed={result === r}
              className={`btn ${result === r ? "pri" : ""}`}
              onClick={() => setResult(r)}
            >
              {upkeepResultName[r]}
            </button>
          ))}
        </span>
      </fieldset>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,2fr)] gap-3 max-[600px]:grid-cols-1">
        <TextField
          id={`${code}-who`}
          label={
            hands === "line" ? "With whom" : hands === "supplier" ? "Who visited" : "Who did it, and their licence"
          }
          text={who}
          change={setWho}
          most={80}
        />
        <TextField id={`${code}-note`} label={noteLabel} text={note} change={setNote} most={800} />
      </div>
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message}>
        Record it
      </RecordRow>
    </form>
  );
}
