"use client";
import { useState } from "react";
import type { Box } from "./layout";
import { textWidth } from "./text-width";

export type CursorPoint = { readonly x: number; readonly y: number; readonly says: string | (() => string) };
const said = ({ says }: CursorPoint): string => (typeof says === "string" ? says : says());

/** Reads the values of a chart one by one, each at its place in px: by pointer, by touch, or with the focus on it by the arrow keys. */
export function Cursor({
  name,
  plot,
  width,
  points,
  shift = 0,
  scatter = false,
}: {
  name: string;
  plot: Box;
  width: number;
  points: readonly CursorPoint[];
  /** By how much they are moved sideways, px. */
  shift?: number;
  scatter?: boolean;
}) {
  const [at, setAt] = useState<number | null>(null);
  const seen = (p: CursorPoint) => p.x + shift >= plot.left - 1 && p.x + shift <= plot.right + 1;
  const last = points.findLastIndex(seen);
  if (last < 0) return null;
  const first = points.findIndex(seen);
  const held = (i: number) => Math.min(last, Math.max(first, i));
  const read = at === null ? null : points[held(at)];
  const point = read && { ...read, x: read.x + shift };
  const nearest = (px: number, py: number) => {
    let [best, least] = [first, Number.POSITIVE_INFINITY];
    for (let i = first; i <= last; i++) {
      const p = points[i] as CursorPoint;
      const far = Math.hypot(p.x + shift - px, scatter ? p.y - py : 0);
      if (far < least) [best, least] = [i, far];
    }
    return best;
  };
  const words = point ? said(point) : "";
  const wide = textWidth(words) + 14;
  const left = point ? Math.max(0, Math.min(width - wide, point.x - wide / 2)) : 0;
  const [w, h] = [plot.right - plot.left, plot.bottom - plot.top];
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${name}: values`}
      aria-valuemin={first}
      aria-valuemax={last}
      aria-valuenow={held(at ?? last)}
      aria-valuetext={said(point ?? (points[last] as CursorPoint))}
      onKeyDown={(e) => {
        const step = { ArrowLeft: -1, ArrowRight: 1, Home: -points.length, End: points.length }[e.key];
        if (step === undefined || e.altKey) return;
        e.preventDefault();
        setAt((i) => held((i ?? last) + step));
      }}
      onBlur={() => setAt(null)}
      onPointerMove={(e) => {
        // What is dragged is moved, not read.
        if (e.pointerType === "mouse" && e.buttons !== 0) return setAt(null);
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
            {words}
          </text>
        </g>
      )}
    </g>
  );
}
