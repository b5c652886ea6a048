import type { UnitSystem } from "@/core/units";
import { minutesSeconds, withUnit } from "../format";
import { seenOf } from "./heat-chart";
import { Plot } from "./plot/plot";
import type { Layer, Spec } from "./plot/spec";
import { axisOf, minuteTicks } from "./ticks";

export type TraceChannel = {
  readonly name: string;
  readonly medium: "air" | "metal";
  readonly timeS: readonly number[];
  readonly tempC: readonly (number | null)[];
  readonly index: number;
  readonly deciding: boolean;
  readonly dead: boolean;
};
type TraceProps = {
  channels: readonly TraceChannel[];
  points: readonly { metalC: number; minutes: number }[];
  /** From where the cure counts; null where nothing cures. */
  onsetC: number | null;
  gaps: readonly { fromS: number; toS: number }[];
  crossings: readonly { s: number; c: number }[];
  pullS: number | null;
  units: UnitSystem;
  /** The stretch in view, s; all of it unless said. */
  fromS?: number;
  toS?: number | null;
};
const COLUMNS = 360;

function specOf({ channels, points, onsetC, gaps, crossings, pullS, units, fromS = 0, toS = null }: TraceProps): {
  spec: Spec;
  deciding: ReturnType<typeof seenOf>;
} {
  const lastS = toS ?? Math.max(...channels.flatMap((c) => [c.timeS.at(-1) ?? 0]), 60);
  const sheet = points.map((p) => p.metalC);
  const hottest =
    8 + Math.max(...sheet, ...channels.map((c) => c.tempC.reduce((m: number, t) => Math.max(m, t ?? 0), 0)));
  const inGap = (s: number) => gaps.some((g) => s > g.fromS && s < g.toS);
  // A column is about two pixels wide: of a day's samples only what can be told apart is drawn, each excursion among it.
  const drawn = channels.map((c) => ({
    c,
    points: seenOf(c, fromS, lastS, COLUMNS).map((p) => (p && inGap(p[0]) ? null : p)),
  }));
  const degrees = (c: number) => withUnit(c, "temperature", units);
  return {
    deciding: drawn.find((d) => d.c.deciding)?.points ?? [],
    spec: {
      x: { domain: [fromS, lastS], ticks: minuteTicks(fromS, lastS), title: "min" },
      y: axisOf("temperature", [0, hottest], units),
      layers: [
        { kind: "band", y: [Math.min(...sheet), Math.max(...sheet)] },
        ...points.map(
          (p): Layer => ({ kind: "level", y: p.metalC, tone: "in", label: `${degrees(p.metalC)}, ${p.minutes} min` }),
        ),
        ...(onsetC === null
          ? []
          : [
              {
                kind: "level",
                y: onsetC,
                tone: "faint",
                dash: "2 4",
                label: `counts from ${degrees(onsetC)}`,
              } satisfies Layer,
            ]),
        ...drawn.map(
          ({ c, points }): Layer => ({
            kind: "curve",
            points,
            label: `${c.name}${c.dead ? " (dead)" : ""}`,
            tone: c.deciding ? "sorrel" : c.medium === "air" ? "faint" : "ink",
            width: c.deciding ? 2.6 : 1.4,
            strong: c.deciding,
            ...(c.medium === "air" ? { dash: "5 4" } : c.dead ? { dash: "2 3" } : {}),
          }),
        ),
        ...gaps.map((g): Layer => ({ kind: "gap", from: g.fromS, to: g.toS, label: "gap" })),
        {
          kind: "marks",
          marks: crossings.map((k) => ({ x: k.s, y: k.c, tone: "sorrel", shape: "ring", r: 4.5 })),
        },
        ...(pullS === null
          ? []
          : [
              {
                kind: "moment",
                x: pullS,
                tone: "soft",
                dash: "2 3",
                label: `pull ${Math.round(pullS / 60)} min`,
                must: true,
              } satisfies Layer,
            ]),
      ],
    },
  };
}

/** An oven trace: the sheet's temperatures as a band, channels named at their end, gaps shaded, crossings and pull marked. */
export function TraceChart({ width = 860, height = 320, ...props }: TraceProps & { width?: number; height?: number }) {
  const { spec, deciding } = specOf(props);
  return (
    <Plot
      label="Oven trace"
      spec={spec}
      readings={deciding.flatMap((p) =>
        p ? [{ x: p[0], y: p[1], says: `${minutesSeconds(p[0])}, ${withUnit(p[1], "temperature", props.units)}` }] : [],
      )}
      width={width}
      height={height}
    />
  );
}
