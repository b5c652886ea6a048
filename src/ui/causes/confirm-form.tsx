"use client";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";

/** A person confirms the cause: the proof, what is done now, what keeps it away, who and by when. */
export function ConfirmForm({
  caseNumber,
  causes,
  seen,
  confirm,
}: {
  caseNumber: string;
  causes: readonly { id: string; label: string }[];
  /** The confirmation that stands on the page; null where there is none. */
  seen: string | null;
  confirm: Save;
}) {
  const begun = { cause: causes[0]?.id ?? "", proof: "", correction: "", action: "", who: "", due: "" };
  const held = useEntryForm(`confirm ${caseNumber}`, begun);
  const saving = useSave(confirm, held, { said: "Recorded.", keyed: true });
  const F = fieldsOf(held);
  return (
    <Fold className="no-print mt-4" summaryClassName="btn pri list-none" summary="Confirm with proof">
      <Entry
        held={held}
        id="confirm"
        sending={saving}
        button="Record the confirmed cause"
        primary
        className="mt-3 grid max-w-[560px] gap-3"
        send={() => {
          const { cause, proof, correction, action, who, due } = held.values;
          const kept = { cause, proof, correction, correctiveAction: action, who, dueOn: due || null };
          return saving.send({ caseNumber, ...kept, seen });
        }}
      >
        <F.Pick name="cause" label="Cause" of={causes.map((c) => [c.id, c.label])} />
        <F.Words name="proof" label="Proof: what settled it" rows={2} most={600} required />
        <F.Words name="correction" label="Correction, now" rows={2} most={600} />
        <F.Words name="action" label="Corrective action, so that it stays away" rows={2} most={600} required />
        <div className="grid grid-cols-2 gap-3">
          <F.Words name="who" label="Who" most={80} required />
          <F.When name="due" label="By when" />
        </div>
      </Entry>
    </Fold>
  );
}
