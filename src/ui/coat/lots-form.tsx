"use client";
import type { FormEvent } from "react";
import { readLotLines } from "@/core/powder";
import { RecordRow } from "../forms/recorded";
import { useEntryForm } from "../forms/use-entry-form";
import { failureText } from "../words/failures";
import { NotReadable } from "./setup-texts";
import { type SaveSetup, useSetupSave } from "./use-setup-save";

/** Lots taken into stock, as a table pasted or a file: read as it stands, then all or none. */
export function LotsForm({ today, receive }: { today: string; receive: SaveSetup }) {
  const held = useEntryForm("powder lots", { text: "" });
  const [text, setText] = held.field("text");
  const { busy, message, send } = useSetupSave(receive, held);
  const read = text.trim() === "" ? null : readLotLines(text, today);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const saved = await send(() => {
      if (!read) throw new NotReadable("Nothing is typed: one line a lot, under a line of headings.");
      if (!read.ok) throw new NotReadable(failureText(read.error));
      return read.value;
    }, "Taken into stock.");
    if (saved) setText("");
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-2">
      {held.said}
      <div className="field">
        <label htmlFor="lots-text">Lots, a line each</label>
        <textarea
          id="lots-text"
          className="input fig min-h-[120px]"
          spellCheck={false}
          placeholder={"powder,lot,made,received,kg\nGR-210,2612-1,2026-10-30,,60"}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </div>
      <label className="link inline-flex min-h-11 cursor-pointer items-center">
        from a file
        <input
          type="file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          className="sr-only"
          onChange={async (e) => {
            const file = e.target.files?.[0];
            if (file && file.size < 200_000) setText(await file.text());
            e.target.value = "";
          }}
        />
      </label>
      {read && (
        <p className={`small m-0 ${read.ok ? "soft" : "text-out"}`}>
          {read.ok
            ? `${read.value.length} ${read.value.length === 1 ? "lot" : "lots"}: ${read.value
                .slice(0, 3)
                .map((l) => `${l.powder}/${l.lot}, made ${l.madeOn}${l.stockKg === null ? "" : `, ${l.stockKg} kg`}`)
                .join("; ")}${read.value.length > 3 ? " …" : ""}`
            : failureText(read.error)}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Take them into stock
      </RecordRow>
    </form>
  );
}
