"use client";
import { creepFromScribe } from "@/core/field";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { failureText } from "../words/failures";

/** A panel out of its cabinet: hours in all, widths along the scribe, blisters, rust, and when it is read next. */
export function PanelReadingForm({
  panel,
  cabinet,
  had,
  next,
  scribeMm,
}: {
  panel: string;
  cabinet: "salt-spray" | "humidity";
  /** Hours it has had by its newest reading; null before the first. */
  had: number | null;
  /** Hours at which it was to be read now. */
  next: number | null;
  /** The scribe's own width as it was last typed. */
  scribeMm: number | null;
}) {
  const held = useEntryForm(`panel reading ${panel} ${had ?? "first"}`, {
    cabinet: cabinet as string,
    hours: next === null ? (had === null ? "0" : "") : String(next),
    widths: "",
    scribe: scribeMm === null ? "" : String(scribeMm),
    blisters: "",
    rust: "",
    next: had === null ? "240" : "",
    note: "",
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const widths = held.liveMany("widths");
  const scribe = held.live("scribe");
  const creep = widths && widths.length > 0 && scribe !== null ? creepFromScribe(widths, scribe) : null;
  return (
    <Entry
      held={held}
      id="reading"
      sending={recorder}
      button="Record the reading"
      primary
      className="grid gap-3"
      begin={["widths", "blisters", "rust", "note"]}
      send={(read) => {
        const hours = read.number("hours");
        const widthsMm = read.many("widths");
        const rustRi = read.maybe("rust");
        return recorder.send({
          kind: "panel-reading",
          panel,
          cabinet: held.values.cabinet as "salt-spray",
          hours,
          widthsMm,
          scribeMm: widthsMm.length > 0 ? read.maybe("scribe") : null,
          blisters: held.values.blisters,
          rustRi,
          nextHours: read.maybe("next"),
          note: held.values.note,
        });
      }}
    >
      <h2>{had === null ? "Put it into a cabinet" : "Read it"}</h2>
      <div className="flex flex-wrap items-end gap-3">
        <F.Pick
          name="cabinet"
          label="Cabinet"
          of={[
            ["salt-spray", "salt spray"],
            ["humidity", "humidity"],
          ]}
          className="w-[150px]"
        />
        <F.Num name="hours" label="Hours in all" className="w-[120px]" />
        {had !== null && (
          <>
            <F.Words
              name="widths"
              label="Widths along the scribe, mm"
              most={400}
              placeholder="1.2 1.4 0.9 1.1 1.0 1.3"
              className="w-[260px]"
            />
            <F.Num name="scribe" label="Scribe itself, mm" className="w-[140px]" />
            <F.Words name="blisters" label="Blisters" most={40} placeholder="2(S3)" className="w-[110px]" />
            <F.Pick
              name="rust"
              label="Rust"
              of={[["", "not rated"], ...[0, 1, 2, 3, 4, 5].map((n): [string, string] => [String(n), `Ri ${n}`])]}
              className="w-[120px]"
            />
          </>
        )}
        <F.Num name="next" label="Read next at, hours" className="w-[150px]" />
        <F.Words name="note" label="Note" most={400} className="min-w-[140px] flex-1" />
      </div>
      {creep && (
        <p className="m-0">
          {creep.ok ? (
            <>
              Creep <b className="fig">{creep.value.creepMm.toFixed(1)} mm</b>
              {creep.value.few ? `, of ${creep.value.n} widths: six are rated` : `, rating ${creep.value.rating}`}
            </>
          ) : (
            <span className="text-watch">{failureText(creep.error)}</span>
          )}
        </p>
      )}
      <p className="small soft m-0">
        Left empty, “read next” takes it out for good. Salt and rust: gloves and eye protection at the cabinet.
      </p>
    </Entry>
  );
}
