import { type DecimalMark, parseUnit } from "../units";
import { anyDate, type DateOrder, orderOf, timeOfDay } from "./moment-text";
import { columnDecimalMark, type Line, markerOf, numberIn, readLines } from "./text";

/** How a file tells the time of a row. */
export const timeForms = [
  "epoch-s",
  "epoch-ms",
  "elapsed-s",
  "elapsed-min",
  "elapsed-clock",
  "time-of-day",
  "date-time",
  "spreadsheet-days",
] as const;
export type TimeForm = (typeof timeForms)[number];
export const columnRoles = ["time", "date", "metal", "air", "left-out"] as const;
export type ColumnRole = (typeof columnRoles)[number];
export type TemperatureUnit = "degC" | "degF";
/** What a column of a recorder's file is: its role, what the channel is called, and the rack its probe hangs on. */
export type TraceColumn = {
  readonly heading: string;
  readonly is: ColumnRole;
  readonly name: string;
  readonly rack: string | null;
};
/** How a recorder's file is to be read. What is null nobody has said yet. */
export type TraceLayout = {
  readonly columns: readonly TraceColumn[];
  readonly form: TimeForm | null;
  /** Of dates: which of day, month and year comes first. */
  readonly order: DateOrder | null;
  readonly unit: TemperatureUnit | null;
  readonly mark: DecimalMark;
  /** Where its clock stands: at the shop's, or at UTC. */
  readonly zone: "shop" | "utc";
};
export type TraceTable = {
  readonly headings: readonly string[];
  /** Rows of the table, without what stands before it. */
  readonly rows: readonly Line[];
  /** Lines before the table: what the recorder says of itself. */
  readonly before: readonly Line[];
  readonly comments: readonly string[];
  readonly delimiter: string;
  /** Under the headings, where a line of units stands there. */
  readonly units: readonly string[];
  /** The last line ends in the middle. */
  readonly cutOff: Line | null;
};

