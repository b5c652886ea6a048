import { line, scaleLinear, scaleLog } from "d3";
import { fitCureCurve, fitOverbakeCurve, isExtrapolated, type PowderSchedule, requiredMinutes } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";

const W = 420;
const H = 210;
const BEYOND_C = 35;

/** A powder's schedule: the sheet's points, the curve through them, dashed where it is only extrapolated, and the over-bake above it. */
export function ScheduleCurve({ schedule, units }: { schedule: PowderSchedule; units: UnitSystem }) {
  const curve = fitCureCurve(schedule.points);
  if (!curve.ok) return null;
  const over = schedule.overbake?.length ? fitOverbakeCurve(schedule.overbake, curve.value) : null;
  const from = curve.value.lowestC - BEYOND_C;
  const to = Math.max(curve.value.highestC, ...(schedule.overbake ?? []).map((p) => p.metalC)) + BEYOND_C;
  const temps = Array.from({ length: Math.round(to - from) + 1 }, (_, i) => from + i);
  const most = Math.max(requiredMinutes(curve.value, from), ...(schedule.overbake ?? []).map((p) => p.minutes));
  const least = requiredMinutes(curve.value, to);
  const x = scaleLinear([from, to], [42, W - 12]);
  const y = scaleLog([Math.max(0.5, least), most * 1.1], [H - 26, 10]).clamp(true);
  const draw = (of: typeof curve.value) =>
    [true, false].map((dashed) => {
      const path = line<number>(
        (c) => x(c),
        (c) => y(requiredMinutes(of, c)),
      ).defined((c) => requiredMinutes(of, c) <= most * 1.1 && (dashed || !isExtrapolated(of, c)));
      return { dashed, d: path(temps) ?? "" };
    });
  const ticks = [1, 2, 5, 10, 20, 40, 60, 120, 240].filter((m) => m >= least && m <= most * 1.1);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width={W}
      className="h-auto max-w-full"
      role="img"
      aria-label="Minutes needed at each metal temperature"
    >
      {ticks.map((m) => (
        <g key={m}>
          <line x1="42" x2={W - 12} y1={y(m)} y2={y(m)} stroke="var(--rule)" />
          <text x="38" y={y(m) + 4} textAnchor="end">
            {m}
          </text>
        </g>
      ))}
      <text x="4" y="10">
        min
      </text>
      {temps
        .filter((c) => Math.round(c) % 20 === 0)
        .map((c) => (
          <text key={c} x={x(c)} y={H - 8} textAnchor="middle">
            {withUnit(c, "temperature", units)}
          </text>
        ))}
      {draw(curve.value).map((p) => (
        <path
          key={`c${p.dashed}`}
          d={p.d}
          fill="none"
          stroke="var(--in)"
          strokeWidth={p.dashed ? 1.2 : 2.4}
          strokeDasharray={p.dashed ? "4 4" : undefined}
        />
      ))}
      {over?.ok &&
        draw(over.value).map((p) => (
          <path
            key={`o${p.dashed}`}
            d={p.d}
            fill="none"
            stroke="var(--out)"
            strokeWidth={p.dashed ? 1.2 : 2.4}
            strokeDasharray={p.dashed ? "4 4" : undefined}
          />
        ))}
      {schedule.points.map((p) => (
        <circle key={`p${p.metalC}`} cx={x(p.metalC)} cy={y(p.minutes)} r="4" fill="var(--in)" />
      ))}
      {(schedule.overbake ?? []).map((p) => (
        <rect key={`q${p.metalC}`} x={x(p.metalC) - 4} y={y(p.minutes) - 4} width="8" height="8" fill="var(--out)" />
      ))}
      <text
        x={x(curve.value.lowestC) - 6}
        y={y(requiredMinutes(curve.value, curve.value.lowestC)) + 18}
        textAnchor="end"
        style={{ fill: "var(--in)" }}
      >
        cured
      </text>
      {over?.ok && schedule.overbake?.[0] && (
        <text
          x={x(schedule.overbake[0].metalC) + 8}
          y={y(schedule.overbake[0].minutes) - 6}
          style={{ fill: "var(--out)" }}
        >
          over-baked
        </text>
      )}
    </svg>
  );
}
