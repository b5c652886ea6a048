"use client";
import { type ChangeEvent, type FormEvent, useState } from "react";
import { ovenSurvey, type SurveyPlace } from "@/core/cure";
import { readOvenFile } from "@/core/instrument-files";
import { fahrenheitToC, parseNumber } from "@/core/units";
import { withUnit } from "../format";
import { RecordRow } from "../forms/recorded";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

/** A survey from the recorder's file: a probe at each place, its channel named as the place. Worked out before it is kept. */
export function SurveyForm({ oven, setPointC }: { oven: string; setPointC: number }) {
  const { units } = usePreferences();
  const us = units === "us";
  const held = useEntryForm(`survey ${oven}`, {
    places: [] as readonly SurveyPlace[],
    t: {
      set: withUnit(setPointC, "temperature", units).split(" ")[0] ?? "",
      from: "",
      to: "",
      door: "",
      note: "",
    },
  });
  const [places, setPlaces] = held.field("places");
  const [t, setT] = held.field("t");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (key: keyof typeof t) => (text: string) => setT((b) => ({ ...b, [key]: text }));
  const number = (text: string) => {
    const read = parseNumber(text);
    return read.ok ? read.value : Number.NaN;
  };
  const load = async (e: ChangeEvent<HTMLInputElement>) => {
    setProblem(null);
    const file = e.target.files?.[0];
    if (!file) return;
    const read = readOvenFile(await file.text(), null);
    if (!read.ok) return setProblem(failureText({ ...read.error, of: "oven" }));
    const found = read.value.channels.map((c) => ({ place: c.name, trace: c.trace }));
    setPlaces(found);
    const lastS = found[0]?.trace.timeS.at(-1) ?? 0;
    setT((b) => ({
      ...b,
      from: b.from || String(Math.round(lastS / 120)),
      to: b.to || String(Math.floor(lastS / 60)),
    }));
  };
  const setC = us ? fahrenheitToC(number(t.set)) : number(t.set);
  const doorS = t.door.trim() === "" ? null : number(t.door) * 60;
  const survey = places.length > 0 ? ovenSurvey(places, setC, [number(t.from) * 60, number(t.to) * 60], doorS) : null;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (!survey) return setProblem("Choose the recorder's file first.");
    if (!survey.ok) return setProblem(failureText(survey.error));
    const sent = await send({
      kind: "oven-survey",
      oven,
      setPointC: setC,
      holdFromS: number(t.from) * 60,
      holdToS: number(t.to) * 60,
      doorAtS: doorS,
      places: places.map(({ place, trace }) => ({ place, timeS: [...trace.timeS], tempC: [...trace.tempC] })),
      note: t.note,
    });
    if (sent) setPlaces([]);
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-3">
      {held.said}
      <div className="flex flex-wrap items-end gap-3">
        <div className="field w-[260px]">
          <label htmlFor="survey-file">Recorder’s file, a channel a place</label>
          <input id="survey-file" type="file" accept=".csv,.tsv,.txt,text/*" className="input" onChange={load} />
        </div>
        <div className="w-[110px]">
          <TypedNumber id="survey-set" label={`Set point, ${us ? "°F" : "°C"}`} text={t.set} change={put("set")} />
        </div>
        <div className="w-[100px]">
          <TypedNumber id="survey-from" label="Hold from, min" text={t.from} change={put("from")} />
        </div>
        <div className="w-[90px]">
          <TypedNumber id="survey-to" label="to, min" text={t.to} change={put("to")} />
        </div>
        <div className="w-[120px]">
          <TypedNumber id="survey-door" label="Door opened, min" text={t.door} change={put("door")} />
        </div>
      </div>
      {survey && !survey.ok && <p className="m-0 text-watch">{failureText(survey.error)}</p>}
      {survey?.ok && (
        <p className="m-0">
          {places.length} places; coldest <b>{survey.value.coldest}</b>, hottest <b>{survey.value.hottest}</b>, spread{" "}
          <b className="fig">{withUnit(survey.value.spreadC, "temperatureDifference", units)}</b>
          {survey.value.recoveryS !== null && (
            <>
              ; back within 5 °C of the set point <b className="fig">{(survey.value.recoveryS / 60).toFixed(1)} min</b>{" "}
              after the door
            </>
          )}
          .
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Keep this survey
      </RecordRow>
    </form>
  );
}
