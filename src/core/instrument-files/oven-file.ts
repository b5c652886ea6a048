import type { Trace } from "../cure/trace";
import { err, ok, type Result } from "../result";
import { fahrenheitToC } from "../units";
import { columnDecimalMark, type FileProblem, type Line, markerOf, numberIn, readLines } from "./text";
import { channelsOf, withoutRepeats } from "./trace-file";
import { temperatureUnit } from "./trace-layout";

export type OvenFile = {
  readonly kind: "oven-file";
  readonly unit: "degC" | "degF";
  readonly unitFrom: "heading" | "comment" | "person";
  /** Start of the trace as seconds since 1970 where the file gives moments, else null. */
  readonly startEpochS: number | null;
  readonly channels: readonly {
    readonly name: string;
    readonly medium: "air" | "metal";
    readonly trace: Trace;
    readonly deadFromS: number | null;
    readonly gapsS: readonly (readonly [number, number])[];
  }[];
  readonly samples: number;
  readonly intervalS: number;
  readonly duplicatesDropped: number;
  readonly reordered: boolean;
  /** Channels whose heading was empty: named by their column. */
  readonly unnamed: readonly string[];
  /** The last line ends in the middle: it was left out. */
  readonly cutOff: boolean;
};

/** Seconds from a clock cell: seconds since 1970, plain seconds, h:mm:ss or m:ss. */
function secondsOf(cell: string): number | null {
  if (/^\d+(\.\d+)?$/.test(cell)) return Number(cell);
  const parts = /^(?:(\d+):)?(\d{1,2}):(\d{2}(?:\.\d+)?)$/.exec(cell);
  return parts ? Number(parts[1] ?? 0) * 3600 + Number(parts[2]) * 60 + Number(parts[3]) : null;
}

/**
 * Reads an oven recorder's export: a time column and one column per channel, °C or °F. Rows out of order are put in
 * order, a row that repeats another exactly is dropped, both said; two different rows at one time refuse the file. A
 * column without a heading is named by its place, a last line cut short is left out, both said. `inSpite` reads it in
 * another unit than it says, where a person found that it says the wrong one.
 * Failures: `empty-file`, `no-time-column`, `unit-unknown`, `bad-rows`.
 */
export function readOvenFile(
  text: string,
  unitIfNone: "degC" | "degF" | null = null,
  inSpite: "degC" | "degF" | null = null,
): Result<OvenFile> {
  const { delimiter, lines: all, comments } = readLines(text);
  const header = all[0];
  const lastLine = all.at(-1);
  const cutOff = header !== undefined && lastLine !== header && (lastLine?.cells.length ?? 0) < header.cells.length;
  const lines = cutOff ? all.slice(0, -1) : all;
  if (!header || lines.length < 3) return err({ kind: "empty-file" });
  const timeAt = header.cells.findIndex((c) => /^(epoch|elapsed|time|t|seconds|s)\b/i.test(c));
  if (timeAt < 0) return err({ kind: "no-time-column", columns: header.cells });
  const isEpoch = /epoch|unix/i.test(header.cells[timeAt] ?? "");
  const unnamed: string[] = [];
  const columns = header.cells.flatMap((heading, at) => {
    if (at === timeAt) return [];
    if (heading !== "") return [{ name: heading, at }];
    // An empty heading over numbers is a channel somebody forgot to name; over nothing it is a stray mark.
    if (!lines.slice(1).some((l) => (l.cells[at] ?? "") !== "")) return [];
    unnamed.push(`Channel ${at}`);
    return [{ name: `Channel ${at}`, at }];
  });
  const fromHeading =
    columns.map((c) => temperatureUnit(/\(/.test(c.name) ? c.name : "")).find((u) => u !== null) ?? null;
  const fromComment =
    comments
      .map((c) => (/unit/i.test(c) ? temperatureUnit(c.replace(/.*unit\w*\s*[:=]?/i, "")) : null))
      .find((u) => u !== null) ?? null;
  const unit = inSpite ?? fromHeading ?? fromComment ?? unitIfNone;
  if (!unit) return err({ kind: "unit-unknown", heading: header.cells.join(", ") });
  const problems: FileProblem[] = [];
  const marks = columns.map((c) =>
    columnDecimalMark(
      lines.slice(1).map((l) => l.cells[c.at] ?? ""),
      delimiter,
    ),
  );
  const rows = lines.slice(1).flatMap((l) => readRow(l, timeAt, columns, marks, unit, problems));
  const { kept, duplicatesDropped } = withoutRepeats(
    [...rows].sort((a, b) => a.s - b.s),
    problems,
  );
  if (problems.length > 0) return err({ kind: "bad-rows", problems });
  if (kept.length < 2) return err({ kind: "empty-file" });
  const named = columns.map(({ name }) => ({
    name: name.replace(/\s*\([^)]*\)\s*$/, ""),
    is: mediumOf(name),
    rack: null,
  }));
  const { channels, samples, intervalS } = channelsOf(kept, named);
  return ok({
    kind: "oven-file",
    unit,
    unitFrom: inSpite ? "person" : fromHeading ? "heading" : fromComment ? "comment" : "person",
    startEpochS: isEpoch ? (kept[0]?.s ?? 0) : null,
    channels: channels.map(({ rack, ...channel }) => channel),
    samples,
    intervalS,
    duplicatesDropped,
    reordered: rows.some((row, i) => i > 0 && row.s < (rows[i - 1]?.s ?? 0)),
    unnamed,
    cutOff,
  });
}

type Row = { readonly s: number; readonly tempC: readonly (number | null)[]; readonly line: number };

function readRow(
  l: Line,
  timeAt: number,
  columns: readonly { at: number }[],
  marks: readonly ("." | ",")[],
  unit: "degC" | "degF",
  problems: FileProblem[],
): Row[] {
  const s = secondsOf(l.cells[timeAt] ?? "");
  if (s === null) {
    problems.push({ line: l.line, why: "not a time", text: l.cells[timeAt] ?? "" });
    return [];
  }
  const tempC = columns.map((c, i) => {
    const cell = l.cells[c.at] ?? "";
    if (markerOf(cell)) return null;
    const value = numberIn(cell, marks[i] ?? ".");
    const celsius = value === null ? null : unit === "degF" ? fahrenheitToC(value) : value;
    if (celsius === null) problems.push({ line: l.line, why: "not a number", text: cell });
    else if (celsius < -60 || celsius > 1000) problems.push({ line: l.line, why: "beyond any oven", text: cell });
    return celsius;
  });
  return [{ s, tempC, line: l.line }];
}

/** A channel that says so is of the oven's air; every other hangs on metal. */
const mediumOf = (name: string): "air" | "metal" => (/\bair\b/i.test(name) ? "air" : "metal");
