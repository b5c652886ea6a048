"use client";
import { zoneKinds } from "@/core/field";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { zoneKindName } from "../words/field-zones";

/** A zone of a structure put on record, or said anew: what it is, how high, which way it faces, where it comes in the round. */
export function ZoneForm({ structure, next }: { structure: string; next: number }) {
  const held = useEntryForm(`zone ${structure} ${next}`, {
    zone: "",
    what: "edge" as string,
    place: String(next),
    height: "",
    bearing: "",
    length: "",
    note: "",
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Fold summary={<>One more zone</>} summaryClassName="min-h-11">
      <Entry
        held={held}
        id="zone"
        sending={recorder}
        button="Put the zone on record"
        className="grid max-w-[640px] gap-3"
        begin={["zone"]}
        send={(read) =>
          recorder.send({
            kind: "structure-zone",
            structure,
            zone: held.values.zone,
            what: held.values.what as (typeof zoneKinds)[number],
            place: read.maybe("place"),
            heightM: read.maybe("height"),
            bearingDeg: read.maybe("bearing"),
            lengthMm: ((m) => (m === null ? null : m * 1000))(read.maybe("length")),
            note: held.values.note,
          })
        }
      >
        <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
          <F.Words name="zone" label="What it is called" most={80} required placeholder="leg 2, foot" />
          <F.Pick
            name="what"
            label="What it is"
            of={zoneKinds.map((k): readonly [string, string] => [k, zoneKindName[k]])}
          />
        </div>
        <div className="flex flex-wrap gap-3">
          <F.Num name="place" label="In the round" className="w-[110px]" />
          <F.Num name="height" label="Above ground, m" className="w-[150px]" />
          <F.Num name="bearing" label="Faces, ° of compass" className="w-[170px]" />
          <F.Num name="length" label="Seam or edge, m" className="w-[150px]" />
        </div>
        <F.Words name="note" label="Note" most={400} />
      </Entry>
    </Fold>
  );
}
