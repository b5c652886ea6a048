"use client";
import { fieldsOf, type Options } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { instrumentKindName, roomRoleName } from "../words/people";

type Version = { readonly code: string; readonly seen: string };
const kinds: Options = Object.entries(instrumentKindName);
const roles: Options = Object.entries(roomRoleName);
const saidOf = (known: unknown) => (known ? "Kept, from now on." : "Put on record.");
const buttonOf = (known: unknown) => (known ? "Save the change" : "Put it on record");
const reasonOf = (known: unknown) => (known ? "Why it changes" : "Where it comes from");

/** A customer: new, or called otherwise from now on. */
export function CustomerForm({ known, save }: { known: (Version & { readonly name: string }) | null; save: Save }) {
  const held = useEntryForm(`customer ${known?.code ?? "new"}`, { name: known?.name ?? "", reason: "" });
  const saving = useSave(save, held, { said: saidOf(known) });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id={`customer-${known?.code ?? "new"}`}
      sending={saving}
      button={buttonOf(known)}
      primary={!known}
      className="grid max-w-[640px] gap-3 pb-3"
      begin={known ? ["reason"] : ["name", "reason"]}
      send={() => {
        const { name, reason } = held.values;
        return saving.send({ code: known?.code ?? null, seen: known?.seen ?? null, reason, data: { name } });
      }}
    >
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <F.Words name="name" label="Name, as on certificates" most={80} required />
        <F.Words name="reason" label={reasonOf(known)} most={300} required />
      </div>
    </Entry>
  );
}

/** A gauge, recorder or meter: new, or changed from now on. */
export function InstrumentForm({
  known,
  save,
}: {
  known: (Version & { readonly name: string; readonly kind: string; readonly serial: string }) | null;
  save: Save;
}) {
  const held = useEntryForm(`instrument ${known?.code ?? "new"}`, {
    code: known?.code ?? "",
    name: known?.name ?? "",
    kind: known?.kind ?? "film-gauge",
    serial: known?.serial ?? "",
    reason: "",
  });
  const saving = useSave(save, held, { said: saidOf(known) });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id={`instrument-${known?.code ?? "new"}`}
      sending={saving}
      button={buttonOf(known)}
      primary={!known}
      className="grid max-w-[760px] gap-3 pb-3"
      begin={known ? ["reason"] : ["code", "name", "serial", "reason"]}
      send={() => {
        const { code, name, kind, serial, reason } = held.values;
        return saving.send({ code, seen: known?.seen ?? null, reason, data: { name, kind, serial } });
      }}
    >
      <div className="grid grid-cols-4 gap-3 max-[760px]:grid-cols-2">
        {!known && <F.Words name="code" label="Number on it" most={20} required />}
        <F.Words name="name" label="Name" most={60} required />
        <F.Pick name="kind" label="What it is" of={kinds} />
        <F.Words name="serial" label="Serial number" most={40} required />
      </div>
      <F.Words name="reason" label={reasonOf(known)} most={300} required />
    </Entry>
  );
}

/** A place a part must fit or hang from: new, or changed from now on. */
export function RoomForm({
  known,
  save,
}: {
  known:
    | (Version & {
        readonly name: string;
        readonly role: string;
        readonly insideMm: { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number } | null;
        readonly mostKg: number | null;
      })
    | null;
  save: Save;
}) {
  const text = (value: number | null | undefined) => (value === null || value === undefined ? "" : String(value));
  const held = useEntryForm(`place ${known?.code ?? "new"}`, {
    code: known?.code ?? "",
    name: known?.name ?? "",
    role: known?.role ?? "booth",
    length: text(known?.insideMm?.lengthMm),
    width: text(known?.insideMm?.widthMm),
    height: text(known?.insideMm?.heightMm),
    kg: text(known?.mostKg),
    reason: "",
  });
  const saving = useSave(save, held, { said: saidOf(known) });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id={`place-${known?.code ?? "new"}`}
      sending={saving}
      button={buttonOf(known)}
      primary={!known}
      className="grid max-w-[760px] gap-3 pb-3"
      begin={known ? ["reason"] : ["code", "name", "length", "width", "height", "kg", "reason"]}
      send={({ number, maybe }) => {
        const { code, name, role, length, width, height, reason } = held.values;
        const sized = [length, width, height].some((side) => side.trim() !== "");
        const insideMm = sized
          ? { lengthMm: number("length"), widthMm: number("width"), heightMm: number("height") }
          : null;
        const data = { name, role, insideMm, mostKg: maybe("kg") };
        return saving.send({ code, seen: known?.seen ?? null, reason, data });
      }}
    >
      <div className="grid grid-cols-3 gap-3 max-[760px]:grid-cols-2">
        {!known && <F.Words name="code" label="Called on the line" most={20} required />}
        <F.Words name="name" label="Name" most={60} required />
        <F.Pick name="role" label="What it is" of={roles} />
      </div>
      <div className="grid grid-cols-4 gap-3 max-[760px]:grid-cols-2">
        <F.Num name="length" label="Inside along, mm" />
        <F.Num name="width" label="across, mm" />
        <F.Num name="height" label="up, mm" />
        <F.Num name="kg" label="Carries at most, kg" />
      </div>
      <F.Words name="reason" label={reasonOf(known)} most={300} required />
    </Entry>
  );
}