/** The temperature unit that a text names; null where it names none. */
export const temperatureUnit = (text: string): TemperatureUnit | null => {
  const bracketed = /[([]([^)\]]+)[)\]]/.exec(text)?.[1] ?? text;
  for (const word of bracketed.match(/[°º˚]\s?[CF](?!\p{L})|[\p{L}\p{N}_]+/gu) ?? []) {
    const unit = parseUnit(word.replace(/[º˚]/, "°").replace(/\s/, ""));
    if (unit.ok && unit.value.quantity === "temperature") return /f$/i.test(word) ? "degF" : "degC";
  }
  return null;
};
/** A heading names a unit only where it sets it apart: "T (C)" does, "Channel C" does not. */
const headingUnit = (heading: string): TemperatureUnit | null =>
  /[([°º˚]|\bdeg/i.test(heading) ? temperatureUnit(heading) : null;

const isNumber = (cell: string): boolean => /^[-+]?\d+(?:[.,]\d+)*$/.test(cell);
const isTimed = (cell: string): boolean => timeOfDay(cell) !== null || anyDate(cell) !== null;
/** A row of values: two cells at least, one of them a number or a time, none of them a word but markers and dates. */
const isData = (l: Line): boolean =>
  l.cells.length > 1 &&
  l.cells.some((c) => isNumber(c) || isTimed(c)) &&
  l.cells.filter((c) => c !== "" && !isNumber(c) && !isTimed(c) && !markerOf(c)).length <= l.cells.length / 3;

/** Nothing but a unit, or nothing: °C, [degF], hh:mm:ss, %. */
const isUnit = (cell: string): boolean =>
  /^[([]?\s*(?:[°º˚]?\s?[CF]|deg\.?\s?[CF]|celsius|fahrenheit|s|sec|min|h|hh?:mm(?::ss)?|m:ss|%|-|–|rpm|1\/min|v|ma)?\s*[)\]]?$/i.test(
    cell.trim(),
  );

/** Finds the table in a recorder's file: its headings, its rows, and what stands before and under them. O(lines). */
export function traceTable(text: string): TraceTable {
  const { delimiter, lines: all, comments } = readLines(text);
  const first = all.findIndex((l, i) => isData(l) && (i + 1 >= all.length || isData(all[i + 1] as Line)));
  const from = first < 0 ? Math.min(1, all.length) : first;
  const above = all[from - 1];
  const isUnits =
    above !== undefined &&
    from >= 2 &&
    above.cells.some((c) => temperatureUnit(c) !== null) &&
    above.cells.every(isUnit) &&
    (all[from - 2]?.cells.length ?? 0) >= above.cells.length;
  const head = isUnits ? from - 2 : from - 1;
  const header = head >= 0 && (all[head]?.cells.length ?? 0) > 1 ? all[head] : undefined;
  const width = Math.max(header?.cells.length ?? 0, all[from]?.cells.length ?? 0);
  const lastLine = all.at(-1);
  const cutOff = lastLine && all.length - from > 1 && lastLine.cells.length < width ? lastLine : null;
  return {
    headings: Array.from({ length: width }, (_, i) => header?.cells[i] ?? ""),
    rows: all.slice(from, cutOff ? -1 : undefined),
    before: all.slice(0, header ? head : from),
    comments,
    delimiter,
    units: isUnits ? (above?.cells ?? []) : [],
    cutOff,
  };
}

/** Files of one shape have the same headings in the same order. */
export const shapeOf = (table: TraceTable): string =>
  table.headings.map((h) => h.trim().toLowerCase().replace(/\s+/g, " ")).join(" | ");

/** Rows looked at to tell what a column is. */
const LOOKED_AT = 400;
const timeHeading =
  /^(epoch|unix|elapsed|time|t|seconds|s|minutes|min|date|timestamp|zeit|uhrzeit|datum|temps|heure|hora|fecha)\b/i;
const otherHeading =
  /set ?-?point|soll|humid|feucht|batt|speed|volt|\bno\.?$|^#$|index|sample|record|status|alarm|event/i;
const airHeading = /\bair\b|ambient|\boven\b|chamber|luft|\bzone\b/i;

/** What a file says of itself by its headings, its units and its own values; what it does not say is null. O(rows looked at × columns). */
export function guessLayout(table: TraceTable): TraceLayout {
  const rows = table.rows.slice(0, LOOKED_AT);
  const values = table.headings.map((_, at) => rows.map((l) => l.cells[at] ?? ""));
  const mark: DecimalMark = values.some((cells) => columnDecimalMark(cells, table.delimiter) === ",") ? "," : ".";
  const kinds = values.map((cells, at) => cellKind(cells, table.headings[at] ?? "", mark));
  const dateAt = kinds.indexOf("date");
  const dateTimeAt = kinds.indexOf("date-time");
  const clockAt = kinds.indexOf("clock");
  const named = table.headings.findIndex((h, at) => timeHeading.test(h) && climbs(values[at] ?? [], mark));
  const counted = kinds.findIndex((kind, at) => kind === "number" && isTimeByValue(values[at] ?? [], mark));
  const timeAt = [dateTimeAt, clockAt, named, counted].find((at) => at >= 0) ?? -1;
  const unit =
    [...table.headings.map(headingUnit), ...table.units.map(temperatureUnit)].find((u) => u !== null) ??
    [...table.comments, ...table.before.map((l) => l.raw)]
      .map((c) =>
        /unit|einheit|unité|°/i.test(c)
          ? temperatureUnit(c.replace(/.*(?:unit|einheit|unité)\w*\s*[:=;,]?/i, ""))
          : null,
      )
      .find((u) => u !== null) ??
    null;
  const columns = table.headings.map((heading, at): TraceColumn => {
    const cells = values[at] ?? [];
    const name = heading.replace(/\s*[([][^)\]]*[)\]]\s*$/, "").trim() || `Channel ${at}`;
    const role = (): ColumnRole => {
      if (at === timeAt) return "time";
      if (at === dateAt && kinds[timeAt] === "clock") return "date";
      if (kinds[at] !== "number") return "left-out";
      if (otherHeading.test(heading) || isRowCount(cells)) return "left-out";
      return airHeading.test(heading) ? "air" : "metal";
    };
    return { heading, is: role(), name, rack: null };
  });
  const form =
    timeAt < 0 ? null : formOf(values[timeAt] ?? [], kinds[timeAt] ?? "", table.headings[timeAt] ?? "", mark, dateAt);
  const dates = form === "date-time" ? (values[dateAt >= 0 && kinds[timeAt] === "clock" ? dateAt : timeAt] ?? []) : [];
  const utc = form !== null && table.headings.some((h) => /\b(utc|gmt)\b/i.test(h));
  return {
    columns,
    form,
    order: dates.length === 0 ? null : orderOf(dates.filter((d) => markerOf(d) === null)),
    unit,
    mark,
    zone: utc ? "utc" : "shop",
  };
}

