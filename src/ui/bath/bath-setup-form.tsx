"use client";
import {
  type BathParameter,
  type BathSetup,
  bathParameters,
  bathRoles,
  movesFromText,
  movesText,
  type TitratedParameter,
  titratedParameters,
} from "@/core/bath";
import { quantities, type UnitSystem } from "@/core/units";
import { fieldsOf } from "../fields/in-form";
import { typed } from "../format";
import { Entry, type Reader } from "../forms/entry";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { KEPT, type Save, useSave } from "../forms/use-save";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { fromUnits, inUnits, parameterDigits, parameterLabel, parameterName } from "../words/baths";
import { failureText } from "../words/failures";
import { passageName } from "../words/preparation";
import { RecipeFields, readRecipes, recipeTexts } from "./recipe-fields";

const limits = ["lower", "watchLower", "watchUpper", "upper"] as const;
const limitName = {
  lower: "out under",
  watchLower: "watch under",
  watchUpper: "watch over",
  upper: "out over",
} as const;
const roleName = { cleaner: "cleaner", conversion: "conversion", rinse: "rinse or seal" } as const;
const washStages = ["clean", "clean-rinse", "conversion", "rinse", "seal", "final-rinse"] as const;
const isTitrated = (p: BathParameter): p is TitratedParameter => (titratedParameters as readonly string[]).includes(p);

/** What of it is a volume, and typed in the person's unit. */
const volumes: ReadonlySet<string> = new Set(["volumeL", "freeboardL", "stepL", "maxSingleL"]);

type Texts = Readonly<Record<string, string>>;
const plain = (value: number | null): string => (value === null ? "" : String(Math.round(value * 1000) / 1000));

/** Every figure as text, in this person's units, so that nothing typed is lost. */
function textsOf(bath: BathSetup, units: UnitSystem): Texts {
  const out: Record<string, string> = {
    name: bath.name,
    volumeL: typed(bath.volumeL, "volume", units),
    freeboardL: typed(bath.freeboardL, "volume", units),
    stepL: typed(bath.stepL, "volume", units),
    maxSingleL: typed(bath.maxSingleL, "volume", units),
    roundHours: plain(bath.roundHours),
    titrationFactorPercentPerMl: plain(bath.titrationFactorPercentPerMl),
    concentratePercent: plain(bath.concentratePercent),
    targetPercent: plain(bath.targetPercent),
    targetPh: plain(bath.targetPh),
    phChangePerLPerM3: plain(bath.phChangePerLPerM3),
    contactFrom: plain(bath.contactS?.[0] ?? null),
    contactTo: plain(bath.contactS?.[1] ?? null),
    weightFrom: plain(bath.weightGPerM2?.[0] ?? null),
    weightTo: plain(bath.weightGPerM2?.[1] ?? null),
    product: bath.product,
    acidProduct: bath.acidProduct,
    otherProducts: (bath.otherProducts ?? []).join(", "),
    moves: movesText(bath.moves ?? {}),
    caution: bath.caution,
    ...recipeTexts(bath.recipes),
  };
  for (const [parameter, window] of Object.entries(bath.windows)) {
    for (const limit of limits) {
      const value = window?.[limit] ?? null;
      out[`${parameter}.${limit}`] =
        value === null ? "" : String(Number(inUnits(parameter, value, units).toFixed(parameterDigits(parameter) + 1)));
    }
    out[`${parameter}.what`] = window?.reaction?.what ?? "";
    out[`${parameter}.round`] = plain(window?.roundHours ?? null);
    out[`${parameter}.recheck`] = plain(window?.reaction?.recheckMinutes ?? null);
  }
  return out;
}

