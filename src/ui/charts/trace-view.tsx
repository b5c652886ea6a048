"use client";
import { type ComponentProps, useRef, useState } from "react";
import { TraceChart } from "./trace-chart";

const LEAST_S = 60;

/** An oven trace to look closer at: by its buttons, by key (+, −, arrows on the chart's frame), by wheel and by drag. */
export function TraceView(props: Omit<ComponentProps<typeof TraceChart>, "fromS" | "toS">) {
  const lastS = Math.max(60, ...props.channels.map((c) => c.timeS.at(-1) ?? 0));
  const [span, setSpan] = useState<readonly [number, number]>([0, lastS]);
  const drag = useRef<{ x: number; span: readonly [number, number] } | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const show = (from: number, length: number) => {
    const long = Math.min(lastS, Math.max(LEAST_S, length));
    const start = Math.min(Math.max(0, from), lastS - long);
    setSpan([start, start + long]);
  };
  const [from, to] = span;
  const long = to - from;
  const zoom = (by: number, atShare = 0.5) => {
    const length = Math.min(lastS, Math.max(LEAST_S, long * by));
    show(from + (long - length) * atShare, length);
  };
  const whole = from <= 0 && to >= lastS;
  return (
    <div>
      <div
        ref={frame}
        className={whole ? "" : "cursor-grab"}
        onWheel={(e) => {
          if (!e.ctrlKey && whole && e.deltaY > 0) return;
          const box = e.currentTarget.getBoundingClientRect();
          zoom(e.deltaY > 0 ? 1.25 : 0.8, (e.clientX - box.left) / box.width);
        }}
        onPointerDown={(e) => {
          if (!whole) drag.current = { x: e.clientX, span };
        }}
        onPointerMove={(e) => {
          const held = drag.current;
          const box = frame.current?.getBoundingClientRect();
          if (!held || !box) return;
          show(held.span[0] - ((e.clientX - held.x) / box.width) * (held.span[1] - held.span[0]), long);
        }}
        onPointerUp={() => {
          drag.current = null;
        }}
        onPointerLeave={() => {
          drag.current = null;
        }}
      >
        <TraceChart {...props} fromS={from} toS={to} />
      </div>
      <p className="no-print m-0 flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={() => zoom(0.5)} disabled={long <= LEAST_S}>
          Closer
        </button>
        <button type="button" className="btn" onClick={() => zoom(2)} disabled={whole}>
          Wider
        </button>
        <button type="button" className="btn" onClick={() => show(from - long / 2, long)} disabled={from <= 0}>
          Earlier
        </button>
        <button type="button" className="btn" onClick={() => show(from + long / 2, long)} disabled={to >= lastS}>
          Later
        </button>
        {!whole && (
          <button type="button" className="btn" onClick={() => show(0, lastS)}>
            All of it
          </button>
        )}
      </p>
    </div>
  );
}
