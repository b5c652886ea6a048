import { line, scaleLinear } from "d3";
import type { SubgroupChart as Chart } from "@/core/control-charts";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";

const W = 820;
const PANEL = 120;
const RIGHT = 86;

/** Means of subgroups over their spreads, each with its centre and limits; what lies beyond is marked by shape. */
export function SubgroupChart({ chart, names, units }: { chart: Chart; names: readonly string[]; units: UnitSystem }) {
  const n = chart.means.length;
  const x = scaleLinear()
    .domain([0, Math.max(1, n - 1)])
    .range([10, W - RIGHT]);
  const panel = (
    title: string,
    values: readonly number[],
    [lower, centre, upper]: readonly [number, number, number],
    top: number,
  ) => {
    const y = scaleLinear()
      .domain([Math.min(lower, ...values), Math.max(upper, ...values)])
      .nice()
      .range([top + PANEL - 6, top + 18]);
    const path = line<number>((_, i) => x(i), y)(values);
    return (
      <g key={title}>
        <text x="10" y={top + 10} className="small">
          {title}
        </text>
        {(
          [
            [upper, "var(--out)"],
            [centre, "var(--rule-strong)"],
            [lower, "var(--out)"],
          ] as const
        ).map(([at, colour]) => (
          <g key={`${title}${at}`}>
            <line
              x1="10"
              x2={W - RIGHT}
              y1={y(at)}
              y2={y(at)}
              stroke={colour}
              strokeDasharray={colour === "var(--out)" ? "" : "4 4"}
            />
            <text x={W - RIGHT + 6} y={y(at) + 4} style={{ fill: colour === "var(--out)" ? colour : "var(--ink-2)" }}>
              {withUnit(at, "thickness", units)}
            </text>
          </g>
        ))}
        <path d={path ?? ""} fill="none" stroke="var(--ink)" strokeWidth="1.4" />
        {values.map((value, i) => {
          const out = value > upper || value < lower;
          return out ? (
            <rect key={names[i]} x={x(i) - 4} y={y(value) - 4} width="8" height="8" fill="var(--out)">
              <title>{`Rack ${names[i]}: ${withUnit(value, "thickness", units)}`}</title>
            </rect>
          ) : (
            <circle key={names[i]} cx={x(i)} cy={y(value)} r="2.6" fill="var(--ink)">
              <title>{`Rack ${names[i]}: ${withUnit(value, "thickness", units)}`}</title>
            </circle>
          );
        })}
      </g>
    );
  };
  return (
    <svg
      viewBox={`0 0 ${W} ${2 * PANEL + 18}`}
      className="h-auto w-full"
      role="img"
      aria-label="Means and spreads of the newest racks"
    >
      {panel("mean of the rack’s spots", chart.means, [chart.lower, chart.centre, chart.upper], 0)}
      {panel(
        "spread within the rack",
        chart.spreads,
        [chart.spreadLower, chart.meanSpread, chart.spreadUpper],
        PANEL + 8,
      )}
      <text x="10" y={2 * PANEL + 16} className="small">
        rack {names[0]}
      </text>
      <text x={W - RIGHT} y={2 * PANEL + 16} textAnchor="end" className="small">
        rack {names.at(-1)}
      </text>
    </svg>
  );
}
