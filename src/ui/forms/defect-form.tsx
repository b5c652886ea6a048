"use client";
import type { FormEvent } from "react";
import { PartSketch, type SketchFace } from "../charts/part-sketch";
import { Choice } from "../fields/choice";
import { useEntryForm } from "../forms/use-entry-form";
import { usePreferences } from "../preferences-context";
import { RecordRow } from "./recorded";
import { useRecorder } from "./use-recorder";

type Seen = { readonly rack: string; readonly faces: readonly SketchFace[] } | { readonly structure: string };
type DefectName = { readonly id: string; readonly label: string; readonly plain: string };
const number = (text: string) => (text === "" ? null : Number(text));

/**
 * A defect with its extent and how many pieces show it: placed on the sketch of a rack's part, or in a zone of a
 * structure, where several can stand, each with a case of its own.
 */
export function DefectForm({ on, defects }: { on: Seen; defects: readonly DefectName[] }) {
  const { units } = usePreferences();
  const held = useEntryForm(`defect ${"rack" in on ? on.rack : on.structure}`, {
    at: null as { face: string; x: number; y: number } | null,
    kind: "rack" in on ? "orange-peel" : "rust-creep",
    place: "",
    extent: "",
    affected: "",
    seen: "",
    note: "",
  });
  const [at, setAt] = held.field("at");
  const [kind, setKind] = held.field("kind");
  const { send, message, busy } = useRecorder(held);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const { place, extent, affected, seen, note } = held.values;
    void send({
      kind: "defect",
      rack: "rack" in on ? on.rack : null,
      structure: "rack" in on ? null : on.structure,
      defect: kind,
      face: ("rack" in on ? at?.face : place)?.slice(0, 20) || null,
      x: at?.x ?? null,
      y: at?.y ?? null,
      extentPercent: number(extent),
      piecesAffected: number(affected),
      piecesSeen: number(seen),
      note: note,
    });
  };
  const count = (name: "extent" | "affected" | "seen", label: string, more: object = {}) => (
    <div className="field">
      <label htmlFor={`defect-${name}`}>{label}</label>
      <input id={`defect-${name}`} {...held.register(name)} type="number" min="0" className="input num" {...more} />
    </div>
  );
  return (
    <form onSubmit={submit} className="no-print mt-3 grid grid-cols-[auto_minmax(0,1fr)] gap-7 max-[820px]:grid-cols-1">
      {"rack" in on && (
        <div>
          <PartSketch
            faces={on.faces}
            units={units}
            marks={at ? [{ ...at, label: "here" }] : []}
            onPlace={(face, x, y) => setAt({ face, x, y })}
          />
          <p className="small soft">Tap where it sits</p>
        </div>
      )}
      <div className="grid max-w-[460px] content-start gap-3">
        <h2>Record a defect</h2>
        {held.said}
        <div className="field">
          <label htmlFor="defect">Defect</label>
          <Choice id="defect" className="input" value={kind} onChange={setKind}>
            {defects.map((d) => (
              <option key={d.id} value={d.id}>
                {d.label}
              </option>
            ))}
          </Choice>
          <span>{defects.find((d) => d.id === kind)?.plain}</span>
        </div>
        <div className="grid grid-cols-2 gap-3">
          {"rack" in on ? (
            <div className="field">
              <label htmlFor="defect-face">Face</label>
              <Choice
                id="defect-face"
                className="input"
                value={at?.face ?? ""}
                onChange={(value) => setAt(value ? { face: value, x: 50, y: 50 } : null)}
              >
                <option value="">not placed</option>
                {on.faces.map((f) => (
                  <option key={f.id} value={f.id}>
                    {f.name}
                  </option>
                ))}
              </Choice>
            </div>
          ) : (
            <div className="field">
              <label htmlFor="defect-face">Where it sits</label>
              <input
                id="defect-face"
                {...held.register("place")}
                className="input"
                maxLength={20}
                placeholder="seam, bay 2"
                required
              />
            </div>
          )}
          {count("extent", "rack" in on ? "Extent, % of the face" : "Extent, %", { max: 100, step: "any" })}
          {count("affected", "Pieces affected")}
          {count("seen", "Pieces looked at")}
        </div>
        <div className="field">
          <label htmlFor="defect-note">What you see</label>
          <input id="defect-note" {...held.register("note")} className="input" maxLength={400} />
        </div>
        <RecordRow busy={busy} message={message} primary={false}>
          Record defect
        </RecordRow>
      </div>
    </form>
  );
}
