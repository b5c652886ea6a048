import { Refused } from "../forms/refused";
import { parseTyped } from "../parse-typed";

/** Each reads what a field holds, and throws `Refused` where it reads as nothing of the kind. */
function numberIn(text: string): number {
  const read = parseTyped(text);
  if (!read.ok) throw new Refused(null, `“${text}” is not a number. Type digits, with a point for decimals.`);
  return read.value;
}
/** `60-80`, `60–80` or `60 to 80`; empty is none. */
export function maybeRange(text: string): [number, number] | null {
  if (text.trim() === "") return null;
  const parts = text.split(/\s*(?:–|-|to)\s*/).filter((p) => p !== "");
  if (parts.length !== 2) throw new Refused(null, `“${text}” is not a range. Type it as 60–80.`);
  return [numberIn(parts[0] ?? ""), numberIn(parts[1] ?? "")];
}
export function rangeIn(text: string): [number, number] {
  const range = maybeRange(text);
  if (!range) throw new Refused(null, `Type a range here, as 60–80.`);
  return range;
}
/** Points of a data sheet: `180 20, 190 15` is 20 min at 180 °C and 15 at 190. */
export function schedulePoints(text: string): { metalC: number; minutes: number }[] {
  return text
    .split(/[,;\n]/)
    .map((p) => p.trim())
    .filter((p) => p !== "")
    .map((p) => {
      const [heat, minutes, ...more] = p.split(/\s*(?:\s|:|@|\/)\s*/);
      if (!heat || !minutes || more.length > 0)
        throw new Refused(null, `“${p}” is not a point. Type metal temperature and minutes: 180 20.`);
      return { metalC: numberIn(heat), minutes: numberIn(minutes) };
    });
}
/** A gel of a primer: `150 5–12` is at least 5 and at most 12 min with the metal at 150 °C. */
export function maybeGel(text: string): { metalC: number; leastMin: number; mostMin: number } | null {
  if (text.trim() === "") return null;
  const [, heat, range] = /^(\S+)\s+(.+)$/.exec(text.trim()) ?? [];
  if (!heat || !range) throw new Refused(null, `“${text}” is not a gel. Type metal temperature and minutes: 150 5–12.`);
  const [leastMin, mostMin] = rangeIn(range);
  return { metalC: numberIn(heat), leastMin, mostMin };
}
export const rangeText = (range: readonly [number | null, number | null] | null): string =>
  range === null ? "" : `${range[0] ?? ""}–${range[1] ?? ""}`;
export const pointsText = (points: readonly { readonly metalC: number; readonly minutes: number }[]): string =>
  points.map((p) => `${p.metalC} ${p.minutes}`).join(", ");
