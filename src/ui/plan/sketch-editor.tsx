"use client";
import { useState } from "react";
import {
  type AreaKind,
  addCorner,
  areaKinds,
  type Face,
  facesOf,
  type MarkKind,
  markKinds,
  type PartFeature,
  type Preset,
  placesMissing,
  presets,
  removeCorner,
  type SketchPoint,
  type SpotGroup,
  spotGroups,
  withSpot,
  zones,
} from "@/core/plan";
import { areaName } from "../charts/sketch-areas";
import { Choice } from "../fields/choice";
import { OneOf } from "../fields/one-of-later";
import { markName } from "../words/plan";
import type { Mark } from "./marks-form";
import { type Chosen, groupName, SketchCanvas } from "./sketch-canvas";

export type Sketch = { readonly faces: readonly Face[]; readonly marks: readonly Mark[] };
type Tool = "move" | "corner" | `spot-${SpotGroup}` | `area-${AreaKind}` | `mark-${MarkKind}`;

const presetName: Record<Preset, string> = {
  plate: "plate",
  box: "box",
  tube: "tube",
  post: "post",
  frame: "frame",
  casting: "casting",
};
const tools: readonly { value: Tool; label: string }[] = [
  { value: "move", label: "Move" },
  { value: "corner", label: "Add corner" },
  ...spotGroups.map((g) => ({ value: `spot-${g}` as const, label: `Spot ${groupName[g]}` })),
];
const MOST_UNDONE = 60;
/** Half the side of an area as it is put down, hundredths. */
const AREA_HALF = 12;

