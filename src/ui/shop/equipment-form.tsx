"use client";
import { type EquipmentRole, equipmentFacts, type FactName, isPlace } from "@/core/site";
import type { Quantity } from "@/core/units";
import { fieldsOf, type Options } from "../fields/in-form";
import { typed } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { usePreferences } from "../preferences-context";
import { equipmentRoleName } from "../words/people";
import { buttonOf, reasonOf, saidOf, type Version } from "./setup-words";

const roles: Options = Object.entries(equipmentRoleName);
/** Every fact there is, so that a draft keeps what was typed when the kind is changed and changed back. */
const factNames = [...new Set(Object.values(equipmentFacts).flatMap((all) => all.map((f) => f.name)))];
const field = <N extends FactName>(name: N) => `fact-${name}` as const;

export type KnownEquipment = Version & {
  readonly name: string;
  readonly role: EquipmentRole;
  readonly insideMm: { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number } | null;
  readonly mostKg: number | null;
  readonly facts: Readonly<Record<string, string | number>>;
  readonly retired: boolean;
};

/** A booth, an oven's room, a gun, a hook …: new, or changed from now on. */
export function EquipmentForm({ known, save }: { known: KnownEquipment | null; save: Save }) {
  const { units } = usePreferences();
  const text = (value: number | null | undefined, quantity: Quantity) => typed(value ?? null, quantity, units);
  const begun = {
    code: known?.code ?? "",
    name: known?.name ?? "",
    role: (known?.role ?? "booth") as string,
    length: text(known?.insideMm?.lengthMm, "distance"),
    width: text(known?.insideMm?.widthMm, "distance"),
    height: text(known?.insideMm?.heightMm, "distance"),
    kg: text(known?.mostKg, "mass"),
    ...(Object.fromEntries(factNames.map((n) => [field(n), String(known?.facts[n] ?? "")])) as Record<
      `fact-${FactName}`,
      string
    >),
    retired: known?.retired ?? false,
    reason: "",
  };
  const held = useEntryForm(`equipment ${known?.code ?? "new"}`, begun);
  const saving = useSave(save, held, { said: saidOf(known) });
  const F = fieldsOf(held);
  const role = held.values.role as EquipmentRole;
  return (
    <Entry
      held={held}
      id={`equipment-${known?.code ?? "new"}`}
      sending={saving}
      button={buttonOf(known)}
      primary={!known}
      className="grid max-w-[760px] gap-3 pb-3"
      begin={
        known ? ["reason"] : ["code", "name", "length", "width", "height", "kg", "reason", ...factNames.map(field)]
      }
      send={({ number, maybe }) => {
        const { code, name, length, width, height, retired, reason } = held.values;
        const sized = isPlace(role) && [length, width, height].some((side) => side.trim() !== "");
        // What was not touched stays exactly as it was, whatever its unit rounds it to.
        const same = (f: "length" | "width" | "height" | "kg", was: number | undefined, read: () => number | null) =>
          was !== undefined && held.values[f] === begun[f] ? was : read();
        const inside = known?.insideMm;
        const insideMm = sized
          ? {
              lengthMm: same("length", inside?.lengthMm, () => number("length", "distance")),
              widthMm: same("width", inside?.widthMm, () => number("width", "distance")),
              heightMm: same("height", inside?.heightMm, () => number("height", "distance")),
            }
          : null;
        const facts = Object.fromEntries(
          equipmentFacts[role].flatMap((f): (readonly [string, string | number])[] => {
            const value = f.bounds === null ? held.values[field(f.name)].trim() : maybe(field(f.name));
            return value === null || value === "" ? [] : [[f.name, value]];
          }),
        );
        const mostKg = isPlace(role) ? same("kg", known?.mostKg ?? undefined, () => maybe("kg", "mass")) : null;
        return saving.send({
          code,
          seen: known?.seen ?? null,
          reason,
          data: { name, role, insideMm, mostKg, facts, retired },
        });
      }}
    >
      <div className="grid grid-cols-3 gap-3 max-[760px]:grid-cols-2">
        {!known && <F.Words name="code" label="Called on the line" most={20} required />}
        <F.Words name="name" label="Name" most={60} required />
        <F.Pick name="role" label="What it is" of={roles} />
      </div>
      {isPlace(role) && (
        <div className="grid grid-cols-4 gap-3 max-[760px]:grid-cols-2">
          <F.Num name="length" label="Inside along" quantity="distance" />
          <F.Num name="width" label="across" quantity="distance" />
          <F.Num name="height" label="up" quantity="distance" />
          <F.Num name="kg" label="Carries at most" quantity="mass" />
        </div>
      )}
      <div className="grid grid-cols-3 gap-3 max-[760px]:grid-cols-2">
        {equipmentFacts[role].map((f) =>
          f.bounds === null ? (
            <F.Words key={f.name} name={field(f.name)} label={f.label} most={200} />
          ) : (
            <F.Num key={f.name} name={field(f.name)} label={f.unit ? `${f.label}, ${f.unit}` : f.label} />
          ),
        )}
      </div>
      {known && <F.Yes name="retired">No longer used; what went through it stays</F.Yes>}
      <F.Words name="reason" label={reasonOf(known)} most={300} required />
    </Entry>
  );
}
