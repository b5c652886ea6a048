import type { Random } from "../statistics/random";

export type SimulatedBathCheck = {
  readonly atMs: number;
  readonly ph: number;
  readonly titrantMl: number;
  readonly temperatureC: number;
  /** Inhibitor, mg/L, where it was titrated: at the first round of a day. */
  readonly inhibitorMgPerL: number | null;
};
export type SimulatedBathEvent = {
  readonly atMs: number;
  readonly event: "addition";
  readonly product: string;
  readonly amountL: number;
  readonly note: string;
};
export type SimulatedConversionBath = {
  readonly checks: readonly SimulatedBathCheck[];
  readonly events: readonly SimulatedBathEvent[];
  /** True pH at a moment: what the metal met, not what was read. */
  readonly phAt: (ms: number) => number;
  /** True inhibitor, mg/L. */
  readonly inhibitorAt: (ms: number) => number;
};
const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** pH climbs as the acid is used up; per hour of an open line. */
const PH_CLIMB_PER_HOUR = 0.012;
const PH_AFTER_ACID = 5.2;
/** Make-up acid that brings the whole bath down by one pH, L: 4.2 m³ at 0.19 pH per L and m³. */
const ACID_L_PER_PH = 22.1;
/** Inhibitor wears off whether the line runs or not, mg/L an hour; it is made up on Monday, once the first round has seen it. */
const INHIBITOR_LOSS_PER_HOUR = 1.62;
const INHIBITOR_FULL = 430;
const INHIBITOR_ADDED_AT_HOUR = 9.5;
/** Where the line's last day is a Monday it was warned of: made up before the first round. */
const WARNED_AT_HOUR = 5.4;
/** Litres that bring the bath back up. */
const INHIBITOR_L = 4.5;
/** mg/L of inhibitor per mL of titrant, as the recipe has it. */
export const INHIBITOR_FACTOR_MG_PER_ML = 60;
export const isMonday = (ms: number): boolean => new Date(ms).getUTCDay() === 1;
const dayOf = (ms: number): number => Math.floor(ms / DAY) * DAY;
/** When the inhibitor is made up on a Monday. */
const madeUpOn = (monday: number, lastDay: number): number =>
  monday + (monday === lastDay ? WARNED_AT_HOUR : INHIBITOR_ADDED_AT_HOUR) * HOUR;
/** Inhibitor over time, mg/L: full after Monday's addition, wearing off since. */
const inhibitorOver = (toMs: number) => (ms: number) => {
  let day = dayOf(ms);
  while (!isMonday(day) || madeUpOn(day, dayOf(toMs)) > ms) day -= DAY;
  return Math.max(0, INHIBITOR_FULL - (INHIBITOR_LOSS_PER_HOUR * (ms - madeUpOn(day, dayOf(toMs)))) / HOUR);
};

export const TITRATION_FACTOR_PERCENT_PER_ML = 0.25;

/**
 * An iron phosphate bath over a period: pH climbs with work and is brought back with acid; one day a wrong drum
 * (alkaline cleaner) goes in, and the error is only put right nine days later.
 */
export function simulateConversionBath(
  random: Random,
  period: { fromMs: number; toMs: number; wrongAdditionMs: number; putRightMs: number },
): SimulatedConversionBath {
  const checks: SimulatedBathCheck[] = [];
  const events: SimulatedBathEvent[] = [];
  const turns: { ms: number; ph: number }[] = [{ ms: period.fromMs, ph: 5.24 }];
  const wrong = (ms: number) => ms >= period.wrongAdditionMs && ms < period.putRightMs;
  const phAt = (ms: number): number => {
    let at = turns[0] as { ms: number; ph: number };
    for (const turn of turns) if (turn.ms <= ms) at = turn;
    return at.ph + (PH_CLIMB_PER_HOUR * (ms - at.ms)) / HOUR / (wrong(ms) ? 12 : 1);
  };
  const inhibitorAt = inhibitorOver(period.toMs);
  let strength = 2.1;
  let wrongDone = false;
  let rightDone = false;
  for (let day = period.fromMs; day < period.toMs; day += DAY) {
    if (isMonday(day) && madeUpOn(day, dayOf(period.toMs)) < period.toMs)
      events.push({
        atMs: madeUpOn(day, dayOf(period.toMs)),
        event: "addition",
        product: "Nitrite inhibitor",
        amountL: INHIBITOR_L,
        note: "",
      });
    for (const hour of [6, 10, 14, 18]) {
      const ms = day + hour * HOUR + Math.round(random.uniform() * 10) * 60_000;
      if (ms >= period.toMs) break;
      if (!wrongDone && ms >= period.wrongAdditionMs) {
        turns.push({ ms: period.wrongAdditionMs, ph: 6.08 });
        events.push({
          atMs: period.wrongAdditionMs,
          event: "addition",
          product: "Drum from bay 4",
          amountL: 12,
          note: "Label turned to the wall",
        });
        wrongDone = true;
      }
      if (!rightDone && ms >= period.putRightMs) {
        turns.push({ ms: period.putRightMs, ph: 5.22 });
        events.push({
          atMs: period.putRightMs,
          event: "addition",
          product: "Conversion make-up acid",
          amountL: 19.2,
          note: "Brought back after the drums were checked",
        });
        rightDone = true;
      }
      const ph = phAt(ms);
      strength -= 0.012;
      checks.push({
        atMs: ms,
        ph: Math.round((ph + random.normal(0, 0.015)) * 100) / 100,
        titrantMl: Math.round((strength / TITRATION_FACTOR_PERCENT_PER_ML + 0.2 + random.normal(0, 0.08)) * 10) / 10,
        temperatureC: Math.round(47 + random.normal(0, 0.9)),
        inhibitorMgPerL: hour === 6 || (hour === 10 && isMonday(day)) ? burette(inhibitorAt(ms)) : null,
      });
      if (!wrong(ms) && ph > 5.62) {
        const atMs = ms + 25 * 60_000;
        events.push({
          atMs,
          event: "addition",
          product: "Conversion make-up acid",
          amountL: Math.round((ph - PH_AFTER_ACID) * ACID_L_PER_PH * 10) / 10,
          note: "",
        });
        turns.push({ ms: atMs, ph: PH_AFTER_ACID + random.normal(0, 0.02) });
      }
      if (strength < 1.75) {
        events.push({
          atMs: ms + 30 * 60_000,
          event: "addition",
          product: "Conversion concentrate",
          amountL: 18,
          note: "",
        });
        strength = 2.15;
      }
    }
  }
  return { checks, events: events.sort((a, b) => a.atMs - b.atMs), phAt, inhibitorAt };
}

/** What is read off a burette: to a tenth of a mL. */
const burette = (mgPerL: number): number =>
  (Math.round((mgPerL / INHIBITOR_FACTOR_MG_PER_ML) * 10) / 10) * INHIBITOR_FACTOR_MG_PER_ML;
