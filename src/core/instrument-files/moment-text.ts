import { localMs, momentOf } from "../shifts";

export const dateOrders = ["ymd", "dmy", "mdy"] as const;
/** Which of day, month and year a date begins with. */
export type DateOrder = (typeof dateOrders)[number];

const months = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];
const HOUR_MS = 3_600_000;

/** A time as h:mm, h:mm:ss or m:ss with fractions, also with am and pm: its seconds as h:mm(:ss), and how many parts it has. */
export function timeOfDay(
  text: string,
): { readonly seconds: number; readonly parts: 2 | 3; readonly zone: string | null } | null {
  const m = /^(\d{1,3}):([0-5]\d)(?::([0-5]\d(?:[.,]\d+)?))?\s*(?:([ap])\.?m\.?)?\s*(Z|[+-]\d{2}:?\d{2})?$/i.exec(
    text.trim(),
  );
  if (!m) return null;
  let hours = Number(m[1]);
  if (m[4]) {
    if (hours < 1 || hours > 12) return null;
    hours = (hours % 12) + (m[4].toLowerCase() === "p" ? 12 : 0);
  }
  return {
    seconds: hours * 3600 + Number(m[2]) * 60 + Number((m[3] ?? "0").replace(",", ".")),
    parts: m[3] === undefined ? 2 : 3,
    zone: m[5]?.toUpperCase() ?? null,
  };
}

/**
 * A date in any usual writing, with its time where it has one: days since 1970 and the seconds of that day, as the clock
 * that wrote it stood. With the year or the month's name in sight, `order` decides nothing. Null for what is no date.
 */
export function dateOf(
  text: string,
  order: DateOrder,
): { readonly day: number; readonly clock: ReturnType<typeof timeOfDay> } | null {
  const parts =
    /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T\s,]+(.*))?$/.exec(text.trim()) ??
    /^(\d{1,2})[-/. ]+(\d{1,2}|[A-Za-z]{3,9})[-/. ,]+(\d{4}|\d{2})(?:[T\s,]+(.*))?$/.exec(text.trim()) ??
    /^([A-Za-z]{3,9})[-/. ]+(\d{1,2})[-/. ,]+(\d{4})(?:[T\s,]+(.*))?$/.exec(text.trim());
  if (!parts) return null;
  const [, a = "", b = "", c = "", rest] = parts;
  const [year, month, day] = inOrder(a, b, c, order);
  const fullYear = Number(year) + (year.length <= 2 ? 2000 : 0);
  const at = new Date(Date.UTC(fullYear, Number(month) - 1, Number(day)));
  if (at.getUTCMonth() !== Number(month) - 1 || at.getUTCDate() !== Number(day)) return null;
  const clock = rest === undefined ? null : timeOfDay(rest);
  return rest !== undefined && clock === null ? null : { day: at.getTime() / 86_400_000, clock };
}
function inOrder(a: string, b: string, c: string, order: DateOrder): readonly [string, string, string] {
  const number = (word: string) => String(months.indexOf(word.slice(0, 3).toLowerCase()) + 1);
  if (a.length === 4) return [a, b, c];
  if (/[a-z]/i.test(a)) return [c, number(a), b];
  if (/[a-z]/i.test(b)) return [c, number(b), a];
  if (order === "mdy") return [c, a, b];
  return order === "ymd" && c.length === 2 ? [a, b, c] : [c, b, a];
}
/** Whether it is a date in some order of day and month. */
export const anyDate = (text: string): ReturnType<typeof dateOf> => dateOf(text, "dmy") ?? dateOf(text, "mdy");

/** Which of day and month comes first, where the year or some date says; null where each could be either. */
export function orderOf(dates: readonly string[]): DateOrder | null {
  if (dates.every((d) => /^\s*\d{4}\D/.test(d))) return "ymd";
  const fits = dateOrders.filter(
    (order) =>
      (order !== "ymd" || dates.every((d) => /^\s*\d{2}\D\d{1,2}\D\d{2}(\D|$)/.test(d))) &&
      dates.every((d) => dateOf(d, order) !== null),
  );
  return fits.length === 1 ? (fits[0] ?? null) : null;
}

/**
 * Moments a local time can be, ms since 1970, the earlier first: two in the hour that is there twice when summer time
 * ends, one otherwise.
 */
export function momentsOfLocal(localAsUtcMs: number, timeZone: string): readonly number[] {
  const one = momentOf(localAsUtcMs, timeZone);
  return [one - HOUR_MS, one - HOUR_MS / 2, one, one + HOUR_MS / 2, one + HOUR_MS].filter(
    (m) => m === one || localMs(m, timeZone) === localAsUtcMs,
  );
}

const DAY_MS = 24 * HOUR_MS;
/** The moment with this time of day that is nearest to another; both as local time, ms. */
export function nearestTimeOfDay(localMs: number, timeOfDayS: number): number {
  const today = Math.floor(localMs / DAY_MS) * DAY_MS + timeOfDayS * 1000;
  return [today - DAY_MS, today, today + DAY_MS].reduce((a, b) =>
    Math.abs(b - localMs) < Math.abs(a - localMs) ? b : a,
  );
}
