"use client";
import { DefectHint } from "../causes/defect-hint";
import { PartSketch, type SketchFace } from "../charts/part-sketch";
import { Choice } from "../fields/choice";
import { fieldsOf } from "../fields/in-form";
import { usePreferences } from "../preferences-context";
import { Entry } from "./entry";
import { RecordRow } from "./recorded";
import { useEntryForm } from "./use-entry-form";
import { useRecorder } from "./use-recorder";

type Seen = { readonly rack: string; readonly faces: readonly SketchFace[] } | { readonly structure: string };
type DefectName = { readonly id: string; readonly label: string; readonly plain: string };
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
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const [at, setAt] = held.field("at");
  const placed = "rack" in on;
  return (
    <Entry
      held={held}
      id="defect"
      sending={recorder}
      button={null}
      className="no-print mt-3 grid grid-cols-[auto_minmax(0,1fr)] gap-7 max-[820px]:grid-cols-1"
      send={(read) => {
        const { kind, place, note } = held.values;
        return recorder.send({
          kind: "defect",
          rack: placed ? on.rack : null,
          structure: placed ? null : on.structure,
          defect: kind,
          face: (placed ? at?.face : place)?.slice(0, 20) || null,
          x: at?.x ?? null,
          y: at?.y ?? null,
          extentPercent: read.maybe("extent"),
          piecesAffected: read.maybe("affected"),
          piecesSeen: read.maybe("seen"),
          note,
        });
      }}
    >
      {placed && (
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
        <F.Pick name="kind" id="defect" label="Defect" of={defects.map((d) => [d.id, d.label])} />
        <DefectHint
          id={held.values.kind}
          label={defects.find((d) => d.id === held.values.kind)?.label ?? ""}
          plain={defects.find((d) => d.id === held.values.kind)?.plain ?? ""}
        />
        <div className="grid grid-cols-2 gap-3">
          {placed ? (
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
            <F.Words name="place" id="defect-face" label="Where it sits" most={20} placeholder="seam, bay 2" required />
          )}
          <F.Num name="extent" label={placed ? "Extent, % of the face" : "Extent, %"} />
          <F.Num name="affected" label="Pieces affected" />
          <F.Num name="seen" label="Pieces looked at" />
        </div>
        <F.Words name="note" label="What you see" most={400} />
        <RecordRow busy={recorder.busy} message={recorder.message} primary={false}>
          Record defect
        </RecordRow>
      </div>
    </Entry>
  );
}
