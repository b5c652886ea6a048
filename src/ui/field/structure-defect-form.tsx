"use client";
import type { FormEvent } from "react";
import { useRecorder } from "../forms/use-recorder";

/** A defect seen on a structure, in its own zone: several can stand on one structure, each with a case of its own. */
export function StructureDefectForm({
  structure,
  defects,
}: {
  structure: string;
  defects: readonly { id: string; label: string }[];
}) {
  const { send, message, busy } = useRecorder();
  const number = (value: FormDataEntryValue | null) => (value === null || value === "" ? null : Number(value));
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    void send({
      kind: "defect",
      rack: null,
      structure,
      defect: String(f.get("defect")),
      face: String(f.get("where") ?? "").slice(0, 20) || null,
      x: null,
      y: null,
      extentPercent: number(f.get("extent")),
      piecesAffected: number(f.get("affected")),
      piecesSeen: number(f.get("seen")),
      note: String(f.get("note") ?? ""),
    });
  };
  return (
    <form onSubmit={submit} className="ruled grid max-w-[640px] gap-3">
      <h2>Record a defect</h2>
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <div className="field">
          <label htmlFor="s-defect">Defect</label>
          <select id="s-defect" name="defect" className="input">
            {defects.map((d) => (
              <option key={d.id} value={d.id}>
                {d.label}
              </option>
            ))}
          </select>
        </div>
        <div className="field">
          <label htmlFor="s-where">Where it sits</label>
          <input id="s-where" name="where" className="input" maxLength={20} placeholder="seam, bay 2" required />
        </div>
      </div>
      <div className="grid grid-cols-3 gap-3">
        <div className="field">
          <label htmlFor="s-extent">Extent, %</label>
          <input id="s-extent" name="extent" type="number" min="0" max="100" step="any" className="input" />
        </div>
        <div className="field">
          <label htmlFor="s-affected">Pieces affected</label>
          <input id="s-affected" name="affected" type="number" min="0" className="input" />
        </div>
        <div className="field">
          <label htmlFor="s-seen">Pieces looked at</label>
          <input id="s-seen" name="seen" type="number" min="0" className="input" />
        </div>
      </div>
      <div className="field">
        <label htmlFor="s-note">What you see</label>
        <input id="s-note" name="note" className="input" maxLength={400} />
      </div>
      <p className="flex items-center gap-3">
        <button type="submit" className="btn" disabled={busy}>
          {busy ? "Recording …" : "Record defect"}
        </button>
        {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
      </p>
    </form>
  );
}
