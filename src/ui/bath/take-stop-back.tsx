"use client";
import { Fold } from "../fields/fold";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** A stop that was noted by mistake: taken back with its reason, and the racks' times as they were before. */
export function TakeStopBack({ stop }: { stop: string }) {
  const held = useEntryForm(`stop ${stop}`, { reason: "" });
  const [reason, setReason] = held.field("reason");
  const { send, message, busy } = useRecorder(held);
  return (
    <Fold summaryClassName="link min-h-11 small" summary="It did not stand: take it back">
      <form
        className="grid max-w-[520px] gap-2 pb-2"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void send({ kind: "line-stop-back", stop, reason });
        }}
      >
        {held.said}
        <TextField id={`back-${stop}`} label="What was wrong about it" text={reason} change={setReason} most={300} />
        <RecordRow busy={busy || reason.trim().length < 3} message={message} primary={false}>
          Take the stop back
        </RecordRow>
      </form>
    </Fold>
  );
}
