import { type Quantity, quantities, type UnitSystem } from "@/core/units";

/** A canonical value as this person reads it: the figure, and its unit apart so that it can be set lighter. */
export function figure(
  value: number,
  quantity: Quantity,
  units: UnitSystem,
  /** Decimals more than its instruments mostly have. */
  finer = 0,
): { text: string; unit: string } {
  const q = quantities[quantity];
  const [own, digits] = units === "us" ? [q.toUs(value), q.usDigits] : [value, q.digits];
  // A tank of 4,200 L is not known to the decilitre.
  const text = Math.abs(own) >= 1000 ? Math.round(own).toLocaleString("en-GB") : own.toFixed(digits + finer);
  return { text, unit: q[units] };
}
/** A canonical value as the text a field begins with, in this person's unit; nothing for null. */
export function typed(value: number | null, quantity: Quantity, units: UnitSystem): string {
  if (value === null) return "";
  const q = quantities[quantity];
  const [own, digits] = units === "us" ? [q.toUs(value), q.usDigits] : [value, q.digits];
  return String(Number(own.toFixed(digits)));
}
/** As a person says it: 12 L where it is 12.0, with no more decimals than `withUnit` has. */
export const plainly = (value: number, quantity: Quantity, units: UnitSystem): string =>
  `${typed(value, quantity, units)} ${quantities[quantity][units]}`;
/** A part’s or a room’s three sides, mm, in this person’s unit. */
export const sides = (
  { lengthMm, widthMm, heightMm }: { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number },
  units: UnitSystem,
): string =>
  `${typed(lengthMm, "distance", units)} × ${typed(widthMm, "distance", units)} × ${plainly(heightMm, "distance", units)}`;
/** A thinnest and a thickest section, mm, in this person’s unit; one where they are alike. */
export const sections = (thinnestMm: number, thickestMm: number, units: UnitSystem): string =>
  `${thinnestMm === thickestMm ? "" : `${typed(thinnestMm, "size", units)}–`}${plainly(thickestMm, "size", units)}`;
export const withUnit = (value: number, quantity: Quantity, units: UnitSystem, finer = 0): string => {
  const f = figure(value, quantity, units, finer);
  return `${f.text} ${f.unit}`;
};

/** Made once for each zone and way of writing: making one costs as much as writing a hundred dates. */
const writers = new Map<string, Intl.DateTimeFormat>();
const written = (at: Date, timeZone: string, options: Intl.DateTimeFormatOptions, locale = "en-GB"): string => {
  const key = `${locale} ${timeZone} ${Object.entries(options).join()}`;
  const writer = writers.get(key) ?? new Intl.DateTimeFormat(locale, { ...options, timeZone });
  writers.set(key, writer);
  return writer.format(at);
};
export const clock = (at: Date, timeZone: string): string =>
  written(at, timeZone, { hour: "2-digit", minute: "2-digit" });
export const dayMonth = (at: Date, timeZone: string): string =>
  written(at, timeZone, { day: "numeric", month: "short" });
export const weekdayAndDate = (at: Date, timeZone: string): string =>
  written(at, timeZone, { weekday: "short", day: "numeric", month: "short" });
export const fullDate = (at: Date, timeZone: string): string =>
  written(at, timeZone, { weekday: "long", day: "numeric", month: "long" });
export const dayMonthYear = (at: Date, timeZone: string): string =>
  written(at, timeZone, { day: "numeric", month: "short", year: "numeric" });
export const dateAndTime = (at: Date, timeZone: string): string =>
  `${dayMonthYear(at, timeZone)}, ${clock(at, timeZone)}`;

let shopZone = "UTC";
/** One shop, one clock: set where a page begins, read where a sentence knows no site. */
export const readInZone = (timeZone: string): void => {
  shopZone = timeZone;
};
/** Day and time by the shop's clock, whatever the browser's is. */
export const localMoment = (at: Date): string =>
  Number.isNaN(at.getTime()) ? "a moment that is none" : dateAndTime(at, shopZone);
/** Over so much a day without its year could be taken for this year's. */
const YEAR_SAID_MS = 180 * 86_400_000;
/** Time when it is today, day and time otherwise; half a year away its day and year. */
export function when(at: Date, now: Date, timeZone: string): string {
  if (Math.abs(now.getTime() - at.getTime()) > YEAR_SAID_MS) return dayMonthYear(at, timeZone);
  const day = (d: Date) => written(d, timeZone, {}, "en-CA");
  return day(at) === day(now) ? clock(at, timeZone) : `${dayMonth(at, timeZone)} ${clock(at, timeZone)}`;
}

/** A span in the two units that matter: 4 min, 2 h 05, 3 d 4 h, 2 y 1 m. */
export function span(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / 60_000);
  if (minutes < 90) return `${minutes} min`;
  const hours = Math.floor(minutes / 60);
  if (hours < 48) return `${hours} h ${String(minutes % 60).padStart(2, "0")}`;
  const days = Math.floor(hours / 24);
  if (days < 90) return `${days} d`;
  const years = Math.floor(days / 365.25);
  const months = Math.round((days - years * 365.25) / 30.4);
  return years > 0 ? `${years} y ${months} m` : `${months} months`;
}
export function minutesSeconds(seconds: number): string {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)} min ${String(whole % 60).padStart(2, "0")} s`;
}

/** A share, 0–1, in whole hundredths; it does not break before its sign. */
export const percent = (share: number): string => `${Math.round(100 * share)}\u00a0%`;
/** So many of a thing: 1 piece, 8 pieces. */
export const countOf = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
