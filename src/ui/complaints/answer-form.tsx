"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { answeredByName } from "../words/complaints";

/** What the customer is told, begun from a first wording; what is recorded is what was sent, word for word. */
export function AnswerForm({ complaint, draft, sentTo }: { complaint: string; draft: string; sentTo: string }) {
  const held = useEntryForm(`complaint answer ${complaint}`, {
    answer: draft,
    sentTo,
    sentBy: "mail" as keyof typeof answeredByName,
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="answer"
      sending={recorder}
      button="Record it as sent"
      primary
      className="no-print mt-2 grid max-w-[760px] gap-3"
      begin={[]}
      send={() => recorder.send({ kind: "complaint-answer", complaint, ...held.values })}
    >
      <F.Lines name="answer" label="The answer" className="[&_textarea]:min-h-[340px]" />
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <F.Words name="sentTo" label="Sent to" most={120} required />
        <F.Pick name="sentBy" label="How" of={Object.entries(answeredByName)} />
      </div>
    </Entry>
  );
}
