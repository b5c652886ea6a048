import { type BathParameter, bathParameterUnits } from "@/core/bath/bath-window";
import { quantities, type UnitSystem } from "@/core/units";

export const parameterName: Record<string, string> = {
  ph: "pH",
  concentration: "concentration",
  "free-acid": "free acid",
  "total-acid": "total acid",
  inhibitor: "inhibitor",
  pressure: "nozzle pressure",
  temperature: "temperature",
  conductivity: "conductivity",
};
const digits: Record<string, number> = {
  ph: 2,
  concentration: 2,
  "free-acid": 1,
  "total-acid": 1,
  inhibitor: 0,
  temperature: 0,
  pressure: 0,
  conductivity: 0,
};
const hasQuantity = (parameter: Parameter): parameter is "temperature" | "pressure" =>
  parameter === "temperature" || parameter === "pressure";

type Parameter = BathParameter | string;
/** The unit a bath value carries for this person; pH has none. */
export const parameterUnit = (parameter: Parameter, units: UnitSystem): string =>
  hasQuantity(parameter) ? quantities[parameter][units] : (bathParameterUnits[parameter as BathParameter] ?? "");
/** How many decimals its instrument is worth. */
export const parameterDigits = (parameter: Parameter): number => digits[parameter] ?? 1;
/** A bath value in this person's unit, as a number: for a drawing. */
export const inUnits = (parameter: Parameter, value: number, units: UnitSystem): number =>
  hasQuantity(parameter) && units === "us" ? quantities[parameter].toUs(value) : value;
/** A number typed in this person's unit, in the parameter's canonical one. */
export const fromUnits = (parameter: Parameter, value: number, units: UnitSystem): number =>
  hasQuantity(parameter) && units === "us" ? quantities[parameter].fromUs(value) : value;
/** The parameter with its unit, as a label: “pH”, “nozzle pressure, kPa”. */
export function parameterLabel(parameter: Parameter, units: UnitSystem): string {
  const unit = parameterUnit(parameter, units);
  return unit ? `${parameterName[parameter] ?? parameter}, ${unit}` : (parameterName[parameter] ?? parameter);
}

/** The figure alone, in this person's unit. */
export const bathFigure = (parameter: Parameter, value: number, units: UnitSystem): string =>
  inUnits(parameter, value, units).toFixed(parameterDigits(parameter));
/** The figure with its unit: “5.21”, “2.10 %”, “118 °F”. */
export const bathValue = (parameter: Parameter, value: number, units: UnitSystem): string =>
  `${bathFigure(parameter, value, units)} ${parameterUnit(parameter, units)}`.trim();

/** A window as it is said: “4.80–5.80”, “at most 60 µS/cm”, “no window”. */
export function bathWindow(
  parameter: Parameter,
  { lower, upper }: { readonly lower: number | null; readonly upper: number | null },
  units: UnitSystem,
): string {
  if (lower !== null && upper !== null)
    return `${bathFigure(parameter, lower, units)}–${bathValue(parameter, upper, units)}`;
  if (upper !== null) return `at most ${bathValue(parameter, upper, units)}`;
  return lower !== null ? `at least ${bathValue(parameter, lower, units)}` : "no window";
}
