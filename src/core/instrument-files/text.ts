import { type DecimalMark, parseNumber } from "../units";

/** A row that could not be taken, with its line in the file and why, in a word the interface explains. */
export type FileProblem = { readonly line: number; readonly why: string; readonly text: string };
export type LeftOut = {
  readonly line: number;
  readonly reading: number | null;
  readonly why: "not available" | "over range" | "deleted" | "no value";
  readonly text: string;
};
export type Line = { readonly line: number; readonly cells: readonly string[]; readonly raw: string };

const stripQuotes = (cell: string): string => {
  const trimmed = cell.trim();
  return trimmed.includes('"')
    ? trimmed
        .replace(/^"(.*)"$/s, "$1")
        .replace(/""/g, '"')
        .trim()
    : trimmed;
};

/** Splits a text into lines that remember their number; blank lines are kept out, comment lines (#) are returned apart. */
export function readLines(text: string): { delimiter: string; lines: Line[]; comments: string[] } {
  const raw = text.replace(/^\uFEFF/, "").split(/\r?\n|\r/);
  const comments = raw.filter((l) => l.startsWith("#")).map((l) => l.slice(1).trim());
  // The first lines tell the delimiter as surely as all of them.
  const head = raw.slice(0, 400);
  const delimiter = ["\t", ";", ","]
    .map((d) => ({ d, n: head.filter((l) => !l.startsWith("#") && l.includes(d)).length }))
    .reduce((a, b) => (b.n > a.n ? b : a)).d;
  const lines: Line[] = [];
  for (let i = 0; i < raw.length; i++) {
    const line = raw[i] as string;
    if (line.trim() === "" || line.startsWith("#")) continue;
    lines.push({ line: i + 1, raw: line, cells: cellsOf(line, delimiter) });
  }
  return { delimiter, comments, lines };
}

/** The cells of one line, without quotes and blanks round them. */
export const cellsOf = (line: string, delimiter: string): string[] => splitCells(line, delimiter).map(stripQuotes);

/** One line, one record: instrument exports do not break inside quotes, and a reading's line must stay nameable. */
function splitCells(line: string, delimiter: string): string[] {
  if (!line.includes('"')) return line.split(delimiter);
  const cells: string[] = [];
  let cell = "";
  let quoted = false;
  for (const char of line) {
    if (char === '"') quoted = !quoted;
    if (char === delimiter && !quoted) {
      cells.push(cell);
      cell = "";
    } else cell += char;
  }
  return [...cells, cell];
}

/** Markers that mean "no reading here", as instruments write them. */
export function markerOf(cell: string): LeftOut["why"] | null {
  // Nearly every cell is a number: a digit first settles it without the patterns below.
  const code = cell.charCodeAt(0);
  if (code >= 48 && code <= 57) return null;
  const c = cell.trim().toLowerCase();
  if (c === "") return "no value";
  if (/^(over|ol|ovr|>+)$/.test(c)) return "over range";
  if (/^(n\/?a|nan|null|none|-{1,4}|–|—)$/.test(c)) return "not available";
  return null;
}

/** The decimal mark a column of numbers uses: certain where some cell shows it, else the file's other columns and its delimiter decide. */
export function columnDecimalMark(cells: readonly string[], delimiter: string): DecimalMark {
  if (!cells.some((c) => c.includes(","))) return ".";
  const numbers = cells.map((c) => c.trim()).filter((c) => /\d/.test(c));
  if (numbers.some((c) => /\d\.\d/.test(c))) return ".";
  if (numbers.some((c) => /,\d{1,2}$|,\d{4,}$|^0,/.test(c))) return ",";
  return delimiter === ";" && numbers.some((c) => c.includes(",")) ? "," : ".";
}

const plainNumber = /^\d+(?:\.\d+)?$/;

export const numberIn = (cell: string, mark: DecimalMark): number | null => {
  if (mark === "." && plainNumber.test(cell)) return Number(cell);
  const parsed = parseNumber(cell, mark);
  return parsed.ok ? parsed.value : null;
};