/** A bath as it is set up: what it holds, its windows with what is done when it is out, its products; kept as a new version. */
export function BathSetupForm({
  code,
  seen,
  bath,
  retired,
  save,
}: {
  /** Null for a bath that is new. */
  code: string | null;
  seen: string | null;
  bath: BathSetup;
  retired: boolean;
  save: Save;
}) {
  const { units } = usePreferences();
  const shown = textsOf(bath, units);
  const held = useEntryForm(`bath set-up ${code ?? "new"}`, {
    texts: shown,
    watched: bathParameters.filter((p) => bath.windows[p] !== undefined) as readonly BathParameter[],
    stage: bath.stage,
    role: bath.role as BathSetup["role"],
    gone: retired,
    code: "",
    reason: "",
  });
  const F = fieldsOf(held);
  const saving = useSave(
    async (input: unknown) => {
      const kept = await save(input);
      // One that is new goes to where the rest of it is set up.
      return kept.ok && code === null && kept.href
        ? { ...kept, href: `${kept.href}/set-up` }
        : { ...kept, href: undefined };
    },
    held,
    { said: KEPT, about: code === null ? null : `bath ${code}` },
  );
  const [texts, setTexts] = held.field("texts");
  const [watched] = held.field("watched");
  const { stage, role, gone, reason } = held.values;
  const put = (key: string) => (text: string) => setTexts((before) => ({ ...before, [key]: text }));
  const field = (key: string, label: string, required = false) => (
    <TypedNumber id={`bath-${key}`} label={label} text={texts[key] ?? ""} change={put(key)} required={required} />
  );
  const send = ({ refuse }: Reader<typeof held.values>) => {
    let wrong: string | null = null;
    const read = (key: string, label: string): number | null => {
      const text = (texts[key] ?? "").trim();
      if (text === "") return null;
      const value = parseTyped(text);
      if (!value.ok) {
        wrong ??= `${label}: ${failureText(value.error)}`;
        return null;
      }
      if (volumes.has(key)) {
        // What was not touched stays as it is to the last decimal.
        if (text === (shown[key] ?? "")) return bath[key as "volumeL"];
        return units === "us" ? quantities.volume.fromUs(value.value) : value.value;
      }
      const [parameter = "", field] = key.split(".");
      return field !== undefined && field !== "recheck" && field !== "round"
        ? fromUnits(parameter, value.value, units)
        : value.value;
    };
    // What must be there and is not goes as 0, which the check refuses by its name.
    const must = (key: string, label: string): number => read(key, label) ?? 0;
    const [contactFrom, contactTo] = [read("contactFrom", "contact"), read("contactTo", "contact")];
    const [weightFrom, weightTo] = [read("weightFrom", "coating weight"), read("weightTo", "coating weight")];
    const moves = movesFromText(texts.moves ?? "");
    const data = {
      name: texts.name ?? "",
      stage,
      role,
      volumeL: must("volumeL", "volume"),
      freeboardL: must("freeboardL", "freeboard"),
      stepL: must("stepL", "measure"),
      maxSingleL: read("maxSingleL", "largest dose"),
      roundHours: must("roundHours", "round"),
      windows: Object.fromEntries(
        watched.map((p) => {
          const what = (texts[`${p}.what`] ?? "").trim();
          return [
            p,
            {
              ...Object.fromEntries(limits.map((l) => [l, read(`${p}.${l}`, `${parameterName[p]}, ${limitName[l]}`)])),
              roundHours: read(`${p}.round`, `${parameterName[p]}, round`),
              reaction: what
                ? { what, recheckMinutes: must(`${p}.recheck`, `${parameterName[p]}, check again`) }
                : null,
            },
          ];
        }),
      ),
      titrationFactorPercentPerMl: read("titrationFactorPercentPerMl", "titration factor"),
      recipes: readRecipes(texts, watched, read),
      concentratePercent: read("concentratePercent", "concentrate"),
      product: texts.product ?? "",
      targetPercent: read("targetPercent", "target"),
      targetPh: read("targetPh", "target pH"),
      phChangePerLPerM3: read("phChangePerLPerM3", "pH change"),
      acidProduct: texts.acidProduct ?? "",
      otherProducts: (texts.otherProducts ?? "").split(/[,;]/).flatMap((name) => name.trim() || []),
      moves: moves.ok ? moves.value : {},
      caution: texts.caution ?? "",
      contactS: contactFrom === null && contactTo === null ? null : [contactFrom ?? 0, contactTo ?? 0],
      weightGPerM2: weightFrom === null && weightTo === null ? null : [weightFrom ?? 0, weightTo ?? 0],
      retired: gone,
    };
    if (!moves.ok) wrong ??= failureText(moves.error);
    if (wrong) refuse(null, wrong);
    return saving.send({ code: code ?? held.values.code, seen, reason, data });
  };
  const word = (key: string, label: string, most: number, wide = false) => (
    <TextField
      id={`bath-${key}`}
      label={label}
      text={texts[key] ?? ""}
      change={put(key)}
      most={most}
      className={wide ? "col-span-full" : ""}
    />
  );
  const litre = quantities.volume[units];
  const grid = "mt-2 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-3";
  return (
    <Entry
      held={held}
      id="bath"
      sending={saving}
      button={code === null ? "Set it up" : "Keep as a new version"}
      primary
      className="grid gap-5"
      begin={["reason"]}
      send={send}
    >
      <section className="ruled mt-3">
        <h2>The tank</h2>
        <div className={grid}>
          {code === null && <F.Words name="code" label="Short name, as it is called" most={20} placeholder="Tank 5" />}
          {word("name", "Name", 60)}
          <F.Pick name="stage" label="Stage of the line" of={washStages.map((s) => [s, passageName[s] ?? s])} />
          <F.Pick name="role" label="What it does" of={bathRoles.map((r) => [r, roleName[r]])} />
          {field("volumeL", `Volume, ${litre}`, true)}
          {field("freeboardL", `Room above the level, ${litre}`, true)}
          {field("roundHours", "Round every, h", true)}
          {field("contactFrom", "Contact at least, s")}
          {field("contactTo", "Contact at most, s")}
          {role === "conversion" && field("weightFrom", "Coat at least, g/m²")}
          {role === "conversion" && field("weightTo", "Coat at most, g/m²")}
        </div>
      </section>
      <section className="ruled">
        <h2>What is watched</h2>
        <F.Many name="watched" label="" of={bathParameters.map((p) => [p, parameterName[p] ?? p])} />
        {watched.map((p) => (
          <fieldset key={p} className="m-0 border-0 border-t border-rule p-0 py-2">
            <legend className="float-left w-full font-bold">{parameterLabel(p, units)}</legend>
            <div className="clear-both grid grid-cols-[repeat(4,minmax(90px,1fr))] gap-3 max-[560px]:grid-cols-2">
              {limits.map((limit) => (
                <TypedNumber
                  key={limit}
                  id={`bath-${p}-${limit}`}
                  label={limitName[limit]}
                  text={texts[`${p}.${limit}`] ?? ""}
                  change={put(`${p}.${limit}`)}
                />
              ))}
            </div>
            <div className="mt-2 grid grid-cols-[minmax(0,1fr)_150px_150px] gap-3 max-[700px]:grid-cols-2">
              <TextField
                id={`bath-${p}-what`}
                label="What is done when it is out"
                text={texts[`${p}.what`] ?? ""}
                change={put(`${p}.what`)}
                most={300}
              />
              <TypedNumber
                id={`bath-${p}-recheck`}
                label="Check again after, min"
                text={texts[`${p}.recheck`] ?? ""}
                change={put(`${p}.recheck`)}
              />
              <TypedNumber
                id={`bath-${p}-round`}
                label="Own round, h"
                text={texts[`${p}.round`] ?? ""}
                change={put(`${p}.round`)}
              />
            </div>
            {isTitrated(p) && <RecipeFields parameter={p} texts={texts} put={put} />}
          </fieldset>
        ))}
      </section>
      <section className="ruled">
        <h2>Dosing</h2>
        <div className={grid}>
          {word("product", "Concentrate, as on its drum", 80)}
          {field("concentratePercent", "Its strength, %")}
          {field("targetPercent", "Target, %")}
          {field("titrationFactorPercentPerMl", "Titration, % per mL")}
          {word("acidProduct", "What brings pH down", 80)}
          {field("targetPh", "Target pH")}
          {field("phChangePerLPerM3", "pH change per L and m³")}
          {field("stepL", `Least that can be measured out, ${litre}`, true)}
          {field("maxSingleL", `Largest single dose, ${litre}`)}
          {word("otherProducts", "Other products that may go in, by commas", 300, true)}
          {word("moves", "What each moves, where not as usual: Acid: ph, conductivity; Defoamer: nothing", 300, true)}
          {word("caution", "Caution shown at this tank", 300, true)}
        </div>
      </section>
      {code !== null && <F.Yes name="gone">out of use: nothing is due on it, its record stays</F.Yes>}
      <F.Words
        name="reason"
        label={code === null ? "Where these figures come from" : "Why it changes"}
        most={300}
        required
        className="max-w-[560px]"
      />
    </Entry>
  );
}
