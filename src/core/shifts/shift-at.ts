import { err, ok, type Result } from "../result";

/** A shift by its name and when it starts, local time of the site, "HH:MM". */
export type ShiftStart = { readonly name: string; readonly from: string };
export type ShiftAt = {
  readonly name: string;
  /** Minutes since this shift began. */
  readonly minutesIn: number;
  /** Minutes since the shift before this one began. */
  readonly minutesSincePreviousBegan: number;
};

const DAY_MINUTES = 24 * 60;
const minutesOf = (text: string): number | null => {
  const parts = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(text);
  return parts ? Number(parts[1]) * 60 + Number(parts[2]) : null;
};

/**
 * Which shift a local time falls into. Shifts run from their start to the next one's, round the clock; a single shift is
 * its own predecessor, a day earlier. Failures: `no-shifts`, `bad-time` (the text), `shifts-start-together`.
 *
 * Example: with starts at 06:00, 14:00 and 22:00, 01:30 is 3 h 30 min into the one from 22:00.
 */
export function shiftAt(localTime: string, shifts: readonly ShiftStart[]): Result<ShiftAt> {
  if (shifts.length === 0) return err({ kind: "no-shifts" });
  const now = minutesOf(localTime);
  if (now === null) return err({ kind: "bad-time", text: localTime });
  const starts: { name: string; at: number }[] = [];
  for (const shift of shifts) {
    const at = minutesOf(shift.from);
    if (at === null) return err({ kind: "bad-time", text: shift.from });
    if (starts.some((s) => s.at === at)) return err({ kind: "shifts-start-together", at: shift.from });
    starts.push({ name: shift.name, at });
  }
  starts.sort((a, b) => a.at - b.at);
  const index = starts.findLastIndex((s) => s.at <= now);
  const here = starts.at(index) as { name: string; at: number };
  const before = starts.at((index < 0 ? starts.length - 1 : index) - 1) as { at: number };
  const minutesIn = (now - here.at + DAY_MINUTES) % DAY_MINUTES;
  const length = (here.at - before.at + DAY_MINUTES) % DAY_MINUTES || DAY_MINUTES;
  return ok({ name: here.name, minutesIn, minutesSincePreviousBegan: minutesIn + length });
}
