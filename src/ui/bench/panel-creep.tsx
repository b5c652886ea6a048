import { Plot } from "../charts/plot/plot";

/** Creep from the scribe over hours in a cabinet, reading by reading, with when it is read next. */
export function PanelCreep({
  points,
  nextHours,
}: {
  points: readonly { readonly hours: number; readonly creepMm: number }[];
  nextHours: number | null;
}) {
  const mostH = Math.max(1, nextHours ?? 0, ...points.map((p) => p.hours));
  const mostMm = 1.15 * Math.max(1, ...points.map((p) => p.creepMm));
  const ticks = (most: number, unit: string, digits: number) =>
    [0, 0.25, 0.5, 0.75, 1].map((t) => ({
      at: most * t,
      label: `${(most * t).toFixed(digits)}${t === 1 ? ` ${unit}` : ""}`,
    }));
  return (
    <Plot
      label={`Creep over hours: ${points.map((p) => `${p.creepMm.toFixed(1)} mm at ${p.hours} h`).join("; ")}`}
      width={620}
      height={220}
      readings={points.map((p) => ({ x: p.hours, y: p.creepMm, says: `${p.creepMm.toFixed(1)} mm at ${p.hours} h` }))}
      spec={{
        x: { domain: [0, mostH], ticks: ticks(mostH, "h", 0) },
        y: { domain: [0, mostMm], ticks: ticks(mostMm, "mm", 1), lines: true },
        layers: [
          { kind: "curve", points: points.map((p) => [p.hours, p.creepMm] as const), tone: "sorrel", width: 2 },
          { kind: "marks", marks: points.map((p) => ({ x: p.hours, y: p.creepMm, tone: "sorrel", r: 5 })) },
          ...(nextHours === null
            ? []
            : [{ kind: "moment" as const, x: nextHours, label: "next", tone: "watch" as const, dash: "4 4" }]),
        ],
      }}
    />
  );
}
