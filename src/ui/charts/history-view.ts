import { extremesPerColumn } from "@/core/control-charts";
import { domainOf, type Layer } from "./plot/spec";

export type HistoryWindow = {
  readonly fromMs: number;
  readonly lower: number | null;
  readonly upper: number | null;
};
export type HistoryData = {
  readonly atMs: readonly number[];
  readonly values: readonly number[];
  /** Drawn over the checks: a smoothed value and its limits. */
  readonly smooth: { readonly values: readonly number[]; readonly lower: number; readonly upper: number } | null;
  readonly windows: readonly HistoryWindow[];
  readonly events: readonly { readonly atMs: number; readonly event: string; readonly label: string }[];
};

/** Columns one width is drawn in, each with its extremes: about two px each. */
const COLUMNS = 400;
/** Flags and marks drawn before they only crowd. */
const MOST_FLAGS = 160;
const MOST_MARKS = 600;
/** Widths drawn at once: the one looked at and one to either side. */
const WIDTHS = 3;

export type HistoryView = {
  readonly fromMs: number;
  readonly toMs: number;
  readonly y: readonly [number, number];
  /** Checks that are drawn, by their place. */
  readonly shown: readonly number[];
  readonly smoothShown: readonly number[];
  readonly spans: readonly (HistoryWindow & { readonly toMs: number })[];
  readonly out: readonly number[];
  readonly flags: HistoryData["events"];
};

/** What is drawn of a series from a moment, one span wide and one to either side. O(checks between) */
export function historyView(data: HistoryData, lookMs: number, spanMs: number): HistoryView {
  const { atMs, values, windows, events, smooth } = data;
  const fromMs = lookMs - spanMs;
  const toMs = fromMs + WIDTHS * spanMs;
  const shown = extremesPerColumn(atMs, values, fromMs, toMs, COLUMNS * WIDTHS);
  const spans = windows
    .map((w, i) => ({ ...w, fromMs: Math.max(fromMs, w.fromMs), toMs: Math.min(toMs, windows[i + 1]?.fromMs ?? toMs) }))
    .filter((w) => w.toMs > w.fromMs);
  const windowAt = (ms: number) => windows.findLast((w) => w.fromMs <= ms);
  return {
    fromMs,
    toMs,
    y: domainOf([...shown.map((i) => values[i]), ...spans.flatMap((w) => [w.lower, w.upper])]),
    shown,
    smoothShown: smooth ? extremesPerColumn(atMs, smooth.values, fromMs, toMs, COLUMNS * WIDTHS) : [],
    spans,
    out: shown
      .filter((i) => {
        const w = windowAt(atMs[i] as number);
        const value = values[i] as number;
        return w && ((w.lower !== null && value < w.lower) || (w.upper !== null && value > w.upper));
      })
      .slice(0, MOST_MARKS),
    flags: events.filter((e) => e.atMs >= fromMs && e.atMs <= toMs),
  };
}

/** The layers of what is seen. The line is broken before each check of `breaks`, by its place. */
export function historyLayers(
  { atMs, values, smooth }: HistoryData,
  view: HistoryView,
  breaks: ReadonlySet<number>,
  day: (ms: number) => string,
): Layer[] {
  const { fromMs, toMs, spans, shown, smoothShown, out, flags } = view;
  const through = (indexes: readonly number[], of: readonly number[]) =>
    indexes.flatMap((i, k) => [
      ...(k > 0 && breaks.has(i) ? [null] : []),
      [atMs[i] as number, of[i] as number] as const,
    ]);
  return [
    ...spans.flatMap((w): Layer[] => [
      { kind: "band", x: [w.fromMs, w.toMs], y: [w.lower, w.upper] },
      ...[w.lower, w.upper].flatMap((y): Layer[] =>
        y === null ? [] : [{ kind: "level", y, x: [w.fromMs, w.toMs], tone: "out", width: 1.4 }],
      ),
    ]),
    ...(flags.length <= MOST_FLAGS ? flags : []).map(
      (e): Layer => ({
        kind: "moment",
        x: e.atMs,
        tone: "faint",
        flag: true,
        says: `${e.label}, ${day(e.atMs)}`,
        ...(e.event === "addition" ? { dash: "2 3" } : {}),
      }),
    ),
    { kind: "curve", points: through(shown, values), tone: smooth ? "faint" : "ink", width: 1.2 },
    {
      kind: "marks",
      marks: out.map((i) => ({ x: atMs[i] as number, y: values[i] as number, tone: "out", shape: "square", r: 2.6 })),
    },
    ...(smooth
      ? [
          ...[smooth.lower, smooth.upper].map(
            (y): Layer => ({ kind: "level", y, x: [fromMs, toMs], tone: "sorrel", dash: "1 4" }),
          ),
          { kind: "curve", points: through(smoothShown, smooth.values), tone: "sorrel", width: 2.2 } satisfies Layer,
        ]
      : []),
  ];
}
