import { err, ok, type Result } from "../result";

/** An absolute temperature in °C. Branded, because adding two of them is a mistake. */
export type TemperatureC = number & { readonly __temperature: "absolute" };
/** A temperature difference in °C: 50 °F above is 28 °C above, not 10. */
export type TemperatureDifferenceC = number & { readonly __temperature: "difference" };

export const MICROMETRES_PER_MIL = 25.4;
export const KPA_PER_PSI = 6.894757;
export const LITRES_PER_US_GALLON = 3.785411784;
export const KILOGRAMS_PER_POUND = 0.45359237;
export const SQUARE_METRES_PER_SQUARE_FOOT = 0.09290304;
export const GRAMS_PER_M2_PER_MG_PER_FT2 = 0.01076391;
export const METRES_PER_FOOT = 0.3048;
export const KELVIN_AT_0_C = 273.15;

export const milToUm = (mil: number): number => mil * MICROMETRES_PER_MIL;
export const umToMil = (um: number): number => um / MICROMETRES_PER_MIL;
export const fahrenheitToC = (degF: number): TemperatureC => (((degF - 32) * 5) / 9) as TemperatureC;
export const cToFahrenheit = (degC: number): number => (degC * 9) / 5 + 32;
export const fahrenheitDifferenceToC = (degF: number): TemperatureDifferenceC =>
  ((degF * 5) / 9) as TemperatureDifferenceC;
export const cDifferenceToFahrenheit = (degC: number): number => (degC * 9) / 5;
export const cToKelvin = (degC: number): number => degC + KELVIN_AT_0_C;

/** A quantity whose two units differ by a factor: `perUs` canonical ones are one US one. */
const scaled = <M extends string, U extends string>(
  metric: M,
  us: U,
  perUs: number,
  digits: number,
  usDigits: number,
) => ({
  metric,
  us,
  toUs: (value: number): number => value / perUs,
  fromUs: (value: number): number => value * perUs,
  digits,
  usDigits,
});
const MILLIMETRES_PER_INCH = 25.4;

/** The quantities people see, with the canonical unit kept inside and the US customary one shown on request. */
export const quantities = {
  thickness: scaled("µm", "mil", MICROMETRES_PER_MIL, 1, 2),
  temperature: {
    metric: "°C",
    us: "°F",
    toUs: cToFahrenheit,
    fromUs: (f: number): number => fahrenheitToC(f),
    digits: 0,
    usDigits: 0,
  },
  temperatureDifference: {
    metric: "°C",
    us: "°F",
    toUs: cDifferenceToFahrenheit,
    fromUs: (f: number): number => fahrenheitDifferenceToC(f),
    digits: 1,
    usDigits: 1,
  },
  volume: scaled("L", "gal", LITRES_PER_US_GALLON, 1, 1),
  area: scaled("m²", "ft²", SQUARE_METRES_PER_SQUARE_FOOT, 1, 0),
  mass: scaled("kg", "lb", KILOGRAMS_PER_POUND, 1, 1),
  pressure: scaled("kPa", "psi", KPA_PER_PSI, 0, 0),
  coatingWeight: scaled("g/m²", "mg/ft²", GRAMS_PER_M2_PER_MG_PER_FT2, 2, 0),
  creep: scaled("mm", "in", MILLIMETRES_PER_INCH, 1, 3),
  /** Of a part or an oven. */
  length: scaled("m", "ft", METRES_PER_FOOT, 1, 1),
  /** Of a section, a hole, a gap. */
  size: scaled("mm", "in", MILLIMETRES_PER_INCH, 1, 3),
  /** Of a gun from the part, of hooks from one another. */
  distance: scaled("mm", "in", MILLIMETRES_PER_INCH, 0, 1),
  lineSpeed: scaled("m/min", "ft/min", METRES_PER_FOOT, 2, 1),
  airSpeed: scaled("m/s", "ft/min", METRES_PER_FOOT / 60, 2, 0),
  conductivity: scaled("µS/cm", "µS/cm", 1, 0, 0),
} as const;
export type Quantity = keyof typeof quantities;
export type UnitSystem = "metric" | "us";

/** Every unit word we understand when typed or read from a file, with its way into the canonical unit. */
const unitWords: Record<string, { quantity: Quantity; toCanonical: (value: number) => number }> = {
  µm: { quantity: "thickness", toCanonical: (v) => v },
  um: { quantity: "thickness", toCanonical: (v) => v },
  micron: { quantity: "thickness", toCanonical: (v) => v },
  microns: { quantity: "thickness", toCanonical: (v) => v },
  mil: { quantity: "thickness", toCanonical: milToUm },
  mils: { quantity: "thickness", toCanonical: milToUm },
  c: { quantity: "temperature", toCanonical: (v) => v },
  "°c": { quantity: "temperature", toCanonical: (v) => v },
  degc: { quantity: "temperature", toCanonical: (v) => v },
  f: { quantity: "temperature", toCanonical: fahrenheitToC },
  "°f": { quantity: "temperature", toCanonical: fahrenheitToC },
  degf: { quantity: "temperature", toCanonical: fahrenheitToC },
  kpa: { quantity: "pressure", toCanonical: (v) => v },
  bar: { quantity: "pressure", toCanonical: (v) => v * 100 },
  psi: { quantity: "pressure", toCanonical: (v) => v * KPA_PER_PSI },
  "µs/cm": { quantity: "conductivity", toCanonical: (v) => v },
  "us/cm": { quantity: "conductivity", toCanonical: (v) => v },
  "ms/cm": { quantity: "conductivity", toCanonical: (v) => v * 1000 },
};

/** Normalises the two micro signs and case, so that "Μm" from a gauge and "µm" from a keyboard are one word. */
export const normaliseUnitWord = (word: string): string =>
  word
    .trim()
    .replace(/\u03bc|\u039c/g, "µ")
    .toLowerCase()
    .replace(/^deg\s*/, "deg");

/**
 * Reads a unit word. Failure: `unknown-unit`, with the word.
 * @example parseUnit("mil") // → { quantity: "thickness", … }
 */
export function parseUnit(word: string): Result<{ quantity: Quantity; toCanonical: (value: number) => number }> {
  const found = unitWords[normaliseUnitWord(word)];
  return found ? ok(found) : err({ kind: "unknown-unit", word });
}
