"use client";
import { type TitratedParameter, type TitrationRecipe, titratedParameters } from "@/core/bath";
import { Fold } from "../fields/fold";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { parameterUnit } from "../words/baths";

type Texts = Readonly<Record<string, string>>;
const words = [
  ["titrant", "Titrant, with its strength", 80],
  ["indicator", "Indicator, drops", 80],
  ["endPoint", "End point, as it is seen", 120],
  ["caution", "Caution for this titration", 300],
] as const;
const key = (parameter: TitratedParameter, field: string) => `${parameter}.recipe.${field}`;

/** The recipes of a bath as texts, so that nothing typed is lost. */
export function recipeTexts(recipes: Partial<Record<TitratedParameter, TitrationRecipe>> | undefined): Texts {
  const out: Record<string, string> = {};
  for (const [parameter, recipe] of Object.entries(recipes ?? {}) as [TitratedParameter, TitrationRecipe][]) {
    out[key(parameter, "sampleMl")] = recipe.sampleMl === null ? "" : String(recipe.sampleMl);
    out[key(parameter, "factor")] = String(recipe.factor);
    out[key(parameter, "blankMl")] =
      recipe.blankMl === null || recipe.blankMl === undefined ? "" : String(recipe.blankMl);
    for (const [field] of words) out[key(parameter, field)] = recipe[field];
  }
  return out;
}

/** The recipes typed, of the values that are watched; one with nothing typed is none. `read` gives a number or names what is wrong. */
export function readRecipes(
  texts: Texts,
  watched: readonly string[],
  read: (key: string, label: string) => number | null,
): Partial<Record<TitratedParameter, TitrationRecipe>> {
  return Object.fromEntries(
    titratedParameters
      .filter((p) => watched.includes(p))
      .filter((p) =>
        ["sampleMl", "factor", "blankMl", ...words.map(([w]) => w)].some((f) => (texts[key(p, f)] ?? "").trim()),
      )
      .map((p) => [
        p,
        {
          sampleMl: read(key(p, "sampleMl"), "sample"),
          factor: read(key(p, "factor"), "value per mL") ?? 0,
          blankMl: read(key(p, "blankMl"), "blank"),
          ...Object.fromEntries(words.map(([field]) => [field, (texts[key(p, field)] ?? "").trim()])),
        } as TitrationRecipe,
      ]),
  );
}

/** How one value is titrated: sample, titrant, end point and value per mL. */
export function RecipeFields({
  parameter,
  texts,
  put,
}: {
  parameter: TitratedParameter;
  texts: Texts;
  put: (key: string) => (text: string) => void;
}) {
  const field = (name: string, label: string) => (
    <TypedNumber
      id={`bath-${parameter}-${name}`}
      label={label}
      text={texts[key(parameter, name)] ?? ""}
      change={put(key(parameter, name))}
    />
  );
  return (
    <Fold className="mt-1" open={(texts[key(parameter, "titrant")] ?? "") !== ""} summary="How it is titrated">
      <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-3">
        {field("sampleMl", "Sample, mL")}
        {field("factor", `${parameterUnit(parameter, "metric")} per mL of titrant`)}
        {field("blankMl", "Blank, mL, if taken")}
        {words.map(([name, label, most]) => (
          <TextField
            key={name}
            id={`bath-${parameter}-${name}`}
            label={label}
            text={texts[key(parameter, name)] ?? ""}
            change={put(key(parameter, name))}
            most={most}
            className={most > 100 ? "col-span-full" : ""}
          />
        ))}
      </div>
    </Fold>
  );
}
