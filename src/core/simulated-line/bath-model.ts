import type { Random } from "./random";

export type SimulatedBathCheck = {
  readonly atMs: number;
  readonly ph: number;
  readonly titrantMl: number;
  readonly temperatureC: number;
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
};
const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** pH climbs as the acid is used up; per hour of an open line. */
const PH_CLIMB_PER_HOUR = 0.012;
const PH_AFTER_ACID = 5.2;
/** Make-up acid that brings the whole bath down by one pH, L: 4.2 m³ at 0.19 pH per L and m³. */
const ACID_L_PER_PH = 22.1;
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
  let strength = 2.1;
  let wrongDone = false;
  let rightDone = false;
  for (let day = period.fromMs; day < period.toMs; day += DAY) {
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
  return { checks, events, phAt };
}
