import { err, ok, type Result } from "../result";
import type { Trace } from "./trace";

/** Where the powder is still to melt: how fast the metal passes here decides how it flows, °C. */
export const RATE_FROM_C = 60;
export const RATE_TO_C = 150;

/**
 * Mean rate at which a channel climbs from one temperature to another, °C/min; null where it does not pass both, or a number
 * is missing at either.
 * @example heatingRate({ timeS: [0, 60, 120], tempC: [20, 80, 140] }, 20, 140) // 60
 */
export function heatingRate(trace: Trace, fromC = RATE_FROM_C, toC = RATE_TO_C): number | null {
  const crossing = (atC: number): number | null => {
    for (let i = 1; i < trace.timeS.length; i++) {
      const [a, b] = [trace.tempC[i - 1], trace.tempC[i]];
      if (typeof a !== "number" || typeof b !== "number" || a > atC || b < atC || a === b) continue;
      const [from, to] = [trace.timeS[i - 1] as number, trace.timeS[i] as number];
      return from + ((atC - a) / (b - a)) * (to - from);
    }
    return null;
  };
  const [from, to] = [crossing(fromC), crossing(toC)];
  return from === null || to === null || to <= from ? null : ((toC - fromC) / (to - from)) * 60;
}

export type Climb = "slow" | "usual" | "fast";

/**
 * A climb, °C/min, against the bounds of a powder's sheet: under them it flows little and peels, over them gas and water
 * come out through the film. Failures: `bad-input` for bounds that are crossed or not over 0.
 */
export function judgeClimb(rateCPerMin: number, [least, most]: readonly [number, number]): Result<Climb> {
  if (!(least > 0 && most > least)) return err({ kind: "bad-input", name: "climb", value: [least, most] });
  if (!Number.isFinite(rateCPerMin)) return err({ kind: "bad-input", name: "rateCPerMin", value: rateCPerMin });
  return ok(rateCPerMin < least ? "slow" : rateCPerMin > most ? "fast" : "usual");
}
