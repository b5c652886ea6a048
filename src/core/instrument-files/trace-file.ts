import { deadFromS, medianIntervalS, segmentsOf, type Trace } from "../cure/trace";
import { err, ok, type Result } from "../result";
import { fahrenheitToC } from "../units";
import { anyDate, dateOf, momentsOfLocal, orderOf, timeOfDay } from "./moment-text";
import type { OvenFile } from "./oven-file";
import { type FileProblem, type LeftOut, type Line, markerOf, numberIn } from "./text";
import type { TraceLayout, TraceTable } from "./trace-layout";

/** A trace as its layout has it read. */
export type TraceFile = Omit<OvenFile, "unitFrom" | "channels"> & {
  readonly channels: readonly (OvenFile["channels"][number] & { readonly rack: string | null })[];
  /** Where only the time of day is in the file: that of its first row, s. */
  readonly startTimeOfDayS: number | null;
  readonly leftOut: readonly LeftOut[];
  readonly columnsLeftOut: readonly string[];
};

type Row = { readonly s: number; readonly tempC: readonly (number | null)[]; readonly line: number };
const DAY_S = 86_400;
/** Days of a spreadsheet are counted from the last but one of 1899. */
const SPREADSHEET_EPOCH_DAYS = 25_569;

/**
 * Reads a recorder's table as its layout says. Rows out of order are put in order and rows that repeat another dropped,
 * both said; two different rows at one time refuse the file. `timeZone` is the shop's.
 * Failures: `empty-file`, `no-time-column`, `no-temperature-column`, `unit-unknown`, `ambiguous-dates`, `bad-rows`.
 */
export function readTrace(table: TraceTable, layout: TraceLayout, timeZone: string): Result<TraceFile> {
  if (table.rows.length < 2) return err({ kind: "empty-file" });
  const timeAt = layout.columns.findIndex((c) => c.is === "time");
  if (timeAt < 0 || layout.form === null) return err({ kind: "no-time-column", columns: table.headings });
  const columns = layout.columns.flatMap((c, at) =>
    c.is === "metal" || c.is === "air" ? [{ ...c, is: c.is, at }] : [],
  );
  if (columns.length === 0) return err({ kind: "no-temperature-column", columns: table.headings });
  const twice = columns.find((c, i) => columns.findIndex((o) => o.name.toLowerCase() === c.name.toLowerCase()) !== i);
  if (twice) return err({ kind: "channel-named-twice", name: twice.name });
  if (layout.unit === null)
    return err({ kind: "unit-unknown", heading: table.headings.filter((h) => h !== "").join(", ") });
  const dateAt = layout.columns.findIndex((c) => c.is === "date");
  const example = table.rows[0]?.cells[dateAt >= 0 ? dateAt : timeAt] ?? "";
  if (layout.form === "date-time" && layout.order === null && !/^\d{4}/.test(example) && anyDate(example))
    return err({ kind: "ambiguous-dates", example });
  const clock = clockOf(layout, timeAt, dateAt, timeZone);
  const problems: FileProblem[] = [];
  const rows: Row[] = [];
  for (const l of table.rows) {
    const s = clock(l, rows.at(-1)?.s ?? null);
    if (s === null) {
      problems.push({
        line: l.line,
        why: "not a time",
        text: [dateAt, timeAt]
          .map((at) => l.cells[at] ?? "")
          .join(" ")
          .trim(),
      });
      continue;
    }
    const tempC = columns.map(({ at }) => {
      const cell = l.cells[at] ?? "";
      if (markerOf(cell)) return null;
      const value = numberIn(cell, layout.mark);
      const celsius = value === null ? null : layout.unit === "degF" ? fahrenheitToC(value) : value;
      if (celsius === null) problems.push({ line: l.line, why: "not a number", text: cell });
      else if (celsius < -60 || celsius > 1000) problems.push({ line: l.line, why: "beyond any oven", text: cell });
      return celsius;
    });
    rows.push({ s, tempC, line: l.line });
  }
  const { kept, duplicatesDropped } = withoutRepeats(
    [...rows].sort((a, b) => a.s - b.s),
    problems,
  );
  if (problems.length > 0) return err({ kind: "bad-rows", problems });
  if (kept.length < 2) return err({ kind: "empty-file" });
  const startS = kept[0]?.s ?? 0;
  const ofMoments = ["epoch-s", "epoch-ms", "date-time", "spreadsheet-days"].includes(layout.form);
  const leftOut = (l: Line): LeftOut => ({ line: l.line, reading: null, why: "no value", text: l.raw });
  return ok({
    kind: "oven-file",
    unit: layout.unit,
    startEpochS: ofMoments ? startS : null,
    startTimeOfDayS: layout.form === "time-of-day" ? startS % DAY_S : null,
    ...channelsOf(kept, columns),
    duplicatesDropped,
    reordered: rows.some((row, i) => i > 0 && row.s < (rows[i - 1]?.s ?? 0)),
    unnamed: columns.filter((c) => c.heading === "").map((c) => c.name),
    cutOff: table.cutOff !== null,
    leftOut: [...table.before, ...(table.cutOff ? [table.cutOff] : [])].map(leftOut),
    columnsLeftOut: layout.columns.filter((c) => c.is === "left-out" && c.heading !== "").map((c) => c.heading),
  });
}

