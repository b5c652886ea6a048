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
} from "@/core/plan";
import { areaName } from "../charts/sketch-areas";
import { Choice } from "../fields/choice";
import { OneOf } from "../fields/one-of-later";
import { markName } from "../words/plan";
import type { Mark } from "./marks-form";
import { type Chosen, groupName, SketchCanvas } from "./sketch-canvas";
import { ChosenPanel, FacePanel } from "./sketch-panels";

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
          <ChosenPanel
            chosen={chosen}
            face={face}
            marks={marks}
            change={(next) => step(withFace(next))}
            changeMark={(i, over) => step({ faces, marks: marks.map((m, j) => (j === i ? { ...m, ...over } : m)) })}
            remove={remove}
          />
          <FacePanel
            face={face}
            change={(next) => step(withFace(next))}
            takeOff={
              faces.length === 1
                ? null
                : () => {
                    step({ faces: faces.filter((_, i) => i !== at), marks: marks.filter((m) => m.face !== face.id) });
                    setShown(0);
                    setChosen(null);
                  }
            }
          />
        </div>
      </div>
    </div>
  );
}
