"use client";
import { scaleLinear, select, type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity } from "d3";
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";
import { extremesPerColumn, firstFrom } from "@/core/control-charts";

export type HistoryLine = { readonly values: ArrayLike<number>; readonly name: string };
export type HistoryWindow = {
  readonly fromMs: number;
  readonly lower: number | null;
  readonly upper: number | null;
};
export type HistoryChartProps = {
  readonly name: string;
  readonly atMs: readonly number[];
  readonly values: readonly number[];
  /** Drawn over the checks: a smoothed value and its limits. */
  readonly smooth: { readonly values: readonly number[]; readonly lower: number; readonly upper: number } | null;
  readonly windows: readonly HistoryWindow[];
  readonly events: readonly { readonly atMs: number; readonly event: string; readonly label: string }[];
  readonly digits: number;
  readonly day: (ms: number) => string;
  readonly seen?: (fromMs: number, toMs: number) => void;
};

const WIDTH = 860;
const HEIGHT = 300;
const PLOT = WIDTH - 52;
const TOP = 18;
/** The closest look: two hours across. */
const CLOSEST_MS = 2 * 3_600_000;
/** What is seen first. */
const FIRST_LOOK_MS = 42 * 86_400_000;
/** Checks further apart than so many usual rounds, and this long, are not joined by a line. */
const GAP_ROUNDS = 12;
const GAP_MS = 2 * 86_400_000;
/** Flags drawn before they only crowd. */
const MOST_FLAGS = 80;

/** Path through some points, broken where the bath was made up anew between two of them. */
function pathOf(
  indexes: readonly number[],
  x: (i: number) => number,
  y: (i: number) => number,
  breaks: ReadonlySet<number>,
): string {
  let d = "";
  for (const i of indexes) d += `${d === "" || breaks.has(i) ? "M" : "L"}${x(i).toFixed(1)},${y(i).toFixed(1)}`;
  return d;
}

