import { area, line, scaleLinear } from "d3";
import type { StopEffect, Zone } from "@/core/cure";

const W = 760;
const H = 164;
/** The names of the zones stand above the picture, in two rows. */
const TOP = 32;

/** Over-bake index of a piece by where in the oven it stood when the line stopped; over 100 is spoilt. */
export function StopChart({
  effects,
  lengthM,
  zones,
}: {
  effects: readonly StopEffect[];
  lengthM: number;
  zones: readonly Zone[];
}) {
  const value = (e: StopEffect) => e.overbake ?? e.index;
  const most = Math.max(120, ...effects.map(value)) * 1.05;
  const x = scaleLinear([0, lengthM], [40, W - 20]);
  const y = scaleLinear([0, Math.min(most, 600)], [H - 22, TOP]).clamp(true);
  const draw = line<StopEffect>(
    (e) => x(e.atM),
    (e) => y(value(e)),
  );
  const over = area<StopEffect>(
    (e) => x(e.atM),
    y(100),
    (e) => y(Math.max(100, value(e))),
  );
  let atM = 0;
  return (
    <div className="overflow-x-auto">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        className="h-auto max-w-full"
        role="img"
        aria-label="Over-bake by where in the oven the piece stood"
      >
        {zones.map((z, i) => {
          const from = atM;
          atM += z.lengthM;
          return (
            <g key={z.name}>
              <line x1={x(from)} x2={x(from)} y1="6" y2={H - 22} stroke="var(--rule)" />
              <text x={x(from) + 4} y={14 + 13 * (i % 2)}>
                {z.name}
              </text>
            </g>
          );
        })}
        <line x1="40" x2={W - 20} y1={y(100)} y2={y(100)} stroke="var(--out)" strokeDasharray="4 3" />
        <text x="36" y={y(100) + 4} textAnchor="end" style={{ fill: "var(--out)" }}>
          100
        </text>
        <path d={over(effects as StopEffect[]) ?? ""} fill="var(--out)" opacity="0.25" />
        <path d={draw(effects as StopEffect[]) ?? ""} fill="none" stroke="var(--ink)" strokeWidth="2" />
        {x.ticks(8).map((m) => (
          <text key={m} x={x(m)} y={H - 6} textAnchor="middle">
            {m} m
          </text>
        ))}
      </svg>
    </div>
  );
}
