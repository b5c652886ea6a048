import { type BathParameter, checkBathValue, concentrationFromTitration } from "@/core/bath";
import type { UnitSystem } from "@/core/units";
import { parseTyped } from "../parse-typed";
import { fromUnits } from "../words/baths";

export type ReadBathValue =
  | { readonly value: number; readonly titrantMl: number | null; readonly blankMl: number | null }
  | { readonly failure: { readonly kind: string; readonly [k: string]: unknown } }
  | null;

/** What was typed for a bath value, in its canonical unit: as mL of titrant where it has a factor. Null while nothing is typed. */
export function readBathValue(
  parameter: BathParameter,
  typed: string,
  blank: string,
  { units, titrationFactor }: { readonly units: UnitSystem; readonly titrationFactor: number | null },
): ReadBathValue {
  const text = typed.trim();
  if (text === "") return null;
  const number = parseTyped(text);
  if (!number.ok) return { failure: number.error };
  if (titrationFactor !== null) {
    const b = parseTyped(blank);
    if (!b.ok) return { failure: b.error };
    const strength = concentrationFromTitration({
      titrantMl: number.value,
      blankMl: b.value,
      factor: titrationFactor,
    });
    return strength.ok
      ? { value: strength.value, titrantMl: number.value, blankMl: b.value }
      : { failure: strength.error };
  }
  const value = fromUnits(parameter, number.value, units);
  const checked = checkBathValue(parameter, value);
  return checked.ok ? { value, titrantMl: null, blankMl: null } : { failure: checked.error };
}
