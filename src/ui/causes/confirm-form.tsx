"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { Choice } from "../fields/choice";
import { Fold } from "../fields/fold";
import { useEntryForm } from "../forms/use-entry-form";
import { failureText } from "../words/failures";

type Outcome = {
  readonly ok: boolean;
  readonly failure?: { readonly kind: string; readonly [detail: string]: unknown };
};

/** A person confirms the cause: the proof, what is done now, what keeps it away, who and by when. */
export function ConfirmForm({
  caseNumber,
  causes,
  confirm,
}: {
  caseNumber: string;
  causes: readonly { id: string; label: string }[];
  confirm: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const id = useRef(uuidv7());
  const held = useEntryForm(`confirm ${caseNumber}`, {
    cause: causes[0]?.id ?? "",
    proof: "",
    correction: "",
    action: "",
    who: "",
    due: "",
  });
  const [state, setState] = useState<{ busy: boolean; text: string }>({ busy: false, text: "" });
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const { cause, proof, correction, action, who, due } = held.values;
    setState({ busy: true, text: "" });
    const outcome = await confirm({
      id: id.current,
      caseNumber,
      cause,
      proof,
      correction,
      correctiveAction: action,
      who,
      dueOn: due || null,
    }).catch((): Outcome => ({ ok: false, failure: { kind: "not-saved" } }));
    setState({ busy: false, text: outcome.ok ? "" : failureText(outcome.failure ?? { kind: "not-saved" }) });
    if (outcome.ok) {
      id.current = uuidv7();
      held.done();
      router.refresh();
    }
  };
  return (
    <Fold className="no-print mt-4" summaryClassName="btn pri list-none" summary="Confirm with proof">
      <form onSubmit={submit} className="mt-3 grid max-w-[560px] gap-3">
        {held.said}
        <div className="field">
          <label htmlFor="cause">Cause</label>
          <Choice id="cause" {...held.choice("cause")} className="input">
            {causes.map((c) => (
              <option key={c.id} value={c.id}>
                {c.label}
              </option>
            ))}
          </Choice>
        </div>
        {(
          [
            ["proof", "Proof: what settled it"],
            ["correction", "Correction, now"],
            ["action", "Corrective action, so that it stays away"],
          ] as const
        ).map(([name, label]) => (
          <div key={name} className="field">
            <label htmlFor={name}>{label}</label>
            <textarea
              id={name}
              {...held.register(name)}
              rows={2}
              className="input"
              maxLength={600}
              required={name !== "correction"}
            />
          </div>
        ))}
        <div className="grid grid-cols-2 gap-3">
          <div className="field">
            <label htmlFor="who">Who</label>
            <input id="who" {...held.register("who")} className="input" maxLength={80} required />
          </div>
          <div className="field">
            <label htmlFor="due">By when</label>
            <input id="due" {...held.register("due")} type="date" className="input" />
          </div>
        </div>
        {state.text && (
          <p role="alert" className="text-out">
            {state.text}
          </p>
        )}
        <p>
          <button type="submit" className="btn pri" disabled={state.busy}>
            {state.busy ? "Recording …" : "Record the confirmed cause"}
          </button>
        </p>
      </form>
    </Fold>
  );
}
