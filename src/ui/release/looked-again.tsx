"use client";
import { type FormEvent, useState } from "react";
import { useRecorder } from "../forms/use-recorder";

/** A lead looked at what came after the decision: what was seen is on record, and Shift asks no longer for it. */
export function LookedAgain({ rack }: { rack: string }) {
  const { send, message, busy } = useRecorder();
  const [seen, setSeen] = useState("");
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (await send({ kind: "item-closed", rack, what: "look-again", seen })) setSeen("");
  };
  return (
    <form onSubmit={submit} className="no-print mt-2 flex flex-wrap items-end gap-3">
      <div className="field min-w-[260px] flex-1">
        <label htmlFor="looked-again">Looked at again: what you saw, and that the decision stands</label>
        <input
          id="looked-again"
          className="input"
          required
          minLength={3}
          maxLength={400}
          value={seen}
          onChange={(e) => setSeen(e.target.value)}
        />
      </div>
      <button type="submit" className="btn" disabled={busy}>
        {busy ? "Recording …" : "It stands"}
      </button>
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </form>
  );
}
