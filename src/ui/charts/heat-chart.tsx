import { traceColumns } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { Plot } from "./plot/plot";
import type { Layer, Reading, Spec } from "./plot/spec";
import { axisOf, minuteTicks } from "./ticks";

export type HeatSeries = {
  readonly name: string;
  readonly timeS: readonly number[];
  readonly tempC: readonly (number | null)[];
  /** `other` is a bake drawn beside the one that is looked at. */
  readonly kind: "air" | "foretold" | "measured" | "other" | "band";
};
/** Columns a series is drawn in, each with its extremes: about three px each. */
const COLUMNS = 240;
/** Air beside a burner: what is hotter than this would press the metal to the foot of the chart. */
const MOST_C = 400;

/** Where a series goes, up to a moment: broken where nothing was read, each of its extremes kept. O(samples) */
export function seenOf(series: Pick<HeatSeries, "timeS" | "tempC">, fromS: number, toS: number, columns = COLUMNS) {
  return traceColumns(series, fromS, toS, columns).flatMap((stretch, i) => [
    ...(i > 0 ? [null] : []),
    ...stretch.map((at) => [series.timeS[at] as number, series.tempC[at] as number] as const),
  ]);
}

type HeatChartProps = {
  series: readonly HeatSeries[];
  sheetC: readonly number[];
  windowS: readonly [number, number | null] | null;
  nowS?: number | null;
  marks?: readonly { readonly s: number; readonly text: string }[];
  lastS: number;
  units: UnitSystem;
};

function specOf({ series, sheetC, windowS, nowS = null, marks = [], lastS, units }: HeatChartProps): Spec {
  const temperatures = series.flatMap((s) => s.tempC.flatMap((t) => (t === null ? [] : [Math.min(t, MOST_C)])));
  const hottest = temperatures.reduce((most, t) => Math.max(most, t), Math.max(...sheetC, 100)) + 10;
  const [low, high] = series.filter((s) => s.kind === "band");
  const lower = low ? seenOf(low, 0, lastS).filter((p) => p !== null) : [];
  const upper = high ? seenOf(high, 0, lastS).filter((p) => p !== null) : [];
  return {
    x: { domain: [0, lastS], ticks: minuteTicks(0, lastS), title: "min" },
    y: axisOf("temperature", [0, hottest], units),
    layers: [
      ...(windowS && windowS[0] <= lastS
        ? [
            {
              kind: "band",
              x: [Math.max(0, windowS[0]), Math.min(windowS[1] ?? lastS, lastS)],
              label: "pull here",
            } satisfies Layer,
          ]
        : []),
      ...sheetC.map(
        (y): Layer => ({ kind: "level", y, tone: "in", dash: "2 3", label: withUnit(y, "temperature", units) }),
      ),
      ...(upper.length > 0
        ? [
            {
              kind: "area",
              points: lower.flatMap(([s, c], i) => (upper[i] ? [[s, c, upper[i][1]] as const] : [])),
              tone: "rule",
              opacity: 0.4,
            } satisfies Layer,
          ]
        : []),
      ...series
        .filter((s) => s.kind !== "band")
        .map(
          (s): Layer => ({
            kind: "curve",
            points: seenOf(s, 0, lastS),
            label: s.name,
            tone: s.kind === "air" || s.kind === "other" ? "faint" : "ink",
            width: s.kind === "measured" ? 2.2 : s.kind === "other" ? 1 : 1.4,
            strong: s.kind === "measured",
            ...(s.kind === "foretold" ? { dash: "5 4" } : {}),
          }),
        ),
      ...marks.map((m): Layer => ({ kind: "moment", x: m.s, tone: "sorrel", label: m.text, must: true })),
      ...(nowS !== null && nowS <= lastS
        ? [{ kind: "moment", x: nowS, tone: "sorrel", width: 2, label: "now", must: true } satisfies Layer]
        : []),
    ],
  };
}

/** What is read off: the metal that was measured, else foretold; else whatever there is. */
function readingsOf({ series, lastS, units }: HeatChartProps): Reading[] {
  const order: readonly HeatSeries["kind"][] = ["measured", "foretold", "other", "air"];
  const read = order.flatMap((kind) => series.filter((s) => s.kind === kind))[0];
  return read
    ? seenOf(read, 0, lastS).flatMap((p) =>
        p
          ? [
              {
                x: p[0],
                y: p[1],
                says: `${read.name}: ${Math.floor(p[0] / 60)} min, ${withUnit(p[1], "temperature", units)}`,
              },
            ]
          : [],
      )
    : [];
}

/** Metal and air over the minutes since the door: foretold dashed, measured whole, the good pulls as a band, now and the sheet's temperatures marked. */
export function HeatChart({
  label,
  width = 760,
  height = 260,
  ...props
}: HeatChartProps & { label: string; width?: number; height?: number }) {
  return <Plot label={label} spec={specOf(props)} readings={readingsOf(props)} width={width} height={height} />;
}
