import { TZDate } from "@date-fns/tz";
import { err, ok, type Result } from "../result";

/** When the stages work: from a local time of day, so many hours, on these days (ISO weekdays, Monday is 1). */
export type WorkWeek = {
  readonly timeZone: string;
  readonly startsAt: string;
  readonly hoursPerDay: number;
  readonly days: readonly number[];
};
export type WorkDay = { readonly from: Date; readonly to: Date };

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** No plan reaches further: a guard against a week that hardly works. */
const MOST_DAYS = 3660;

/** Local calendar fields of a moment, as if they were UTC, ms. */
export function localMs(moment: number, timeZone: string): number {
  const at = new TZDate(moment, timeZone);
  return Date.UTC(
    at.getFullYear(),
    at.getMonth(),
    at.getDate(),
    at.getHours(),
    at.getMinutes(),
    at.getSeconds(),
    at.getMilliseconds(),
  );
}

/** The moment of a local time given as if it were UTC. In the hour that summer time leaves out it is the hour after. */
export function momentOf(local: number, timeZone: string): number {
  const at = new Date(local);
  return new TZDate(
    at.getUTCFullYear(),
    at.getUTCMonth(),
    at.getUTCDate(),
    at.getUTCHours(),
    at.getUTCMinutes(),
    at.getUTCSeconds(),
    at.getUTCMilliseconds(),
    timeZone,
  ).getTime();
}

function checkWeek(week: WorkWeek): Result<number> {
  const at = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(week.startsAt);
  if (!at) return err({ kind: "bad-time", text: week.startsAt });
  if (!(week.hoursPerDay > 0 && week.hoursPerDay <= 24))
    return err({ kind: "no-working-time", hoursPerDay: week.hoursPerDay, days: week.days.length });
  if (week.days.length === 0 || week.days.some((d) => !Number.isInteger(d) || d < 1 || d > 7))
    return err({ kind: "no-working-time", hoursPerDay: week.hoursPerDay, days: week.days.length });
  return ok((Number(at[1]) * 60 + Number(at[2])) * 60_000);
}

/**
 * The working days that end after a moment, in order, as many as asked for: a day that starts in the evening runs past
 * midnight and belongs to the date it began. The first is cut to what is left of it. Failures: `bad-time`, `no-working-time`. O(days).
 */
export function workDays(from: Date, count: number, week: WorkWeek): Result<readonly WorkDay[]> {
  const start = checkWeek(week);
  if (!start.ok) return start;
  const out: WorkDay[] = [];
  let date = Math.floor(localMs(from.getTime(), week.timeZone) / DAY) * DAY - DAY;
  for (let i = 0; out.length < count && i < MOST_DAYS; i++, date += DAY) {
    const weekday = new Date(date).getUTCDay() || 7;
    if (!week.days.includes(weekday)) continue;
    const opens = momentOf(date + start.value, week.timeZone);
    const closes = opens + week.hoursPerDay * HOUR;
    if (closes > from.getTime()) out.push({ from: new Date(Math.max(opens, from.getTime())), to: new Date(closes) });
  }
  return ok(out);
}

/** Hours of work between two moments; 0 where the second is not later. Failures: `bad-time`, `no-working-time`. */
export function workHoursBetween(from: Date, to: Date, week: WorkWeek): Result<number> {
  const start = checkWeek(week);
  if (!start.ok) return start;
  const until = to.getTime();
  const days = workDays(from, Math.max(0, Math.ceil((until - from.getTime()) / DAY)) + 2, week);
  if (!days.ok) return days;
  return ok(hoursWithin(days.value, to));
}

/** Hours of the given working days until a moment; for many moments against one list of days. O(days). */
export function hoursWithin(days: readonly WorkDay[], until: Date): number {
  return (
    days.reduce((ms, d) => ms + Math.max(0, Math.min(d.to.getTime(), until.getTime()) - d.from.getTime()), 0) / HOUR
  );
}

/**
 * When so many hours of work are done, counted from a moment. Where they end with a working day, `edge` says whether
 * that evening is meant (work ends) or the next morning (work begins). Failures: `bad-time`, `no-working-time`, `bad-hours`.
 */
export function momentAfter(from: Date, hours: number, week: WorkWeek, edge: "begins" | "ends"): Result<Date> {
  const start = checkWeek(week);
  if (!start.ok) return start;
  if (!(hours >= 0) || !Number.isFinite(hours)) return err({ kind: "bad-hours", job: "", stage: "", hours });
  const days = workDays(from, Math.min(MOST_DAYS, Math.ceil(hours / week.hoursPerDay) + 2), week);
  if (!days.ok) return days;
  let left = hours * HOUR;
  for (const day of days.value) {
    const length = day.to.getTime() - day.from.getTime();
    const slack = edge === "ends" ? 1 : -1;
    if (left <= length + slack) return ok(new Date(day.from.getTime() + Math.min(left, length)));
    left -= length;
  }
  return err({ kind: "bad-hours", job: "", stage: "", hours });
}
