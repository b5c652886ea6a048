"use client";
import { type SchoolTexts, schoolChoices, schoolNames } from "@/core/site";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";

/** Which way the shop does what good shops do differently: what is advised follows it. */
export function SchoolsForm({
  seen,
  schools,
  changed,
  save,
}: {
  seen: string;
  schools: SchoolTexts;
  changed: Readonly<Record<string, string>>;
  save: Save;
}) {
  const held = useEntryForm("shop schools", { ...schools, reason: "" } as Record<keyof SchoolTexts | "reason", string>);
  const saving = useSave(save, held, { said: "Kept, from now on.", about: "schools" });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="schools"
      sending={saving}
      button="Keep them"
      primary
      className="mt-4 grid max-w-[760px] gap-4"
      begin={["reason"]}
      send={() => {
        const { reason, ...data } = held.values;
        return saving.send({ seen, reason, data });
      }}
    >
      {schoolNames.map((n) => (
        <div key={n} className="grid gap-1">
          <F.Pick name={n} label={schoolChoices[n].label} of={Object.entries(schoolChoices[n].options)} />
          <span className="small faint">
            {changed[n] ?? `as it began: ${schoolChoices[n].usual.replaceAll("-", " ")}`}
          </span>
        </div>
      ))}
      <F.Words name="reason" label="Why it changes" most={300} required />
    </Entry>
  );
}
