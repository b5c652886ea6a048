"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** The first panel of a lot, sprayed and cured, held against the standard swatch. */
export function FirstPanelForm({
  lot,
  swatch,
  gloss,
}: {
  lot: string;
  swatch: string | null;
  gloss: readonly [number, number] | null;
}) {
  const begun = { gloss: "", de: "", film: "", note: "", result: null as "matches" | "off" | null };
  const held = useEntryForm(`first panel ${lot}`, begun);
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { result, note } = held.values;
  return (
    <Entry
      held={held}
      id={lot}
      sending={recorder}
      button="Record the panel"
      className="grid gap-2 pb-3"
      begin={["gloss", "de", "film", "note", "result"]}
      send={(read) => {
        if (result === null) return read.refuse("result", "Hold it against the swatch: does it match?");
        const [deltaE, filmUm] = [read.maybe("de"), read.maybe("film", "thickness")];
        return recorder.send({ kind: "first-panel", lot, result, gloss: read.maybe("gloss"), deltaE, filmUm, note });
      }}
    >
      <p className="small soft m-0">
        {swatch ? `Against swatch ${swatch}, by daylight or the booth’s lamp.` : "No standard swatch is on the sheet."}
        {gloss && ` Gloss asked: ${gloss[0]} ± ${gloss[1]} GU.`}
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <F.Ask
          name="result"
          label="Held against it"
          of={[
            ["matches", "it matches"],
            ["off", "it is off"],
          ]}
        />
        <F.Num name="gloss" label="Gloss, GU" className="w-[100px]" />
        <F.Num name="de" label="Colour, ΔE" className="w-[100px]" />
        <F.Num name="film" label="Film" quantity="thickness" className="w-[100px]" />
        <F.Words name="note" label="Note" most={400} className="min-w-[160px] flex-1" />
      </div>
    </Entry>
  );
}
