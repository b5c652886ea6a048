"use client";
import { type ChangeEvent, useState } from "react";
import { ovenSurvey, type SurveyPlace } from "@/core/cure";
import { readOvenFile } from "@/core/instrument-files";
import { fieldsOf } from "../fields/in-form";
import { typed, withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

/** A survey from the recorder's file: a probe at each place, its channel named as the place. Worked out before it is kept. */
export function SurveyForm({ oven, setPointC }: { oven: string; setPointC: number }) {
  const { units } = usePreferences();
  const held = useEntryForm(`survey ${oven}`, {
    places: [] as readonly SurveyPlace[],
    set: typed(setPointC, "temperature", units),
    from: "",
    to: "",
    door: "",
    note: "",
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const [places, setPlaces] = held.field("places");
  const [problem, setProblem] = useState<string | null>(null);
  const load = async (e: ChangeEvent<HTMLInputElement>) => {
    setProblem(null);
    const file = e.target.files?.[0];
    if (!file) return;
    const read = readOvenFile(await file.text(), null);
    if (!read.ok) return setProblem(failureText({ ...read.error, of: "oven" }));
    const found = read.value.channels.map((c) => ({ place: c.name, trace: c.trace }));
    setPlaces(found);
    const lastS = found[0]?.trace.timeS.at(-1) ?? 0;
    for (const [name, minutes] of [
      ["from", Math.round(lastS / 120)],
      ["to", Math.floor(lastS / 60)],
    ] as const)
      held.field(name)[1]((before) => before || String(minutes));
  };
  const [set, from, to] = [held.live("set", "temperature"), held.live("from"), held.live("to")].map(
    (v) => v ?? Number.NaN,
  );
  const door = held.live("door");
  const hold: [number, number] = [(from as number) * 60, (to as number) * 60];
  const survey = places.length > 0 ? ovenSurvey(places, set as number, hold, door === null ? null : door * 60) : null;
  return (
    <Entry
      held={held}
      id="survey"
      sending={recorder}
      button="Keep this survey"
      className="grid gap-3"
      begin={["places"]}
      send={(read) => {
        const doorMin = read.maybe("door");
        const [setPointC, holdFrom, holdTo] = [
          read.number("set", "temperature"),
          read.number("from"),
          read.number("to"),
        ];
        if (!survey) return read.refuse(null, "Choose the recorder's file first.");
        if (!survey.ok) return read.refuse(null, failureText(survey.error));
        return recorder.send({
          kind: "oven-survey",
          oven,
          setPointC,
          holdFromS: holdFrom * 60,
          holdToS: holdTo * 60,
          doorAtS: doorMin === null ? null : doorMin * 60,
          places: places.map(({ place, trace }) => ({ place, timeS: [...trace.timeS], tempC: [...trace.tempC] })),
          note: held.values.note,
        });
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <div className="field w-[260px]">
          <label htmlFor="survey-file">Recorder’s file, a channel a place</label>
          <input id="survey-file" type="file" accept=".csv,.tsv,.txt,text/*" className="input" onChange={load} />
        </div>
        <F.Num name="set" label="Set point" quantity="temperature" className="w-[110px]" />
        <F.Num name="from" label="Hold from, min" className="w-[100px]" />
        <F.Num name="to" label="to, min" className="w-[90px]" />
        <F.Num name="door" label="Door opened, min" className="w-[120px]" />
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
    </Entry>
  );
}
