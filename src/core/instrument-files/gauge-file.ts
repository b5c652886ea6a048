import { err, ok, type Result } from "../result";
import { checkThicknessUm } from "../thickness";
import { type DecimalMark, normaliseUnitWord, parseUnit } from "../units";
import {
  cellsOf,
  columnDecimalMark,
  type FileProblem,
  type LeftOut,
  type Line,
  markerOf,
  numberIn,
  readLines,
} from "./text";

export type GaugeFile = {
  readonly kind: "gauge-file";
  readonly unit: "um" | "mil";
  /** Where the unit was read: the column heading, a line before the table, the readings themselves, or the person. */
  readonly unitFrom: "heading" | "preamble" | "readings" | "person";
  readonly columns: readonly string[];
  readonly readings: readonly {
    readonly number: number;
    readonly line: number;
    readonly spot: string | null;
    readonly valueUm: number;
    readonly typed: string;
  }[];
  readonly rejected: readonly LeftOut[];
  readonly spots: number;
  readonly summaryLines: readonly string[];
};

const unitOf = (text: string): "um" | "mil" | null => {
  for (const word of text.match(/[µμΜ°\w/]+/g) ?? []) {
    const unit = parseUnit(word);
    if (unit.ok && unit.value.quantity === "thickness") return /^mils?$/.test(normaliseUnitWord(word)) ? "mil" : "um";
  }
  return null;
};
const PROBLEM = { negative: "negative", "beyond-any-film": "beyond any film", "not-finite": "not a number" } as const;

const deletedMark = /^(d|del|deleted|x)$/i;
const thickness = /thick|dft|value|\bfilm\b/i;

/**
 * Reads a film gauge's export: a table (comma, semicolon or tab; either decimal mark; lines before and after it) or a
 * plain stream of readings. Markers and deleted readings are left out and listed; any other text, a negative or more
 * than 10,000 µm refuses the whole file and names each line. `unitIfNone` answers for a file that names no unit.
 * Failures: `empty-file`, `no-thickness-column`, `unit-unknown`, `mixed-units`, `bad-rows` with the problems.
 */
export function readGaugeFile(text: string, unitIfNone: "um" | "mil" | null = null): Result<GaugeFile> {
  const { delimiter, lines } = readLines(text);
  if (lines.length === 0) return err({ kind: "empty-file" });
  const headerAt = lines.findIndex(isHeader);
  if (headerAt >= 0) return readTable(lines, headerAt, delimiter, unitIfNone);
  // One column under its heading is a stream: a decimal comma in it must not part the cells.
  const first = lines[0] as Line;
  return thickness.test(first.raw) && !/^\s*[-+]?\d/.test(first.raw)
    ? readStream(lines.slice(1), unitIfNone, first.raw)
    : readStream(lines, unitIfNone);
}

/** Where a table keeps what, read from its heading and the lines before it. */
export type GaugeTable = {
  readonly delimiter: string;
  readonly header: readonly string[];
  readonly valueAt: number;
  readonly spotAt: number;
  readonly numberAt: number;
  readonly flagAt: number;
  readonly rackAt: number;
  readonly unit: "um" | "mil";
  readonly unitFrom: GaugeFile["unitFrom"];
  readonly mark: DecimalMark;
};

