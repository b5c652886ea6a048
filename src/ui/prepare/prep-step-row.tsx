"use client";
import type { FormEvent } from "react";
import {
  howWarnings,
  judgePrepStep,
  type PreparationLimits,
  type PrepHow,
  type PrepStep,
  prepHow,
  prepMeasures,
  prepWindow,
} from "@/core/preparation";
import { fahrenheitToC, milToUm, type UnitSystem } from "@/core/units";
import type { EvidenceGrade } from "@/core/verdict";
import { Recorded } from "../forms/recorded";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Grade, Verdict } from "../marks/verdict";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { howWarning, howWords, prepFigure, prepStepName, solventCaution } from "../words/preparation";
import { PrepHowFields } from "./prep-how";

export type StepOnRecord = {
  readonly recordId: string;
  readonly done: boolean;
  readonly value: number | null;
  readonly note: string;
  readonly how: PrepHow | null;
  readonly time: string;
  readonly by: string;
  readonly grade: EvidenceGrade;
};

const unitOf = (step: PrepStep, units: UnitSystem): string =>
  units === "us" && step === "blast"
    ? "mil"
    : units === "us" && step === "prebake"
      ? "°F"
      : (prepMeasures[step]?.unit ?? "");
const canonical = (step: PrepStep, value: number, units: UnitSystem): number =>
  units === "us" && step === "blast"
    ? milToUm(value)
    : units === "us" && step === "prebake"
      ? fahrenheitToC(value)
      : value;

