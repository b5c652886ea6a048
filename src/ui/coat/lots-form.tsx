"use client";
import { readLotLines } from "@/core/powder";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { ListLines } from "../forms/list-lines";
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
      <ListLines
        read={read}
        take={setText}
        what="lot"
        one={(l) => `${l.powder}/${l.lot}, made ${l.madeOn}${l.stockKg === null ? "" : `, ${l.stockKg} kg`}`}
      />
    </Entry>
  );
}
