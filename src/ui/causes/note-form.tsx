"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** What was seen, said or tried, and who was there. */
export function NoteForm({ caseNumber }: { caseNumber: string }) {
  const held = useEntryForm(`case note ${caseNumber}`, { text: "", people: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="note"
      sending={recorder}
      button="Note it"
      className="no-print mt-2 grid max-w-[560px] gap-3"
      send={() => recorder.send({ kind: "case-note", caseNumber, ...held.values })}
    >
      <F.Words name="text" label="What was seen, said or tried" rows={2} most={2000} required />
      <F.Words name="people" label="Who was there" most={200} />
    </Entry>
  );
}