/** A step of preparation: done with its measure, or left out with its reason; a correction supersedes, with its reason too. */
export function PrepStepRow({
  rack,
  step,
  onRecord,
  limits,
  substrate,
  cureMetalC,
  mayLog,
  lastHow,
}: {
  /** How it was last done here, offered again. */
  lastHow: PrepHow | null;
  rack: string;
  step: PrepStep;
  onRecord: StepOnRecord | null;
  limits: PreparationLimits;
  substrate: string;
  cureMetalC: number;
  mayLog: boolean;
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`${step} ${rack}`, {
    text: "",
    leavingOut: false,
    correcting: false,
    reason: "",
    how: null as Readonly<Record<string, string>> | null,
  });
  const [text, setText] = held.field("text");
  const [leavingOut, setLeavingOut] = held.field("leavingOut");
  const [correcting, setCorrecting] = held.field("correcting");
  const [reason, setReason] = held.field("reason");
  const [how, setHow] = held.field("how");
  const { send, message, busy } = useRecorder(held);
  const said = how ?? Object.fromEntries(Object.entries(lastHow ?? {}).map(([k, v]) => [k, String(v)]));
  const fields = prepHow[step] ?? [];
  const howNow: PrepHow = Object.fromEntries(
    fields.flatMap((f): [string, string | number][] => {
      const word = (said[f.key] ?? "").trim();
      if (word === "") return [];
      const read = f.kind === "number" ? parseTyped(word) : null;
      return [[f.key, read?.ok ? read.value : word]];
    }),
  );
  const measure = prepMeasures[step];
  const typed = text.trim() === "" ? null : parseTyped(text);
  const value = typed?.ok ? canonical(step, typed.value, units) : null;
  const window = prepWindow(step, limits, cureMetalC);
  const open = mayLog && (onRecord === null || correcting);
  const wrong =
    typed && !typed.ok
      ? `“${text}” is not a number`
      : value !== null && measure && (value < measure.bounds[0] || value > measure.bounds[1])
        ? `beyond what can be read (${measure.bounds[0]} to ${measure.bounds[1]} ${measure.unit})`
        : null;
  const asked = window
    ? window.lower !== null && window.upper !== null
      ? `${prepFigure(step, window.lower, units)} to ${prepFigure(step, window.upper, units)}`
      : window.upper !== null
        ? `${prepFigure(step, window.upper, units)} at most`
        : `${prepFigure(step, window.lower ?? 0, units)} at least`
    : "";
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (wrong) return;
    const saved = await send({
      kind: "prep-step",
      rack,
      step,
      done: !leavingOut,
      value: leavingOut ? null : value,
      note: leavingOut ? reason : "",
      how: leavingOut || fields.length === 0 ? null : howNow,
      supersedes: correcting && onRecord ? { recordId: onRecord.recordId, reason } : null,
    });
    if (!saved) return;
    setText("");
    setHow(null);
    setReason("");
    setLeavingOut(false);
    setCorrecting(false);
  };
  const warnings = howWarnings(step, open ? howNow : (onRecord?.how ?? null), substrate);
  const judged = onRecord ? judgePrepStep({ step, ...onRecord }, limits, cureMetalC) : "unknown";
  const result = judged === "in" && howWarnings(step, onRecord?.how ?? null, substrate).length > 0 ? "watch" : judged;
  const word = !onRecord
    ? "Not recorded"
    : !onRecord.done
      ? "Left out"
      : result === "out"
        ? "Out"
        : judged === "watch"
          ? "Not measured"
          : measure
            ? "In"
            : "Done";
  return (
    <form
      onSubmit={submit}
      className="row grid-cols-[190px_minmax(0,1fr)_130px_26px] items-center gap-y-1 max-[700px]:grid-cols-[minmax(0,1fr)_120px_26px]"
    >
      {held.said}
      <span>
        <b>{prepStepName[step]}</b>
        {asked && <span className="small soft block">{asked}</span>}
      </span>
      <span className="flex flex-wrap items-center gap-2 max-[700px]:order-last max-[700px]:col-span-3">
        {onRecord && !correcting && (
          <>
            <span>
              {onRecord.value !== null && <b className="fig">{prepFigure(step, onRecord.value, units)}</b>}
              {onRecord.note && ` ${onRecord.note}`}
              {onRecord.how && ` ${howWords(step, onRecord.how)}`}{" "}
              <span className="faint small">
                {onRecord.time}, {onRecord.by}
              </span>
            </span>
            {mayLog && (
              <button type="button" className="btn" onClick={() => setCorrecting(true)}>
                Correct
              </button>
            )}
          </>
        )}
        {open && measure && !leavingOut && (
          <label className="flex items-center gap-1.5">
            <span className="sr-only">{`${prepStepName[step]}, ${measure.quantity}`}</span>
            <input
              className="input num w-[86px]"
              inputMode="decimal"
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
            <span className="small soft">{unitOf(step, units)}</span>
          </label>
        )}
        {open && !leavingOut && fields.length > 0 && (
          <PrepHowFields step={step} said={said} how={howNow} change={setHow} />
        )}
        {open && (leavingOut || correcting) && (
          <input
            className="input min-w-[160px] flex-1"
            aria-label={leavingOut ? `Why ${prepStepName[step]} is left out` : "Reason of the correction"}
            placeholder={leavingOut ? "why it is left out" : "reason of the correction"}
            required
            minLength={3}
            maxLength={400}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
        )}
        {open && (
          <>
            <button type="submit" className="btn" disabled={busy}>
              {busy ? "Recording …" : leavingOut ? "Record as left out" : correcting ? "Record correction" : "Done"}
            </button>
            {!correcting && (
              <button
                type="button"
                className="link min-h-11 border-0 bg-transparent px-1"
                onClick={() => setLeavingOut(!leavingOut)}
              >
                {leavingOut ? "It was done" : "Leave out …"}
              </button>
            )}
            {correcting && (
              <button
                type="button"
                className="link min-h-11 border-0 bg-transparent px-1"
                onClick={() => setCorrecting(false)}
              >
                Keep as it is
              </button>
            )}
          </>
        )}
        {open && !leavingOut && step === "solvent-wipe" && typeof howNow.solvent === "string" && (
          <span className="caution">{solventCaution(howNow.solvent)}</span>
        )}
        {wrong && <span className="text-out">{wrong}</span>}
        {warnings.length > 0 && <span className="text-watch">{warnings.map((w) => howWarning[w]).join("; ")}</span>}
        <Recorded message={message} />
      </span>
      <Verdict result={onRecord && !onRecord.done ? "watch" : result}>{word}</Verdict>
      <Grade grade={onRecord?.grade ?? "unknown"} />
    </form>
  );
}
