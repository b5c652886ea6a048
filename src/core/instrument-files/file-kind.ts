import { parseUnit } from "../units";
import { guessLayout, temperatureUnit, traceTable } from "./trace-layout";

export const fileKinds = ["gauge", "oven", "bath"] as const;
export type FileKind = (typeof fileKinds)[number];

/** Text looked at to tell what a file is. */
const HEAD = 20_000;

/**
 * What a file is of, by what it holds and not by what it is called; null where it could be two things. Film is only what
 * says so, by a word or a unit of thickness, or readings without any clock: a clock beside columns that do not is a trace
 * where a temperature is named, and asked about otherwise.
 */
export function fileKindOf(text: string): FileKind | null {
  // The last line of a part may be cut.
  const head = text.length > HEAD ? text.slice(0, text.lastIndexOf("\n", HEAD)) : text;
  const start = head.slice(0, 600).toLowerCase();
  if (/\btank\b/.test(start) && /\bparameter\b/.test(start)) return "bath";
  const table = traceTable(head);
  const said = [...table.headings, ...table.units, ...table.before.map((l) => l.raw), ...table.comments];
  const film =
    said.some((s) => temperatureUnit(s) === null && /thick|\bdft\b|\bfilm\b/i.test(s)) || said.some(namesThickness);
  const layout = guessLayout(table);
  const clock = layout.columns.some((c) => c.is === "time");
  const channels = layout.columns.some((c) => c.is === "metal" || c.is === "air");
  const heat =
    layout.unit !== null ||
    said.some((s) => temperatureUnit(s) !== null || /temp|\bair\b|\boven\b|°|luft|ofen|four\b/i.test(s));
  if (film) return heat && clock && channels && !said.some(namesThickness) ? null : "gauge";
  if (!clock || !channels) return "gauge";
  return heat || !said.some((s) => /\bvalue\b/i.test(s)) ? "oven" : null;
}

const namesThickness = (text: string): boolean =>
  (text.match(/[\p{L}\p{N}_]+/gu) ?? []).some((word) => {
    const unit = parseUnit(word);
    return unit.ok && unit.value.quantity === "thickness";
  });
