import { scaleLinear } from "d3";
import { countOf } from "../format";
import { Plot } from "./plot/plot";
import { type Layer, ticksOf } from "./plot/spec";

export type ForetoldPoint = { readonly foretoldS: number; readonly measuredS: number; readonly label: string };

/** Foretold against measured time to the metal's temperature, with the ±5 % lines. */
export function ForetoldChart({ points }: { points: readonly ForetoldPoint[] }) {
  const all = points.flatMap((p) => [p.foretoldS / 60, p.measuredS / 60]);
  const domain = [Math.min(...all) * 0.9, Math.max(...all) * 1.1] as const;
  const ticks = ticksOf(scaleLinear([...domain], [0, 1]).ticks(5), String);
  const marks = points.map((p) => ({ x: p.foretoldS / 60, y: p.measuredS / 60, says: p.label, p }));
  return (
    <Plot
      label={`Time to temperature, foretold against measured, of ${countOf(points.length, "bake")}`}
      width={330}
      height={250}
      scatter
      readings={marks}
      spec={{
        x: { domain, ticks, title: "foretold, min" },
        y: { domain, ticks, title: "measured, min" },
        layers: [
          ...[0.95, 1, 1.05].map(
            (f): Layer => ({
              kind: "curve",
              points: domain.map((v) => [v, v * f] as const),
              ...(f === 1 ? { tone: "ink" } : { tone: "rule", dash: "4 4" }),
            }),
          ),
          {
            kind: "marks",
            marks: marks.map(({ p, x, y }) => ({
              x,
              y,
              r: 3.5,
              tone: Math.abs(p.foretoldS / p.measuredS - 1) <= 0.05 ? "in" : "watch",
            })),
          },
        ],
      }}
    />
  );
}
