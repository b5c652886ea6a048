"use client";
import { scaleLinear } from "d3";
import { useEffect, useMemo } from "react";
import { firstFrom } from "@/core/control-charts";
import { countOf } from "../format";
import { type HistoryData, historyLayers, historyView } from "./history-view";
import { Save } from "./plot/figure";
import { FLAG, layoutOf } from "./plot/layout";
import { Picture } from "./plot/picture";
import type { Spec } from "./plot/spec";
import { textWidth } from "./plot/text-width";
import { type Seen, ZoomFrame } from "./plot/zoom";

const HEIGHT = 300;
const WIDTH = 860;
/** The closest look: two hours across. */
const CLOSEST_MS = 2 * 3_600_000;
/** What is seen first. */
const FIRST_LOOK_MS = 42 * 86_400_000;
/** Checks further apart than so many usual rounds, and this long, are not joined by a line. */
const GAP_ROUNDS = 12;
const GAP_MS = 2 * 86_400_000;
const TICKS = 6;

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

type HistoryProps = {
  name: string;
  data: HistoryData;
  digits: number;
  day: (ms: number) => string;
  /** What a check says when it is read. */
  says: (atMs: number, value: number) => string;
  seen?: (fromMs: number, toMs: number) => void;
};

/** A value over as long as it was checked: drawn with every excursion kept, moved and looked closer at. */
export function HistoryChart(props: HistoryProps) {
  const { atMs } = props.data;
  const first = atMs[0] ?? 0;
  // Begins with the newest weeks: what is asked about is mostly there.
  return (
    <ZoomFrame
      label={`A closer look at ${props.name}`}
      from={first}
      to={Math.max(atMs.at(-1) ?? 1, first + CLOSEST_MS)}
      closest={CLOSEST_MS}
      first={FIRST_LOOK_MS}
      most={WIDTH}
    >
      {(look, width) => <Looked {...props} look={look} width={width} />}
    </ZoomFrame>
  );
}

function Looked({ name, data, digits, day, says, seen, look, width }: HistoryProps & { look: Seen; width: number }) {
  const { atMs, values } = data;
  const { from, to } = look;
  useEffect(() => seen?.(from, to), [seen, from, to]);
  const breaks = useMemo(() => breaksOf(data), [data]);
  // Drawn a width to either side of where one looks, and only moved until one looks beyond that: a step of panning then
  // costs a transform, however many checks there are.
  const spanMs = Math.round(to - from);
  const origin = atMs[0] ?? 0;
  const page = Math.round((from - origin) / spanMs);
  const view = useMemo(() => historyView(data, origin + page * spanMs, spanMs), [data, origin, page, spanMs]);
  const layers = useMemo(() => historyLayers(data, view, breaks, day), [data, view, breaks, day]);
  const still = useMemo(() => {
    const last = data.windows.at(-1);
    const spec: Spec = {
      x: { domain: [0, 1], ticks: [{ at: 0, label: "" }] },
      y: { domain: view.y, ticks: [] },
      room: { top: FLAG + 5 },
      layers: [last?.lower, last?.upper].flatMap((y) =>
        y === null || y === undefined
          ? []
          : [{ kind: "beside" as const, y, text: y.toFixed(digits), tone: "out" as const }],
      ),
    };
    return { spec, layout: layoutOf(spec, width, HEIGHT) };
  }, [data, view, digits, width]);
  const { plot } = still.layout;
  const across = plot.right - plot.left;
  const wide = useMemo(
    () => ({
      ...still.layout,
      plot: { ...plot, left: plot.left - across, right: plot.right + across },
      x: scaleLinear([view.fromMs, view.toMs], [plot.left - across, plot.right + across]),
    }),
    [still, plot, across, view],
  );
  // The layout that stands still knows no time; this one does.
  const now = useMemo(
    () => ({ ...still.layout, x: scaleLinear([from, to], [plot.left, plot.right]) }),
    [still, plot, from, to],
  );
  const readings = useMemo(
    () =>
      view.shown.map((i) => ({
        x: atMs[i] as number,
        y: values[i] as number,
        says: () => says(atMs[i] as number, values[i] as number),
      })),
    [view, atMs, values, says],
  );
  const ticks = now.x.ticks(Math.min(TICKS, Math.max(2, width / 90)));
  const whole = (ms: number) => {
    const half = textWidth(day(ms)) / 2;
    return now.x(ms) - half >= 0 && now.x(ms) + half <= width;
  };
  const label = `${name}, ${day(from)} to ${day(to)}, ${countOf(firstFrom(atMs, to) - firstFrom(atMs, from), "check")}`;
  return (
    <figure className="relative m-0">
      <Picture
        label={label}
        name={name}
        spec={still.spec}
        layout={now}
        readings={readings}
        most={WIDTH}
        moved={{ layers, layout: wide, by: now.x(view.fromMs) - wide.x(view.fromMs) }}
      >
        {ticks.filter(whole).map((ms) => (
          <text key={ms} x={now.x(ms)} y={HEIGHT - 5} textAnchor="middle">
            {day(ms)}
          </text>
        ))}
      </Picture>
      <Save label={name} />
    </figure>
  );
}
