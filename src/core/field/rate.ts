import { err, ok, type Result } from "../result";
import { RATE_LEAST_DAYS } from "./creep";

/** Something measured in a zone on a day, with the standard error of what was read; 0 where only one figure stands. */
export type FieldReading = { readonly at: Date; readonly value: number; readonly standardError: number };
export type FieldRate = {
  /** A year. */
  readonly rate: number;
  /** 95 % of it. */
  readonly interval: readonly [number, number];
  readonly days: number;
  /** The interval leaves 0 out. */
  readonly grows: boolean;
};

const DAY_MS = 86_400_000;
const YEAR_DAYS = 365.25;
const Z95 = 1.959963984540054;

/**
 * How fast something grows between two readings, a year, with its interval from the scatter of the readings. Failures:
 * `times-out-of-order`, `too-soon` (under ninety days apart: they differ by how they were read more than by what grew).
 */
export function fieldRate(from: FieldReading, to: FieldReading): Result<FieldRate> {
  const days = (to.at.getTime() - from.at.getTime()) / DAY_MS;
  if (!(days > 0)) return err({ kind: "times-out-of-order", years: days / YEAR_DAYS });
  if (days < RATE_LEAST_DAYS) return err({ kind: "too-soon", days: Math.floor(days), least: RATE_LEAST_DAYS });
  const years = days / YEAR_DAYS;
  const rate = (to.value - from.value) / years;
  const half = (Z95 * Math.hypot(from.standardError, to.standardError)) / years;
  return ok({ rate, interval: [rate - half, rate + half], days, grows: rate - half > 0 });
}

export type Forecast = {
  /** Years from the newest reading until the limit: sooner, later; later is null where it may never. */
  readonly years: readonly [number, number | null];
  readonly limit: number;
};

/**
 * When a limit is reached if it goes on as between the two readings: a range, never a day. Failures: `beyond-already` (by how
 * much), `not-growing` (the rate is not told from none), those of `fieldRate`.
 */
export function forecastTo(limit: number, from: FieldReading, to: FieldReading): Result<Forecast> {
  if (to.value >= limit) return err({ kind: "beyond-already", value: to.value, limit });
  const rate = fieldRate(from, to);
  if (!rate.ok) return rate;
  if (!rate.value.grows) return err({ kind: "not-growing", rate: rate.value.rate });
  const [slow, fast] = rate.value.interval;
  const left = limit - to.value;
  return ok({ limit, years: [left / fast, slow > 0 ? left / slow : null] });
}

/** Standard error of a mean creep, mm, from its widths: half theirs from a scribe, since two sides make one width. */
export function creepStandardError(widthsMm: readonly number[], fromScribe: boolean): number {
  const n = widthsMm.length;
  if (n < 2) return 0;
  const mean = widthsMm.reduce((a, b) => a + b, 0) / n;
  const variance = widthsMm.reduce((sum, w) => sum + (w - mean) ** 2, 0) / (n - 1);
  return Math.sqrt(variance / n) / (fromScribe ? 2 : 1);
}
