"use client";
import { coatingWeightGPerM2, judgePanel, type PanelLook, panelLooks, usualColours } from "@/core/bath";
import { fieldsOf, type Options } from "../fields/in-form";
import { withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { lookName } from "../words/wash";

const colours: Options = [["", "not judged"], ...usualColours.map((c) => c.colour)];
const looks: Options = panelLooks.map((l) => [l, lookName[l]]);

/** A panel from the wash: weighed before and after stripping, or judged by its colour; the weight as one types. */
export function PanelForm({ bath, asked }: { bath: string; asked: readonly [number, number] | null }) {
  const { units } = usePreferences();
  const begun = { before: "", after: "", area: "", note: "", colour: "", look: "uniform-dull" as PanelLook };
  const held = useEntryForm(`panel ${bath}`, begun);
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { colour, look, note } = held.values;
  const [before, after, area] = [held.live("before"), held.live("after"), held.live("area", "area")];
  const weight =
    before !== null && after !== null && area !== null
      ? coatingWeightGPerM2({ beforeG: before, afterG: after, areaM2: area })
      : null;
  const judged = judgePanel({ gPerM2: weight?.ok ? weight.value : null, colour: colour || null, look }, asked);
  return (
    <Entry
      held={held}
      id="panel"
      sending={recorder}
      button="Record the panel"
      // The next panel begins with nothing of this one.
      begin={["before", "after", "area", "note", "colour", "look"]}
      send={(read) => {
        const [beforeG, afterG, areaM2] = [read.maybe("before"), read.maybe("after"), read.maybe("area", "area")];
        if (weight && !weight.ok) read.refuse("after", failureText(weight.error));
        return recorder.send({ kind: "wash-panel", bath, beforeG, afterG, areaM2, colour: colour || null, look, note });
      }}
    >
      <div className="grid grid-cols-2 gap-2">
        <F.Num name="before" label="Before stripping, g" />
        <F.Num name="after" label="After, g" />
        <F.Num name="area" label="Area, both sides" quantity="area" />
        <F.Pick name="colour" label="Colour" of={colours} />
      </div>
      <F.Pick name="look" label="How it looks" of={looks} />
      {(weight?.ok || colour) && (
        <p className="m-0">
          <Verdict result={judged}>{weight?.ok ? withUnit(weight.value, "coatingWeight", units) : colour}</Verdict>
          {asked && (
            <span className="small soft">
              {" "}
              asked: {withUnit(asked[0], "coatingWeight", units)} to {withUnit(asked[1], "coatingWeight", units)}
            </span>
          )}
        </p>
      )}
    </Entry>
  );
}

/** Sludge: how deep it lies, that it was dug out, that a filter was changed. */
export function SludgeForm({ bath }: { bath: string }) {
  const held = useEntryForm(`sludge ${bath}`, {
    what: "measured" as "measured" | "desludged" | "filter-changed",
    depth: "",
    note: "",
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="sludge"
      sending={recorder}
      button="Record it"
      begin={["depth", "note"]}
      send={(read) => {
        const { what, note } = held.values;
        return recorder.send({ kind: "sludge", bath, what, depthMm: read.maybe("depth", "size"), note });
      }}
    >
      <div className="grid grid-cols-2 gap-2">
        <F.Pick
          name="what"
          label="What was done"
          of={[
            ["measured", "depth measured"],
            ["desludged", "dug out"],
            ["filter-changed", "filter changed"],
          ]}
        />
        <F.Num name="depth" label="Depth" quantity="size" />
      </div>
      <F.Words name="note" label="Note: hours, where it went" most={400} />
    </Entry>
  );
}