/** Rows as channels: each with where it is dead and where it has gaps. */
export function channelsOf<
  C extends { readonly name: string; readonly is: "air" | "metal"; readonly rack: string | null },
>(
  kept: readonly { readonly s: number; readonly tempC: readonly (number | null)[] }[],
  columns: readonly C[],
): Pick<TraceFile, "channels" | "samples" | "intervalS"> {
  const startS = kept[0]?.s ?? 0;
  const timeS = kept.map((row) => row.s - startS);
  const traces = columns.map((c, i) => ({
    medium: c.is,
    trace: { timeS, tempC: kept.map((row) => row.tempC[i] ?? null) } as Trace,
  }));
  const dead = deadFromS(traces);
  return {
    samples: kept.length,
    intervalS: medianIntervalS(timeS),
    channels: traces.map(({ medium, trace }, i) => ({
      name: columns[i]?.name ?? "",
      rack: columns[i]?.rack ?? null,
      medium,
      trace,
      deadFromS: dead[i] ?? null,
      gapsS: segmentsOf(trace).gaps.map((g) => [g.fromS, g.toS] as const),
    })),
  };
}

/** Seconds of a row by the file's own clock: since 1970 where it gives moments, of the day or from its start otherwise. */
function clockOf(
  layout: TraceLayout,
  timeAt: number,
  dateAt: number,
  timeZone: string,
): (l: Line, before: number | null) => number | null {
  const number = (l: Line) => numberIn(l.cells[timeAt] ?? "", layout.mark);
  const scaled = (by: number) => (l: Line) => {
    const n = number(l);
    return n === null ? null : n * by;
  };
  const moment = (localS: number, before: number | null): number => {
    if (layout.zone === "utc") return localS;
    const can = momentsOfLocal(localS * 1000, timeZone).map((ms) => ms / 1000);
    return can.find((s) => before === null || s >= before) ?? can[0] ?? localS;
  };
  switch (layout.form) {
    case "epoch-ms":
      return scaled(0.001);
    case "elapsed-min":
      return scaled(60);
    case "elapsed-clock":
      return (l) => {
        const at = timeOfDay(l.cells[timeAt] ?? "");
        // Without hours it is minutes and seconds.
        return at === null ? number(l) : at.parts === 2 ? at.seconds / 60 : at.seconds;
      };
    case "time-of-day":
      return (l, before) => {
        const at = timeOfDay(l.cells[timeAt] ?? "");
        if (at === null) return null;
        const day = before === null ? 0 : Math.floor(before / DAY_S) * DAY_S;
        // Past midnight the clock begins anew.
        return before !== null && before - (day + at.seconds) > DAY_S / 2 ? day + DAY_S + at.seconds : day + at.seconds;
      };
    case "spreadsheet-days":
      return (l, before) => {
        const days = number(l);
        return days === null ? null : moment(Math.round((days - SPREADSHEET_EPOCH_DAYS) * DAY_S * 1000) / 1000, before);
      };
    case "date-time":
      return (l, before) => {
        const date = dateOf(l.cells[dateAt >= 0 ? dateAt : timeAt] ?? "", layout.order ?? "dmy");
        const at = dateAt >= 0 ? timeOfDay(l.cells[timeAt] ?? "") : date?.clock;
        if (!date || !at) return null;
        const localS = date.day * DAY_S + at.seconds;
        return at.zone === null ? moment(localS, before) : localS - zoneS(at.zone);
      };
    default:
      return scaled(1);
  }
}
const zoneS = (zone: string): number => {
  const m = /^([+-])(\d{2}):?(\d{2})$/.exec(zone);
  return m ? (m[1] === "-" ? -1 : 1) * (Number(m[2]) * 3600 + Number(m[3]) * 60) : 0;
};

/** Rows in order without those that repeat another; two different ones at one time are a problem. */
export function withoutRepeats(
  sorted: readonly Row[],
  problems: FileProblem[],
): { kept: Row[]; duplicatesDropped: number } {
  const kept: Row[] = [];
  let duplicatesDropped = 0;
  for (const row of sorted) {
    const last = kept[kept.length - 1];
    if (last?.s !== row.s) kept.push(row);
    else if (last.tempC.every((c, i) => c === row.tempC[i])) duplicatesDropped++;
    else
      problems.push({
        line: row.line,
        why: `another reading at the same time as line ${last.line}`,
        text: String(row.s),
      });
  }
  return { kept, duplicatesDropped };
}

const PREAMBLE_LINES = 40;
/** A moment that the recorder gives before its table as its start, as local text; null where it gives none that can be read one way. */
export function startSaid(table: TraceTable, order: TraceLayout["order"]): number | null {
  const said = [...table.comments, ...table.before.map((l) => l.cells.join(" "))].slice(0, PREAMBLE_LINES);
  for (const line of said) {
    if (!/start|begin|beginn|début|inicio/i.test(line)) continue;
    const text =
      /\d{1,4}[-/. ](?:\d{1,2}|[A-Za-z]{3,9})[-/. ]\d{2,4}[T\s,]+\d{1,2}:\d{2}(?::\d{2})?(?:\s*[ap]m)?/i.exec(
        line,
      )?.[0];
    const known = text === undefined ? null : (orderOf([text]) ?? order);
    const date = text === undefined || known === null ? null : dateOf(text, known);
    if (date?.clock) return date.day * DAY_S + date.clock.seconds;
  }
  return null;
}
