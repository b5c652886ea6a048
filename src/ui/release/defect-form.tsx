"use client";
import { type FormEvent, useState } from "react";
import { PartSketch, type SketchFace } from "../charts/part-sketch";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";

/** A defect placed on the sketch, with its extent and how many pieces show it. */
export function DefectForm({
  rack,
  faces,
  defects,
}: {
  rack: string;
  faces: readonly SketchFace[];
  defects: readonly { id: string; label: string; plain: string }[];
}) {
  const { units } = usePreferences();
  const [at, setAt] = useState<{ face: string; x: number; y: number } | null>(null);
  const [kind, setKind] = useState("orange-peel");
  const { send, message, busy } = useRecorder();
  const number = (value: FormDataEntryValue | null) => (value === null || value === "" ? null : Number(value));
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    void send({
      kind: "defect",
      rack,
      structure: null,
      defect: kind,
      face: String(form.get("face") || "") || null,
      x: at?.x ?? null,
      y: at?.y ?? null,
      extentPercent: number(form.get("extent")),
      piecesAffected: number(form.get("affected")),
      piecesSeen: number(form.get("seen")),
      note: String(form.get("note") ?? ""),
    });
  };
  return (
    <form onSubmit={submit} className="no-print mt-3 grid grid-cols-[auto_minmax(0,1fr)] gap-7 max-[820px]:grid-cols-1">
      <div>
        <PartSketch
          faces={faces}
          units={units}
          marks={at ? [{ ...at, label: "here" }] : []}
          onPlace={(face, x, y) => setAt({ face, x, y })}
        />
        <p className="small soft">Tap where it sits</p>
      </div>
      <div className="grid max-w-[420px] content-start gap-3">
        <div className="field">
          <label htmlFor="defect">Defect</label>
          <select id="defect" className="input" value={kind} onChange={(e) => setKind(e.target.value)}>
            {defects.map((d) => (
              <option key={d.id} value={d.id}>
                {d.label}
              </option>
            ))}
          </select>
          <span>{defects.find((d) => d.id === kind)?.plain}</span>
        </div>
        <div className="grid grid-cols-2 gap-3">
          <div className="field">
            <label htmlFor="face">Face</label>
            <select
              id="face"
              name="face"
              className="input"
              value={at?.face ?? ""}
              onChange={(e) => setAt(e.target.value ? { face: e.target.value, x: 50, y: 50 } : null)}
            >
              <option value="">not placed</option>
              {faces.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.name}
                </option>
              ))}
            </select>
          </div>
          <div className="field">
            <label htmlFor="extent">Extent, % of the face</label>
            <input id="extent" name="extent" type="number" min="0" max="100" step="any" className="input num" />
          </div>
          <div className="field">
            <label htmlFor="affected">Pieces affected</label>
            <input id="affected" name="affected" type="number" min="0" className="input num" />
          </div>
          <div className="field">
            <label htmlFor="seen">Pieces looked at</label>
            <input id="seen" name="seen" type="number" min="0" className="input num" />
          </div>
        </div>
        <div className="field">
          <label htmlFor="defect-note">What you see</label>
          <input id="defect-note" name="note" className="input" maxLength={400} />
        </div>
        <p className="flex items-center gap-3">
          <button type="submit" className="btn" disabled={busy}>
            {busy ? "Recording …" : "Record defect"}
          </button>
          {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
        </p>
      </div>
    </form>
  );
}
