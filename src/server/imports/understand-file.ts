import { type TraceFault, traceFaults } from "@/core/cure";
import {
  type BathFile,
  type FileKind,
  fileKindOf,
  type GaugeFile,
  guessLayout,
  readBathFile,
  readGaugeFile,
  readTrace,
  startSaid,
  type TemperatureUnit,
  type TraceFile,
  type TraceLayout,
  type TraceTable,
  traceTable,
} from "@/core/instrument-files";
import { type StrangeReading, strangeReadings } from "@/core/thickness";
import type { proposeLoad, TraceLoad } from "./trace-target";

/** Rows shown before storing; all are stored. */
const SAMPLE_ROWS = 200;
/** What was understood, shown before anything is stored. */
export type Understanding = {
  readonly kind: "gauge" | "oven" | "bath";
  readonly lines: readonly (readonly [string, string])[];
  readonly leftOut: readonly { readonly line: number; readonly why: string; readonly text: string }[];
  /** Readings unlike their neighbours: kept only when somebody has looked at them. */
  readonly asked: readonly { readonly line: number; readonly text: string; readonly strange: StrangeReading }[];
  /** What looks wrong with an oven's channels; said before anything is stored. */
  readonly faults: readonly TraceFault[];
  readonly needs: readonly ("rack" | "oven-start")[];
  readonly sample: readonly (readonly string[])[];
  readonly columns: readonly string[];
  /** Of a trace: how its columns were taken, for a person to look at and change. */
  readonly trace: TraceAsked | null;
  /** How the file was written where that is not plain text, and what of a workbook was not read. */
  readonly writtenAs: string | null;
  readonly sheetsLeftOut: readonly string[];
  /** Who said how files of this shape are read, where somebody did. */
  readonly remembered: { readonly by: string; readonly at: string } | null;
  /** Loads a trace can be of, and the one it is taken to be of. */
  readonly loads: readonly TraceLoad[];
  readonly proposed: ReturnType<typeof proposeLoad> | null;
  readonly timeOfDayS: number | null;
};
/** What of it is read off the file alone. */
type FileSays = Omit<Understanding, "writtenAs" | "sheetsLeftOut" | "remembered" | "loads" | "proposed" | "timeOfDayS">;
/** A file as its reader took it. */
export type Read =
  | { readonly kind: "gauge"; readonly file: GaugeFile }
  | {
      readonly kind: "oven";
      readonly file: TraceFile;
      readonly layout: TraceLayout;
      readonly cells: readonly (readonly string[])[];
      readonly unitFrom: "file" | "person";
      /** Its start as the recorder gives it before the table, in seconds of the file's own clock. */
      readonly startLocalS: number | null;
    }
  | { readonly kind: "bath"; readonly file: BathFile };

export const refuse = (failure: {
  kind: string;
  [detail: string]: unknown;
}): { ok: false; failure: { kind: string; [detail: string]: unknown } } => ({ ok: false, failure });

/** What a person says of a file where it does not say it itself, or says it wrongly. */
export type Told = {
  readonly kind: FileKind | null;
  readonly unit: string;
  readonly dayFirst: boolean | null;
  /** The temperature unit in spite of what the file says. */
  readonly inSpite: TemperatureUnit | null;
  /** How a trace's columns are to be read, as somebody says now. */
  readonly layout: TraceLayout | null;
  /** How files of its headings were read last: holds where this file says nothing itself. */
  readonly remembered: TraceLayout | null;
  /** The shop's zone: files write its clock unless they say otherwise. */
  readonly timeZone: string;
};
/** A trace that cannot be read until somebody says how: its columns as they were taken, and what is in them. */
export type TraceAsked = { readonly layout: TraceLayout; readonly cells: readonly (readonly string[])[] };

/** Rows shown of each column, so that a person can tell what it is. */
const CELLS_SHOWN = 3;
const cellsShown = (table: TraceTable): readonly (readonly string[])[] =>
  table.headings.map((_, at) => table.rows.slice(0, CELLS_SHOWN).map((l) => l.cells[at] ?? ""));

