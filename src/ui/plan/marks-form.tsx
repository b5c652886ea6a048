"use client";
import { useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { type MarkKind, markKinds } from "@/core/plan";
import { PartSketch, type SketchFace } from "../charts/part-sketch";
import { OneOf } from "../fields/one-of";
import { RecordRow } from "../forms/recorded";
import { type Save, useSave } from "../forms/use-save";
import { usePreferences } from "../preferences-context";
import { markName } from "../words/plan";

export type Mark = {
  readonly kind: MarkKind;
  readonly face: string;
  readonly at: readonly [number, number];
  readonly note: string;
};

/** What is placed stands on the sketch, and is no draft. */
const NOTHING_HELD = { done: () => {} };

/** Where it hangs, what is masked or plugged, where it rests and drains: placed on the sketch, kept as a new version of the part. */
export function MarksForm({
  part,
  version,
  faces,
  marks,
  save,
}: {
  part: string;
  version: string;
  faces: readonly SketchFace[];
  marks: readonly Mark[];
  save: Save;
}) {
  const { units } = usePreferences();
  const [draft, setDraft] = useState<readonly (Mark & { readonly key: string })[]>(() =>
    marks.map((m) => ({ ...m, key: uuidv7() })),
  );
  const [kind, setKind] = useState<Mark["kind"]>("hang");
  const saving = useSave(save, NOTHING_HELD, { said: "Kept as a new version of the part." });
  const place = (face: string, x: number, y: number) =>
    setDraft([...draft, { kind, face, at: [Math.round(x), Math.round(y)], note: "", key: uuidv7() }]);
  const plain = draft.map(({ key: _, ...mark }) => mark);
  const changed = JSON.stringify(plain) !== JSON.stringify(marks);
  // What is placed builds on the version it was begun from; another's, kept meanwhile, does not replace it.
  const [begunFrom, setBegunFrom] = useState(version);
  if (!changed && begunFrom !== version) setBegunFrom(version);
  return (
    <form
      className="grid grid-cols-[auto_minmax(0,1fr)] gap-7 max-[820px]:grid-cols-1"
      onSubmit={(e) => {
        e.preventDefault();
        void saving.send({ part, seen: begunFrom, marks: plain });
      }}
    >
      <div>
        <PartSketch
          faces={faces}
          units={units}
          marks={draft.map((m, i) => ({ face: m.face, x: m.at[0], y: m.at[1], label: `${i + 1} ${markName[m.kind]}` }))}
          onPlace={place}
        />
        <p className="small soft">Tap where it sits, or add one by its face</p>
      </div>
      <div className="grid content-start gap-2">
        <OneOf
          label="What is placed next"
          value={kind}
          options={markKinds.map((value) => ({ value, label: markName[value] }))}
          onChange={setKind}
        />
        <p className="m-0 flex flex-wrap gap-2">
          {faces.map((f) => (
            <button
              key={f.id}
              type="button"
              className="btn"
              onClick={() => place(f.id, 50, kind === "drain" ? 96 : kind === "hang" ? 4 : 50)}
            >
              {`${markName[kind]} on ${f.name.toLowerCase()}`}
            </button>
          ))}
        </p>
        {draft.map((m, i) => (
          <div key={m.key} className="row grid-cols-[26px_70px_minmax(0,1fr)_70px] items-center">
            <span className="fig">{i + 1}</span>
            <b>{markName[m.kind]}</b>
            <input
              className="input"
              aria-label={`Note of mark ${i + 1}`}
              placeholder="where exactly; what touch-up it leaves"
              maxLength={120}
              value={m.note}
              onChange={(e) => setDraft(draft.map((d) => (d.key === m.key ? { ...d, note: e.target.value } : d)))}
            />
            <button
              type="button"
              className="link min-h-11 border-0 bg-transparent"
              onClick={() => setDraft(draft.filter((d) => d.key !== m.key))}
            >
              take off
            </button>
          </div>
        ))}
        {(changed || saving.message) && (
          <RecordRow busy={saving.busy || !changed} message={saving.message}>
            Keep these places
          </RecordRow>
        )}
      </div>
    </form>
  );
}
