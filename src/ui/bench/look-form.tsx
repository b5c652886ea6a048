"use client";
import { type FormEvent, useState } from "react";
import { parseNumber } from "@/core/units";
import { OneOf } from "../fields/one-of";
import { Tick } from "../fields/tick";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { NotedPlaces } from "../thickness/noted-places";
import { failureText } from "../words/failures";

const begun = { distance: "", light: "", note: "" };

/** The look: which faces, from how far, in what light, and whether anything was found. Nothing is ticked beforehand. */
export function LookForm({
  rack,
  faces,
  noted = [],
  asked,
  defects,
}: {
  rack: string;
  faces: readonly { readonly id: string; readonly name: string }[];
  /** Places noted under the lamp: looked at as well. */
  noted?: readonly { readonly face: string; readonly x: number; readonly y: number; readonly what: string }[];
  asked: { readonly distanceM: number | null; readonly lightLux: number | null; readonly note: string } | null;
  /** Defects on record: what was found is one of them. */
  defects: number;
}) {
  const held = useEntryForm(`look ${rack}`, {
    seen: new Set() as ReadonlySet<string>,
    found: null as boolean | null,
    t: begun,
  });
  const [seen, setSeen] = held.field("seen");
  const [found, setFound] = held.field("found");
  const [t, setT] = held.field("t");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (key: keyof typeof begun) => (text: string) => setT((b) => ({ ...b, [key]: text }));
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    const read: Record<"distance" | "light", number | null> = { distance: null, light: null };
    for (const key of ["distance", "light"] as const) {
      if (t[key].trim() === "") continue;
      const number = parseNumber(t[key]);
      if (!number.ok) return setProblem(failureText(number.error));
      read[key] = number.value;
    }
    if (seen.size === 0) return setProblem("Tick the faces that were looked at.");
    if (found === null) return setProblem("Say whether anything was found.");
    if (
      await send({
        kind: "look",
        rack,
        faces: [...seen],
        distanceM: read.distance,
        lightLux: read.light,
        found,
        note: t.note,
      })
    ) {
      setSeen(new Set());
      setFound(null);
      setT(begun);
    }
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-3" aria-label="The look">
      {held.said}
      <h2>
        The look
        {asked && (
          <span className="soft font-normal">
            , asked for
            {asked.distanceM === null ? "" : ` from ${asked.distanceM} m`}
            {asked.lightLux === null ? "" : ` in ${asked.lightLux} lux or more`}
            {asked.note ? `: ${asked.note}` : ""}
          </span>
        )}
      </h2>
      <NotedPlaces noted={noted} faces={faces} todo="Noted under the lamp, look there as well" />
      <div className="flex flex-wrap gap-x-5">
        {faces.map((f) => (
          <label key={f.id} className="flex min-h-11 items-center gap-2">
            <Tick
              checked={seen.has(f.id)}
              onChange={(on) =>
                setSeen((s) => {
                  const next = new Set(s);
                  if (on) next.add(f.id);
                  else next.delete(f.id);
                  return next;
                })
              }
            />{" "}
            {f.name}
          </label>
        ))}
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-[110px]">
          <TypedNumber id="look-distance" label="From, m" text={t.distance} change={put("distance")} />
        </div>
        <div className="w-[110px]">
          <TypedNumber id="look-light" label="Light, lux" text={t.light} change={put("light")} />
        </div>
        <OneOf
          label="Found"
          value={found === null ? null : found ? "something" : "nothing"}
          options={[
            { value: "nothing", label: "Nothing" },
            { value: "something", label: "Something" },
          ]}
          onChange={(value) => setFound(value === "something")}
        />
        <TextField
          id="look-note"
          label="Note"
          text={t.note}
          change={put("note")}
          most={400}
          className="min-w-[160px] flex-1"
        />
      </div>
      {found === true && defects === 0 && (
        <p className="m-0 text-watch">
          Record the defect first, with its place: it is on the Release page of this rack.
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message}>
        Record the look
      </RecordRow>
    </form>
  );
}
