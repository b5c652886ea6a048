"use client";
import { readLotLines } from "@/core/powder";
import { fieldsOf } from "../fields/in-form";
import { countOf } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { failureText } from "../words/failures";

/** Lots taken into stock, as a table pasted or a file: read as it stands, then all or none. */
export function LotsForm({ today, receive }: { today: string; receive: Save }) {
  const held = useEntryForm("powder lots", { text: "" });
  const saving = useSave(receive, held, { said: "Taken into stock." });
  const F = fieldsOf(held);
  const [text, setText] = held.field("text");
  const read = text.trim() === "" ? null : readLotLines(text, today);
  return (
    <Entry
      held={held}
      id="lots"
      sending={saving}
      button="Take them into stock"
      begin={["text"]}
      send={({ refuse }) => {
        if (!read) return refuse("text", "Nothing is typed: one line a lot, under a line of headings.");
        return read.ok ? saving.send(read.value) : refuse("text", failureText(read.error));
      }}
    >
      <F.Lines
        name="text"
        label="Lots, a line each"
        placeholder={"powder,lot,made,received,kg\nGR-210,2612-1,2026-10-30,,60"}
      />
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
            ? `${countOf(read.value.length, "lot")}: ${read.value
                .slice(0, 3)
                .map((l) => `${l.powder}/${l.lot}, made ${l.madeOn}${l.stockKg === null ? "" : `, ${l.stockKg} kg`}`)
                .join("; ")}${read.value.length > 3 ? " …" : ""}`
            : failureText(read.error)}
        </p>
      )}
    </Entry>
  );
}
