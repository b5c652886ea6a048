import { line, scaleLinear } from "d3";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { BETWEEN_LINES, OVER_LINES } from "./over-lines";

export type HeatSeries = {
  readonly name: string;
  readonly timeS: readonly number[];
  readonly tempC: readonly (number | null)[];
  /** `other` is a bake drawn beside the one that is looked at. */
  readonly kind: "air" | "foretold" | "measured" | "other" | "band";
};
/** Points drawn of one series at most: a planned row has far more than the picture has pixels. */
const MOST_POINTS = 240;

function thinned(series: HeatSeries, lastS: number): [number, number][] {
  const rows: [number, number][] = [];
  for (let i = 0; i < series.timeS.length; i++) {
    const [s, c] = [series.timeS[i] as number, series.tempC[i]];
    if (s > lastS) break;
    if (typeof c === "number") rows.push([s, c]);
  }
  const every = Math.max(1, Math.ceil(rows.length / MOST_POINTS));
  return rows.filter((_, i) => i % every === 0 || i === rows.length - 1);
}

/** Metal and air over the minutes since the door: foretold dashed, measured whole, the good pulls as a band, now and the sheet's temperatures marked. */
export function HeatChart({
  series,
  sheetC,
  windowS,
  nowS = null,
  marks = [],
  lastS,
  units,
  label,
  width = 760,
  height = 260,
}: {
  series: readonly HeatSeries[];
  sheetC: readonly number[];
  windowS: readonly [number, number | null] | null;
  nowS?: number | null;
  marks?: readonly { readonly s: number; readonly text: string }[];
  lastS: number;
  units: UnitSystem;
  label: string;
  width?: number;
  height?: number;
}) {
  const plot = width - 116;
  const hottest =
    Math.max(
      ...series.flatMap((s) => s.tempC.filter((t): t is number => typeof t === "number").map((t) => Math.min(t, 400))),
      ...sheetC,
      100,
    ) + 10;
  const x = scaleLinear([0, lastS], [40, plot]);
  const y = scaleLinear([0, hottest], [height - 24, 14]);
  const path = line<[number, number]>(
    (p) => x(p[0]),
    (p) => y(p[1]),
  );
  const drawn = series.filter((s) => s.kind !== "band").map((s) => ({ s, points: thinned(s, lastS) }));
  const band = series.filter((s) => s.kind === "band");
  let lastY = -20;
  const ends = drawn
    .flatMap(({ s, points }) => {
      const end = points.at(-1);
      return end ? [{ name: s.name, kind: s.kind, y: y(end[1]), x: x(end[0]) }] : [];
    })
    .sort((a, b) => a.y - b.y)
    .map((e) => {
      lastY = Math.max(e.y, lastY + 14);
      return { ...e, labelY: lastY };
    });
  const stroke = (kind: HeatSeries["kind"]) => (kind === "air" || kind === "other" ? "var(--ink-3)" : "var(--ink)");
  const minuteStep = lastS > 7200 ? 30 : lastS > 3000 ? 10 : 5;
  const minutes = Array.from({ length: Math.floor(lastS / 60 / minuteStep) + 1 }, (_, i) => i * minuteStep);
  const clampedEnd = windowS ? Math.min(windowS[1] ?? lastS, lastS) : 0;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      className="h-auto max-w-full overflow-visible"
      role="img"
      aria-label={label}
    >
      {windowS && windowS[0] <= lastS && (
        <g>
          <rect
            x={x(Math.max(0, windowS[0]))}
            width={Math.max(2, x(clampedEnd) - x(Math.max(0, windowS[0])))}
            y="14"
            height={height - 38}
            fill="var(--band)"
          />
          <text x={x(Math.max(0, windowS[0])) + 4} y={height - 30} style={{ fill: "var(--in)" }}>
            pull here
          </text>
        </g>
      )}
      {sheetC.map((c) => (
        <line key={c} x1="40" x2={plot} y1={y(c)} y2={y(c)} stroke="var(--in)" strokeWidth="1" strokeDasharray="2 3" />
      ))}
      <line x1="40" x2={plot} y1={height - 24} y2={height - 24} stroke="var(--rule-strong)" />
      {minutes.map((m) => (
        <text key={m} x={x(m * 60)} y={height - 8} textAnchor="middle">
          {m}
          {m === 0 ? " min" : ""}
        </text>
      ))}
      {band.length === 2 && band[0] && band[1] && (
        <path
          d={`${path(thinned(band[0], lastS))} L ${[...thinned(band[1], lastS)]
            .reverse()
            .map((p) => `${x(p[0])},${y(p[1])}`)
            .join(" L ")} Z`}
          fill="var(--rule)"
          opacity="0.6"
        />
      )}
      {drawn.map(({ s, points }) => (
        <path
          key={s.name + s.kind}
          d={path(points) ?? ""}
          fill="none"
          stroke={stroke(s.kind)}
          strokeWidth={s.kind === "measured" ? 2.2 : s.kind === "other" ? 1 : 1.4}
          strokeDasharray={s.kind === "foretold" ? "5 4" : undefined}
        />
      ))}
      {sheetC.map((c) => (
        <text key={`sheet${c}`} x="44" y={y(c) - 4} style={{ ...BETWEEN_LINES, fill: "var(--in)" }}>
          {withUnit(c, "temperature", units)}
        </text>
      ))}
      {marks.map((m, i) => (
        <g key={m.text + m.s}>
          <line x1={x(m.s)} x2={x(m.s)} y1="14" y2={height - 24} stroke="var(--sorrel)" strokeWidth="1" />
          <text x={x(m.s) + 3} y={i % 2 === 0 ? 12 : 25} style={{ fill: "var(--sorrel)" }}>
            {m.text}
          </text>
        </g>
      ))}
      {nowS !== null && nowS <= lastS && (
        <g>
          <line x1={x(nowS)} x2={x(nowS)} y1="14" y2={height - 24} stroke="var(--sorrel)" strokeWidth="2" />
          <text x={x(nowS)} y="12" textAnchor="middle" style={{ fill: "var(--sorrel)", fontWeight: 700 }}>
            now
          </text>
        </g>
      )}
      {ends.map((e) => (
        <text
          key={e.name + e.kind}
          x={Math.min(e.x, plot) + 5}
          y={e.labelY + 4}
          style={{
            fill: stroke(e.kind),
            fontWeight: e.kind === "measured" ? 700 : 400,
            ...OVER_LINES,
          }}
        >
          {e.name}
        </text>
      ))}
    </svg>
  );
}
