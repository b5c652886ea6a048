import { line, scaleLinear } from "d3";
import { traceColumns } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { figure, withUnit } from "../format";
import { Cursor } from "./cursor";
import { BETWEEN_LINES, OVER_LINES } from "./over-lines";

export type TraceChannel = {
  readonly name: string;
  readonly medium: "air" | "metal";
  readonly timeS: readonly number[];
  readonly tempC: readonly (number | null)[];
  readonly index: number;
  readonly deciding: boolean;
  readonly dead: boolean;
};

const COLUMNS = 360;

/** An oven trace: the sheet's temperatures as a band, channels labelled at their end, gaps hatched, crossings and pull marked. */
export function TraceChart({
  channels,
  points,
  onsetC,
  gaps,
  crossings,
  pullS,
  units,
  fromS = 0,
  toS = null,
  width = 860,
  height = 300,
}: {
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
  width?: number;
  height?: number;
}) {
  const plot = width - 130;
  const lastS = toS ?? Math.max(...channels.flatMap((c) => [c.timeS.at(-1) ?? 0]), 60);
  const seen = (s: number) => s >= fromS && s <= lastS;
  const hottest =
    channels.reduce(
      (most, c) => c.tempC.reduce((m: number, t) => (t !== null && t > m ? t : m), most),
      Math.max(...points.map((p) => p.metalC)),
    ) + 8;
  const x = scaleLinear([fromS, lastS], [34, plot]);
  // A column is about two pixels wide: of a day's samples only what can be told apart is drawn, each excursion among it.
  const drawn = channels.map((c) => ({ c, stretches: traceColumns(c, fromS, lastS, COLUMNS) }));
  const y = scaleLinear([0, hottest], [height - 22, 12]);
  const lowest = Math.min(...points.map((p) => p.metalC));
  const highest = Math.max(...points.map((p) => p.metalC));
  const ends = drawn
    .map(({ c, stretches }) => {
      const at = stretches.at(-1)?.at(-1) ?? -1;
      return { c, y: y(c.tempC[at] ?? 0), at };
    })
    .sort((a, b) => a.y - b.y);
  let lastY = -20;
  const labels = ends.map((e) => {
    lastY = Math.max(e.y, lastY + 14);
    return { ...e, labelY: lastY };
  });
  const deciding = channels.find((c) => c.deciding);
  const inView = gaps.flatMap((g) =>
    g.toS > fromS && g.fromS < lastS ? [{ fromS: Math.max(g.fromS, fromS), toS: Math.min(g.toS, lastS) }] : [],
  );
  return (
    <svg
      viewBox={`0 0 ${width} ${height + 22}`}
      width={width}
      className="h-auto max-w-full overflow-visible"
      role="group"
      aria-label="Oven trace"
    >
      <clipPath id="trace-plot">
        <rect x="34" y="0" width={plot - 34} height={height} />
      </clipPath>
      <rect x="34" y={y(highest)} width={plot - 34} height={Math.max(2, y(lowest) - y(highest))} fill="var(--band)" />
      {points.map((p) => (
        <line key={p.metalC} x1="34" x2={plot} y1={y(p.metalC)} y2={y(p.metalC)} stroke="var(--in)" strokeWidth="1" />
      ))}
      {onsetC !== null && (
        <line x1="34" x2={plot} y1={y(onsetC)} y2={y(onsetC)} stroke="var(--ink-3)" strokeDasharray="2 4" />
      )}
      {inView.map((g) => (
        <g key={g.fromS}>
          <rect
            x={x(g.fromS)}
            width={x(g.toS) - x(g.fromS)}
            y="12"
            height={height - 34}
            fill="var(--unknown)"
            opacity=".16"
          />
          <text x={(x(g.fromS) + x(g.toS)) / 2} y={height - 30} textAnchor="middle">
            gap
          </text>
        </g>
      ))}
      {drawn.map(({ c, stretches }) => (
        <path
          key={c.name}
          clipPath="url(#trace-plot)"
          d={stretches
            .map(
              (stretch) =>
                line<number>(
                  (i) => x(c.timeS[i] as number),
                  (i) => y(c.tempC[i] as number),
                ).defined((i) => !gaps.some((g) => (c.timeS[i] as number) > g.fromS && (c.timeS[i] as number) < g.toS))(
                  stretch,
                ) ?? "",
            )
            .join("")}
          fill="none"
          stroke={c.deciding ? "var(--sorrel)" : c.medium === "air" ? "var(--ink-3)" : "var(--ink)"}
          strokeWidth={c.deciding ? 2.6 : 1.4}
          strokeDasharray={c.medium === "air" ? "5 4" : c.dead ? "2 3" : undefined}
        />
      ))}
      {inView.map((g) => (
        <rect
          key={`cover${g.fromS}`}
          x={x(g.fromS) + 1}
          width={Math.max(0, x(g.toS) - x(g.fromS) - 2)}
          y="12"
          height={height - 34}
          fill="var(--bench)"
          opacity=".75"
        />
      ))}
      {points.map((p) => (
        <text key={`sheet${p.metalC}`} x="38" y={y(p.metalC) - 3} style={{ ...BETWEEN_LINES, fill: "var(--in)" }}>
          {withUnit(p.metalC, "temperature", units)}, {p.minutes} min
        </text>
      ))}
      {onsetC !== null && (
        <text x="38" y={y(onsetC) - 3} style={OVER_LINES}>
          counts from {withUnit(onsetC, "temperature", units)}
        </text>
      )}
      {crossings
        .filter((k) => seen(k.s))
        .map((k) => (
          <circle
            key={`${k.s}${k.c}`}
            cx={x(k.s)}
            cy={y(k.c)}
            r="4.5"
            fill="var(--bench)"
            stroke="var(--sorrel)"
            strokeWidth="2"
          />
        ))}
      {pullS !== null && seen(pullS) && (
        <g>
          <line x1={x(pullS)} x2={x(pullS)} y1="12" y2={height - 22} stroke="var(--ink-2)" strokeDasharray="2 3" />
          <text x={x(pullS) - 4} y="10" textAnchor="end">
            pull {Math.round(pullS / 60)} min
          </text>
        </g>
      )}
      {labels.map((l) => (
        <text
          key={l.c.name}
          x={plot + 6}
          y={l.labelY + 4}
          style={l.c.deciding ? { fill: "var(--sorrel)", fontWeight: 650 } : undefined}
        >
          {l.c.name}
          {l.c.dead ? " (dead)" : ""}
        </text>
      ))}
      <line x1="34" x2={plot} y1={height - 22} y2={height - 22} stroke="var(--ink)" />
      {x
        .ticks(8)
        .filter((t) => t % 60 === 0 || lastS - fromS < 500)
        .map((t) => (
          <text key={t} x={x(t)} y={height - 8} textAnchor="middle">
            {lastS - fromS < 500 ? Math.round(t / 6) / 10 : Math.round(t / 60)}
          </text>
        ))}
      <text x={plot + 6} y={height - 8}>
        min
      </text>
      {[50, 100, 150].map((t) => (
        <text key={t} x="30" y={y(t) + 4} textAnchor="end">
          {figure(t, "temperature", units).text}
        </text>
      ))}
      {deciding && (
        <Cursor
          name={deciding.name}
          width={plot}
          height={height - 22}
          points={(drawn.find((d) => d.c === deciding)?.stretches ?? []).flat().flatMap((i) => {
            const [s, c] = [deciding.timeS[i] as number, deciding.tempC[i]];
            return typeof c === "number" && seen(s)
              ? [
                  {
                    x: x(s),
                    y: y(c),
                    label: `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, "0")}  ${withUnit(c, "temperature", units)}`,
                  },
                ]
              : [];
          })}
        />
      )}
    </svg>
  );
}
