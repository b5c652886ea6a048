"use client";
import { judgeDryOff } from "@/core/preparation";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { dryOffReason } from "../words/preparation";

type Answer = "yes" | "no" | null;

/** How a rack came out of the dry-off: one press for dry, one for its tubes and laps; heat where it was read. */
export function DryOffForm({
  rack,
  minutes,
  leastMinutes,
  holdsWater,
  boothMetalC,
}: {
  rack: string;
  /** Time in the dry-off by its passages; null while it has none. */
  minutes: number | null;
  leastMinutes: number | null;
  holdsWater: boolean;
  boothMetalC: number;
}) {
  const begun = { dry: null as Answer, blown: null as Answer, air: "", metal: "", note: "" };
  const held = useEntryForm(`dry-off ${rack}`, begun);
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { dry, blown, note } = held.values;
  const hollowBlown = blown === null ? null : blown === "yes";
  const judged =
    dry === null
      ? null
      : judgeDryOff(
          { minutes, metalC: held.live("metal", "temperature"), partsDry: dry === "yes", hollowBlown },
          { leastMinutes, boothMetalC, holdsWater },
        );
  return (
    <Entry
      held={held}
      id="dry"
      sending={recorder}
      button="Record the dry-off"
      begin={["dry", "blown", "air", "metal", "note"]}
      send={(read) => {
        if (dry === null) return read.refuse("dry", "Look at the parts: are they dry?");
        return recorder.send({
          kind: "dry-off",
          rack,
          airC: read.maybe("air", "temperature"),
          metalC: read.maybe("metal", "temperature"),
          partsDry: dry === "yes",
          hollowBlown,
          note,
        });
      }}
    >
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <F.Ask
          name="dry"
          label="Parts"
          of={[
            ["yes", "dry"],
            ["no", "damp"],
          ]}
        />
        {holdsWater && (
          <F.Ask
            name="blown"
            label="Tubes and laps"
            of={[
              ["yes", "blown out"],
              ["no", "not blown out"],
            ]}
          />
        )}
        <F.Num name="air" label="Heat of the oven" quantity="temperature" className="w-[136px]" />
        <F.Num name="metal" label="Heat of the parts" quantity="temperature" className="w-[136px]" />
        <F.Words name="note" label="Note" most={400} className="min-w-[160px] flex-1" />
      </div>
      {judged && judged.reasons.length > 0 && (
        <p className="m-0">
          <Verdict result={judged.result}>
            {judged.reasons.map((r) => dryOffReason(r, leastMinutes)).join("; ")}
          </Verdict>
        </p>
      )}
    </Entry>
  );
}