/** A value over as long as it was checked: drawn with every excursion kept, moved and looked closer at. */
export function HistoryChart(props: HistoryChartProps) {
  const { name, atMs, values, smooth, windows, events, digits, day, seen } = props;
  const svg = useRef<SVGSVGElement>(null);
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown>>(null);
  const [view, setView] = useState<ZoomTransform>(zoomIdentity);
  const [first, last] = [atMs[0] ?? 0, Math.max(atMs.at(-1) ?? 1, (atMs[0] ?? 0) + CLOSEST_MS)];
  useEffect(() => {
    const node = svg.current;
    if (!node) return;
    const made = zoom<SVGSVGElement, unknown>()
      .filter((e: Event) => e.type !== "wheel" || (e as WheelEvent).ctrlKey)
      .scaleExtent([1, Math.max(1, (last - first) / CLOSEST_MS)])
      .extent([
        [0, 0],
        [PLOT, HEIGHT],
      ])
      .translateExtent([
        [0, 0],
        [PLOT, HEIGHT],
      ])
      .on("zoom", (e: { transform: ZoomTransform }) => setView(e.transform));
    behaviour.current = made;
    select(node).call(made).on("dblclick.zoom", null);
    // Begins with the newest weeks: what is asked about is mostly there.
    const across = Math.min(1, FIRST_LOOK_MS / (last - first));
    if (across < 1)
      select(node).call(made.transform, zoomIdentity.scale(1 / across).translate(-PLOT * (1 - across), 0));
    return () => void select(node).on(".zoom", null);
  }, [first, last]);
  // A recharge begins a new life of the bath: no line joins what was before to what is after.
  const breaks = useMemo(() => {
    const steps = atMs
      .slice(1)
      .map((ms, i) => ms - (atMs[i] as number))
      .sort((a, b) => a - b);
    const gap = Math.max(GAP_MS, GAP_ROUNDS * (steps[steps.length >> 1] ?? 0));
    return new Set([
      ...events.filter((e) => e.event !== "addition").map((e) => firstFrom(atMs, e.atMs)),
      ...atMs.flatMap((ms, i) => (i > 0 && ms - (atMs[i - 1] as number) > gap ? [i] : [])),
    ]);
  }, [events, atMs]);
  const x = view.rescaleX(scaleLinear([first, last], [0, PLOT]));
  const [from, to] = x.domain() as [number, number];
  useEffect(() => seen?.(from, to), [seen, from, to]);
  const shown = extremesPerColumn(atMs, values, from, to, PLOT / 2);
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const i of shown) {
    low = Math.min(low, values[i] as number);
    high = Math.max(high, values[i] as number);
  }
  const spans = windows
    .map((w, i) => ({ ...w, fromMs: Math.max(from, w.fromMs), toMs: Math.min(to, windows[i + 1]?.fromMs ?? to) }))
    .filter((w) => w.toMs > w.fromMs);
  for (const w of spans) {
    low = Math.min(low, w.lower ?? low);
    high = Math.max(high, w.upper ?? high);
  }
  const pad = (high - low || 1) * 0.08;
  const y = scaleLinear([low - pad, high + pad], [HEIGHT - 20, TOP]);
  const windowAt = (ms: number) => windows.findLast((w) => w.fromMs <= ms);
  const out = shown.filter((i) => {
    const w = windowAt(atMs[i] as number);
    const value = values[i] as number;
    return w && ((w.lower !== null && value < w.lower) || (w.upper !== null && value > w.upper));
  });
  const flags = events.filter((e) => e.atMs >= from && e.atMs <= to);
  const move = (share: number) => {
    if (svg.current && behaviour.current)
      behaviour.current.translateBy(select(svg.current), (-share * PLOT) / view.k, 0);
  };
  const closer = (times: number) => {
    if (svg.current && behaviour.current) behaviour.current.scaleBy(select(svg.current), times);
  };
  const whole = () => {
    if (svg.current && behaviour.current) behaviour.current.transform(select(svg.current), zoomIdentity);
  };
  const keys = (e: KeyboardEvent) => {
    if (e.key === "ArrowLeft") move(-0.25);
    else if (e.key === "ArrowRight") move(0.25);
    else if (e.key === "+") closer(2);
    else if (e.key === "-") closer(0.5);
    else if (e.key === "Home") whole();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const days = x.ticks(6);
  return (
    <div>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width={WIDTH}
        className="h-auto max-w-full cursor-grab touch-pan-y overflow-hidden active:cursor-grabbing"
        role="group"
        aria-label={name}
      >
        <g
          role="slider"
          tabIndex={0}
          aria-label={`${name}, ${day(from)} to ${day(to)}`}
          aria-valuemin={first}
          aria-valuemax={last}
          aria-valuenow={to}
          aria-valuetext={`${day(from)} to ${day(to)}, ${firstFrom(atMs, to) - firstFrom(atMs, from)} checks`}
          onKeyDown={keys}
        >
          <rect width={PLOT} height={HEIGHT} fill="transparent" />
        </g>
        {spans.map((w) => (
          <g key={w.fromMs}>
            <rect
              x={x(w.fromMs)}
              width={x(w.toMs) - x(w.fromMs)}
              y={w.upper === null ? TOP : y(w.upper)}
              height={Math.max(
                0,
                (w.lower === null ? HEIGHT - 20 : y(w.lower)) - (w.upper === null ? TOP : y(w.upper)),
              )}
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
        {[spans.at(-1)?.lower, spans.at(-1)?.upper].map(
          (limit) =>
            limit !== null &&
            limit !== undefined && (
              <text key={limit} x={PLOT + 4} y={y(limit) + 4} style={{ fill: "var(--out)" }}>
                {limit.toFixed(digits)}
              </text>
            ),
        )}
        {flags.length <= MOST_FLAGS &&
          flags.map((e) => (
            <g key={`${e.atMs}${e.label}`}>
              <line
                x1={x(e.atMs)}
                x2={x(e.atMs)}
                y1={TOP - 6}
                y2={HEIGHT - 20}
                stroke="var(--ink-3)"
                strokeDasharray={e.event === "addition" ? "2 3" : undefined}
              />
              <path d={`M${x(e.atMs)} ${TOP - 6}h8l-2 3 2 3h-8Z`} fill="var(--ink-2)">
                <title>{`${e.label}, ${day(e.atMs)}`}</title>
              </path>
            </g>
          ))}
        <path
          d={pathOf(
            shown,
            (i) => x(atMs[i] as number),
            (i) => y(values[i] as number),
            breaks,
          )}
          fill="none"
          stroke={smooth ? "var(--ink-3)" : "var(--ink)"}
          strokeWidth="1.2"
        />
        {out.map((i) => (
          <rect
            key={i}
            x={x(atMs[i] as number) - 2.6}
            y={y(values[i] as number) - 2.6}
            width="5.2"
            height="5.2"
            fill="var(--out)"
          />
        ))}
        {smooth && (
          <>
            {[smooth.lower, smooth.upper].map((limit) => (
              <line
                key={limit}
                x1="0"
                x2={PLOT}
                y1={y(limit)}
                y2={y(limit)}
                stroke="var(--sorrel)"
                strokeDasharray="1 4"
              />
            ))}
            <path
              d={pathOf(
                extremesPerColumn(atMs, smooth.values, from, to, PLOT / 2),
                (i) => x(atMs[i] as number),
                (i) => y(smooth.values[i] as number),
                breaks,
              )}
              fill="none"
              stroke="var(--sorrel)"
              strokeWidth="2.2"
            />
          </>
        )}
        <rect x={PLOT} width={WIDTH - PLOT} y={HEIGHT - 18} height={18} fill="var(--bench)" />
        {days.map((ms) => (
          <text key={ms} x={x(ms)} y={HEIGHT - 4} textAnchor="middle">
            {day(ms)}
          </text>
        ))}
      </svg>
      <p className="no-print m-0 mt-1 flex flex-wrap gap-2">
        {(
          [
            ["Earlier", () => move(-0.5)],
            ["Later", () => move(0.5)],
            ["Closer", () => closer(2)],
            ["Farther", () => closer(0.5)],
            ["All of it", whole],
          ] as const
        ).map(([label, run]) => (
          <button key={label} type="button" className="btn" onClick={run}>
            {label}
          </button>
        ))}
      </p>
    </div>
  );
}
