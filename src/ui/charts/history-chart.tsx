"use client";
import { type KeyboardEvent, useEffect, useId, useMemo, useRef } from "react";
import { firstFrom } from "@/core/control-charts";
import { HEIGHT, type HistoryData, HistoryPicture, historyView, PLOT, WIDTH } from "./history-picture";
import { useTimeZoom } from "./use-time-zoom";

/** The closest look: two hours across. */
const CLOSEST_MS = 2 * 3_600_000;
/** What is seen first. */
const FIRST_LOOK_MS = 42 * 86_400_000;
/** Checks further apart than so many usual rounds, and this long, are not joined by a line. */
const GAP_ROUNDS = 12;
const GAP_MS = 2 * 86_400_000;

/** Where the line is broken: a dump or recharge begins a new life of the bath, and a long silence joins nothing. */
function breaksOf({ atMs, events }: HistoryData): ReadonlySet<number> {
  const steps = atMs
    .slice(1)
    .map((ms, i) => ms - (atMs[i] as number))
    .sort((a, b) => a - b);
  const gap = Math.max(GAP_MS, GAP_ROUNDS * (steps[steps.length >> 1] ?? 0));
  return new Set([
    ...events.filter((e) => e.event !== "addition").map((e) => firstFrom(atMs, e.atMs)),
    ...atMs.flatMap((ms, i) => (i > 0 && ms - (atMs[i - 1] as number) > gap ? [i] : [])),
  ]);
}

/** A value over as long as it was checked: drawn with every excursion kept, moved and looked closer at. */
export function HistoryChart({
  name,
  data,
  digits,
  day,
  seen,
}: {
  name: string;
  data: HistoryData;
  digits: number;
  day: (ms: number) => string;
  seen?: (fromMs: number, toMs: number) => void;
}) {
  const { atMs } = data;
  const svg = useRef<SVGSVGElement>(null);
  const clip = useId();
  const [first, last] = [atMs[0] ?? 0, Math.max(atMs.at(-1) ?? 1, (atMs[0] ?? 0) + CLOSEST_MS)];
  // Begins with the newest weeks: what is asked about is mostly there.
  const { from, to, times, move, closer, all } = useTimeZoom(svg, {
    from: first,
    to: last,
    width: PLOT,
    closest: CLOSEST_MS,
    first: FIRST_LOOK_MS,
  });
  useEffect(() => seen?.(from, to), [seen, from, to]);
  const breaks = useMemo(() => breaksOf(data), [data]);
  // Drawn a width to either side of where one looks, and only moved until one looks beyond that: a step of panning then
  // costs a transform, however many checks there are.
  const spanMs = (last - first) / times;
  const page = Math.round((from - first) / spanMs);
  const view = useMemo(() => historyView(data, first + page * spanMs, spanMs), [data, first, page, spanMs]);
  const keys = (e: KeyboardEvent) => {
    if (e.key === "ArrowLeft") move(-0.25);
    else if (e.key === "ArrowRight") move(0.25);
    else if (e.key === "+") closer(2);
    else if (e.key === "-") closer(0.5);
    else if (e.key === "Home") all();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const last0 = data.windows.at(-1);
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
        <defs>
          <clipPath id={clip}>
            <rect width={PLOT} height={HEIGHT} />
          </clipPath>
        </defs>
        <g
          role="slider"
          tabIndex={0}
          aria-label={`${name}, ${day(from)} to ${day(to)}`}
          aria-valuemin={first}
          aria-valuemax={last}
          aria-valuenow={Math.round(to)}
          aria-valuetext={`${day(from)} to ${day(to)}, ${firstFrom(atMs, to) - firstFrom(atMs, from)} checks`}
          onKeyDown={keys}
        >
          <rect width={PLOT} height={HEIGHT} fill="transparent" />
        </g>
        <g clipPath={`url(#${clip})`}>
          <g transform={`translate(${(((view.fromMs - from) / spanMs) * PLOT).toFixed(2)},0)`}>
            <HistoryPicture data={data} breaks={breaks} view={view} day={day} />
          </g>
        </g>
        {[last0?.lower, last0?.upper].map(
          (limit) =>
            limit !== null &&
            limit !== undefined && (
              <text key={limit} x={PLOT + 4} y={view.y(limit) + 4} style={{ fill: "var(--out)" }}>
                {limit.toFixed(digits)}
              </text>
            ),
        )}
      </svg>
      <p className="no-print m-0 mt-1 flex flex-wrap gap-2">
        {(
          [
            ["Earlier", () => move(-0.5)],
            ["Later", () => move(0.5)],
            ["Closer", () => closer(2)],
            ["Farther", () => closer(0.5)],
            ["All of it", all],
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
