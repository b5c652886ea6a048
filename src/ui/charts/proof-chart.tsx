import { Plot } from "./plot/plot";
import { ticksOf } from "./plot/spec";

export type ProofMark = {
  readonly rack: string;
  readonly index: number;
  readonly grade: number;
  readonly passed: boolean;
};
const MOST_INDEX = 260;

/** Rub grade over cure index, rack by rack: 100 is cured by the sheet, the safe index by the site's own rubs. */
export function ProofChart({ points, safeIndex }: { points: readonly ProofMark[]; safeIndex: number | null }) {
  const marks = points.map((p, i) => ({
    x: Math.min(p.index, MOST_INDEX),
    y: p.grade,
    tone: p.passed ? ("in" as const) : ("out" as const),
    shape: p.passed ? ("dot" as const) : ("square" as const),
    r: 4,
    opacity: 0.75,
    // Racks of one grade and nearly one index stand beside one another.
    lift: ((i % 5) - 2) * 2.5,
    says: `rack ${p.rack}: index ${p.index.toFixed(0)}, grade ${p.grade}`,
  }));
  return (
    <Plot
      label="Rub grade over cure index"
      width={560}
      height={230}
      scatter
      readings={marks}
      spec={{
        x: { domain: [0, MOST_INDEX], ticks: ticksOf([0, 50, 100, 150, 200, 250], String), title: "cure index" },
        y: { domain: [-0.4, 5.4], ticks: ticksOf([0, 1, 2, 3, 4, 5], String), title: "rub grade", lines: true },
        layers: [
          { kind: "moment", x: 100, tone: "ink", dash: "4 3", label: "100, the sheet", must: true },
          ...(safeIndex === null
            ? []
            : [
                {
                  kind: "moment" as const,
                  x: safeIndex,
                  tone: "in" as const,
                  width: 2,
                  label: `from ${safeIndex.toFixed(0)} every rub passed`,
                  must: true,
                },
              ]),
          { kind: "marks", marks: marks.map(({ says, ...m }) => m) },
        ],
      }}
    />
  );
}
