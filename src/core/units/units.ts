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

/** The quantities people see, with the canonical unit kept inside and the US customary one shown on request. */
export const quantities = {
  thickness: { metric: "µm", us: "mil", toUs: umToMil, fromUs: milToUm, digits: 1, usDigits: 2 },
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
  volume: {
    metric: "L",
    us: "gal",
    toUs: (l: number) => l / LITRES_PER_US_GALLON,
    fromUs: (g: number) => g * LITRES_PER_US_GALLON,
    digits: 1,
    usDigits: 1,
  },
  area: {
    metric: "m²",
    us: "ft²",
    toUs: (m2: number) => m2 / SQUARE_METRES_PER_SQUARE_FOOT,
    fromUs: (ft2: number) => ft2 * SQUARE_METRES_PER_SQUARE_FOOT,
    digits: 1,
    usDigits: 0,
  },
  mass: {
    metric: "kg",
    us: "lb",
    toUs: (kg: number) => kg / KILOGRAMS_PER_POUND,
    fromUs: (lb: number) => lb * KILOGRAMS_PER_POUND,
    digits: 1,
    usDigits: 1,
  },
  pressure: {
    metric: "kPa",
    us: "psi",
    toUs: (kPa: number) => kPa / KPA_PER_PSI,
    fromUs: (psi: number) => psi * KPA_PER_PSI,
    digits: 0,
    usDigits: 0,
  },
  coatingWeight: {
    metric: "g/m²",
    us: "mg/ft²",
    toUs: (g: number) => g / GRAMS_PER_M2_PER_MG_PER_FT2,
    fromUs: (mg: number) => mg * GRAMS_PER_M2_PER_MG_PER_FT2,
    digits: 2,
    usDigits: 0,
  },
  creep: {
    metric: "mm",
    us: "in",
    toUs: (mm: number) => mm / 25.4,
    fromUs: (inch: number) => inch * 25.4,
    digits: 1,
    usDigits: 3,
  },
  /** Of a part or an oven. */
  length: {
    metric: "m",
    us: "ft",
    toUs: (m: number) => m / METRES_PER_FOOT,
    fromUs: (ft: number) => ft * METRES_PER_FOOT,
    digits: 1,
    usDigits: 1,
  },
  /** Of a section, a hole, a gap. */
  size: {
    metric: "mm",
    us: "in",
    toUs: (mm: number) => mm / 25.4,
    fromUs: (inch: number) => inch * 25.4,
    digits: 1,
    usDigits: 3,
  },
  /** Of a gun from the part, of hooks from one another. */
  distance: {
    metric: "mm",
    us: "in",
    toUs: (mm: number) => mm / 25.4,
    fromUs: (inch: number) => inch * 25.4,
    digits: 0,
    usDigits: 1,
  },
  lineSpeed: {
    metric: "m/min",
    us: "ft/min",
    toUs: (m: number) => m / METRES_PER_FOOT,
    fromUs: (ft: number) => ft * METRES_PER_FOOT,
    digits: 2,
    usDigits: 1,
  },
  airSpeed: {
    metric: "m/s",
    us: "ft/min",
    toUs: (mPerS: number) => (mPerS * 60) / METRES_PER_FOOT,
    fromUs: (ftPerMin: number) => (ftPerMin * METRES_PER_FOOT) / 60,
    digits: 2,
    usDigits: 0,
  },
  conductivity: {
    metric: "µS/cm",
    us: "µS/cm",
    toUs: (x: number) => x,
    fromUs: (x: number) => x,
    digits: 0,
    usDigits: 0,
  },
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
