"use client";
import { type AreaKind, areaKinds, type Face, type SpotGroup, spotGroups, zones } from "@/core/plan";
import { areaName } from "../charts/sketch-areas";
import { Choice } from "../fields/choice";
import { parseTyped } from "../parse-typed";
import { markName } from "../words/plan";
import type { Mark } from "./marks-form";
import { type Chosen, groupName } from "./sketch-canvas";

/** What is chosen on the sketch: what it is, where exactly, and taken off. */
export function ChosenPanel({
  chosen,
  face,
  marks,
  change,
  changeMark,
  remove,
}: {
  chosen: Chosen | null;
  face: Face;
  marks: readonly Mark[];
  change: (face: Face) => void;
  changeMark: (at: number, over: Partial<Mark>) => void;
  remove: (chosen: Chosen) => void;
}) {
  const spot = chosen?.kind === "spot" ? face.spots[chosen.at] : undefined;
  const area = chosen?.kind === "area" ? face.areas[chosen.at] : undefined;
  const mark = chosen?.kind === "mark" ? marks[chosen.at] : undefined;
  const setSpot = (over: Partial<Face["spots"][number]>) =>
    change({ ...face, spots: face.spots.map((s, i) => (i === chosen?.at ? { ...s, ...over } : s)) });
  const setArea = (over: Partial<Face["areas"][number]>) =>
    change({ ...face, areas: face.areas.map((a, i) => (i === chosen?.at ? { ...a, ...over } : a)) });
  const setMark = (over: Partial<Mark>) => chosen && changeMark(chosen.at, over);
  return (
    <>
      {chosen === null && (
        <p className="small soft m-0">
          Drag a corner, a spot or an area; or choose it by key and move it with the arrows (with Shift by five). Delete
          takes it off, Ctrl+Z undoes.
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
    </>
  );
}

const numberIn = (text: string): number | null => {
  const read = parseTyped(text);
  return read.ok ? read.value : null;
};
/** A face: what it is called, how closely it is looked at, its size, where it becomes a recess. */
export function FacePanel({
  face,
  change,
  takeOff,
}: {
  face: Face;
  change: (face: Face) => void;
  /** Null for the last one. */
  takeOff: (() => void) | null;
}) {
  return (
    <div className="ruled mt-1 grid grid-cols-2 gap-2 pt-3 max-[560px]:grid-cols-1">
      <div className="field">
        <label htmlFor="face-name">Face</label>
        <input
          id="face-name"
          className="input"
          maxLength={40}
          value={face.name}
          onChange={(e) => change({ ...face, name: e.target.value })}
        />
      </div>
      <div className="field">
        <label htmlFor="face-zone">Looked at as zone</label>
        <Choice
          id="face-zone"
          className="input"
          value={face.zone}
          onChange={(zone) => change({ ...face, zone: zone as Face["zone"] })}
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
              const value = numberIn(e.target.value);
              if (value === (face.sizeMm?.[axis] ?? null)) return;
              const other = face.sizeMm?.[axis === 0 ? 1 : 0] ?? value;
              change({
                ...face,
                sizeMm: value === null || other === null ? null : axis === 0 ? [value, other] : [other, value],
              });
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
            const value = numberIn(e.target.value);
            if (value !== face.recessFromY) change({ ...face, recessFromY: value });
          }}
        />
      </div>
      <button
        type="button"
        className="btn self-end justify-self-start"
        disabled={takeOff === null}
        onClick={() => takeOff?.()}
      >
        Take this face off
      </button>
    </div>
  );
}
