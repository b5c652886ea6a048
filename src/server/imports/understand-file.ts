import { type TraceFault, traceFaults } from "@/core/cure";
import {
  type BathFile,
  type GaugeFile,
  type OvenFile,
  readBathFile,
  readGaugeFile,
  readOvenFile,
} from "@/core/instrument-files";
import { type StrangeReading, strangeReadings } from "@/core/thickness";

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
};
/** A file as its reader took it. */
export type Read =
  | { readonly kind: "gauge"; readonly file: GaugeFile }
  | { readonly kind: "oven"; readonly file: OvenFile }
  | { readonly kind: "bath"; readonly file: BathFile };

export const refuse = (failure: {
  kind: string;
  [detail: string]: unknown;
}): { ok: false; failure: { kind: string; [detail: string]: unknown } } => ({ ok: false, failure });

/** Which reader: by what the file holds, not by what it is called. */
export function readAny(
  text: string,
  name: string,
  unit: string,
  dayFirst: boolean | null,
  /** The temperature unit a person says in spite of what the file says. */
  inSpite: "degC" | "degF" | null = null,
): { ok: true; value: Read } | { ok: false; failure: { kind: string; [detail: string]: unknown } } {
  const head = text.slice(0, 600).toLowerCase();
  if (/\btank\b/.test(head) && /\bparameter\b/.test(head)) {
    const file = readBathFile(text, dayFirst);
    return file.ok ? { ok: true, value: { kind: "bath", file: file.value } } : refuse(file.error);
  }
  if (/(^|\n)\s*(epoch|elapsed|time|seconds)\b/.test(head)) {
    const file = readOvenFile(text, unit === "degF" || unit === "degC" ? unit : null, inSpite);
    return file.ok
      ? { ok: true, value: { kind: "oven", file: file.value } }
      : refuse({ ...file.error, of: "oven", name });
  }
  const file = readGaugeFile(text, unit === "mil" || unit === "um" ? unit : null);
  return file.ok
    ? { ok: true, value: { kind: "gauge", file: file.value } }
    : refuse({ ...file.error, of: "gauge", name });
}

/** What is shown of a file before anything is stored. */
export function describeFile(read: Read): Understanding {
  if (read.kind === "gauge") {
    const f = read.file;
    const um = f.readings.map((r) => r.valueUm);
    const mean = um.reduce((a, b) => a + b, 0) / um.length;
    return {
      kind: "gauge",
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
      needs: f.startEpochS === null ? ["rack", "oven-start"] : ["rack"],
      asked: [],
      faults: traceFaults(f.channels),
      leftOut: [],
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
        ["Unit", `${f.unit === "degC" ? "°C" : "°F"}, from the ${f.unitFrom}`],
        ["Interval", `${f.intervalS} s`],
        ["Rows in order", f.reordered ? "no: put in order" : "yes"],
        ["Repeated rows dropped", String(f.duplicatesDropped)],
        ...(f.unnamed.length > 0 ? [["Without a name", f.unnamed.join(", ")] as const] : []),
        ...(f.cutOff ? [["Cut off", "its last line ends in the middle and was left out"] as const] : []),
      ],
    };
  }
  const f = read.file;
  return {
    kind: "bath",
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
