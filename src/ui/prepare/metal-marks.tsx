"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { type MetalDecision, type MetalFault, metalDecisions, metalFaults } from "@/core/preparation";
import { PartSketch, type SketchFace } from "../charts/part-sketch";
import { Choice } from "../fields/choice";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { metalDecisionName, metalFaultName } from "../words/preparation";

export type MetalMark = {
  readonly recordId: string;
  readonly what: MetalFault;
  readonly face: string;
  readonly x: number;
  readonly y: number;
  readonly decision: MetalDecision;
  readonly reason: string;
  readonly who: string;
};
type Attach = (form: FormData) => Promise<{
  readonly ok: boolean;
  readonly failure?: { readonly kind: string; readonly [detail: string]: unknown };
}>;

/** Pits, scale and old coating left on the metal: where, what is decided and why, with a photo; under powder nobody sees it any more. */
export function MetalMarks({
  rack,
  faces,
  marks,
  mayLog,
  attach,
}: {
  rack: string;
  faces: readonly SketchFace[];
  marks: readonly MetalMark[];
  mayLog: boolean;
  attach: Attach;
}) {
  const { units } = usePreferences();
  const router = useRouter();
  const held = useEntryForm(`metal marks ${rack}`, {
    at: null as { face: string; x: number; y: number } | null,
    what: "pits" as MetalFault,
    decision: "go-on" as MetalDecision,
    reason: "",
  });
  const [at, setAt] = held.field("at");
  const [what, setWhat] = held.field("what");
  const [decision, setDecision] = held.field("decision");
  const [reason, setReason] = held.field("reason");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const photo = useRef<HTMLInputElement>(null);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (!at) return setProblem("Tap the sketch where it sits.");
    const file = photo.current?.files?.[0];
    if (!(await send({ kind: "metal-mark", rack, what, ...at, decision, reason }))) return;
    if (file) {
      const form = new FormData();
      form.set("id", uuidv7());
      form.set("rack", rack);
      form.set("photo", file);
      form.set("caption", `${metalFaultName[what]} on ${at.face}, ${metalDecisionName[decision]}: ${reason}`);
      const sent = await attach(form).catch(() => ({ ok: false, failure: { kind: "not-saved" } }));
      if (!sent.ok)
        setProblem(`The mark is on record; its photo is not. ${failureText(sent.failure ?? { kind: "not-saved" })}`);
    }
    if (file) router.refresh();
    setAt(null);
    setReason("");
    if (photo.current) photo.current.value = "";
  };
  const shown = [
    ...marks.map((m, i) => ({ face: m.face, x: m.x, y: m.y, label: `${i + 1}` })),
    ...(at ? [{ ...at, label: "here" }] : []),
  ];
  return (
    <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-7 max-[820px]:grid-cols-1">
      <div>
        <PartSketch
          faces={faces}
          units={units}
          marks={shown}
          {...(mayLog ? { onPlace: (face: string, x: number, y: number) => setAt({ face, x, y }) } : {})}
        />
        {mayLog && <p className="small soft m-0">Tap where it sits</p>}
      </div>
      <div className="grid content-start gap-2">
        {marks.length === 0 && <p className="soft m-0">No bad place is marked on this metal.</p>}
        {marks.map((m, i) => (
          <div key={m.recordId} className="row grid-cols-[22px_minmax(0,1fr)]">
            <b className="fig">{i + 1}</b>
            <span>
              <b>{metalFaultName[m.what]}</b> on {m.face}: {metalDecisionName[m.decision]}. {m.reason}{" "}
              <span className="small faint">{m.who}</span>
            </span>
          </div>
        ))}
        {mayLog && (
          <form onSubmit={submit} className="ruled grid gap-2 pt-2" noValidate>
            {held.said}
            <div className="grid grid-cols-3 gap-2 max-[1000px]:grid-cols-1">
              <div className="field">
                <label htmlFor="mark-what">What is left</label>
                <Choice
                  id="mark-what"
                  className="input"
                  value={what}
                  onChange={(value) => setWhat(value as MetalFault)}
                >
                  {metalFaults.map((f) => (
                    <option key={f} value={f}>
                      {metalFaultName[f]}
                    </option>
                  ))}
                </Choice>
              </div>
              <div className="field">
                <label htmlFor="mark-face">Face</label>
                <Choice
                  id="mark-face"
                  className="input"
                  value={at?.face ?? ""}
                  onChange={(value) => setAt(value ? { face: value, x: 50, y: 50 } : null)}
                >
                  <option value="">tap the sketch</option>
                  {faces.map((f) => (
                    <option key={f.id} value={f.id}>
                      {f.name}
                    </option>
                  ))}
                </Choice>
              </div>
              <div className="field">
                <label htmlFor="mark-decision">What is decided</label>
                <Choice
                  id="mark-decision"
                  className="input"
                  value={decision}
                  onChange={(value) => setDecision(value as MetalDecision)}
                >
                  {metalDecisions.map((d) => (
                    <option key={d} value={d}>
                      {metalDecisionName[d]}
                    </option>
                  ))}
                </Choice>
              </div>
            </div>
            <TextField id="mark-reason" label="Why" text={reason} change={setReason} most={400} />
            <div className="field">
              <label htmlFor="mark-photo">Photo, JPEG, PNG or WebP up to 10 MB</label>
              <input
                id="mark-photo"
                ref={photo}
                type="file"
                accept="image/jpeg,image/png,image/webp"
                className="input"
              />
            </div>
            {problem && (
              <p role="alert" className="m-0 text-out">
                {problem}
              </p>
            )}
            <RecordRow busy={busy} message={message} primary={false}>
              Mark it
            </RecordRow>
          </form>
        )}
      </div>
    </div>
  );
}
