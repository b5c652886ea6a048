import { type BathParameter, bathParameterUnits, checkBathValue } from "../bath";
import { err, ok, type Result } from "../result";
import { parseUnit } from "../units";
import { columnDecimalMark, type FileProblem, type LeftOut, markerOf, numberIn, readLines } from "./text";

export type BathFile = {
  readonly kind: "bath-file";
  readonly dayFirst: boolean;
  readonly tanks: readonly string[];
  readonly readings: readonly {
    readonly line: number /** Site time, YYYY-MM-DDTHH:MM, without a zone. */;
    readonly at: string;
    readonly tank: string;
    readonly parameter: BathParameter;
    readonly value: number;
    readonly typed: string;
    readonly typedUnit: string;
    readonly by: string;
  }[];
  readonly skipped: readonly LeftOut[];
};

const parameterNames: Record<string, BathParameter> = {
  ph: "ph",
  temperature: "temperature",
  temp: "temperature",
  conductivity: "conductivity",
  cond: "conductivity",
  concentration: "concentration",
  conc: "concentration",
  titration: "concentration",
  "free acid": "free-acid",
  "total acid": "total-acid",
  inhibitor: "inhibitor",
  nitrite: "inhibitor",
  pressure: "pressure",
};

/** "T3", "tank 3" and "Tank 3" are one tank. */
export const tankName = (text: string): string => text.trim().replace(/^t(?:ank)?\.?\s*(\d+)$/i, "Tank $1");

/**
 * Reads a bath log: date, time, tank, parameter, value, unit, by. The order of day and month is read from dates that
 * allow only one; where none does, the person is asked (`ambiguous-dates`).
 * Failures: `empty-file`, `missing-columns`, `ambiguous-dates`, `mixed-dates`, `bad-rows`.
 */
export function readBathFile(text: string, dayFirstIfOpen: boolean | null = null): Result<BathFile> {
  const { delimiter, lines } = readLines(text);
  const header = lines[0];
  if (!header || lines.length < 2) return err({ kind: "empty-file" });
  const at = Object.fromEntries(
    ["date", "time", "tank", "parameter", "value", "unit", "by"].map((name) => [
      name,
      header.cells.findIndex((c) => c.toLowerCase() === name),
    ]),
  );
  const missing = ["date", "time", "tank", "parameter", "value"].filter((name) => (at[name] as number) < 0);
  if (missing.length > 0) return err({ kind: "missing-columns", missing, columns: header.cells });
  const cell = (cells: readonly string[], name: string) => cells[at[name] as number] ?? "";
  const rows = lines.slice(1);
  const dayFirst = orderOfDates(
    rows.map((l) => cell(l.cells, "date")),
    dayFirstIfOpen,
  );
  if (!dayFirst.ok) return dayFirst;
  const mark = columnDecimalMark(
    rows.map((l) => cell(l.cells, "value")),
    delimiter,
  );
  const readings: BathFile["readings"][number][] = [];
  const skipped: LeftOut[] = [];
  const problems: FileProblem[] = [];
  for (const l of rows) {
    const typed = cell(l.cells, "value");
    const marker = markerOf(typed);
    if (marker) {
      skipped.push({ line: l.line, reading: null, why: marker, text: l.raw });
      continue;
    }
    const problem = (why: string, value: string) => problems.push({ line: l.line, why, text: value });
    const parameter = parameterNames[cell(l.cells, "parameter").toLowerCase()];
    const when = isoDateTime(cell(l.cells, "date"), cell(l.cells, "time"), dayFirst.value);
    const number = numberIn(typed, mark);
    if (!parameter) problem("unknown parameter", cell(l.cells, "parameter"));
    else if (!when) problem("not a date and time", `${cell(l.cells, "date")} ${cell(l.cells, "time")}`);
    else if (number === null) problem("not a number", typed);
    else {
      const typedUnit = cell(l.cells, "unit");
      const unit = typedUnit === "" || typedUnit === "%" ? null : parseUnit(typedUnit);
      if (unit && (!unit.ok || unit.value.quantity !== parameter)) problem("unit does not fit", typedUnit);
      else {
        const value = unit?.ok ? unit.value.toCanonical(number) : number;
        const checked = checkBathValue(parameter, value);
        if (!checked.ok) problem("beyond the instrument", typed);
        else
          readings.push({
            line: l.line,
            at: when,
            tank: tankName(cell(l.cells, "tank")),
            parameter,
            value,
            typed,
            typedUnit: typedUnit || bathParameterUnits[parameter],
            by: cell(l.cells, "by"),
          });
      }
    }
  }
  if (problems.length > 0) return err({ kind: "bad-rows", problems });
  if (readings.length === 0) return err({ kind: "empty-file" });
  return ok({
    kind: "bath-file",
    dayFirst: dayFirst.value,
    tanks: [...new Set(readings.map((r) => r.tank))].sort(),
    readings,
    skipped,
  });
}

function orderOfDates(dates: readonly string[], ifOpen: boolean | null): Result<boolean> {
  const parts = dates.map((d) => /^(\d{1,2})[/.-](\d{1,2})[/.-]\d{4}$/.exec(d)).filter((m) => m !== null);
  if (parts.length === 0) return ok(ifOpen ?? true);
  const dayFirst = parts.some((m) => Number(m[1]) > 12);
  const monthFirst = parts.some((m) => Number(m[2]) > 12);
  if (dayFirst && monthFirst) return err({ kind: "mixed-dates", example: dates[0] });
  if (!dayFirst && !monthFirst && ifOpen === null) return err({ kind: "ambiguous-dates", example: dates[0] });
  return ok(dayFirst || monthFirst ? dayFirst : (ifOpen as boolean));
}

function isoDateTime(date: string, time: string, dayFirst: boolean): string | null {
  const parts = /^(\d{1,2})[/.-](\d{1,2})[/.-](\d{4})$/.exec(date);
  const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(date);
  const clock = /^(\d{1,2}):(\d{2})/.exec(time);
  if (!clock || (!parts && !iso)) return null;
  const [year, month, day] = iso
    ? [iso[1], iso[2], iso[3]]
    : dayFirst
      ? [parts?.[3], parts?.[2], parts?.[1]]
      : [parts?.[3], parts?.[1], parts?.[2]];
  const pad = (n: string | undefined) => String(n).padStart(2, "0");
  const text = `${year}-${pad(month)}-${pad(day)}T${pad(clock[1])}:${clock[2]}`;
  const check = new Date(`${text}:00Z`);
  return !Number.isNaN(check.getTime()) && check.toISOString().startsWith(text) ? text : null;
}
