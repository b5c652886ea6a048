"use client";
import { fieldsOf } from "../fields/in-form";
import { typed } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { usePreferences } from "../preferences-context";

/** What loads are planned to, how often cure is proven, under what heat metal is packed: a lead's, with a reason, from now on. */
export function CurePlanForm({
  seen,
  plannedIndex,
  planHoldToo,
  proofEveryLoads,
  handleBelowC,
  keep,
}: {
  seen: string;
  plannedIndex: number;
  planHoldToo: boolean;
  proofEveryLoads: number;
  handleBelowC: number;
  keep: Save;
}) {
  const { units } = usePreferences();
  const shown = typed(handleBelowC, "temperature", units);
  const held = useEntryForm("cure plan", {
    index: String(plannedIndex),
    every: String(proofEveryLoads),
    handle: shown,
    reason: "",
    hold: planHoldToo,
  });
  const saving = useSave(keep, held, { said: "Kept, from now on.", about: "cure plan" });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="plan"
      sending={saving}
      button="Keep it"
      className="grid max-w-[720px] gap-3 pb-4"
      send={(read) =>
        saving.send({
          seen,
          reason: held.values.reason,
          plannedIndex: read.number("index"),
          planHoldToo: held.values.hold,
          proofEveryLoads: read.number("every"),
          // What was not touched stays as it is to the last decimal.
          handleBelowC: held.values.handle === shown ? handleBelowC : read.number("handle", "temperature"),
        })
      }
    >
      <div className="grid grid-cols-3 gap-3 max-[700px]:grid-cols-1">
        <F.Num name="index" label="Loads are planned to index" />
        <F.Num name="every" label="A test on one load in" />
        <F.Num name="handle" label="Packed with the metal under" quantity="temperature" />
      </div>
      <F.Yes name="hold">Wait for a hold of the sheet as well</F.Yes>
      <F.Words name="reason" label="Why it changes" most={300} />
    </Entry>
  );
}
