"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** Loose powder that does not please comes off before the bake and is sprayed again: the cheapest correction there is, told with what it costs. */
export function WipeOffForm({ rack, powderCost }: { rack: string; powderCost: string | null }) {
  const held = useEntryForm(`wipe-off ${rack}`, { how: null as "blown" | "rinsed" | null, note: "", minutes: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="wipe"
      sending={recorder}
      button="It is off: spray again"
      className="grid gap-3"
      begin={["how", "note", "minutes"]}
      send={(read) => {
        const { how, note } = held.values;
        if (how === null) read.refuse("how", "Say how it came off.");
        const minutes = read.maybe("minutes");
        return recorder.send({ kind: "wipe-off", rack, note, rinsed: how === "rinsed", minutes });
      }}
    >
      <F.Ask
        name="how"
        label="How it came off"
        of={[
          ["blown", "Blown or wiped off, dry"],
          ["rinsed", "Rinsed off: back to the dry-off"],
        ]}
      />
      <div className="flex flex-wrap items-end gap-3">
        <F.Words
          name="note"
          label="What was wrong with it"
          most={600}
          least={3}
          required
          className="min-w-[220px] flex-1"
        />
        <F.Num name="minutes" label="It takes, min" className="w-[120px]" />
      </div>
      <p className="small soft m-0">
        {powderCost === null ? "" : `About ${powderCost} of powder and spraying once more. `}Loose powder is dust:
        respirator on, draught running, no ignition source.
      </p>
    </Entry>
  );
}
