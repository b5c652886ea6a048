"use client";
import { fieldsOf, type Options } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { instrumentKindName } from "../words/people";
import { buttonOf, reasonOf, saidOf, type Version } from "./setup-words";

const kinds: Options = Object.entries(instrumentKindName);

/** A gauge, recorder or meter: new, changed, or verified anew. */
export function InstrumentForm({
  known,
  save,
}: {
  known:
    | (Version & {
        readonly name: string;
        readonly kind: string;
        readonly serial: string;
        readonly verifyEveryDays: number | null;
        readonly verifiedOn: string | null;
        readonly certificate: string;
        readonly retired: boolean;
      })
    | null;
  save: Save;
}) {
  const held = useEntryForm(`instrument ${known?.code ?? "new"}`, {
    code: known?.code ?? "",
    name: known?.name ?? "",
    kind: known?.kind ?? "film-gauge",
    serial: known?.serial ?? "",
    every: known?.verifyEveryDays === null || !known ? "" : String(known.verifyEveryDays),
    verifiedOn: known?.verifiedOn ?? "",
    certificate: known?.certificate ?? "",
    retired: known?.retired ?? false,
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
      begin={known ? ["reason"] : ["code", "name", "serial", "every", "verifiedOn", "certificate", "reason"]}
      send={({ maybe }) => {
        const { code, name, kind, serial, verifiedOn, certificate, retired, reason } = held.values;
        return saving.send({
          code,
          seen: known?.seen ?? null,
          reason,
          data: {
            name,
            kind,
            serial,
            verifyEveryDays: maybe("every"),
            verifiedOn: verifiedOn === "" ? null : verifiedOn,
            certificate,
            retired,
          },
        });
      }}
    >
      <div className="grid grid-cols-4 gap-3 max-[760px]:grid-cols-2">
        {!known && <F.Words name="code" label="Number on it" most={20} required />}
        <F.Words name="name" label="Name" most={60} required />
        <F.Pick name="kind" label="What it is" of={kinds} />
        <F.Words name="serial" label="Serial number" most={40} required />
        <F.Num name="every" label="Verified by a laboratory every, days" />
        <F.When name="verifiedOn" label="Last verified on" />
        <F.Words name="certificate" label="Number of its certificate" most={60} />
      </div>
      {known && <F.Yes name="retired">No longer used; what it read stays</F.Yes>}
      <F.Words name="reason" label={reasonOf(known)} most={300} required />
    </Entry>
  );
}
