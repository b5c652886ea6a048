import { within } from "../limits";
import type { VerdictResult } from "../verdict";

/** What is set or read at the gun and the booth; each in its canonical unit, with what no instrument reads beyond. */
export const settings = {
  kv: { unit: "kV", bounds: [0, 150] },
  currentUa: { unit: "µA", bounds: [0, 300] },
  gunAirKPa: { unit: "kPa", bounds: [0, 1000] },
  gunAirRestKPa: { unit: "kPa", bounds: [0, 1000] },
  distanceMm: { unit: "mm", bounds: [0, 1500] },
  passes: { unit: "", bounds: [1, 20] },
  boothAirMPerS: { unit: "m/s", bounds: [0, 5] },
  hookPitchMm: { unit: "mm", bounds: [0, 5000] },
  hookCycles: { unit: "", bounds: [0, 10_000] },
  earthMohm: { unit: "MΩ", bounds: [0, 1_000_000] },
  reclaimPercent: { unit: "%", bounds: [0, 100] },
  hopperFillPercent: { unit: "%", bounds: [0, 100] },
  metalC: { unit: "°C", bounds: [-20, 400] },
} as const;
export type Setting = keyof typeof settings;
export const settingNames = Object.keys(settings) as Setting[];

/** Lower and upper limit of a setting; null leaves that side open. */
export type Window = readonly [number | null, number | null];

/** What a coat is sprayed for: a first coat, recesses, or over an old film, which holds its charge. */
export const coatSituations = ["first-coat", "recess", "recoat"] as const;
export type CoatSituation = (typeof coatSituations)[number];
/** How a system's layers are baked. */
export const coatSystems = ["single", "primer-gelled", "dry-on-dry", "full-cured"] as const;
export type CoatSystem = (typeof coatSystems)[number];

/** A value against its window: no window, or nothing read, is not judged. */
export function judgeSetting(value: number | null, window: Window | null): VerdictResult {
  if (value === null || window === null) return "unknown";
  return within(value, window[0], window[1]) ? "in" : "out";
}
