"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";

const intervals = [
  ["", "not by itself"],
  ["6", "every six hours"],
  ["24", "every day"],
  ["168", "every week"],
] as const;

/** How often a backup is taken by itself. */
export function BackupForm({ seen, everyHours, save }: { seen: string; everyHours: number | null; save: Save }) {
  const own = everyHours === null ? "" : String(everyHours);
  const held = useEntryForm("backup interval", { every: own, reason: "" });
  const saving = useSave(save, held, { said: "Kept, from now on.", about: "backup" });
  const F = fieldsOf(held);
  const offered = intervals.some(([value]) => value === own)
    ? intervals
    : [...intervals, [own, `every ${own} hours`] as const];
  return (
    <Entry
      held={held}
      id="backup"
      sending={saving}
      button="Keep it"
      className="mt-3 grid max-w-[640px] gap-3"
      begin={["reason"]}
      send={() => {
        const { every, reason } = held.values;
        return saving.send({ seen, reason, everyHours: every === "" ? null : Number(every) });
      }}
    >
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <F.Pick name="every" label="A backup is taken" of={offered} />
        <F.Words name="reason" label="Why it changes" most={300} required />
      </div>
    </Entry>
  );
}
