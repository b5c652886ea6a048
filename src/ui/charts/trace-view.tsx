"use client";
import { type ComponentProps, type KeyboardEvent, useEffect, useRef, useState } from "react";
import { TraceChart } from "./trace-chart";
import { useTimeZoom } from "./use-time-zoom";

const LEAST_S = 60;

/** An oven trace to look closer at: by its buttons, by key (+, −, arrows with Alt, Escape for all of it), by drag and by the wheel with Ctrl. */
export function TraceView(props: Omit<ComponentProps<typeof TraceChart>, "fromS" | "toS">) {
  const lastS = Math.max(LEAST_S, ...props.channels.map((c) => c.timeS.at(-1) ?? 0));
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1);
  useEffect(() => setWidth(Math.max(1, frame.current?.clientWidth ?? 1)), []);
  const { from, to, times, move, closer, all } = useTimeZoom(frame, { from: 0, to: lastS, width, closest: LEAST_S });
  const whole = times <= 1;
  const keys = (e: KeyboardEvent) => {
    if (e.key === "+") closer(2);
    else if (e.key === "-") closer(0.5);
    else if (e.altKey && e.key === "ArrowLeft") move(-0.5);
    else if (e.altKey && e.key === "ArrowRight") move(0.5);
    else if (e.key === "Escape" && !whole) all();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div role="group" aria-label="A closer look at the trace" onKeyDown={keys}>
      <div ref={frame} className={`touch-pan-y ${whole ? "" : "cursor-grab active:cursor-grabbing"}`}>
        <TraceChart {...props} fromS={from} toS={to} />
      </div>
      <p className="no-print m-0 flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={() => closer(2)} disabled={to - from <= LEAST_S * 1.001}>
          Closer
        </button>
        <button type="button" className="btn" onClick={() => closer(0.5)} disabled={whole}>
          Wider
        </button>
        <button type="button" className="btn" onClick={() => move(-0.5)} disabled={from <= lastS * 1e-9}>
          Earlier
        </button>
        <button type="button" className="btn" onClick={() => move(0.5)} disabled={to >= lastS * (1 - 1e-9)}>
          Later
        </button>
        {!whole && (
          <button type="button" className="btn" onClick={all}>
            All of it
          </button>
        )}
      </p>
    </div>
  );
}
