"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { type MarkKind, markKinds } from "@/core/plan";
import { PartSketch, type SketchFace } from "../charts/part-sketch";
import { RecordRow } from "../forms/recorded";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { markName } from "../words/plan";

export type Mark = {
  readonly kind: MarkKind;
  readonly face: string;
  readonly at: readonly [number, number];
  readonly note: string;
};
type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

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
  save: (input: unknown) => Promise<Outcome>;
}) {
  const { units } = usePreferences();
  const router = useRouter();
  const [draft, setDraft] = useState<readonly (Mark & { readonly key: string })[]>(() =>
    marks.map((m) => ({ ...m, key: uuidv7() })),
  );
  const [kind, setKind] = useState<Mark["kind"]>("hang");
  const [state, setState] = useState<{ busy: boolean; message: { good: boolean; text: string } | null }>({
    busy: false,
    message: null,
  });
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
      onSubmit={async (e) => {
        e.preventDefault();
        setState({ busy: true, message: null });
        const outcome = await save({ part, seen: begunFrom, marks: plain }).catch(
          (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
        );
        setState({
          busy: false,
          message: outcome.ok
            ? { good: true, text: "Kept as a new version of the part." }
            : { good: false, text: failureText(outcome.failure) },
        });
        if (outcome.ok) router.refresh();
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
        <fieldset className="m-0 flex flex-wrap gap-2 border-0 p-0">
          <legend className="small soft mb-1">What is placed next</legend>
          {markKinds.map((value) => (
            <button
              key={value}
              type="button"
              aria-pressed={kind === value}
              className={`btn ${kind === value ? "pri" : ""}`}
              onClick={() => setKind(value)}
            >
              {markName[value]}
            </button>
          ))}
        </fieldset>
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
        {(changed || state.message) && (
          <RecordRow busy={state.busy || !changed} message={state.message}>
            Keep these places
          </RecordRow>
        )}
      </div>
    </form>
  );
}
