"use client";
import type { ActionState } from "@/core/kinds";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { actionStateName } from "../words/actions";

/** Whether the corrective action of a case was done, and whether the defect stayed away. */
export function ActionForm({ caseNumber, sheets }: { caseNumber: string; sheets: readonly string[] }) {
  const held = useEntryForm(`action ${caseNumber}`, {
    state: "not-yet" as ActionState,
    seen: "",
    sheet: "",
    again: "",
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { state } = held.values;
  const open = state === "not-yet" || state === "done";
  return (
    <Entry
      held={held}
      id="action"
      sending={recorder}
      button="Record what was found"
      className="no-print mt-3 grid max-w-[560px] gap-3"
      send={() =>
        recorder.send({
          kind: "action-check",
          caseNumber,
          state,
          seen: held.values.seen,
          sheet: held.values.sheet || null,
          againOn: open ? held.values.again || null : null,
        })
      }
    >
      <F.Pick name="state" label="The corrective action" of={Object.entries(actionStateName)} />
      <F.Words name="seen" label="What was done, or seen" rows={2} most={600} required />
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <F.Pick
          name="sheet"
          label="Set-up sheet that now says it"
          of={[["", "none"], ...sheets.map((s): [string, string] => [s, s])]}
        />
        {open && <F.When name="again" label="Looked at again on" />}
      </div>
    </Entry>
  );
}
