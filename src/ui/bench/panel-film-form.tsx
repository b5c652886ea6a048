"use client";
import { mean } from "@/core/statistics";
import { milToUm } from "@/core/units";
import { fieldsOf } from "../fields/in-form";
import { withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";

/** Film read on a panel: a primer alone, for what cannot be read on the part once it is coated over, or the system in all. */
export function PanelFilmForm({ panel }: { panel: string }) {
  const { units } = usePreferences();
  const held = useEntryForm(`panel film ${panel}`, { layer: null as string | null, values: "", note: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const um = (typed: number) => (units === "us" ? milToUm(typed) : typed);
  const values = held.liveMany("values")?.map(um) ?? [];
  return (
    <Entry
      held={held}
      id="panel-film"
      sending={recorder}
      button="Record the film"
      className="grid gap-3"
      begin={["layer", "values", "note"]}
      send={(read) => {
        const { layer, note } = held.values;
        if (layer !== "primer" && layer !== "all")
          return read.refuse("layer", "Say what was read: the primer alone, or all of it.");
        return recorder.send({ kind: "panel-film", panel, layer, valuesUm: read.many("values").map(um), note });
      }}
    >
      <h2>Film on it</h2>
      <F.Ask
        name="layer"
        label="What was read"
        of={[
          ["primer", "Primer alone"],
          ["all", "All of it"],
        ]}
      />
      <F.Words
        name="values"
        label={`Readings, ${units === "us" ? "mil" : "µm"}, three places or more`}
        most={400}
        placeholder={units === "us" ? "2.3 2.4 2.2" : "58 61 57"}
      />
      {values.length > 0 && (
        <p className="m-0">
          Mean <b className="fig">{withUnit(mean(values), "thickness", units)}</b> of {values.length}
        </p>
      )}
      <F.Words name="note" label="Note" most={400} />
    </Entry>
  );
}
