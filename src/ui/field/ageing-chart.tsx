import type { SurvivalCurve } from "@/core/field";
import { Plot } from "../charts/plot/plot";
import { percent } from "../format";

/** The share that stands, over the years: stepped where one failed, with its 95 %, ticked where one was seen last and stood. */
export function AgeingChart({
  curve,
  followed,
  years,
}: {
  curve: SurvivalCurve;
  followed: readonly { readonly years: number; readonly failed: boolean }[];
  /** The longest of all groups, so that they are seen on one scale. */
  years: number;
}) {
  const points: [number, number][] = [[0, 1]];
  const area: [number, number, number][] = [[0, 1, 1]];
  let now = 1;
  let band: readonly [number, number] = [1, 1];
  for (const s of curve.steps) {
    points.push([s.years, now], [s.years, s.stands]);
    area.push([s.years, band[0], band[1]], [s.years, s.interval[0], s.interval[1]]);
    now = s.stands;
    band = s.interval;
  }
  points.push([curve.longestYears, now]);
  area.push([curve.longestYears, band[0], band[1]]);
  const at = (y: number) => points.filter(([x]) => x <= y).at(-1)?.[1] ?? 1;
  return (
    <Plot
      label={`${percent(now)} of ${curve.n} stand after ${curve.longestYears.toFixed(1)} years; ${curve.failed} failed`}
      width={420}
      height={170}
      spec={{
        x: {
          domain: [0, years],
          ticks: Array.from({ length: Math.floor(years) + 1 }, (_, i) => ({ at: i, label: String(i) })),
          title: "years",
        },
        y: {
          domain: [0, 1],
          ticks: [0, 0.25, 0.5, 0.75, 1].map((v) => ({ at: v, label: percent(v) })),
          lines: true,
        },
        layers: [
          { kind: "area", points: area, tone: "sorrel", opacity: 0.18 },
          { kind: "curve", points, tone: "sorrel", width: 2.2, strong: true },
          {
            kind: "marks",
            marks: followed
              .filter((f) => !f.failed)
              .map((f) => ({
                x: f.years,
                y: at(f.years),
                tone: "ink",
                shape: "ring",
                r: 3,
                says: `stood when it was seen last, after ${f.years.toFixed(1)} years`,
              })),
          },
        ],
      }}
    />
  );
}
