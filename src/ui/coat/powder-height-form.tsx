"use client";
import { curedFromHeight } from "@/core/powder";
import { fieldsOf } from "../fields/in-form";
import { countOf, withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Grade, Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

/** Height of the loose powder at a spot, and the film it will cure to by the ratio this powder has shown. */
export function PowderHeightForm({
  rack,
  spots,
  pairs,
  film,
}: {
  rack: string;
  spots: readonly { readonly face: string; readonly spot: string }[];
  pairs: readonly { readonly heightUm: number; readonly curedUm: number }[];
  film: { readonly minUm: number; readonly maxUm: number | null };
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`powder height ${rack}`, { spot: spots[0]?.spot ?? "", um: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const live = held.live("um", "thickness");
  const cured = live === null ? null : curedFromHeight(live, pairs);
  const inside =
    cured?.ok && cured.value.curedUm >= film.minUm && (film.maxUm === null || cured.value.curedUm <= film.maxUm);
  return (
    <Entry
      held={held}
      id="height"
      sending={recorder}
      button="Record the height"
      className="flex flex-wrap items-end gap-3"
      begin={["um"]}
      send={(read) => {
        const heightUm = read.number("um", "thickness");
        const at = spots.find((s) => s.spot === held.values.spot) ?? read.refuse("spot", "Choose the spot.");
        if (cured && !cured.ok) read.refuse("um", failureText(cured.error));
        return recorder.send({ kind: "powder-height", rack, readings: [{ ...at, heightUm }] });
      }}
    >
      <F.Pick name="spot" label="Spot" of={spots.map((s) => s.spot)} className="w-[110px]" />
      <F.Num name="um" label="Height of the powder" quantity="thickness" className="w-[190px]" />
      {cured?.ok && (
        <span className="pb-2">
          <Verdict result={inside ? "in" : "watch"}>
            cures to about {withUnit(cured.value.curedUm, "thickness", units)}
          </Verdict>{" "}
          <Grade grade={cured.value.grade} />{" "}
          <span className="small soft">
            {cured.value.n === 0
              ? "by the usual ratio: no pair of this powder was read yet"
              : `${cured.value.range ? `${withUnit(cured.value.range[0], "thickness", units)} to ${withUnit(cured.value.range[1], "thickness", units)}, ` : ""}ratio ${cured.value.ratio.toFixed(2)} from ${countOf(cured.value.n, "pair")}`}
          </span>
        </span>
      )}
    </Entry>
  );
}
