"use client";
import { type FormEvent, useState } from "react";
import { type DryOffReason, judgeDryOff } from "@/core/preparation";
import { parseNumber, quantities } from "@/core/units";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { dryOffReason } from "../words/preparation";

/** How a rack came out of the dry-off: one press for dry, one for its tubes and laps; heat where it was read. */
export function DryOffForm({
  rack,
  minutes,
  leastMinutes,
  holdsWater,
  boothMetalC,
}: {
  rack: string;
  /** Time in the dry-off by its passages; null while it has none. */
  minutes: number | null;
  leastMinutes: number | null;
  holdsWater: boolean;
  boothMetalC: number;
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`dry-off ${rack}`, {
    dry: null as boolean | null,
    blown: null as boolean | null,
    air: "",
    metal: "",
    note: "",
  });
  const [dry, setDry] = held.field("dry");
  const [blown, setBlown] = held.field("blown");
  const [air, setAir] = held.field("air");
  const [metal, setMetal] = held.field("metal");
  const [note, setNote] = held.field("note");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const degrees = (text: string) => {
    const read = text.trim() === "" ? null : parseNumber(text);
    return read?.ok ? (units === "us" ? quantities.temperature.fromUs(read.value) : read.value) : null;
  };
  const metalC = degrees(metal);
  const judged =
    dry === null
      ? null
      : judgeDryOff({ minutes, metalC, partsDry: dry, hollowBlown: blown }, { leastMinutes, boothMetalC, holdsWater });
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (dry === null) return setProblem("Look at the parts: are they dry?");
    for (const text of [air, metal]) {
      const read = text.trim() === "" ? null : parseNumber(text);
      if (read && !read.ok) return setProblem(failureText(read.error));
    }
    const entry = {
      kind: "dry-off" as const,
      rack,
      airC: degrees(air),
      metalC,
      partsDry: dry,
      hollowBlown: blown,
      note,
    };
    if (!(await send(entry))) return;
    setDry(null);
    setBlown(null);
    setAir("");
    setMetal("");
    setNote("");
  };
  const choice = (
    name: string,
    chosen: boolean | null,
    choose: (value: boolean) => void,
    words: readonly [string, string],
  ) => (
    <fieldset className="m-0 border-0 p-0">
      <legend className="small soft mb-1">{name}</legend>
      <span className="flex gap-2">
        {([true, false] as const).map((value) => (
          <button
            key={String(value)}
            type="button"
            aria-pressed={chosen === value}
            className={`btn ${chosen === value ? "pri" : ""}`}
            onClick={() => choose(value)}
          >
            {words[value ? 0 : 1]}
          </button>
        ))}
      </span>
    </fieldset>
  );
  const unit = quantities.temperature[units];
  return (
    <form onSubmit={submit} className="grid gap-2" noValidate>
      {held.said}
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        {choice("Parts", dry, setDry, ["dry", "damp"])}
        {holdsWater && choice("Tubes and laps", blown, setBlown, ["blown out", "not blown out"])}
        <div className="w-[136px]">
          <TypedNumber id="dry-air" label={`Heat of the oven, ${unit}`} text={air} change={setAir} />
        </div>
        <div className="w-[136px]">
          <TypedNumber id="dry-metal" label={`Heat of the parts, ${unit}`} text={metal} change={setMetal} />
        </div>
        <TextField
          id="dry-note"
          label="Note"
          text={note}
          change={setNote}
          most={400}
          className="min-w-[160px] flex-1"
        />
      </div>
      {judged && judged.reasons.length > 0 && (
        <p className="m-0">
          <Verdict result={judged.result}>
            {judged.reasons.map((r: DryOffReason) => dryOffReason(r, leastMinutes)).join("; ")}
          </Verdict>
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Record the dry-off
      </RecordRow>
    </form>
  );
}
