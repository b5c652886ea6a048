"use client";
import { useMemo, useState } from "react";
import { type Layout, textWidth } from "./layout";
import type { Reading } from "./spec";

/** Reads the values of a chart one by one: by pointer, by touch, or with the focus on it by the arrow keys. */
export function Cursor({
  name,
  layout,
  readings,
  scatter = false,
}: {
  name: string;
  layout: Layout;
  readings: readonly Reading[];
  scatter?: boolean;
}) {
  const { plot, x, y, width } = layout;
  const [at, setAt] = useState<number | null>(null);
  const points = useMemo(
    () =>
      readings
        .map((r) => ({ x: x(r.x), y: y(r.y), says: r.says }))
        .filter((p) => p.x >= plot.left - 1 && p.x <= plot.right + 1),
    [readings, x, y, plot],
  );
  const last = points.length - 1;
  if (last < 0) return null;
  const point = at === null ? null : points[Math.min(at, last)];
  const far = (p: { x: number; y: number }, px: number, py: number) => Math.hypot(p.x - px, scatter ? p.y - py : 0);
  const nearest = (px: number, py: number) =>
    points.reduce((best, p, i) => (far(p, px, py) < far(points[best] ?? p, px, py) ? i : best), 0);
  const wide = point ? textWidth(point.says) + 14 : 0;
  const left = point ? Math.max(0, Math.min(width - wide, point.x - wide / 2)) : 0;
  const [w, h] = [plot.right - plot.left, plot.bottom - plot.top];
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${name}: values`}
      aria-valuemin={0}
      aria-valuemax={last}
      aria-valuenow={Math.min(at ?? last, last)}
      aria-valuetext={(point ?? points[last])?.says}
      onKeyDown={(e) => {
        const step = { ArrowLeft: -1, ArrowRight: 1, Home: -points.length, End: points.length }[e.key];
        if (step === undefined || e.altKey) return;
        e.preventDefault();
        setAt((i) => Math.min(last, Math.max(0, (i ?? last) + step)));
      }}
      onBlur={() => setAt(null)}
      onPointerMove={(e) => {
        const box = e.currentTarget.querySelector("rect")?.getBoundingClientRect();
        if (box?.width)
          setAt(
            nearest(
              plot.left + ((e.clientX - box.left) / box.width) * w,
              plot.top + ((e.clientY - box.top) / box.height) * h,
            ),
          );
      }}
      onPointerLeave={() => setAt(null)}
    >
      <rect x={plot.left} y={plot.top} width={Math.max(0, w)} height={Math.max(0, h)} fill="transparent" />
      {point && (
        <g pointerEvents="none" data-cursor="">
          <path d={`M${point.x} ${plot.top}V${plot.bottom}`} stroke="var(--ink-2)" />
          <circle cx={point.x} cy={point.y} r="5" fill="none" stroke="var(--sorrel)" strokeWidth="2.2" />
          <rect
            x={left}
            y={plot.bottom + 1}
            width={wide}
            height="18"
            fill="var(--raised)"
            stroke="var(--rule-strong)"
          />
          <text x={left + 7} y={plot.bottom + 14} style={{ fill: "var(--ink)" }}>
            {point.says}
          </text>
        </g>
      )}
    </g>
  );
}
