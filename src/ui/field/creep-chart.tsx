import { scaleLinear } from "d3";
import type { UnitSystem } from "@/core/units";
import { figure, withUnit } from "../format";

/** Every width by zone, its mean as a line: how even the creep is, and how far. */
export function CreepChart({
  zones,
  units,
}: {
  zones: readonly { zone: string; widthsMm: readonly number[]; meanMm: number }[];
  units: UnitSystem;
}) {
  const most = Math.max(1, ...zones.flatMap((z) => z.widthsMm));
  const x = scaleLinear([0, most * 1.1], [16, 306]);
  const height = zones.length * 52 + 26;
  return (
    <svg
      viewBox={`0 0 330 ${height}`}
      width="330"
      className="h-auto max-w-full"
      role="img"
      aria-label={`Creep widths: ${zones.map((z) => `${z.zone} mean ${withUnit(z.meanMm, "creep", units)}`).join("; ")}`}
    >
      {zones.map((z, i) => (
        <g key={z.zone} transform={`translate(0,${i * 52})`}>
          <text x="8" y="14" style={{ fill: "var(--ink)" }}>
            {z.zone}
          </text>
          {z.widthsMm.map((w, k) => (
            <circle
              key={`${z.zone}${w}at${z.widthsMm.slice(0, k).filter((v) => v === w).length}`}
              cx={x(w)}
              cy={k % 2 ? 36 : 28}
              r="5"
              fill="var(--sorrel)"
              opacity=".85"
            />
          ))}
          <line x1={x(z.meanMm)} x2={x(z.meanMm)} y1="20" y2="44" stroke="var(--ink)" strokeWidth="2.5" />
        </g>
      ))}
      <line x1="8" x2="310" y1={height - 22} y2={height - 22} stroke="var(--ink)" />
      {x.ticks(6).map((t) => (
        <text key={t} x={x(t)} y={height - 7} textAnchor="middle">
          {figure(t, "creep", units).text}
        </text>
      ))}
      <text x="328" y={height - 7} textAnchor="end">
        {figure(0, "creep", units).unit}
      </text>
    </svg>
  );
}
