import { scaleLinear } from "d3";
import type { UnitSystem } from "@/core/units";
import { countOf, withUnit } from "../format";

export type FilmGroupRow = {
  readonly name: string;
  readonly racks: number;
  readonly meanUm: number;
  readonly sdUm: number | null;
  readonly interval: readonly [number, number] | null;
};
const W = 360;
const H = 26;

/** Groups under one another on one scale: the mean with its 95 % interval, the spread of the spots behind it, the range asked. */
export function FilmGroups({
  rows,
  domain,
  limits,
  units,
}: {
  rows: readonly FilmGroupRow[];
  domain: readonly [number, number];
  limits: { readonly minUm: number; readonly maxUm: number } | null;
  units: UnitSystem;
}) {
  const x = scaleLinear()
    .domain(domain)
    .range([4, W - 4]);
  return rows.map((r) => (
    <div
      key={r.name}
      className="row grid-cols-[140px_minmax(0,1fr)_84px_96px_84px] items-center py-0 max-[700px]:grid-cols-[110px_minmax(0,1fr)_84px]"
    >
      <span className="truncate">{r.name}</span>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        preserveAspectRatio="none"
        className="h-[26px] w-full"
        role="img"
        aria-label={`${r.name}: mean ${withUnit(r.meanUm, "thickness", units)}`}
      >
        {limits && (
          <rect
            x={x(limits.minUm)}
            width={Math.max(0, x(limits.maxUm) - x(limits.minUm))}
            y="0"
            height={H}
            fill="var(--in-tint)"
          />
        )}
        {r.sdUm !== null && (
          <line
            x1={x(r.meanUm - r.sdUm)}
            x2={x(r.meanUm + r.sdUm)}
            y1={H / 2}
            y2={H / 2}
            stroke="var(--rule-strong)"
            strokeWidth="2"
          />
        )}
        {r.interval && (
          <rect
            x={x(r.interval[0])}
            width={Math.max(2, x(r.interval[1]) - x(r.interval[0]))}
            y={H / 2 - 5}
            height="10"
            fill="var(--sorrel)"
            opacity="0.45"
          />
        )}
        <rect x={x(r.meanUm) - 1.5} width="3" y={H / 2 - 8} height="16" fill="var(--ink)" />
      </svg>
      <b className="fig num">{withUnit(r.meanUm, "thickness", units)}</b>
      <span className="num soft max-[700px]:hidden">
        {r.sdUm === null ? "" : `s ${withUnit(r.sdUm, "thickness", units)}`}
      </span>
      <span className="num soft max-[700px]:hidden">{countOf(r.racks, "rack")}</span>
    </div>
  ));
}
