import {
  type CureCurve,
  fitCureCurve,
  fitOverbakeCurve,
  isExtrapolated,
  type PowderSchedule,
  requiredMinutes,
} from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { Plot } from "./plot/plot";
import { type Layer, ticksOf } from "./plot/spec";
import { axisOf } from "./ticks";

const BEYOND_C = 35;
const MINUTES = [1, 2, 5, 10, 20, 40, 60, 120, 240];

/** A powder's schedule: the sheet's points, the curve through them, dashed where it is only extrapolated, and the over-bake above it. */
export function ScheduleCurve({ schedule, units }: { schedule: PowderSchedule; units: UnitSystem }) {
  const found = fitCureCurve(schedule.points);
  if (!found.ok) return null;
  const curve = found.value;
  const overbake = schedule.overbake ?? [];
  const over = overbake.length > 0 ? fitOverbakeCurve(overbake, curve) : null;
  const from = curve.lowestC - BEYOND_C;
  const to = Math.max(curve.highestC, ...overbake.map((p) => p.metalC)) + BEYOND_C;
  const temps = Array.from({ length: Math.round(to - from) + 1 }, (_, i) => from + i);
  const least = Math.max(0.5, requiredMinutes(curve, to));
  const most = Math.max(requiredMinutes(curve, from), ...overbake.map((p) => p.minutes)) * 1.1;
  const draw = (of: CureCurve, tone: "in" | "out", label: string): Layer[] =>
    [true, false].map((extrapolated) => ({
      kind: "curve",
      tone,
      width: extrapolated ? 1.2 : 2.4,
      points: temps.map((c) => {
        const minutes = requiredMinutes(of, c);
        return minutes >= least && minutes <= most && (extrapolated || !isExtrapolated(of, c))
          ? ([c, minutes] as const)
          : null;
      }),
      ...(extrapolated ? { dash: "4 4" } : { label }),
    }));
  return (
    <Plot
      label="Minutes needed at each metal temperature"
      width={420}
      height={220}
      spec={{
        x: axisOf("temperature", [from, to], units),
        y: {
          domain: [least, most],
          log: true,
          ticks: ticksOf(
            MINUTES.filter((m) => m >= least && m <= most),
            String,
          ),
          title: "min",
          lines: true,
        },
        layers: [
          ...draw(curve, "in", "cured"),
          ...(over?.ok ? draw(over.value, "out", "over-baked") : []),
          { kind: "marks", marks: schedule.points.map((p) => ({ x: p.metalC, y: p.minutes, tone: "in", r: 4 })) },
          {
            kind: "marks",
            marks: overbake.map((p) => ({ x: p.metalC, y: p.minutes, tone: "out", shape: "square", r: 4 })),
          },
        ],
      }}
      readings={temps.flatMap((c) => {
        const minutes = requiredMinutes(curve, c);
        return minutes >= least && minutes <= most
          ? [{ x: c, y: minutes, says: `${withUnit(c, "temperature", units)}: cured in ${minutes.toFixed(1)} min` }]
          : [];
      })}
    />
  );
}
