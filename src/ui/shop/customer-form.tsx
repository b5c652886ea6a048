"use client";
import {
  type Acceptance,
  type AcceptanceClass,
  acceptanceBounds,
  usualAcceptance,
  usualAcceptanceSource,
} from "@/core/site";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { buttonOf, reasonOf, saidOf, type Version } from "./setup-words";

const zones = ["A", "B", "C"] as const;
const parts = Object.keys(acceptanceBounds) as readonly (keyof AcceptanceClass)[];
export const classLabel: Record<keyof AcceptanceClass, string> = {
  distanceM: "from, m",
  lightLux: "light, lx",
  seconds: "for, s",
  mostFaults: "faults a face",
  largestMm: "none over, mm",
};
const zoneSaid = { A: "A, in plain sight", B: "B, seen in use", C: "C, out of sight" } as const;

/** A customer: what they are called, where they are, and how closely their parts are looked at. */
export function CustomerForm({
  known,
  save,
}: {
  known:
    | (Version & {
        readonly name: string;
        readonly address: string;
        readonly deliverTo: string;
        readonly contact: string;
        readonly acceptance: Acceptance | null;
        readonly paper: { readonly wording: string };
      })
    | null;
  save: Save;
}) {
  const classes = known?.acceptance ?? usualAcceptance;
  const held = useEntryForm(`customer ${known?.code ?? "new"}`, {
    name: known?.name ?? "",
    address: known?.address ?? "",
    deliverTo: known?.deliverTo ?? "",
    contact: known?.contact ?? "",
    wording: known?.paper.wording ?? "",
    own: (known?.acceptance ?? null) !== null,
    ...(Object.fromEntries(zones.flatMap((z) => parts.map((p) => [`${z}${p}`, String(classes[z][p])]))) as Record<
      `${(typeof zones)[number]}${keyof AcceptanceClass}`,
      string
    >),
    reason: "",
  });
  const saving = useSave(save, held, { said: saidOf(known) });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id={`customer-${known?.code ?? "new"}`}
      sending={saving}
      button={buttonOf(known)}
      primary={!known}
      className="grid max-w-[760px] gap-3 pb-3"
      begin={known ? ["reason"] : ["name", "address", "deliverTo", "contact", "reason"]}
      send={({ number }) => {
        const { name, address, deliverTo, contact, wording, own, reason } = held.values;
        const acceptance = own
          ? Object.fromEntries(zones.map((z) => [z, Object.fromEntries(parts.map((p) => [p, number(`${z}${p}`)]))]))
          : null;
        return saving.send({
          code: known?.code ?? null,
          seen: known?.seen ?? null,
          reason,
          data: { name, address, deliverTo, contact, wording, acceptance },
        });
      }}
    >
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <F.Words name="name" label="Name, as on certificates" most={80} required />
        <F.Words name="contact" label="Who to ask, and how" most={200} />
        <F.Lines name="address" label="Address, as on papers" />
        <F.Lines name="deliverTo" label="Delivered to, where elsewhere" />
      </div>
      <F.Words name="wording" label="What stands on their certificates, in their words" most={1200} rows={3} />
      <F.Yes name="own">How closely their parts are looked at is their own</F.Yes>
      {!held.values.own && <p className="small soft m-0">Else the usual goes: {usualAcceptanceSource}.</p>}
      {held.values.own &&
        zones.map((z) => (
          <fieldset key={z} className="m-0 border-0 p-0">
            <legend className="small p-0">Zone {zoneSaid[z]}</legend>
            <div className="grid grid-cols-5 gap-2 max-[700px]:grid-cols-3">
              {parts.map((p) => (
                <F.Num key={p} name={`${z}${p}`} label={classLabel[p]} />
              ))}
            </div>
          </fieldset>
        ))}
      <F.Words name="reason" label={reasonOf(known)} most={300} required />
    </Entry>
  );
}
