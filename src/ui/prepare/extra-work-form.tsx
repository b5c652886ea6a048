"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** Work that nobody ordered, with its minutes and who pays: what is given away is seen when it is added up. */
export function ExtraWorkForm({ rack, usual }: { rack: string; usual: readonly string[] }) {
  const held = useEntryForm(`extra work ${rack}`, { what: "", minutes: "", pays: null as string | null });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="extra"
      sending={recorder}
      button="Record the work"
      className="grid max-w-[640px] gap-3"
      begin={["what", "minutes", "pays"]}
      send={(read) => {
        const { what, pays } = held.values;
        if (pays === null) read.refuse("pays", "Say who pays for it.");
        return recorder.send({
          kind: "extra-work",
          rack,
          what,
          minutes: read.number("minutes"),
          charged: pays === "customer",
        });
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <F.Words
          name="what"
          label="What was done"
          most={80}
          required
          among={usual}
          placeholder="weld repaired"
          className="min-w-[220px] flex-1"
        />
        <F.Num name="minutes" label="It took, min" className="w-[120px]" />
      </div>
      <F.Ask
        name="pays"
        label="Who pays"
        of={[
          ["shop", "Nobody: it is free"],
          ["customer", "The customer"],
        ]}
      />
    </Entry>
  );
}
