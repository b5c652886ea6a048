"use client";
import { fieldsOf } from "../fields/in-form";
import { plainly } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";
import { NotedPlaces } from "../thickness/noted-places";

/** The look: which faces, from how far, in what light, and whether anything was found. Nothing is ticked beforehand. */
export function LookForm({
  rack,
  faces,
  noted = [],
  asked,
  defects,
}: {
  rack: string;
  faces: readonly { readonly id: string; readonly name: string }[];
  /** Places noted under the lamp: looked at as well. */
  noted?: readonly { readonly face: string; readonly x: number; readonly y: number; readonly what: string }[];
  asked: { readonly distanceM: number | null; readonly lightLux: number | null; readonly note: string } | null;
  /** Defects on record: what was found is one of them. */
  defects: number;
}) {
  const held = useEntryForm(`look ${rack}`, {
    seen: new Set() as ReadonlySet<string>,
    found: null as "nothing" | "something" | null,
    distance: "",
    light: "",
    note: "",
  });
  const { units } = usePreferences();
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { seen, found, note } = held.values;
  return (
    <Entry
      held={held}
      id="look"
      sending={recorder}
      button="Record the look"
      primary
      label="The look"
      className="grid gap-3"
      begin={["seen", "found", "distance", "light", "note"]}
      send={(read) => {
        const [distanceM, lightLux] = [read.maybe("distance", "length"), read.maybe("light")];
        if (seen.size === 0) read.refuse(null, "Tick the faces that were looked at.");
        if (found === null) read.refuse("found", "Say whether anything was found.");
        const looked = { faces: [...seen], distanceM, lightLux, found: found === "something" };
        return recorder.send({ kind: "look", rack, ...looked, note });
      }}
    >
      <h2>
        The look
        {asked && (
          <span className="soft font-normal">
            , asked for
            {asked.distanceM === null ? "" : ` from ${plainly(asked.distanceM, "length", units)}`}
            {asked.lightLux === null ? "" : ` in ${asked.lightLux} lux or more`}
            {asked.note ? `: ${asked.note}` : ""}
          </span>
        )}
      </h2>
      <NotedPlaces noted={noted} faces={faces} todo="Noted under the lamp, look there as well" />
      <F.Many name="seen" label="Looked at" of={faces.map((f) => [f.id, f.name])} />
      <div className="flex flex-wrap items-end gap-3">
        <F.Num name="distance" label="From" quantity="length" className="w-[110px]" />
        <F.Num name="light" label="Light, lux" className="w-[110px]" />
        <F.Ask
          name="found"
          label="Found"
          of={[
            ["nothing", "Nothing"],
            ["something", "Something"],
          ]}
        />
        <F.Words name="note" label="Note" most={400} className="min-w-[160px] flex-1" />
      </div>
      {found === "something" && defects === 0 && (
        <p className="m-0 text-watch">
          Record the defect first, with its place: it is on the Release page of this rack.
        </p>
      )}
    </Entry>
  );
}
