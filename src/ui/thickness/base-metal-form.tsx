"use client";
import { BASE_READINGS } from "@/core/thickness";
import { quantities } from "@/core/units";
import { fieldsOf } from "../fields/in-form";
import { withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";

/** Ten readings on the bare metal of the part, to be taken off its film: profile counts as film otherwise. */
export function BaseMetalForm({ rack }: { rack: string }) {
  const { units } = usePreferences();
  const held = useEntryForm(`base metal ${rack}`, { readings: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const live = held.liveMany("readings", "thickness") ?? [];
  return (
    <Entry
      held={held}
      id="base"
      sending={recorder}
      button="Record the bare metal"
      begin={["readings"]}
      send={(read) => {
        const readingsUm = read.many("readings", "thickness");
        if (readingsUm.length === 0) read.refuse("readings", "Type the readings with spaces between.");
        return recorder.send({ kind: "base-metal", rack, readingsUm, note: "" });
      }}
    >
      <F.Words
        name="readings"
        label={`${BASE_READINGS} readings on the bare part, ${quantities.thickness[units]}`}
        most={400}
      />
      {live.length > 0 && (
        <p className="small soft m-0">
          {live.length} of {BASE_READINGS};{" "}
          {withUnit(live.reduce((a, b) => a + b, 0) / live.length, "thickness", units)} would be taken off every reading
        </p>
      )}
    </Entry>
  );
}
