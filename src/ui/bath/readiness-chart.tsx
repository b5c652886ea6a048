import { scaleLinear, scaleTime } from "d3";
import { READY_LIMIT } from "@/core/bath";
import type { EvidenceGrade } from "@/core/verdict";
import { clock } from "../format";

const WIDTH = 820;
const HEIGHT = 74;
const FOOT = 16;
/** Room on the right for what the limit line says. */
const SAID = 150;

/** Readiness of the wash by the hour: one bar an hour, its height the index, hatched where it rests on an assumption. */
export function ReadinessChart({
  hours,
  timeZone,
}: {
  hours: readonly { readonly at: Date; readonly index: number | null; readonly grade: EvidenceGrade }[];
  timeZone: string;
}) {
  const [first, last] = [hours[0], hours.at(-1)];
  if (!first || !last) return null;
  const x = scaleTime([first.at, new Date(last.at.getTime() + 3_600_000)], [0, WIDTH - SAID]);
  const y = scaleLinear([0, 100], [HEIGHT - FOOT, 4]);
  const step = x(new Date(first.at.getTime() + 3_600_000)) - x(first.at);
  const known = hours.filter((h) => h.index !== null);
  const least = known.reduce<number | null>((m, h) => (m === null || (h.index ?? 0) < m ? h.index : m), null);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-auto w-full max-w-[820px]"
      role="img"
      aria-label={`Readiness of the wash by the hour, last ${hours.length - 1} hours; lowest ${least ?? "not known"}`}
    >
      <defs>
        <pattern id="assumed-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="5" stroke="var(--rule-strong)" strokeWidth="2" />
        </pattern>
      </defs>
      {hours.map((h) => (
        <g key={h.at.getTime()}>
          {h.index !== null && (
            <rect
              x={x(h.at) + 1}
              y={y(h.index)}
              width={Math.max(1, step - 2)}
              height={Math.max(1, HEIGHT - FOOT - y(h.index))}
              fill={h.grade === "measured" ? "var(--band)" : "url(#assumed-hatch)"}
              stroke={h.index < READY_LIMIT ? "var(--out)" : "var(--ink-2)"}
              strokeWidth={h.index < READY_LIMIT ? 2.5 : 1}
            />
          )}
          {h.at.getHours() % 6 === 0 && (
            <text x={x(h.at)} y={HEIGHT - 3}>
              {clock(h.at, timeZone)}
            </text>
          )}
        </g>
      ))}
      <line
        x1={0}
        x2={WIDTH - SAID}
        y1={y(READY_LIMIT)}
        y2={y(READY_LIMIT)}
        stroke="var(--out)"
        strokeWidth={1.5}
        strokeDasharray="5 4"
      />
      <text x={WIDTH - SAID + 6} y={y(READY_LIMIT) + 4}>
        50: at a limit
      </text>
      <text x={WIDTH - SAID + 6} y={y(100) + 8}>
        100: mid-window
      </text>
    </svg>
  );
}
