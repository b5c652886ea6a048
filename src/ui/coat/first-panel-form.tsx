"use client";
import { type FormEvent, useState } from "react";
import { milToUm, parseNumber } from "@/core/units";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

/** The first panel of a lot, sprayed and cured, held against the standard swatch. */
export function FirstPanelForm({
  lot,
  swatch,
  gloss,
}: {
  lot: string;
  swatch: string | null;
  gloss: readonly [number, number] | null;
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`first panel ${lot}`, {
    t: { gloss: "", deltaE: "", film: "", note: "" },
    result: null as "matches" | "off" | null,
  });
  const [t, setT] = held.field("t");
  const [result, setResult] = held.field("result");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (key: keyof typeof t) => (value: string) => setT((before) => ({ ...before, [key]: value }));
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (result === null) return setProblem("Hold it against the swatch: does it match?");
    const read: Record<"gloss" | "deltaE" | "film", number | null> = { gloss: null, deltaE: null, film: null };
    for (const key of ["gloss", "deltaE", "film"] as const) {
      const typed = t[key].trim() === "" ? null : parseNumber(t[key]);
      if (typed && !typed.ok) return setProblem(failureText(typed.error));
      read[key] = typed?.ok ? typed.value : null;
    }
    const filmUm = read.film !== null && units === "us" ? milToUm(read.film) : read.film;
    if (
      await send({ kind: "first-panel", lot, result, gloss: read.gloss, deltaE: read.deltaE, filmUm, note: t.note })
    ) {
      setT({ gloss: "", deltaE: "", film: "", note: "" });
      setResult(null);
    }
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-2 pb-3">
      {held.said}
      <p className="small soft m-0">
        {swatch ? `Against swatch ${swatch}, by daylight or the booth’s lamp.` : "No standard swatch is on the sheet."}
        {gloss && ` Gloss asked: ${gloss[0]} ± ${gloss[1]} GU.`}
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <span className="flex gap-2">
          {(["matches", "off"] as const).map((r) => (
            <button
              key={r}
              type="button"
              aria-pressed={result === r}
              className={`btn ${result === r ? "pri" : ""}`}
              onClick={() => setResult(r)}
            >
              {r === "matches" ? "it matches" : "it is off"}
            </button>
          ))}
        </span>
        <div className="w-[100px]">
          <TypedNumber id={`${lot}-gloss`} label="Gloss, GU" text={t.gloss} change={put("gloss")} />
        </div>
        <div className="w-[100px]">
          <TypedNumber id={`${lot}-de`} label="Colour, ΔE" text={t.deltaE} change={put("deltaE")} />
        </div>
        <div className="w-[100px]">
          <TypedNumber
            id={`${lot}-film`}
            label={`Film, ${units === "us" ? "mil" : "µm"}`}
            text={t.film}
            change={put("film")}
          />
        </div>
        <TextField
          id={`${lot}-note`}
          label="Note"
          text={t.note}
          change={put("note")}
          most={400}
          className="min-w-[160px] flex-1"
        />
      </div>
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Record the panel
      </RecordRow>
    </form>
  );
}
