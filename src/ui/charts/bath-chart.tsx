import { Plot } from "./plot/plot";
import { domainOf, type Layer, type Spec } from "./plot/spec";

export type BathChartProps = {
  readonly name: string;
  readonly points: readonly {
    readonly atMs: number;
    readonly value: number;
    readonly label: string;
    readonly result: string;
    readonly marked: boolean;
  }[];
  readonly events: readonly { readonly atMs: number; readonly label: string }[];
  readonly window: {
    readonly lower: number | null;
    readonly upper: number | null;
    readonly watchLower?: number | null;
    readonly watchUpper?: number | null;
  };
  /** Limits either side of the line of each stretch between changes: their value at its ends. */
  readonly control: readonly {
    readonly fromMs: number;
    readonly toMs: number;
    readonly lower: readonly [number, number];
    readonly upper: readonly [number, number];
  }[];
  readonly wedge: readonly { readonly atMs: number; readonly value: number; readonly bound: number }[];
  readonly checkBy: { readonly atMs: number; readonly label: string } | null;
  readonly days: readonly { readonly atMs: number; readonly label: string }[];
  readonly digits: number;
  readonly width?: number;
  readonly height?: number;
};

function specOf({ points, events, window, control, wedge, checkBy, days, digits }: BathChartProps): Spec {
  const first = points[0]?.atMs ?? 0;
  const last = Math.max(points.at(-1)?.atMs ?? 1, wedge.at(-1)?.atMs ?? 0, checkBy?.atMs ?? 0, first + 1);
  const y = domainOf([
    ...points.map((p) => p.value),
    window.lower,
    window.upper,
    ...wedge.flatMap((w) => [w.value, w.bound]),
  ]);
  const limit = (value: number | null | undefined, tone: "out" | "watch"): Layer[] =>
    value === null || value === undefined
      ? []
      : [
          {
            kind: "level",
            y: value,
            tone,
            label: value.toFixed(digits),
            ...(tone === "out" ? { width: 1.5 } : { dash: "5 4" }),
          },
        ];
  return {
    x: { domain: [first, last], ticks: days.map((d) => ({ at: d.atMs, label: d.label })) },
    y: { domain: y, ticks: [] },
    layers: [
      { kind: "band", y: [window.lower, window.upper] },
      ...control.flatMap((c) =>
        (["lower", "upper"] as const).flatMap((side): Layer[] => {
          const [from, to] = c[side];
          const seen = [from, to].every((v) => v > y[0] && v < y[1]);
          const ends = [[c.fromMs, from] as const, [c.toMs, to] as const];
          return seen ? [{ kind: "curve", points: ends, tone: "faint", width: 1, dash: "1 4" }] : [];
        }),
      ),
      ...limit(window.upper, "out"),
      ...limit(window.lower, "out"),
      ...limit(window.watchUpper, "watch"),
      ...events
        .filter((e) => e.atMs >= first)
        .map(
          (e, i, all): Layer => ({
            kind: "moment",
            x: e.atMs,
            tone: "soft",
            dash: "2 3",
            flag: true,
            says: e.label,
            ...(i === all.length - 1 ? { label: e.label } : {}),
          }),
        ),
      ...(wedge.length > 1
        ? ([
            { kind: "area", points: wedge.map((w) => [w.atMs, w.value, w.bound]), tone: "sorrel", opacity: 0.28 },
            { kind: "curve", points: wedge.map((w) => [w.atMs, w.value]), tone: "sorrel", width: 2, dash: "4 3" },
          ] satisfies Layer[])
        : []),
      { kind: "curve", points: points.map((p) => [p.atMs, p.value]), tone: "ink", width: 1.6 },
      {
        kind: "marks",
        marks: points.map((p) => ({
          x: p.atMs,
          y: p.value,
          ...(p.result === "out"
            ? { tone: "out", shape: "square", r: 3.4 }
            : p.marked
              ? { tone: "sorrel", r: 3.4 }
              : { tone: "ink", r: 2.4 }),
        })),
      },
      ...(checkBy
        ? ([
            { kind: "moment", x: checkBy.atMs, tone: "sorrel", width: 2, label: checkBy.label, must: true },
          ] satisfies Layer[])
        : []),
    ],
  };
}

/** Individuals chart of a bath value: window as a band, limits with their value, additions as flags, forecast as a wedge. */
export function BathChart(props: BathChartProps) {
  const { name, points, width = 520, height = 166 } = props;
  if (points.length === 0) return <p className="soft">No check on record yet. Type one on the entry line.</p>;
  return (
    <Plot
      label={`${name}, ${points.length === 1 ? "1 check" : `${points.length} checks`}`}
      spec={specOf(props)}
      readings={points.map((p) => ({ x: p.atMs, y: p.value, says: p.label }))}
      width={width}
      height={height}
    />
  );
}
