import { atLeast } from "../limits";
import { err, ok, type Result } from "../result";

/** A stretch of storage at one temperature. */
export type Stored = { readonly days: number; readonly tempC: number };
/** At and below this, °C, a day in store is a day. */
export const STORED_COOL_C = 25;
/** Every so many degrees above it doubles what a day uses up. A rule of thumb. */
const DOUBLING_C = 10;

/**
 * Days of shelf life that storage used up: each day counts 2^((T − 25)/10) above 25 °C and 1 below; with `warm` off each
 * counts 1. Failures: `bad-input` (days under 0, temperature beyond −30 to 80 °C). Source: rule of thumb, docs/methods.md.
 */
export function daysUsedUp(stored: readonly Stored[], warm = true): Result<number> {
  let used = 0;
  for (const { days, tempC } of stored) {
    if (!(days >= 0) || !Number.isFinite(days)) return err({ kind: "bad-input", name: "days", value: days });
    if (!(tempC >= -30 && tempC <= 80)) return err({ kind: "bad-input", name: "tempC", value: tempC });
    used += days * (warm && tempC > STORED_COOL_C ? 2 ** ((tempC - STORED_COOL_C) / DOUBLING_C) : 1);
  }
  return ok(used);
}

export type LotAge = {
  readonly daysLeft: number;
  readonly ageDays: number;
  /** Days of shelf life used beyond the calendar's, by warm storage. */
  readonly warmDays: number;
  /** Storage was read on these days; the others are taken as cool. */
  readonly readDays: number;
};

/**
 * How long a lot may still be used: its shelf life, less its age, less what warm storage used up beyond the calendar.
 * `warmSpells` are the stretches with a reading; days without one count as they are. Failures: those of `daysUsedUp`,
 * `bad-input` (shelf life not over 0, age under 0), `stored-longer-than-old` (days, age).
 */
export function lotAge(
  shelfLifeDays: number,
  ageDays: number,
  warmSpells: readonly Stored[] = [],
  warm = true,
): Result<LotAge> {
  if (!(shelfLifeDays > 0) || !Number.isFinite(shelfLifeDays))
    return err({ kind: "bad-input", name: "shelfLifeDays", value: shelfLifeDays });
  if (!(ageDays >= 0) || !Number.isFinite(ageDays)) return err({ kind: "bad-input", name: "ageDays", value: ageDays });
  const readDays = warmSpells.reduce((sum, s) => sum + s.days, 0);
  if (readDays > ageDays + 1) return err({ kind: "stored-longer-than-old", days: readDays, ageDays });
  const used = daysUsedUp(warmSpells, warm);
  if (!used.ok) return used;
  const warmDays = used.value - readDays;
  return ok({ daysLeft: shelfLifeDays - ageDays - warmDays, ageDays, warmDays, readDays });
}

/** Lots in the order they are used: the one that runs out first, of those in date and in stock; those out of date or empty after. */
export function orderOfUse<L extends { readonly daysLeft: number; readonly stockKg: number | null }>(
  lots: readonly L[],
): readonly L[] {
  const rank = (lot: L) => (lot.daysLeft < 0 ? 2 : lot.stockKg !== null && lot.stockKg <= 0 ? 1 : 0);
  return [...lots].sort((a, b) => rank(a) - rank(b) || a.daysLeft - b.daysLeft);
}

/** Powder of a kind against what a job needs, kg. */
export type OnHand =
  | { readonly kind: "enough"; readonly weighedKg: number }
  | { readonly kind: "short"; readonly weighedKg: number; readonly byKg: number }
  /** What was weighed falls short, and there are lots whose weight nobody took. */
  | { readonly kind: "not-known"; readonly weighedKg: number; readonly lotsNotWeighed: number };

/** Whether the lots that are in date hold what is needed, kg; a lot that was never weighed in counts for nothing either way. O(lots). */
export function onHand(
  neededKg: number,
  lots: readonly { readonly daysLeft: number; readonly stockKg: number | null }[],
): OnHand {
  const usable = lots.filter((l) => l.daysLeft >= 0);
  const weighedKg = usable.reduce((sum, l) => sum + (l.stockKg ?? 0), 0);
  const lotsNotWeighed = usable.filter((l) => l.stockKg === null).length;
  if (atLeast(weighedKg, neededKg)) return { kind: "enough", weighedKg };
  return lotsNotWeighed > 0
    ? { kind: "not-known", weighedKg, lotsNotWeighed }
    : { kind: "short", weighedKg, byKg: neededKg - weighedKg };
}