type CellKind = "number" | "date-time" | "date" | "clock" | "text" | "empty";
function cellKind(cells: readonly string[], heading: string, mark: DecimalMark): CellKind {
  const filled = cells.filter((c) => markerOf(c) === null);
  if (filled.length === 0) return heading === "" || cells.every((c) => c === "") ? "empty" : "number";
  const most = (is: (cell: string) => boolean) => filled.filter(is).length > filled.length * 0.8;
  if (most((c) => anyDate(c)?.clock != null)) return "date-time";
  if (most((c) => anyDate(c) !== null)) return "date";
  if (most((c) => timeOfDay(c) !== null)) return "clock";
  return most((c) => numberIn(c, mark) !== null) ? "number" : "text";
}

const numbers = (cells: readonly string[], mark: DecimalMark): number[] =>
  cells.flatMap((c) => {
    const n = numberIn(c, mark);
    return n === null ? [] : [n];
  });
/** Whether a column is one of the clock's: nearly every step of it goes up. */
function climbs(cells: readonly string[], mark: DecimalMark): boolean {
  const found = numbers(cells, mark);
  const steps = found.slice(1).map((n, i) => n - (found[i] ?? n));
  return found.length > 1 && steps.filter((s) => s >= 0).length >= steps.length * 0.8;
}
/** Without a heading that says so: moments since 1970, or days as spreadsheets count them. */
function isTimeByValue(cells: readonly string[], mark: DecimalMark): boolean {
  const found = numbers(cells, mark);
  const low = Math.min(...found);
  const high = Math.max(...found);
  return climbs(cells, mark) && ((low > 1e9 && high < 5e12) || (low > 20_000 && high < 80_000 && high - low < 3));
}
const isRowCount = (cells: readonly string[]): boolean =>
  cells.length > 3 && cells.every((c, i) => Number(c) === Number(cells[0]) + i) && Number(cells[0]) <= 1;

function formOf(
  cells: readonly string[],
  kind: CellKind | "",
  heading: string,
  mark: DecimalMark,
  dateAt: number,
): TimeForm {
  if (kind === "date-time" || (kind === "clock" && dateAt >= 0)) return "date-time";
  if (kind === "clock") {
    const first = timeOfDay(cells.find((c) => timeOfDay(c) !== null) ?? "");
    const whole = (first?.parts ?? 3) === 3 && !/hh:mm\b(?!:)/i.test(heading);
    // A recorder's own clock begins near nought; one on the wall does not.
    return (first?.seconds ?? 0) > (whole ? 300 : 3600) || /\b(of day|uhrzeit|clock)\b/i.test(heading)
      ? "time-of-day"
      : "elapsed-clock";
  }
  const found = numbers(cells, mark);
  const low = Math.min(...found);
  if (/epoch|unix/i.test(heading)) return low > 1e11 ? "epoch-ms" : "epoch-s";
  if (low > 1e11) return "epoch-ms";
  if (low > 1e9) return "epoch-s";
  if (low > 20_000 && low < 80_000 && Math.max(...found) - low < 3) return "spreadsheet-days";
  return /\bmin/i.test(heading) ? "elapsed-min" : "elapsed-s";
}
