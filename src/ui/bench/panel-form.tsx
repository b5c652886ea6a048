"use client";
import { type Substrate, substrates } from "@/core/plan";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** The number that the next panel of a rack would have. */
const nextNumber = (rack: string, taken: readonly string[]): string => {
  for (let n = 1; ; n++) if (!taken.includes(`${rack}-P${n}`)) return `${rack}-P${n}`;
};

/** A panel put on record: its number, metal and lot, where it hung, and the other racks that it stands for. */
export function PanelForm({ rack, metal, taken }: { rack: string; metal: Substrate; taken: readonly string[] }) {
  const number = nextNumber(rack, taken);
  const held = useEntryForm(`panel ${rack} ${number}`, {
    number,
    metal: metal as string,
    madeFrom: "",
    hungAt: "",
    alsoFor: "",
    note: "",
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="panel"
      sending={recorder}
      button="Put the panel on record"
      className="ruled grid gap-3"
      begin={["madeFrom", "hungAt", "alsoFor", "note"]}
      send={() => {
        const { alsoFor, metal: of, ...said } = held.values;
        const others = alsoFor.split(/[\s,;]+/).filter((r) => r !== "" && r !== rack);
        return recorder.send({ kind: "panel", rack, ...said, metal: of as Substrate, alsoFor: others });
      }}
    >
      <h2>A test panel that travels with this rack</h2>
      <div className="flex flex-wrap items-end gap-3">
        <F.Words name="number" label="Number" most={40} required className="w-[150px]" />
        <F.Pick
          name="metal"
          label="Metal"
          of={substrates.map((s): [string, string] => [s, s.replaceAll("-", " ")])}
          className="w-[190px]"
        />
        <F.Words name="madeFrom" label="Lot of the metal" most={80} className="w-[150px]" />
        <F.Words name="hungAt" label="Where it hung" most={80} placeholder="lower row, right" className="w-[180px]" />
        <F.Words
          name="alsoFor"
          label="Stands for racks as well"
          most={200}
          placeholder="1043 1044"
          className="w-[190px]"
        />
        <F.Words name="note" label="Note" most={400} className="min-w-[140px] flex-1" />
      </div>
    </Entry>
  );
}
