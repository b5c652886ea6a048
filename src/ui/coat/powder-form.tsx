"use client";
import { families } from "@/core/plan";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { familyName } from "../words/plan";
import { maybeGel, maybeRange, pointsText, rangeIn, rangeText, schedulePoints } from "./setup-texts";

export type PowderSheet = {
  readonly name: string;
  readonly chemistry: string;
  readonly minUm: number;
  readonly maxUm: number;
  readonly specificGravity: number;
  readonly schedule: readonly { readonly metalC: number; readonly minutes: number }[];
  readonly overbake: readonly { readonly metalC: number; readonly minutes: number }[];
  readonly onsetC: number | null;
  readonly gel: { readonly metalC: number; readonly leastMin: number; readonly mostMin: number } | null;
  readonly climbCPerMin: readonly [number, number] | null;
  readonly shelfLifeDays: number;
  readonly knownCuredRubGrade: number;
  readonly traits: readonly string[];
  readonly weathering: string;
  readonly family: string;
  readonly pricePerKg: number | null;
  readonly smoothness: number | null;
  readonly glossGu: readonly [number, number] | null;
  readonly swatch: {
    readonly code: string;
    readonly deltaE: number;
    readonly lab: readonly [number, number, number] | null;
  } | null;
  readonly storeMostC: number | null;
  readonly mostPerCoatUm: number | null;
  readonly mostInAllUm: number | null;
  readonly yearsPromised: number | null;
  readonly hazards: string;
};
const traitName: Record<string, string> = {
  "low-flow-powder": "flows little",
  "high-flow-powder": "flows off sharp edges",
  "water-releasing-powder": "gives off water as it cures",
  "indoor-chemistry-outdoors": "indoor chemistry",
  primer: "primer",
};

