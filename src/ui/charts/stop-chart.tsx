import type { StopEffect, Zone } from "@/core/cure";
import { quantities, type UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { Plot } from "./plot/plot";
import { type Layer, ticksOf } from "./plot/spec";
import { axisOf } from "./ticks";

const MOST = 600;

/** Over-bake index of a piece by where in the oven it stood when the line stopped; over 100 is spoilt. */
export function StopChart({
  effects,
  lengthM,
  zones,
  units,
}: {
  effects: readonly StopEffect[];
  lengthM: number;
  zones: readonly Zone[];
  units: UnitSystem;
}) {
  const value = (e: StopEffect) => Math.min(MOST, e.overbake ?? e.index);
  const most = Math.min(MOST, Math.max(120, ...effects.map(value)) * 1.05);
  const starts = zones.map((z, i) => ({ z, x: zones.slice(0, i).reduce((m, before) => m + before.lengthM, 0) }));
  return (
    <Plot
      label="Over-bake by where in the oven the piece stood"
      width={760}
      height={176}
      spec={{
        x: { ...axisOf("length", [0, lengthM], units, 8), title: `${quantities.length[units]} from the door` },
        y: {
          domain: [0, most],
          ticks: ticksOf(
            [0, 100, 200, 300, 400, 500, 600].filter((t) => t <= most),
            String,
          ),
        },
        layers: [
          ...starts.map(({ z, x }): Layer => ({ kind: "moment", x, tone: "rule", label: z.name, must: true })),
          { kind: "level", y: 100, tone: "out", dash: "4 3", label: "spoilt" },
          {
            kind: "area",
            points: effects.map((e) => [e.atM, Math.min(100, most), Math.max(100, value(e))]),
            tone: "out",
            opacity: 0.25,
          },
          { kind: "curve", points: effects.map((e) => [e.atM, value(e)]), tone: "ink", width: 2 },
        ],
      }}
      readings={effects.map((e) => ({
        x: e.atM,
        y: value(e),
        says: `${withUnit(e.atM, "length", units)}: over-bake ${(e.overbake ?? e.index).toFixed(0)}`,
      }))}
    />
  );
}
