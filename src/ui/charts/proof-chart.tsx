import { scaleLinear } from "d3";
import { OVER_LINES } from "./over-lines";

export type ProofMark = {
  readonly rack: string;
  readonly index: number;
  readonly grade: number;
  readonly passed: boolean;
};
const W = 560;
const H = 210;
const MOST_INDEX = 260;

/** Rub grade over cure index, rack by rack: 100 is cured by the sheet, the safe index by the site's own rubs. */
export function ProofChart({ points, safeIndex }: { points: readonly ProofMark[]; safeIndex: number | null }) {
  const x = scaleLinear([0, MOST_INDEX], [40, W - 12]).clamp(true);
  const y = scaleLinear([-0.4, 5.4], [H - 28, 12]);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width={W}
      className="h-auto max-w-full"
      role="img"
      aria-label="Rub grade over cure index"
    >
      {[0, 1, 2, 3, 4, 5].map((g) => (
        <g key={g}>
          <line x1="40" x2={W - 12} y1={y(g)} y2={y(g)} stroke="var(--rule)" />
          <text x="34" y={y(g) + 4} textAnchor="end">
            {g}
          </text>
        </g>
      ))}
      <line x1={x(100)} x2={x(100)} y1="12" y2={H - 28} stroke="var(--ink)" strokeDasharray="4 3" />
      <text x={x(100) - 5} y={y(0.5) + 4} textAnchor="end" style={OVER_LINES}>
        100, the sheet
      </text>
      {safeIndex !== null && (
        <>
          <line x1={x(safeIndex)} x2={x(safeIndex)} y1="12" y2={H - 28} stroke="var(--in)" strokeWidth="2" />
          <text x={Math.max(x(safeIndex), x(100)) + 5} y={y(3.5) + 4} style={{ ...OVER_LINES, fill: "var(--in)" }}>
            from {safeIndex.toFixed(0)} every rub passed
          </text>
        </>
      )}
      {points.map((p, i) => (
        <circle
          key={`${p.rack}${p.index}`}
          cx={x(p.index)}
          cy={y(p.grade) + ((i % 5) - 2) * 2.5}
          r="4"
          fill={p.passed ? "var(--in)" : "var(--out)"}
          fillOpacity="0.75"
        >
          <title>{`rack ${p.rack}: index ${p.index.toFixed(0)}, grade ${p.grade}`}</title>
        </circle>
      ))}
      {[0, 50, 100, 150, 200, 250].map((t) => (
        <text key={t} x={x(t)} y={H - 12} textAnchor="middle">
          {t}
        </text>
      ))}
      <text x={W - 12} y={H - 1} textAnchor="end">
        cure index
      </text>
      <text x="2" y="10">
        rub
      </text>
    </svg>
  );
}
