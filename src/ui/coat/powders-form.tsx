"use client";
import { readPowderLines } from "@/core/powder";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { ListLines } from "../forms/list-lines";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { failureText } from "../words/failures";

/** Powders as a table pasted or a file: read as it stands, then all or none. */
export function PowdersForm({ save }: { save: Save }) {
  const held = useEntryForm("powder list", { text: "", reason: "" });
  const saving = useSave(save, held, { said: "Put on record." });
  const F = fieldsOf(held);
  const [text, setText] = held.field("text");
  const read = text.trim() === "" ? null : readPowderLines(text);
  return (
    <Entry
      held={held}
      id="powders"
      sending={saving}
      button="Put them on record"
      className="grid max-w-[860px] gap-3 pb-4"
      begin={["text", "reason"]}
      send={({ refuse }) => {
        if (!read) return refuse("text", "Nothing is typed: one line a powder, under a line of headings.");
        return read.ok
          ? saving.send({ reason: held.values.reason, powders: read.value })
          : refuse("text", failureText(read.error));
      }}
    >
      <F.Lines
        name="text"
        label="Powders, a line each"
        placeholder={"code;name;film from;film to;sg;cure\nGY-100;Grey, fine texture;60;90;1.5;180 20, 190 15"}
      />
      <ListLines
        read={read}
        take={setText}
        what="powder"
        one={(p) => `${p.code} ${p.name}, ${p.minUm} to ${p.maxUm} µm`}
      />
      <F.Words name="reason" label="Where the list is from" most={300} required />
    </Entry>
  );
}
