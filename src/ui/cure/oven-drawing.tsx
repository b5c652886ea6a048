import type { OvenSurvey } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { THICK_COLOUR, THIN_COLOUR } from "../charts/part-sketch";
import { withUnit } from "../format";

const W = 420;
const H = 300;
export const OVEN_VIEW = { width: W, height: H };
/** Where a place lies in the drawing. */
export const placeAt = ([across, deep]: readonly [number, number]): [number, number] => [
  40 + ((W - 80) * across) / 100,
  30 + ((H - 96) * deep) / 100,
];

/** An oven from above, its door below: where racks hang, and how far each place was off at the newest survey. */
export function OvenDrawing({
  places,
  survey,
  racks = [],
  spreadMostC,
  inside,
  units,
}: {
  places: readonly { readonly id: string; readonly at: readonly [number, number]; readonly note: string }[];
  survey: OvenSurvey | null;
  /** What hangs where. */
  racks?: readonly { readonly rack: string; readonly place: string }[];
  spreadMostC: number;
  inside: { readonly lengthMm: number; readonly widthMm: number } | null;
  units: UnitSystem;
}) {
  const off = new Map(survey?.places.map((p) => [p.place.toLowerCase(), p]) ?? []);
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width={W} className="h-auto max-w-full" role="img" aria-label="The oven from above">
      <rect x="10" y="8" width={W - 20} height={H - 40} fill="none" stroke="var(--ink)" strokeWidth="2" />
      <line x1={W / 2 - 70} x2={W / 2 + 70} y1={H - 32} y2={H - 32} stroke="var(--bench)" strokeWidth="5" />
      <line
        x1={W / 2 - 70}
        x2={W / 2 + 70}
        y1={H - 32}
        y2={H - 32}
        stroke="var(--sorrel)"
        strokeWidth="2"
        strokeDasharray="6 4"
      />
      <text x={W / 2} y={H - 14} textAnchor="middle" style={{ fill: "var(--sorrel)" }}>
        door
      </text>
      {inside && (
        <text x={W - 12} y={H - 14} textAnchor="end">
          {(inside.lengthMm / 1000).toFixed(1)} × {(inside.widthMm / 1000).toFixed(1)} m
        </text>
      )}
      {places.map((p) => {
        const [x, y] = placeAt(p.at);
        const here = off.get(p.id.toLowerCase());
        const far = here ? Math.abs(here.offC) > spreadMostC / 2 : false;
        return (
          <g key={p.id}>
            <circle
              cx={x}
              cy={y}
              r="27"
              fill={here ? (here.offC < 0 ? THIN_COLOUR : THICK_COLOUR) : "none"}
              fillOpacity={here ? Math.min(0.6, 0.08 + Math.abs(here.offC) / 20) : 0}
              stroke={far ? "var(--out)" : "var(--rule-strong)"}
              strokeWidth={far ? 2.5 : 1.5}
            />
            <text x={x} y={y - 2} textAnchor="middle" style={{ fontWeight: 700 }}>
              {p.id}
            </text>
            {racks
              .filter((r) => r.place.toLowerCase() === p.id.toLowerCase())
              .map((r, i) => (
                <text
                  key={r.rack}
                  x={x}
                  y={y + 13 + 12 * i}
                  textAnchor="middle"
                  style={{ fill: "var(--sorrel)", fontWeight: 700 }}
                >
                  {r.rack}
                </text>
              ))}
            {here && (
              <text x={x} y={y + 13} textAnchor="middle">
                {here.offC > 0 ? "+" : "−"}
                {withUnit(Math.abs(here.offC), "temperatureDifference", units).split(" ")[0]}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