function tableOf(
  lines: readonly Line[],
  headerAt: number,
  delimiter: string,
  unitIfNone: "um" | "mil" | null,
): Result<GaugeTable> {
  const header = lines[headerAt] as Line;
  const column = (pattern: RegExp) => header.cells.findIndex((c) => pattern.test(c));
  const valueAt = column(thickness);
  const fromHeading = unitOf(header.cells[valueAt] as string);
  const fromPreamble =
    lines
      .slice(0, headerAt)
      .map((l) => (/unit/i.test(l.cells[0] ?? "") ? unitOf(l.cells.slice(1).join(" ")) : null))
      .find((u) => u !== null) ?? null;
  const unit = fromHeading ?? fromPreamble ?? unitIfNone;
  if (!unit) return err({ kind: "unit-unknown", heading: header.cells[valueAt] });
  return ok({
    delimiter,
    header: header.cells,
    valueAt,
    spotAt: column(/^spot|^place|^point/i),
    numberAt: column(/^(no\.?|#|nr\.?|reading|n)$/i),
    flagAt: column(/^(flag|status|state|del)/i),
    rackAt: column(/^rack/i),
    unit,
    unitFrom: fromHeading ? "heading" : fromPreamble ? "preamble" : "person",
    mark: columnDecimalMark(
      lines.slice(headerAt + 1).map((l) => l.cells[valueAt] ?? ""),
      delimiter,
    ),
  });
}

const isHeader = (l: Line): boolean =>
  l.cells.length > 1 && l.cells.some((c) => thickness.test(c)) && l.cells.every((c) => !/^-?\d+([.,]\d+)?$/.test(c));

/**
 * The shape of a large table by its first lines, so that the rest can be read as it comes. Failures: `empty-file`,
 * `no-thickness-column`, `unit-unknown`.
 */
export function gaugeTable(
  head: string,
  unitIfNone: "um" | "mil" | null = null,
): Result<GaugeTable & { readonly headerLine: number }> {
  const { delimiter, lines } = readLines(head);
  if (lines.length === 0) return err({ kind: "empty-file" });
  const headerAt = lines.findIndex(isHeader);
  if (headerAt < 0) return err({ kind: "no-thickness-column", firstLine: lines[0]?.raw });
  const table = tableOf(lines, headerAt, delimiter, unitIfNone);
  return table.ok ? ok({ ...table.value, headerLine: lines[headerAt]?.line ?? 1 }) : table;
}

export type GaugeRow =
  | {
      readonly kind: "reading";
      readonly valueUm: number;
      readonly typed: string;
      readonly spot: string;
      readonly rack: string;
    }
  | { readonly kind: "left-out"; readonly why: LeftOut["why"] }
  | { readonly kind: "blank" }
  | { readonly kind: "problem"; readonly why: string; readonly text: string };

/** One line of a large table: a reading, one left out, nothing, or a problem. O(length of the line). */
export function gaugeRow(raw: string, table: GaugeTable): GaugeRow {
  if (raw.trim() === "" || raw.startsWith("#")) return { kind: "blank" };
  const cells = cellsOf(raw, table.delimiter);
  const cell = cells[table.valueAt] ?? "";
  const marker = markerOf(cell);
  if (marker) return { kind: "left-out", why: marker };
  if (table.flagAt >= 0 && deletedMark.test(cells[table.flagAt] ?? "")) return { kind: "left-out", why: "deleted" };
  const value = numberIn(cell, table.mark);
  if (value === null) return { kind: "problem", why: "not a number", text: cell };
  const valueUm = inMicrometres(value, table.unit);
  const checked = checkThicknessUm(valueUm);
  if (!checked.ok)
    return { kind: "problem", why: PROBLEM[checked.error.kind as keyof typeof PROBLEM] ?? "not a number", text: cell };
  return {
    kind: "reading",
    valueUm,
    typed: cell,
    spot: table.spotAt >= 0 ? (cells[table.spotAt] ?? "") : "",
    rack: table.rackAt >= 0 ? (cells[table.rackAt] ?? "") : "",
  };
}

function readTable(
  lines: readonly Line[],
  headerAt: number,
  delimiter: string,
  unitIfNone: "um" | "mil" | null,
): Result<GaugeFile> {
  const table = tableOf(lines, headerAt, delimiter, unitIfNone);
  if (!table.ok) return table;
  const { header, valueAt, spotAt, numberAt, flagAt, unit, unitFrom } = table.value;
  const rows = lines.slice(headerAt + 1);
  // Lines after the table that carry a word where readings carry their number are the instrument's own summary.
  const isSummary = (l: Line) =>
    numberAt >= 0 && l.cells.length < header.length && !/^\d+$/.test(l.cells[numberAt] ?? "");
  const data = rows.filter((l) => !isSummary(l));
  const mark = columnDecimalMark(
    data.map((l) => l.cells[valueAt] ?? ""),
    delimiter,
  );
  const readings: GaugeFile["readings"][number][] = [];
  const rejected: LeftOut[] = [];
  const problems: FileProblem[] = [];
  data.forEach((l, i) => {
    const cell = l.cells[valueAt] ?? "";
    const number = numberAt >= 0 ? Number(l.cells[numberAt]) || i + 1 : i + 1;
    const flag = flagAt >= 0 ? (l.cells[flagAt] ?? "") : "";
    const marker = markerOf(cell);
    if (marker) rejected.push({ line: l.line, reading: number, why: marker, text: l.raw });
    else if (deletedMark.test(flag)) rejected.push({ line: l.line, reading: number, why: "deleted", text: l.raw });
    else
      takeReading(cell, numberIn(cell, mark), l, problems, unit, (valueUm) =>
        readings.push({
          number,
          line: l.line,
          spot: spotAt >= 0 ? (l.cells[spotAt] ?? null) : null,
          valueUm,
          typed: cell,
        }),
      );
  });
  return finish(
    unit,
    unitFrom,
    header,
    readings,
    rejected,
    rows.filter(isSummary).map((l) => l.raw),
    problems,
  );
}

function readStream(
  lines: readonly Line[],
  unitIfNone: "um" | "mil" | null,
  heading: string | null = null,
): Result<GaugeFile> {
  const fromHeading = heading === null ? null : unitOf(heading);
  const units = new Set(lines.map((l) => unitOf(l.raw.replace(/^[\s\d.,+-]+/, ""))).filter((u) => u !== null));
  if (fromHeading) units.add(fromHeading);
  if (units.size > 1) return err({ kind: "mixed-units", units: [...units] });
  const unit = [...units][0] ?? unitIfNone;
  const numbered = lines.some((l) => /^\s*[\d.,+-]+/.test(l.raw));
  if (!numbered) return err({ kind: "no-thickness-column", firstLine: lines[0]?.raw });
  if (!unit) return err({ kind: "unit-unknown", heading });
  const readings: GaugeFile["readings"][number][] = [];
  const rejected: LeftOut[] = [];
  const problems: FileProblem[] = [];
  // A number, and after it nothing, its unit or a mark that it was deleted; whatever else stands there is a problem.
  const parts = lines.map((l) => {
    const [, number = "", after = ""] = /^([\s\d.,+-]*)(.*)$/s.exec(l.raw.trim()) ?? [];
    return { number: number.trim(), after: after.trim() };
  });
  const mark = columnDecimalMark(
    parts.map((p) => p.number),
    "",
  );
  lines.forEach((l, i) => {
    const { number, after } = parts[i] as (typeof parts)[number];
    const typed = l.raw.trim();
    const why = markerOf(typed) ?? (number !== "" && deletedMark.test(after) ? "deleted" : null);
    const value = after === "" || unitOf(after) ? numberIn(number, mark) : null;
    if (why) rejected.push({ line: l.line, reading: i + 1, why, text: l.raw });
    else
      takeReading(typed, value, l, problems, unit, (valueUm) =>
        readings.push({ number: i + 1, line: l.line, spot: null, valueUm, typed }),
      );
  });
  const unitFrom = fromHeading ? "heading" : units.size ? "readings" : "person";
  return finish(unit, unitFrom, [heading?.trim() ?? "reading"], readings, rejected, [], problems);
}

/** A mil has exact decimal digits in µm; the product of two doubles does not, so it is cleared of its last noise. */
const inMicrometres = (value: number, unit: "um" | "mil"): number =>
  unit === "mil" ? Number((value * 25.4).toPrecision(14)) : value;

function takeReading(
  cell: string,
  value: number | null,
  line: Line,
  problems: FileProblem[],
  unit: "um" | "mil",
  take: (valueUm: number) => void,
): void {
  if (value === null) {
    problems.push({ line: line.line, why: "not a number", text: cell });
    return;
  }
  const valueUm = inMicrometres(value, unit);
  const checked = checkThicknessUm(valueUm);
  if (checked.ok) take(valueUm);
  else
    problems.push({
      line: line.line,
      why: PROBLEM[checked.error.kind as keyof typeof PROBLEM] ?? "not a number",
      text: cell,
    });
}

function finish(
  unit: "um" | "mil",
  unitFrom: GaugeFile["unitFrom"],
  columns: readonly string[],
  readings: GaugeFile["readings"],
  rejected: readonly LeftOut[],
  summaryLines: readonly string[],
  problems: readonly FileProblem[],
): Result<GaugeFile> {
  if (problems.length > 0) return err({ kind: "bad-rows", problems });
  if (readings.length === 0) return err({ kind: "empty-file" });
  const spots = new Set(readings.map((r) => r.spot).filter((s) => s !== null)).size;
  return ok({ kind: "gauge-file", unit, unitFrom, columns, readings, rejected, spots, summaryLines });
}