/** A powder's data sheet as a form, in the sheet's own units; a change is a new version from now on. */
export function PowderForm({
  code,
  seen,
  powder,
  save,
}: {
  code: string | null;
  seen: string | null;
  powder: PowderSheet;
  save: Save;
}) {
  const text = (value: number | null) => (value === null ? "" : String(value));
  const held = useEntryForm(`powder ${code ?? "new"}`, {
    code: code ?? "",
    name: powder.name,
    chemistry: powder.chemistry,
    film: code ? rangeText([powder.minUm, powder.maxUm]) : "",
    sg: text(powder.specificGravity),
    schedule: pointsText(powder.schedule),
    overbake: pointsText(powder.overbake),
    onset: text(powder.onsetC),
    gel: powder.gel ? `${powder.gel.metalC} ${powder.gel.leastMin}–${powder.gel.mostMin}` : "",
    climb: rangeText(powder.climbCPerMin),
    shelf: text(powder.shelfLifeDays),
    store: text(powder.storeMostC),
    price: text(powder.pricePerKg),
    smoothness: text(powder.smoothness),
    gloss: text(powder.glossGu?.[0] ?? null),
    glossOff: text(powder.glossGu?.[1] ?? null),
    swatch: powder.swatch?.code ?? "",
    lab: powder.swatch?.lab?.join(" ") ?? "",
    deltaE: text(powder.swatch?.deltaE ?? null),
    perCoat: text(powder.mostPerCoatUm),
    inAll: text(powder.mostInAllUm),
    promised: text(powder.yearsPromised),
    hazards: powder.hazards,
    reason: "",
    traits: powder.traits,
    weathering: powder.weathering,
    family: powder.family,
  });
  const saving = useSave(save, held);
  const F = fieldsOf(held);
  const four = "grid grid-cols-4 gap-3 max-[900px]:grid-cols-2";
  return (
    <Entry
      held={held}
      id={code ?? "new"}
      sending={saving}
      button={code === null ? "Put it on record" : "Save the change"}
      className="grid max-w-[860px] gap-3 pb-4"
      begin={["reason"]}
      send={({ number, maybe, as, many, refuse }) => {
        const { values: t } = held;
        const [minUm, maxUm] = as("film", rangeIn);
        const gloss = maybe("gloss");
        const [l, a, b, ...more] = many("lab");
        if (l !== undefined && (a === undefined || b === undefined || more.length > 0))
          refuse("lab", "Three numbers: L*, a* and b*.");
        return saving.send({
          code: t.code,
          seen,
          reason: t.reason,
          data: {
            name: t.name,
            chemistry: t.chemistry,
            minUm,
            maxUm,
            specificGravity: number("sg"),
            schedule: as("schedule", schedulePoints),
            overbake: as("overbake", schedulePoints),
            onsetC: maybe("onset"),
            gel: as("gel", maybeGel),
            climbCPerMin: as("climb", maybeRange),
            shelfLifeDays: number("shelf"),
            knownCuredRubGrade: powder.knownCuredRubGrade,
            traits: t.traits,
            weathering: t.weathering,
            family: t.family,
            pricePerKg: maybe("price"),
            smoothness: maybe("smoothness"),
            glossGu: gloss === null ? null : [gloss, maybe("glossOff") ?? 5],
            swatch:
              t.swatch.trim() === ""
                ? null
                : { code: t.swatch, deltaE: maybe("deltaE") ?? 1, lab: l === undefined ? null : [l, a, b] },
            storeMostC: maybe("store"),
            mostPerCoatUm: maybe("perCoat"),
            mostInAllUm: maybe("inAll"),
            yearsPromised: maybe("promised"),
            hazards: t.hazards,
          },
        });
      }}
    >
      <div className={four}>
        {code === null && <F.Words name="code" label="Code" most={300} />}
        <F.Words name="name" label="Name" most={300} />
        <F.Words name="chemistry" label="Chemistry" most={300} />
        <F.Pick name="family" label="Family" of={families.map((f) => [f, familyName[f]])} />
        <F.Pick name="weathering" label="Weathering" of={["indoor", "standard", "high"]} />
      </div>
      <div className={four}>
        <F.Words name="film" label="Film, µm" placeholder="60–90" most={40} />
        <F.Num name="perCoat" label="Most in one coat, µm" />
        <F.Num name="inAll" label="Most in all, µm" />
        <F.Num name="sg" label="Specific gravity" />
      </div>
      <div className="grid grid-cols-[2fr_2fr_1fr] gap-3 max-[900px]:grid-cols-1">
        <F.Words name="schedule" label="Cure: metal °C and minutes" placeholder="180 20, 190 15, 200 10" most={300} />
        <F.Words name="overbake" label="Over-bake: metal °C and minutes" placeholder="200 40" most={300} />
        <F.Num name="onset" label="Counts from, °C" />
      </div>
      <div className={four}>
        <F.Words name="climb" label="Climb as it melts, °C a min" placeholder="10–60" most={40} />
        {held.values.traits.includes("primer") && (
          <F.Words name="gel" label="Gel: metal °C, minutes" placeholder="150 5–12" most={40} />
        )}
      </div>
      <div className={four}>
        <F.Num name="gloss" label="Gloss at 60°, GU" />
        <F.Num name="glossOff" label="Gloss, ±" />
        <F.Num name="smoothness" label="Smoothness, panel of 10" />
        <F.Words name="swatch" label="Standard swatch" most={300} />
        <F.Num name="deltaE" label="Colour off by at most, ΔE" />
        <F.Words name="lab" label="Swatch as read, L* a* b*" most={60} placeholder="41.2 -1.0 -12.1" />
        <F.Num name="shelf" label="Shelf life, days" />
        <F.Num name="store" label="Stored up to, °C" />
        <F.Num name="price" label="Price per kg" />
        <F.Num name="promised" label="Its maker promises, years" />
      </div>
      <F.Many name="traits" label="What it is like" of={Object.entries(traitName)} />
      <F.Words name="hazards" label="Hazards, as its safety sheet says" most={300} />
      <F.Words name="reason" label={code === null ? "Where the sheet is from" : "Why it changes"} most={300} />
    </Entry>
  );
}