/** A part's faces, drawn: outline, places to read, zones, what stays bare, where it hangs and is earthed. */
export function SketchEditor({
  sketch,
  change,
  features,
}: {
  sketch: Sketch;
  change: (sketch: Sketch) => void;
  features: readonly PartFeature[];
}) {
  const { faces, marks } = sketch;
  const [shown, setShown] = useState(0);
  const [tool, setTool] = useState<Tool>("move");
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [before, setBefore] = useState<readonly Sketch[]>([]);
  const [moving, setMoving] = useState<Sketch | null>(null);
  const at = Math.min(shown, faces.length - 1);
  const face = faces[at];
  const missing = placesMissing(features, faces);

  /** A step that can be undone; while something is dragged the sketch before it is kept. */
  const step = (next: Sketch, settled = true) => {
    const from = moving ?? sketch;
    if (settled) setBefore((all) => [...all.slice(-MOST_UNDONE), from]);
    setMoving(settled ? null : from);
    change(next);
  };
  const withFace = (next: Face): Sketch => ({ faces: faces.map((f, i) => (i === at ? next : f)), marks });
  const undo = () => {
    const last = before.at(-1);
    if (!last) return;
    setBefore(before.slice(0, -1));
    setChosen(null);
    change(last);
  };
  if (!face) return null;
  const place = (to: SketchPoint) => {
    if (tool === "move") return;
    if (tool === "corner") return step(withFace(addCorner(face, to)));
    const [kind, of] = tool.split(/-(.*)/) as [string, string];
    if (kind === "spot") {
      step(withFace(withSpot(face, faces, of as SpotGroup, to)));
      return setChosen({ kind: "spot", at: face.spots.length });
    }
    if (kind === "mark") {
      step({ faces, marks: [...marks, { kind: of as MarkKind, face: face.id, at: to, note: "" }] });
      return setChosen({ kind: "mark", at: marks.length });
    }
    const within = (c: number) => Math.min(100 - AREA_HALF, Math.max(AREA_HALF, c));
    const [x, y] = [within(to[0]), within(to[1])];
    const area = {
      kind: of as AreaKind,
      from: [x - AREA_HALF, y - AREA_HALF] as const,
      to: [x + AREA_HALF, y + AREA_HALF] as const,
      note: "",
    };
    step(withFace({ ...face, areas: [...face.areas, area] }));
    setChosen({ kind: "area", at: face.areas.length });
  };
  const remove = (one: Chosen) => {
    const less = <T,>(items: readonly T[]) => items.filter((_, i) => i !== one.at);
    if (one.kind === "corner") step(withFace(removeCorner(face, one.at)));
    else if (one.kind === "spot") step(withFace({ ...face, spots: less(face.spots) }));
    else if (one.kind === "area") step(withFace({ ...face, areas: less(face.areas) }));
    else step({ faces, marks: less(marks) });
    setChosen(null);
  };
  const addFace = () => {
    const letter = [..."ABCDEFGHJKLMNPQRSTVWXYZ"].find((l) => !faces.some((f) => f.id === l)) ?? "Z";
    const blank = (facesOf("plate")[0] as Face).outline;
    const fresh: Face = {
      id: letter,
      name: `Face ${letter}`,
      outline: blank,
      recessFromY: null,
      zone: "B",
      sizeMm: null,
      areas: [],
      spots: [],
    };
    step({ faces: [...faces, withSpot(fresh, [...faces, fresh], "face")], marks });
    setShown(faces.length);
    setChosen(null);
  };
  const spot = chosen?.kind === "spot" ? face.spots[chosen.at] : undefined;
  const area = chosen?.kind === "area" ? face.areas[chosen.at] : undefined;
  const mark = chosen?.kind === "mark" ? marks[chosen.at] : undefined;
  const setSpot = (over: Partial<Face["spots"][number]>) =>
    step(withFace({ ...face, spots: face.spots.map((s, i) => (i === chosen?.at ? { ...s, ...over } : s)) }));
  const setArea = (over: Partial<Face["areas"][number]>) =>
    step(withFace({ ...face, areas: face.areas.map((a, i) => (i === chosen?.at ? { ...a, ...over } : a)) }));
  const setMark = (over: Partial<Mark>) =>
    step({ faces, marks: marks.map((m, i) => (i === chosen?.at ? { ...m, ...over } : m)) });
  const number = (text: string): number | null => {
    const n = Number(text.replace(",", "."));
    return text.trim() === "" || !Number.isFinite(n) ? null : n;
  };

  return (
    <div
      className="grid gap-3"
      role="group"
      aria-label="Sketch editor"
      onKeyDown={(e) => {
        if ((e.ctrlKey || e.metaKey) && e.key === "z" && !(e.target instanceof HTMLInputElement)) {
          e.preventDefault();
          undo();
        }
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <div className="field w-44">
          <label htmlFor="sketch-preset">Begin anew as</label>
          <Choice
            id="sketch-preset"
            className="input"
            value=""
            onChange={(preset) => {
              if (preset === "") return;
              step({ faces: facesOf(preset as Preset), marks: [] });
              setShown(0);
              setChosen(null);
            }}
          >
            <option value="">choose a shape</option>
            {presets.map((p) => (
              <option key={p} value={p}>
                {presetName[p]}
              </option>
            ))}
          </Choice>
        </div>
        {faces.map((f, i) => (
          <button
            key={f.id}
            type="button"
            className={`btn ${i === at ? "pri" : ""}`}
            aria-pressed={i === at}
            onClick={() => {
              setShown(i);
              setChosen(null);
            }}
          >
            {f.name}
          </button>
        ))}
        <button type="button" className="btn" onClick={addFace}>
          Add a face
        </button>
        <button type="button" className="btn" onClick={undo} disabled={before.length === 0}>
          Undo
        </button>
      </div>
      {missing.map((group) => (
        <p key={group} className="m-0 text-watch">
          This part has {group === "edge" ? "cut or sharp edges" : "a deep recess"}, and no place {groupName[group]} to
          read: film there is another than in the open.{" "}
          <button type="button" className="link" onClick={() => step(withFace(withSpot(face, faces, group)))}>
            Put one on {face.name}
          </button>
        </p>
      ))}
      <div className="grid grid-cols-[minmax(0,auto)_minmax(0,1fr)] gap-6 max-[1100px]:grid-cols-1">
        <SketchCanvas
          face={face}
          marks={marks}
          chosen={chosen}
          choose={setChosen}
          change={(next, settled) => step(withFace(next), settled)}
          changeMark={(i, to, settled) =>
            step({ faces, marks: marks.map((m, j) => (j === i ? { ...m, at: to } : m)) }, settled)
          }
          place={place}
          remove={remove}
        />
        <div className="grid content-start gap-3">
          <OneOf label="A tap on the sketch" value={tool} options={tools} onChange={setTool} />
          <OneOf
            label="or draws an area"
            value={tool}
            options={areaKinds.map((k) => ({ value: `area-${k}` as Tool, label: areaName[k] }))}
            onChange={setTool}
          />
          <OneOf
            label="or marks where it is to"
            value={tool}
            options={markKinds.map((k) => ({ value: `mark-${k}` as Tool, label: markName[k] }))}
            onChange={setTool}
          />
          {tool !== "move" && (
            <button type="button" className="btn justify-self-start" onClick={() => place([50, 50])}>
              Put it in the middle
            </button>
          )}
          {chosen === null && (
            <p className="small soft m-0">
              Drag a corner, a spot or an area; or choose it by key and move it with the arrows (with Shift by five).
              Delete takes it off, Ctrl+Z undoes.
            </p>
          )}
          {chosen?.kind === "corner" && (
            <p className="m-0 flex items-center gap-3">
              Corner {chosen.at + 1} at {face.outline[chosen.at]?.join(", ")}
              <button type="button" className="btn" disabled={face.outline.length <= 3} onClick={() => remove(chosen)}>
                Take it off
              </button>
            </p>
          )}
          {spot && chosen && (
            <div className="grid grid-cols-[90px_170px_minmax(0,1fr)_auto] items-end gap-2 max-[560px]:grid-cols-2">
              <div className="field">
                <label htmlFor="spot-name">Spot</label>
                <input
                  id="spot-name"
                  className="input fig"
                  maxLength={12}
                  value={spot.id}
                  onChange={(e) => setSpot({ id: e.target.value })}
                />
              </div>
              <div className="field">
                <label htmlFor="spot-group">It is</label>
                <Choice
                  id="spot-group"
                  className="input"
                  value={spot.group}
                  onChange={(group) => setSpot({ group: group as SpotGroup })}
                >
                  {spotGroups.map((g) => (
                    <option key={g} value={g}>
                      {groupName[g]}
                    </option>
                  ))}
                </Choice>
              </div>
              <div className="field">
                <label htmlFor="spot-note">Where exactly</label>
                <input
                  id="spot-note"
                  className="input"
                  maxLength={120}
                  value={spot.note}
                  onChange={(e) => setSpot({ note: e.target.value })}
                />
              </div>
              <button type="button" className="btn" onClick={() => remove(chosen)}>
                Take it off
              </button>
            </div>
          )}
          {area && chosen && (
            <div className="grid grid-cols-[150px_minmax(0,1fr)_auto] items-end gap-2 max-[560px]:grid-cols-2">
              <div className="field">
                <label htmlFor="area-kind">Area</label>
                <Choice
                  id="area-kind"
                  className="input"
                  value={area.kind}
                  onChange={(kind) => setArea({ kind: kind as AreaKind })}
                >
                  {areaKinds.map((k) => (
                    <option key={k} value={k}>
                      {areaName[k]}
                    </option>
                  ))}
                </Choice>
              </div>
              <div className="field">
                <label htmlFor="area-note">What it is</label>
                <input
                  id="area-note"
                  className="input"
                  maxLength={120}
                  value={area.note}
                  onChange={(e) => setArea({ note: e.target.value })}
                />
              </div>
              <button type="button" className="btn" onClick={() => remove(chosen)}>
                Take it off
              </button>
            </div>
          )}
          {mark && chosen && (
            <div className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-end gap-2">
              <b className="py-3">{markName[mark.kind]}</b>
              <div className="field">
                <label htmlFor="mark-note">Where exactly; what touch-up it leaves</label>
                <input
                  id="mark-note"
                  className="input"
                  maxLength={120}
                  value={mark.note}
                  onChange={(e) => setMark({ note: e.target.value })}
                />
              </div>
              <button type="button" className="btn" onClick={() => remove(chosen)}>
                Take it off
              </button>
            </div>
          )}
          <div className="ruled mt-1 grid grid-cols-2 gap-2 pt-3 max-[560px]:grid-cols-1">
            <div className="field">
              <label htmlFor="face-name">Face</label>
              <input
                id="face-name"
                className="input"
                maxLength={40}
                value={face.name}
                onChange={(e) => step(withFace({ ...face, name: e.target.value }))}
              />
            </div>
            <div className="field">
              <label htmlFor="face-zone">Looked at as zone</label>
              <Choice
                id="face-zone"
                className="input"
                value={face.zone}
                onChange={(zone) => step(withFace({ ...face, zone: zone as Face["zone"] }))}
              >
                {zones.map((z) => (
                  <option key={z} value={z}>
                    {{ A: "A, in plain sight", B: "B, seen in use", C: "C, out of sight" }[z]}
                  </option>
                ))}
              </Choice>
            </div>
            {([0, 1] as const).map((axis) => (
              <div key={axis} className="field">
                <label htmlFor={`face-size-${axis}`}>{axis === 0 ? "Its width, mm" : "Its height, mm"}</label>
                <input
                  id={`face-size-${axis}`}
                  className="input num"
                  inputMode="decimal"
                  defaultValue={face.sizeMm?.[axis] ?? ""}
                  key={`${face.id}${face.sizeMm?.[axis] ?? ""}`}
                  onBlur={(e) => {
                    const value = number(e.target.value);
                    if (value === (face.sizeMm?.[axis] ?? null)) return;
                    const other = face.sizeMm?.[axis === 0 ? 1 : 0] ?? value;
                    step(
                      withFace({
                        ...face,
                        sizeMm: value === null || other === null ? null : axis === 0 ? [value, other] : [other, value],
                      }),
                    );
                  }}
                />
              </div>
            ))}
            <div className="field">
              <label htmlFor="face-recess">A recess from so far down, %</label>
              <input
                id="face-recess"
                className="input num"
                inputMode="decimal"
                key={`${face.id}recess${face.recessFromY ?? ""}`}
                defaultValue={face.recessFromY ?? ""}
                onBlur={(e) => {
                  const value = number(e.target.value);
                  if (value !== face.recessFromY) step(withFace({ ...face, recessFromY: value }));
                }}
              />
            </div>
            <button
              type="button"
              className="btn self-end justify-self-start"
              disabled={faces.length === 1}
              onClick={() => {
                step({ faces: faces.filter((_, i) => i !== at), marks: marks.filter((m) => m.face !== face.id) });
                setShown(0);
                setChosen(null);
              }}
            >
              Take this face off
            </button>
          </div>
        </div>
      </div>
    </div>
  );
}