/** Which reader: by what the file holds, not by what it is called. Failures: `file-of-two-kinds`, and its reader's own. */
export function readAny(
  text: string,
  name: string,
  told: Told,
): { ok: true; value: Read } | { ok: false; failure: { kind: string; [detail: string]: unknown } } {
  const kind = told.kind ?? fileKindOf(text);
  if (kind === null) return refuse({ kind: "file-of-two-kinds", name });
  if (kind === "bath") {
    const file = readBathFile(text, told.dayFirst);
    return file.ok ? { ok: true, value: { kind: "bath", file: file.value } } : refuse(file.error);
  }
  if (kind === "oven") {
    const table = traceTable(text);
    const guessed = guessLayout(table);
    const asBefore = told.remembered && {
      ...told.remembered,
      unit: guessed.unit ?? told.remembered.unit,
      order: guessed.order ?? told.remembered.order,
      mark: guessed.mark,
    };
    const wanted = told.layout ?? asBefore;
    const fits = wanted?.columns.length === table.headings.length ? wanted : guessed;
    const unit = told.inSpite ?? fits.unit ?? (told.unit === "degF" || told.unit === "degC" ? told.unit : null);
    const layout = {
      ...fits,
      unit,
      order: fits.order ?? (told.dayFirst === null ? null : told.dayFirst ? ("dmy" as const) : ("mdy" as const)),
    };
    const cells = cellsShown(table);
    const file = readTrace(table, layout, told.timeZone);
    if (!file.ok) return refuse({ ...file.error, of: "oven", name, asked: { layout, cells } satisfies TraceAsked });
    const unitFrom = told.inSpite || guessed.unit !== unit ? "person" : "file";
    return {
      ok: true,
      value: { kind: "oven", file: file.value, layout, cells, unitFrom, startLocalS: startSaid(table, layout.order) },
    };
  }
  const file = readGaugeFile(text, told.unit === "mil" || told.unit === "um" ? told.unit : null);
  return file.ok
    ? { ok: true, value: { kind: "gauge", file: file.value } }
    : refuse({ ...file.error, of: "gauge", name });
}

/** What is shown of a file before anything is stored. */
export function describeFile(read: Read): FileSays {
  if (read.kind === "gauge") {
    const f = read.file;
    const um = f.readings.map((r) => r.valueUm);
    const mean = um.reduce((a, b) => a + b, 0) / um.length;
    return {
      kind: "gauge",
      trace: null,
      needs: ["rack"],
      faults: [],
      asked: strangeReadings(um).map(({ index, strange }) => {
        const { line, typed } = f.readings[index] as (typeof f.readings)[number];
        return { line, text: typed, strange };
      }),
      leftOut: f.rejected.map(({ line, why, text }) => ({ line, why, text })),
      columns: ["reading", "line", "spot", "as written", "µm"],
      sample: f.readings
        .slice(0, SAMPLE_ROWS)
        .map((r) => [String(r.number), String(r.line), r.spot ?? "–", r.typed, r.valueUm.toFixed(2)]),
      lines: [
        ["Readings", String(um.length)],
        ["Unit", `${f.unit === "um" ? "µm" : "mil"}, from the ${f.unitFrom}`],
        ["Spots named", f.spots ? String(f.spots) : "none: readings go to the sketch's spots in order"],
        ["Mean", `${mean.toFixed(5)} µm`],
        ["Lowest, highest", `${um.reduce((a, b) => Math.min(a, b))} and ${um.reduce((a, b) => Math.max(a, b))} µm`],
        ["Left out", String(f.rejected.length)],
        ...(f.summaryLines.length ? [["Instrument's own summary, not taken", f.summaryLines.join("; ")] as const] : []),
      ],
    };
  }
  if (read.kind === "oven") {
    const f = read.file;
    return {
      kind: "oven",
      trace: { layout: read.layout, cells: read.cells },
      needs: f.startEpochS === null ? ["rack", "oven-start"] : ["rack"],
      asked: [],
      faults: traceFaults(f.channels),
      leftOut: f.leftOut.map(({ line, why, text }) => ({ line, why: why === "no value" ? "no row of it" : why, text })),
      columns: ["channel", "kind", "peak °C", "dead from", "gaps"],
      sample: f.channels.map((c) => [
        c.name,
        c.medium,
        Math.max(...c.trace.tempC.filter((t): t is number => t !== null)).toFixed(1),
        c.deadFromS === null ? "–" : `${c.deadFromS} s`,
        c.gapsS.map(([a, b]) => `${a}–${b} s`).join(", ") || "–",
      ]),
      lines: [
        ["Channels", String(f.channels.length)],
        ["Samples", String(f.samples)],
        ["Unit", `${f.unit === "degC" ? "°C" : "°F"}, from the ${read.unitFrom}`],
        ["Interval", `${f.intervalS} s`],
        ["Rows in order", f.reordered ? "no: put in order" : "yes"],
        ["Repeated rows dropped", String(f.duplicatesDropped)],
        ...(f.columnsLeftOut.length > 0 ? [["Columns left out", f.columnsLeftOut.join(", ")] as const] : []),
        ...(f.unnamed.length > 0 ? [["Without a name", f.unnamed.join(", ")] as const] : []),
        ...(f.cutOff ? [["Cut off", "its last line ends in the middle and was left out"] as const] : []),
      ],
    };
  }
  const f = read.file;
  return {
    kind: "bath",
    trace: null,
    needs: [],
    asked: [],
    faults: [],
    leftOut: f.skipped.map(({ line, why, text }) => ({ line, why, text })),
    columns: ["line", "when", "tank", "parameter", "value"],
    sample: f.readings.map((r) => [
      String(r.line),
      r.at.replace("T", " "),
      r.tank,
      r.parameter,
      `${Math.round(r.value * 1000) / 1000} (${r.typed} ${r.typedUnit})`,
    ]),
    lines: [
      ["Readings", String(f.readings.length)],
      ["Tanks", f.tanks.join(", ")],
      ["Dates", f.dayFirst ? "day first" : "month first"],
      ["Left out", String(f.skipped.length)],
    ],
  };
}
