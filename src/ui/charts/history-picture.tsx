import { type ScaleLinear, scaleLinear } from "d3";
import { memo } from "react";
import { extremesPerColumn } from "@/core/control-charts";

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

export const WIDTH = 860;
export const HEIGHT = 300;
export const PLOT = WIDTH - 52;
const TOP = 18;
const FOOT = HEIGHT - 20;
/** Flags and marks drawn before they only crowd. */
const MOST_FLAGS = 160;
const MOST_MARKS = 600;
/** Widths drawn at once: the one looked at and one to either side. */
const WIDTHS = 3;
const TICKS = 6;

/** Path through some points, broken where the bath was made up anew between two of them. */
function pathOf(
  indexes: readonly number[],
  x: (i: number) => number,
  y: (i: number) => number,
  breaks: ReadonlySet<number>,
): string {
  const parts: string[] = [];
  for (const i of indexes)
    parts.push(
      `${parts.length === 0 || breaks.has(i) ? "M" : "L"}${Math.round(x(i) * 10) / 10},${Math.round(y(i) * 10) / 10}`,
    );
  return parts.join("");
}

export type HistoryView = {
  readonly fromMs: number;
  readonly spanMs: number;
  readonly x: ScaleLinear<number, number>;
  readonly y: ScaleLinear<number, number>;
  readonly shown: readonly number[];
  readonly smoothShown: readonly number[];
  readonly spans: readonly (HistoryWindow & { readonly toMs: number })[];
  readonly out: readonly number[];
  readonly flags: HistoryData["events"];
};

/** What is drawn of a series from a moment, one span wide in the chart and one to either side. O(checks between). */
export function historyView(data: HistoryData, lookMs: number, spanMs: number): HistoryView {
  const { atMs, values, windows, events, smooth } = data;
  const fromMs = lookMs - spanMs;
  const toMs = fromMs + WIDTHS * spanMs;
  const columns = (PLOT / 2) * WIDTHS;
  const shown = extremesPerColumn(atMs, values, fromMs, toMs, columns);
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const reach = (v: number | null | undefined) => {
    if (v === null || v === undefined) return;
    low = Math.min(low, v);
    high = Math.max(high, v);
  };
  for (const i of shown) reach(values[i]);
  const spans = windows
    .map((w, i) => ({ ...w, fromMs: Math.max(fromMs, w.fromMs), toMs: Math.min(toMs, windows[i + 1]?.fromMs ?? toMs) }))
    .filter((w) => w.toMs > w.fromMs);
  for (const w of spans) {
    reach(w.lower);
    reach(w.upper);
  }
  const pad = (high - low || 1) * 0.08;
  const windowAt = (ms: number) => windows.findLast((w) => w.fromMs <= ms);
  return {
    fromMs,
    spanMs,
    x: scaleLinear([fromMs, toMs], [0, PLOT * WIDTHS]),
    y: scaleLinear([low - pad, high + pad], [FOOT, TOP]),
    shown,
    smoothShown: smooth ? extremesPerColumn(atMs, smooth.values, fromMs, toMs, columns) : [],
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

/** The picture itself; drawn anew only where what is seen changes, and else moved as it is. */
export const HistoryPicture = memo(function HistoryPicture({
  data,
  breaks,
  view,
  day,
}: {
  data: HistoryData;
  breaks: ReadonlySet<number>;
  view: HistoryView;
  day: (ms: number) => string;
}) {
  const { atMs, values, smooth } = data;
  const { x, y, spans, shown, smoothShown, out, flags } = view;
  const px = (i: number) => x(atMs[i] as number);
  return (
    <>
      {spans.map((w) => (
        <g key={w.fromMs}>
          <rect
            x={x(w.fromMs)}
            width={x(w.toMs) - x(w.fromMs)}
            y={w.upper === null ? TOP : y(w.upper)}
            height={Math.max(0, (w.lower === null ? FOOT : y(w.lower)) - (w.upper === null ? TOP : y(w.upper)))}
            fill="var(--band)"
          />
          {[w.lower, w.upper].map(
            (limit) =>
              limit !== null && (
                <line
                  key={limit}
                  x1={x(w.fromMs)}
                  x2={x(w.toMs)}
                  y1={y(limit)}
                  y2={y(limit)}
                  stroke="var(--out)"
                  strokeWidth="1.4"
                />
              ),
          )}
        </g>
      ))}
      {flags.length <= MOST_FLAGS &&
        flags.map((e) => (
          <g key={`${e.atMs}${e.label}`}>
            <line
              x1={x(e.atMs)}
              x2={x(e.atMs)}
              y1={TOP - 6}
              y2={FOOT}
              stroke="var(--ink-3)"
              strokeDasharray={e.event === "addition" ? "2 3" : undefined}
            />
            <path d={`M${x(e.atMs)} ${TOP - 6}h8l-2 3 2 3h-8Z`} fill="var(--ink-2)">
              <title>{`${e.label}, ${day(e.atMs)}`}</title>
            </path>
          </g>
        ))}
      <path
        d={pathOf(shown, px, (i) => y(values[i] as number), breaks)}
        fill="none"
        stroke={smooth ? "var(--ink-3)" : "var(--ink)"}
        strokeWidth="1.2"
      />
      {out.map((i) => (
        <rect key={i} x={px(i) - 2.6} y={y(values[i] as number) - 2.6} width="5.2" height="5.2" fill="var(--out)" />
      ))}
      {smooth && (
        <>
          {[smooth.lower, smooth.upper].map((limit) => (
            <line
              key={limit}
              x1="0"
              x2={PLOT * WIDTHS}
              y1={y(limit)}
              y2={y(limit)}
              stroke="var(--sorrel)"
              strokeDasharray="1 4"
            />
          ))}
          <path
            d={pathOf(smoothShown, px, (i) => y(smooth.values[i] as number), breaks)}
            fill="none"
            stroke="var(--sorrel)"
            strokeWidth="2.2"
          />
        </>
      )}
      {x.ticks(TICKS * WIDTHS).map((ms) => (
        <text key={ms} x={x(ms)} y={HEIGHT - 4} textAnchor="middle">
          {day(ms)}
        </text>
      ))}
    </>
  );
});
