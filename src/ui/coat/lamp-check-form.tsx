"use client";
import { type FormEvent, useState } from "react";
import { PartSketch, type SketchFace } from "../charts/part-sketch";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { type LampWhat, lampWhatName, lampWhats } from "../words/coating";
import { failureText } from "../words/failures";

export type LampSpot = { readonly face: string; readonly x: number; readonly y: number; readonly what: LampWhat };
/** Loose powder under the lamp, before the oven: faces seen, light places tapped on the sketch, wiped places and plugs. */
export function LampCheckForm({
  rack,
  coatNo,
  faces,
  masks,
}: {
  rack: string;
  coatNo: number;
  faces: readonly SketchFace[];
  /** Places that are masked or plugged on this part, per piece; 0 where none are. */
  masks: number;
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`lamp ${rack} ${coatNo}`, {
    seen: [] as readonly string[],
    spots: [] as readonly LampSpot[],
    what: "light-resprayed" as LampWhat,
    wiped: null as boolean | null,
    plugs: "",
    note: "",
  });
  const [seen, setSeen] = held.field("seen");
  const [spots, setSpots] = held.field("spots");
  const [what, setWhat] = held.field("what");
  const [wiped, setWiped] = held.field("wiped");
  const [plugs, setPlugs] = held.field("plugs");
  const [note, setNote] = held.field("note");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const bumped = spots.some((s) => s.what === "bumped");
  const clear = () => {
    setSeen([]);
    setSpots([]);
    setWiped(null);
    setPlugs("");
    setNote("");
  };
  const save = async (over: { bumped: boolean; faces: readonly string[] }) => {
    setProblem(null);
    const count = plugs.trim() === "" ? null : parseTyped(plugs);
    if (count && !count.ok) return setProblem(failureText(count.error));
    const plugsIn = count?.ok ? count.value : null;
    if (
      await send({
        kind: "lamp-check",
        rack,
        coatNo,
        spots: [...spots],
        wiped,
        plugsIn,
        note,
        ...over,
        faces: [...over.faces],
      })
    )
      clear();
  };
  const submit = (e: FormEvent) => {
    e.preventDefault();
    const missing = faces.filter((f) => !seen.includes(f.id));
    if (missing.length > 0)
      return setProblem(`Not seen under the lamp: ${missing.map((f) => f.name).join(", ")}. Tick what you looked at.`);
    void save({ bumped, faces: seen });
  };
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-[auto_minmax(0,1fr)] gap-7 max-[820px]:grid-cols-1">
      {held.said}
      <div>
        <PartSketch
          faces={faces}
          units={units}
          marks={spots.map((s, i) => ({ face: s.face, x: s.x, y: s.y, label: `${i + 1}` }))}
          onPlace={(face, x, y) => setSpots([...spots, { face, x, y, what }])}
        />
        <p className="small soft m-0">Tap where metal shines through</p>
      </div>
      <div className="grid content-start gap-3">
        <p className="m-0">
          <button type="button" className="btn" disabled={busy} onClick={() => save({ bumped: true, faces: [] })}>
            It was bumped
          </button>{" "}
          <span className="small soft">one tap: kept at once, and holds the oven until somebody looked</span>
        </p>
        <fieldset className="m-0 border-0 p-0">
          <legend className="small soft mb-1">What a tap marks</legend>
          <span className="flex flex-wrap gap-2">
            {lampWhats.map((w) => (
              <button
                key={w}
                type="button"
                aria-pressed={what === w}
                className={`btn ${what === w ? "pri" : ""}`}
                onClick={() => setWhat(w)}
              >
                {lampWhatName[w]}
              </button>
            ))}
          </span>
        </fieldset>
        {spots.map((s, i) => (
          <div key={`${s.face}:${s.x}:${s.y}`} className="row grid-cols-[22px_minmax(0,1fr)_auto] items-center">
            <b className="fig">{i + 1}</b>
            <span>
              {lampWhatName[s.what]}, {faces.find((f) => f.id === s.face)?.name}
            </span>
            <button
              type="button"
              className="link small min-h-11"
              onClick={() => setSpots(spots.filter((_, n) => n !== i))}
            >
              take off
            </button>
          </div>
        ))}
        <fieldset className="m-0 border-0 p-0">
          <legend className="small soft mb-1">Faces seen, both sides and edges</legend>
          <span className="flex flex-wrap gap-2">
            {faces.map((f) => (
              <button
                key={f.id}
                type="button"
                aria-pressed={seen.includes(f.id)}
                className={`btn ${seen.includes(f.id) ? "pri" : ""}`}
                onClick={() => setSeen(seen.includes(f.id) ? seen.filter((x) => x !== f.id) : [...seen, f.id])}
              >
                {f.name}
              </button>
            ))}
          </span>
        </fieldset>
        <div className="flex flex-wrap items-end gap-3">
          <fieldset className="m-0 border-0 p-0">
            <legend className="small soft mb-1">Fits and contacts wiped</legend>
            <span className="flex gap-2">
              {([true, false] as const).map((yes) => (
                <button
                  key={String(yes)}
                  type="button"
                  aria-pressed={wiped === yes}
                  className={`btn ${wiped === yes ? "pri" : ""}`}
                  onClick={() => setWiped(yes)}
                >
                  {yes ? "wiped" : "none to wipe"}
                </button>
              ))}
            </span>
          </fieldset>
          <div className="w-[150px]">
            <TypedNumber
              id="lamp-plugs"
              label={masks > 0 ? `Plugs in, ${masks} a piece` : "Plugs and masks in"}
              text={plugs}
              change={setPlugs}
            />
          </div>
          <TextField
            id="lamp-note"
            label="Note"
            text={note}
            change={setNote}
            most={400}
            className="min-w-[160px] flex-1"
          />
        </div>
        {problem && (
          <p role="alert" className="m-0 text-out">
            {problem}
          </p>
        )}
        <RecordRow busy={busy} message={message}>
          Record the look under the lamp
        </RecordRow>
      </div>
    </form>
  );
}
