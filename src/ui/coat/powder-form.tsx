"use client";
import type { FormEvent } from "react";
import { families } from "@/core/plan";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { useEntryForm } from "../forms/use-entry-form";
import { familyName } from "../words/plan";
import {
  maybeGel,
  maybeNumber,
  maybeRange,
  numberIn,
  pointsText,
  rangeIn,
  rangeText,
  schedulePoints,
} from "./setup-texts";
import { type SaveSetup, useSetupSave } from "./use-setup-save";

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
  readonly glossGu: readonly [number, number] | null;
  readonly swatch: { readonly code: string; readonly deltaE: number } | null;
  readonly storeMostC: number | null;
  readonly mostPerCoatUm: number | null;
  readonly mostInAllUm: number | null;
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
  save: SaveSetup;
}) {
  const text = (value: number | null) => (value === null ? "" : String(value));
  const held = useEntryForm(`powder ${code ?? "new"}`, {
    t: {
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
      gloss: powder.glossGu ? `${powder.glossGu[0]}` : "",
      glossOff: powder.glossGu ? `${powder.glossGu[1]}` : "",
      swatch: powder.swatch?.code ?? "",
      deltaE: text(powder.swatch?.deltaE ?? null),
      perCoat: text(powder.mostPerCoatUm),
      inAll: text(powder.mostInAllUm),
      hazards: powder.hazards,
      reason: "",
    },
    traits: powder.traits,
    weathering: powder.weathering,
    family: powder.family,
  });
  const [t, setT] = held.field("t");
  const [traits, setTraits] = held.field("traits");
  const [weathering, setWeathering] = held.field("weathering");
  const [family, setFamily] = held.field("family");
  const { busy, message, send } = useSetupSave(save, held);
  const put = (key: keyof typeof t) => (value: string) => setT((before) => ({ ...before, [key]: value }));
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const saved = await send(() => {
      const [minUm, maxUm] = rangeIn(t.film, "Film");
      const gloss = maybeNumber(t.gloss, "Gloss");
      return {
        code: t.code,
        seen,
        reason: t.reason,
        data: {
          name: t.name,
          chemistry: t.chemistry,
          minUm,
          maxUm,
          specificGravity: numberIn(t.sg, "Specific gravity"),
          schedule: schedulePoints(t.schedule, "Cure"),
          overbake: schedulePoints(t.overbake, "Over-bake"),
          onsetC: maybeNumber(t.onset, "Onset"),
          gel: maybeGel(t.gel, "Gel"),
          climbCPerMin: maybeRange(t.climb, "Climb"),
          shelfLifeDays: numberIn(t.shelf, "Shelf life"),
          knownCuredRubGrade: powder.knownCuredRubGrade,
          traits,
          weathering,
          family,
          pricePerKg: maybeNumber(t.price, "Price"),
          glossGu: gloss === null ? null : [gloss, maybeNumber(t.glossOff, "Gloss, ±") ?? 5],
          swatch:
            t.swatch.trim() === "" ? null : { code: t.swatch, deltaE: maybeNumber(t.deltaE, "Colour off by") ?? 1 },
          storeMostC: maybeNumber(t.store, "Stored up to"),
          mostPerCoatUm: maybeNumber(t.perCoat, "Most in one coat"),
          mostInAllUm: maybeNumber(t.inAll, "Most in all"),
          hazards: t.hazards,
        },
      };
    }, "Saved, from now on.");
    if (saved) put("reason")("");
  };
  const key = code ?? "new";
  const field = (name: keyof typeof t, label: string, placeholder?: string) => (
    <TextField
      id={`${key}-${name}`}
      label={label}
      text={t[name]}
      change={put(name)}
      most={300}
      {...(placeholder ? { placeholder } : {})}
    />
  );
  const four = "grid grid-cols-4 gap-3 max-[900px]:grid-cols-2";
  return (
    <form onSubmit={submit} noValidate className="grid max-w-[860px] gap-3 pb-4">
      {held.said}
      <div className={four}>
        {code === null && field("code", "Code")}
        {field("name", "Name")}
        {field("chemistry", "Chemistry")}
        <div className="field">
          <label htmlFor={`${key}-family`}>Family</label>
          <Choice id={`${key}-family`} className="input" value={family} onChange={setFamily}>
            {families.map((f) => (
              <option key={f} value={f}>
                {familyName[f]}
              </option>
            ))}
          </Choice>
        </div>
        <div className="field">
          <label htmlFor={`${key}-weathering`}>Weathering</label>
          <Choice id={`${key}-weathering`} className="input" value={weathering} onChange={setWeathering}>
            {["indoor", "standard", "high"].map((w) => (
              <option key={w}>{w}</option>
            ))}
          </Choice>
        </div>
      </div>
      <div className={four}>
        {field("film", "Film, µm", "60–90")}
        {field("perCoat", "Most in one coat, µm")}
        {field("inAll", "Most in all, µm")}
        {field("sg", "Specific gravity")}
      </div>
      <div className="grid grid-cols-[2fr_2fr_1fr] gap-3 max-[900px]:grid-cols-1">
        {field("schedule", "Cure: metal °C and minutes", "180 20, 190 15, 200 10")}
        {field("overbake", "Over-bake: metal °C and minutes", "200 40")}
        {field("onset", "Counts from, °C")}
      </div>
      <div className={four}>
        {field("climb", "Climb as it melts, °C a min", "10–60")}
        {traits.includes("primer") && field("gel", "Gel: metal °C, minutes", "150 5–12")}
      </div>
      <div className={four}>
        {field("gloss", "Gloss at 60°, GU")}
        {field("glossOff", "Gloss, ±")}
        {field("swatch", "Standard swatch")}
        {field("deltaE", "Colour off by at most, ΔE")}
        {field("shelf", "Shelf life, days")}
        {field("store", "Stored up to, °C")}
        {field("price", "Price per kg")}
      </div>
      <fieldset className="m-0 border-0 p-0">
        <legend className="small soft mb-1">What it is like</legend>
        <span className="flex flex-wrap gap-x-5">
          {Object.entries(traitName).map(([trait, name]) => (
            <label key={trait} className="flex min-h-11 items-center gap-2">
              <Tick
                checked={traits.includes(trait)}
                onChange={(on) => setTraits(on ? [...traits, trait] : traits.filter((x) => x !== trait))}
              />{" "}
              {name}
            </label>
          ))}
        </span>
      </fieldset>
      {field("hazards", "Hazards, as its safety sheet says")}
      {field("reason", code === null ? "Where the sheet is from" : "Why it changes")}
      <RecordRow busy={busy} message={message} primary={false}>
        {code === null ? "Put it on record" : "Save the change"}
      </RecordRow>
    </form>
  );
}
