"use client";
import { useState } from "react";

export type CursorPoint = { readonly x: number; readonly y: number; readonly label: string };

/** Lays a readable cursor over a chart: hover, or focus and the arrow keys, to read each value. */
export function Cursor({
  points,
  width,
  height,
  name,
}: {
  points: readonly CursorPoint[];
  width: number;
  height: number;
  name: string;
}) {
  const [at, setAt] = useState<number | null>(null);
  const point = at === null ? null : points[at];
  const nearest = (x: number) =>
    points.reduce((best, p, i) => (Math.abs(p.x - x) < Math.abs((points[best]?.x ?? 0) - x) ? i : best), 0);
  if (points.length === 0) return null;
  const left = point ? Math.min(Math.max(point.x - 80, 0), width - 200) : 0;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${name}: values`}
      aria-valuemin={0}
      aria-valuemax={points.length - 1}
      aria-valuenow={at ?? points.length - 1}
      aria-valuetext={(point ?? points[points.length - 1])?.label}
      onKeyDown={(e) => {
        const step = { ArrowLeft: -1, ArrowRight: 1, Home: -points.length, End: points.length }[e.key];
        if (step === undefined) return;
        e.preventDefault();
        setAt((i) => Math.min(points.length - 1, Math.max(0, (i ?? points.length - 1) + step)));
      }}
      onBlur={() => setAt(null)}
      onPointerMove={(e) => {
        const box = e.currentTarget.getBoundingClientRect();
        setAt(nearest(((e.clientX - box.left) / box.width) * width));
      }}
      onPointerLeave={() => setAt(null)}
    >
      <rect width={width} height={height} fill="transparent" />
      {point && (
        <g pointerEvents="none">
          <line x1={point.x} x2={point.x} y1={0} y2={height} stroke="var(--ink-2)" strokeWidth="1" />
          <circle cx={point.x} cy={point.y} r="5" fill="none" stroke="var(--sorrel)" strokeWidth="2.2" />
          <rect x={left} y={height + 3} width={200} height={18} fill="var(--raised)" stroke="var(--rule-strong)" />
          <text x={left + 6} y={height + 16} style={{ fill: "var(--ink)" }}>
            {point.label}
          </text>
        </g>
      )}
    </g>
  );
}
