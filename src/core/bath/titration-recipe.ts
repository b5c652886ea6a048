import { err, ok, type Result } from "../result";
import type { BathParameter } from "./bath-window";

/** Values that are found by titration where a bath has a recipe for them. */
export const titratedParameters = [
  "concentration",
  "free-acid",
  "total-acid",
  "inhibitor",
] as const satisfies readonly BathParameter[];
export type TitratedParameter = (typeof titratedParameters)[number];

/** How a value is titrated, as the supplier's sheet has it. */
export type TitrationRecipe = {
  /** Sample taken from the bath, mL; null where the sheet does not say. */
  readonly sampleMl: number | null;
  readonly titrant: string;
  readonly indicator: string;
  /** How the end is seen: “pink that stays for 15 s”. */
  readonly endPoint: string;
  /** Value per mL of titrant over the blank, in the parameter's unit. */
  readonly factor: number;
  /** Titrant that the sample's water alone takes, mL; null or left out where none was found: nothing is taken off then. */
  readonly blankMl?: number | null | undefined;
  readonly caution: string;
};
export type TitrationRecipes = Readonly<Partial<Record<TitratedParameter, TitrationRecipe>>>;

const MOST_SAMPLE_ML = 1000;
/** A blank over this is no blank but a spoilt titrant or water. */
const MOST_BLANK_ML = 5;

/** Failure: `bad-recipe` with the field, its value and why. */
export function checkRecipe(recipe: TitrationRecipe): Result<TitrationRecipe> {
  const bad = (field: string, value: unknown, why: string) => err({ kind: "bad-recipe", field, value, why });
  if (!(recipe.factor > 0) || !Number.isFinite(recipe.factor))
    return bad("value per mL", recipe.factor, "is not over 0");
  const { sampleMl } = recipe;
  if (sampleMl !== null && !(sampleMl > 0 && sampleMl <= MOST_SAMPLE_ML))
    return bad("sample, mL", sampleMl, `is not between 0 and ${MOST_SAMPLE_ML}`);
  const blankMl = recipe.blankMl ?? 0;
  if (!(blankMl >= 0 && blankMl <= MOST_BLANK_ML))
    return bad("blank, mL", recipe.blankMl, `is not between 0 and ${MOST_BLANK_ML}`);
  if (recipe.titrant.trim() === "") return bad("titrant", "", "is empty");
  if (recipe.endPoint.trim() === "") return bad("end point", "", "is empty: say how the end is seen");
  return ok(recipe);
}

/** What is set up for a bath that this reads. */
export type Titrates = {
  readonly titrationFactorPercentPerMl: number | null;
  readonly recipes?: TitrationRecipes | null | undefined;
};
/** How a value of a bath is titrated; null where no recipe is set up. */
export const recipeOf = (bath: Titrates, parameter: BathParameter): TitrationRecipe | null =>
  (bath.recipes as Partial<Record<string, TitrationRecipe>> | null | undefined)?.[parameter] ?? null;

/** mL of titrant to the parameter's own unit; null where it is read off a meter or a strip. */
export function titrationFactor(bath: Titrates, parameter: BathParameter): number | null {
  const recipe = recipeOf(bath, parameter);
  if (recipe) return recipe.factor;
  return parameter === "concentration" ? bath.titrationFactorPercentPerMl : null;
}

/** The blank that is set for a bath's value, mL: taken off only where it was found and set. */
export const blankMlOf = (bath: Titrates, parameter: BathParameter): number => recipeOf(bath, parameter)?.blankMl ?? 0;

/** Titrant used, mL, from the burette's two readings. Failures: `bad-input`, `burette-runs-back` (end under start). */
export function titrantFromBurette(startMl: number, endMl: number): Result<number> {
  for (const [name, value] of [
    ["burette at the start, mL", startMl],
    ["burette at the end, mL", endMl],
  ] as const)
    if (!Number.isFinite(value) || value < 0) return err({ kind: "bad-input", name, value });
  if (endMl < startMl) return err({ kind: "burette-runs-back", startMl, endMl });
  return ok(Math.round((endMl - startMl) * 1000) / 1000);
}

/** What a burette is read to, mL. */
const BURETTE_STEP_ML = 0.1;
/** With what standard deviation a reading repeats that is not titrated, in its own unit: about two of a meter's last digit. */
const METER_REPEATS: Record<BathParameter, number> = {
  ph: 0.02,
  concentration: 0.03,
  "free-acid": 0.1,
  "total-acid": 0.1,
  inhibitor: 5,
  temperature: 0.3,
  pressure: 2,
  conductivity: 1,
};
/** The least spread that a bath value's readings have among themselves, in its own unit: half a step of the burette where it is titrated. */
export function methodRepeats(bath: Titrates, parameter: BathParameter): number {
  const factor = titrationFactor(bath, parameter);
  return factor === null ? METER_REPEATS[parameter] : (Math.abs(factor) * BURETTE_STEP_ML) / 2;
}
