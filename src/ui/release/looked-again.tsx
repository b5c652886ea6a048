"use client";
import type { FormEvent } from "react";
import { TextField } from "../forms/text-field";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** A lead looked at what came after the decision: what was seen is on record, and Shift asks no longer for it. */
export function LookedAgain({ rack }: { rack: string }) {
  const held = useEntryForm(`looked again ${rack}`, { seen: "" });
  const [seen, setSeen] = held.field("seen");
  const { send, message, busy } = useRecorder(held);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (await send({ kind: "item-closed", rack, what: "look-again", seen })) setSeen("");
  };
  return (
    <form onSubmit={submit} className="no-print mt-2 flex flex-wrap items-end gap-3">
      {held.said}
      <TextField
        id="looked-again"
        className="min-w-[260px] flex-1"
        label="Looked at again: what you saw, and that the decision stands"
        text={seen}
        change={setSeen}
        least={3}
        most={400}
        required
      />
      <button type="submit" className="btn" disabled={busy}>
        {busy ? "Recording …" : "It stands"}
      </button>
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </form>
  );
}
