"use client";
import { type UpkeepPlan, upkeepHands, upkeepStages } from "@/core/upkeep";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { upkeepHandsName, upkeepStageName } from "../words/upkeep";

/** An upkeep as it is set up: new, or changed from now on. */
export function UpkeepSetupForm({
  code,
  seen,
  plan,
  equipment = null,
  save,
}: {
  code: string | null;
  seen: string | null;
  plan: UpkeepPlan & { readonly retired: boolean };
  /** The equipment it is of, by its code. */
  equipment?: string | null;
  save: Save;
}) {
  const number = (value: number | null | undefined) => (value === null || value === undefined ? "" : String(value));
  const held = useEntryForm(`upkeep set-up ${code ?? `new ${equipment ?? ""}`.trim()}`, {
    what: plan.what,
    every: number(plan.everyDays),
    look: plan.look,
    leads: plan.leadsTo,
    caution: plan.caution,
    measure: plan.measure?.name ?? "",
    unit: plan.measure?.unit ?? "",
    lower: number(plan.measure?.lower),
    upper: number(plan.measure?.upper),
    reason: "",
    stage: plan.stage,
    hands: plan.hands,
    retired: plan.retired,
  });
  const saving = useSave(save, held, { keyed: true });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id={code ?? "new"}
      sending={saving}
      button={code === null ? "Set it up" : "Save the change"}
      className="grid max-w-[720px] gap-3 pb-4"
      begin={["reason"]}
      send={(read) => {
        const { what, stage, look, leads, caution, hands, measure, unit, retired, reason } = held.values;
        const everyDays = read.maybe("every") ?? read.refuse("every", "Say how often, in days.");
        const [lower, upper] = [read.maybe("lower"), read.maybe("upper")];
        const measured = measure.trim() === "" ? null : { name: measure, unit, lower, upper };
        const data = {
          what,
          stage,
          everyDays,
          look,
          leadsTo: leads,
          caution,
          hands,
          equipment,
          measure: measured,
          retired,
        };
        return saving.send({ code, seen, reason, data });
      }}
    >
      <div className="grid grid-cols-[minmax(0,2fr)_120px_minmax(0,1fr)_minmax(0,1fr)] gap-3 max-[700px]:grid-cols-2">
        <F.Words name="what" label="What" most={60} />
        <F.Num name="every" label="Every, days" />
        <F.Pick name="stage" label="At" of={upkeepStages.map((s) => [s, upkeepStageName[s]])} />
        <F.Pick name="hands" label="Done by" of={upkeepHands.map((h) => [h, upkeepHandsName[h]])} />
      </div>
      <F.Words name="look" label="What is looked at" most={300} />
      <F.Words name="leads" label="What comes of leaving it" most={200} />
      <F.Words name="caution" label="Caution" most={200} />
      <div className="grid grid-cols-[minmax(0,2fr)_90px_110px_110px] gap-3 max-[700px]:grid-cols-2">
        <F.Words name="measure" label="Value that is read, if any" most={60} />
        <F.Words name="unit" label="Unit" most={12} />
        <F.Num name="lower" label="At least" />
        <F.Num name="upper" label="At most" />
      </div>
      <F.Words name="reason" label="Why it changes" most={300} />
      {code !== null && <F.Yes name="retired">no longer kept up; its record stays</F.Yes>}
    </Entry>
  );
}
