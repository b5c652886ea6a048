import { quantileType7 } from "../statistics";
import { KPA_PER_PSI } from "../units";
import { type BathParameter, bathParameterBounds } from "./bath-window";

/** A slip that a bath value looks like, and the value it would then be. It is asked, never changed. */
export type BathSlip =
  | "fahrenheit-as-celsius"
  | "celsius-as-fahrenheit"
  | "milli-as-micro"
  | "micro-as-milli"
  | "bar-as-kilopascal"
  | "psi-as-kilopascal"
  | "tenfold-high"
  | "tenfold-low";
export type BathQuestion = {
  readonly parameter: BathParameter;
  readonly value: number;
  readonly slip: BathSlip;
  /** What was probably meant, in the parameter's canonical unit. */
  readonly suggested: number;
  /** What the bath usually reads. */
  readonly usual: number;
};
/** Checks that make what is usual; with fewer nothing is asked. */
export const CHECKS_TO_KNOW_USUAL = 3;
/** Spreads from the median within which a value is like the ones before it. */
const SPREADS_NEAR = 6;
/**
 * A value this many times under what is usual is not like it, however widely a bath scatters: six spreads of a rinse
 * that reads 62 ± 11 reach down to nothing, and 0.062 is not 62.
 */
const TIMES_UNDER = 5;
/** A normal distribution's standard deviation over its median absolute deviation. */
const SD_OVER_MAD = 1.4826;
/** The least spread a bath is granted, so that a steady one is not asked about every tenth. */
const leastSpread: Record<BathParameter, (usual: number) => number> = {
  ph: () => 0.1,
  concentration: (usual) => 0.05 * usual,
  "free-acid": (usual) => 0.08 * usual,
  "total-acid": (usual) => 0.05 * usual,
  inhibitor: (usual) => 0.1 * usual,
  pressure: (usual) => 0.05 * usual,
  temperature: () => 2,
  conductivity: (usual) => 0.1 * usual,
};
type Slip = readonly [BathSlip, (value: number) => number];
const decimalPoint: readonly Slip[] = [
  ["tenfold-high", (v) => v / 10],
  ["tenfold-low", (v) => v * 10],
];
const slips: Record<BathParameter, readonly Slip[]> = {
  temperature: [
    ["fahrenheit-as-celsius", (v) => ((v - 32) * 5) / 9],
    ["celsius-as-fahrenheit", (v) => (v * 9) / 5 + 32],
  ],
  conductivity: [["milli-as-micro", (v) => v * 1000], ["micro-as-milli", (v) => v / 1000], ...decimalPoint],
  ph: decimalPoint,
  concentration: decimalPoint,
  "free-acid": decimalPoint,
  "total-acid": decimalPoint,
  inhibitor: decimalPoint,
  pressure: [["bar-as-kilopascal", (v) => v * 100], ["psi-as-kilopascal", (v) => v * KPA_PER_PSI], ...decimalPoint],
};

const median = (values: readonly number[]) =>
  quantileType7(
    [...values].sort((a, b) => a - b),
    0.5,
  );

/** Median and spread of what a bath read before, or null with too few checks. */
function usualOf(parameter: BathParameter, before: readonly number[]): { usual: number; spread: number } | null {
  if (before.length < CHECKS_TO_KNOW_USUAL) return null;
  const usual = median(before);
  const away = median(before.map((v) => Math.abs(v - usual)));
  return { usual, spread: Math.max(SD_OVER_MAD * away, leastSpread[parameter](usual)) };
}

const isNear = (value: number, { usual, spread }: { readonly usual: number; readonly spread: number }): boolean =>
  Math.abs(value - usual) <= SPREADS_NEAR * spread && value * TIMES_UNDER >= usual;

/** Whether a value is like what the bath read before: within six spreads of its median. Null where too few are known. */
export function likeBefore(parameter: BathParameter, value: number, before: readonly number[]): boolean | null {
  const known = usualOf(parameter, before);
  return known && isNear(value, known);
}

/**
 * Whether a value looks like a slip of unit or of the decimal point: far from what the bath read before (median ± six
 * spreads, the spread from the median absolute deviation), and near it once the slip is undone. A value that is merely
 * far is not questioned: that is what checks are for. O(checks).
 */
export function questionBathValue(
  parameter: BathParameter,
  value: number,
  before: readonly number[],
): BathQuestion | null {
  const known = usualOf(parameter, before);
  if (!known || !Number.isFinite(value)) return null;
  if (isNear(value, known)) return null;
  const [least, most] = bathParameterBounds[parameter];
  for (const [slip, undo] of slips[parameter]) {
    const suggested = undo(value);
    if (suggested >= least && suggested <= most && isNear(suggested, known))
      return { parameter, value, slip, suggested, usual: known.usual };
  }
  return null;
}

export type BathSeen = {
  readonly code: string;
  readonly before: Readonly<Partial<Record<BathParameter, readonly number[]>>>;
};
/**
 * The other bath that a round reads like, where it does not read like the one it was typed for: every value is far from
 * this bath's, and near those of one other bath that has them all. Null where that is not so or not known.
 */
export function readsLikeAnother(
  values: readonly { readonly parameter: BathParameter; readonly value: number }[],
  mine: BathSeen,
  others: readonly BathSeen[],
): string | null {
  if (values.length === 0) return null;
  const like = (bath: BathSeen) =>
    values.map(({ parameter, value }) => likeBefore(parameter, value, bath.before[parameter] ?? []));
  if (!like(mine).every((l) => l === false)) return null;
  const fitting = others.filter((bath) => like(bath).every((l) => l === true));
  return fitting.length === 1 ? (fitting[0]?.code ?? null) : null;
}
