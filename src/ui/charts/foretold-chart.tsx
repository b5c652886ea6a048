import { scaleLinear } from "d3";

export type ForetoldPoint = { readonly foretoldS: number; readonly measuredS: number; readonly label: string };
const W = 300;
const H = 230;

/** Foretold against measured time to the metal's temperature, with the ±5 % lines. */
export function ForetoldChart({ points }: { points: readonly ForetoldPoint[] }) {
  const all = points.flatMap((p) => [p.foretoldS, p.measuredS]).map((s) => s / 60);
  const [low, high] = [Math.min(...all) * 0.9, Math.max(...all) * 1.1];
  const x = scaleLinear([low, high], [40, W - 12]);
  const y = scaleLinear([low, high], [H - 30, 10]);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width={W}
      className="h-auto max-w-full"
      role="img"
      aria-label={`Time to temperature, foretold against measured, of ${points.length} bakes`}
    >
      {[0.95, 1, 1.05].map((f) => (
        <line
          key={f}
          x1={x(low)}
          y1={y(Math.min(high, low * f))}
          x2={x(Math.min(high, high / f))}
          y2={y(Math.min(high, Math.min(high, high / f) * f))}
          stroke={f === 1 ? "var(--ink)" : "var(--rule-strong)"}
          strokeDasharray={f === 1 ? undefined : "4 4"}
        />
      ))}
      {points.map((p) => (
        <circle
          key={p.label}
          cx={x(p.foretoldS / 60)}
          cy={y(p.measuredS / 60)}
          r="3.5"
          fill={Math.abs(p.foretoldS / p.measuredS - 1) <= 0.05 ? "var(--in)" : "var(--watch)"}
        >
          <title>{p.label}</title>
        </circle>
      ))}
      {x.ticks(5).map((t) => (
        <text key={t} x={x(t)} y={H - 14} textAnchor="middle">
          {t}
        </text>
      ))}
      {y.ticks(5).map((t) => (
        <text key={t} x="36" y={y(t) + 4} textAnchor="end">
          {t}
        </text>
      ))}
      <text x={W - 12} y={H - 2} textAnchor="end">
        foretold, min
      </text>
      <text x="2" y="10">
        measured
      </text>
    </svg>
  );
}
