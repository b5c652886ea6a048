import { line, scaleLinear } from "d3";
import { Cursor } from "./cursor";
import { OVER_LINES } from "./over-lines";

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

/** Individuals chart of a bath value: window as a band, limits with their value, additions as flags, forecast as a wedge. */
export function BathChart({
  name,
  points,
  events,
  window,
  control,
  wedge,
  checkBy,
  days,
  digits,
  width = 520,
  height = 150,
}: BathChartProps) {
  if (points.length === 0) return <p className="soft">No check on record yet. Type one on the entry line.</p>;
  const plot = width - 46;
  const first = points[0]?.atMs ?? 0;
  const last = Math.max(points[points.length - 1]?.atMs ?? 1, wedge[wedge.length - 1]?.atMs ?? 0, checkBy?.atMs ?? 0);
  const x = scaleLinear([first, last === first ? first + 1 : last], [6, plot]);
  const all = [
    ...points.map((p) => p.value),
    ...[window.lower, window.upper].filter((v) => v !== null),
    ...wedge.flatMap((w) => [w.value, w.bound]),
  ];
  const low = Math.min(...all);
  const high = Math.max(...all);
  const pad = (high - low || 1) * 0.08;
  const y = scaleLinear([low - pad, high + pad], [height, 18]);
  const path = line<{ atMs: number; value: number }>(
    (p) => x(p.atMs),
    (p) => y(p.value),
  );
  const limit = (value: number, tone: "out" | "watch") => (
    <g key={`${tone}${value}`}>
      <line
        x1="0"
        x2={plot}
        y1={y(value)}
        y2={y(value)}
        stroke={`var(--${tone})`}
        strokeWidth={tone === "out" ? 1.5 : 1}
        strokeDasharray={tone === "watch" ? "5 4" : undefined}
      />
      <text x={plot + 4} y={y(value) + 4} style={{ fill: `var(--${tone})` }}>
        {value.toFixed(digits)}
      </text>
    </g>
  );
  return (
    <svg
      viewBox={`0 0 ${width} ${height + 22}`}
      width={width}
      className="h-auto max-w-full overflow-visible"
      role="group"
      aria-label={`${name}, ${points.length} checks`}
    >
      <rect
        x="0"
        y={window.upper === null ? 18 : y(window.upper)}
        width={plot}
        height={Math.max(
          0,
          (window.lower === null ? height : y(window.lower)) - (window.upper === null ? 18 : y(window.upper)),
        )}
        fill="var(--band)"
      />
      {control.flatMap((c) =>
        (["lower", "upper"] as const).map((side) => {
          const ends = c[side];
          return ends.every((v) => v > low - pad && v < high + pad) ? (
            <line
              key={`${c.fromMs}${side}`}
              x1={x(c.fromMs)}
              x2={x(c.toMs)}
              y1={y(ends[0])}
              y2={y(ends[1])}
              stroke="var(--ink-3)"
              strokeDasharray="1 4"
            />
          ) : null;
        }),
      )}
      {window.upper !== null && limit(window.upper, "out")}
      {window.lower !== null && limit(window.lower, "out")}
      {window.watchUpper !== null && window.watchUpper !== undefined && limit(window.watchUpper, "watch")}
      {events
        .filter((e) => e.atMs >= first)
        .map((event, i) => (
          <g key={`${event.atMs}${event.label}`}>
            <line
              x1={x(event.atMs)}
              x2={x(event.atMs)}
              y1="14"
              y2={height}
              stroke="var(--ink-2)"
              strokeDasharray="2 3"
            />
            {i === events.length - 1 ? (
              <text
                x={Math.min(x(event.atMs) + 4, plot - 4)}
                y="11"
                textAnchor={x(event.atMs) > plot * 0.55 ? "end" : "start"}
              >
                {event.label}
              </text>
            ) : (
              <path d={`M${x(event.atMs)} 14h7l-2 3 2 3h-7Z`} fill="var(--ink-2)">
                <title>{event.label}</title>
              </path>
            )}
          </g>
        ))}
      {wedge.length > 1 && (
        <path
          d={`M${wedge.map((w) => `${x(w.atMs)},${y(w.bound)}`).join("L")}L${[...wedge]
            .reverse()
            .map((w) => `${x(w.atMs)},${y(w.value)}`)
            .join("L")}Z`}
          fill="var(--sorrel)"
          opacity=".28"
        />
      )}
      {wedge.length > 1 && (
        <path d={path(wedge) ?? ""} fill="none" stroke="var(--sorrel)" strokeWidth="2" strokeDasharray="4 3" />
      )}
      <path d={path(points) ?? ""} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      {points.map((p) =>
        p.result === "out" ? (
          <rect key={p.atMs} x={x(p.atMs) - 3.4} y={y(p.value) - 3.4} width="6.8" height="6.8" fill="var(--out)" />
        ) : (
          <circle
            key={p.atMs}
            cx={x(p.atMs)}
            cy={y(p.value)}
            r={p.marked ? 3.4 : 2.4}
            fill={p.marked ? "var(--sorrel)" : "var(--ink)"}
          />
        ),
      )}
      {checkBy && (
        <g>
          <line
            x1={x(checkBy.atMs)}
            x2={x(checkBy.atMs)}
            y1={height - 14}
            y2={height}
            stroke="var(--sorrel)"
            strokeWidth="2"
          />
          <text
            x={Math.min(x(checkBy.atMs), plot)}
            y={height - 18}
            textAnchor="end"
            style={{ ...OVER_LINES, fill: "var(--sorrel)", fontWeight: 600 }}
          >
            {checkBy.label}
          </text>
        </g>
      )}
      {days.map((d) => (
        <text key={d.atMs} x={x(d.atMs)} y={height + 16} textAnchor="middle">
          {d.label}
        </text>
      ))}
      <Cursor
        name={name}
        width={plot}
        height={height}
        points={points.map((p) => ({ x: x(p.atMs), y: y(p.value), label: p.label }))}
      />
    </svg>
  );
}
