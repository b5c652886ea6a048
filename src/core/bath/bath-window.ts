import { within } from "../limits";
import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";

export const bathParameters = [
  "ph",
  "concentration",
  "free-acid",
  "total-acid",
  "inhibitor",
  "temperature",
  "pressure",
  "conductivity",
] as const;
export type BathParameter = (typeof bathParameters)[number];
/** Canonical unit of each bath parameter. */
export const bathParameterUnits: Record<BathParameter, string> = {
  ph: "",
  concentration: "%",
  "free-acid": "points",
  "total-acid": "points",
  inhibitor: "mg/L",
  pressure: "kPa",
  temperature: "°C",
  conductivity: "µS/cm",
};
/** What a meter or a burette can give at all; beyond it the entry is a slip. */
export const bathParameterBounds: Record<BathParameter, readonly [number, number]> = {
  ph: [0, 14],
  concentration: [0, 100],
  "free-acid": [0, 100],
  "total-acid": [0, 500],
  inhibitor: [0, 20_000],
  pressure: [0, 2000],
  temperature: [-5, 120],
  conductivity: [0, 200_000],
};

export type BathWindow = {
  readonly lower: number | null;
  readonly upper: number | null;
  readonly watchLower?: number | null;
  readonly watchUpper?: number | null;
  /** Checked every so many hours, where that differs from the bath's round. */
  readonly roundHours?: number | null;
};

/** Failures: `not-finite`, `beyond-instrument` with the bounds. */
export function checkBathValue(parameter: BathParameter, value: number): Result<number> {
  const [least, most] = bathParameterBounds[parameter];
  if (!Number.isFinite(value)) return err({ kind: "not-finite", parameter, value });
  if (value < least || value > most) return err({ kind: "beyond-instrument", parameter, value, least, most });
  return ok(value);
}

/** In the window, inside but past a watch line, or out; unknown where no window is set. */
export function judgeBathValue(value: number, window: BathWindow | null): VerdictResult {
  if (window === null || (window.lower === null && window.upper === null)) return "unknown";
  if (!within(value, window.lower, window.upper)) return "out";
  return within(value, window.watchLower ?? null, window.watchUpper ?? null) ? "in" : "watch";
}
