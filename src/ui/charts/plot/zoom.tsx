"use client";
import type { KeyboardEvent, ReactNode } from "react";
import { useWidth } from "./figure";
import { useTimeZoom } from "./use-time-zoom";

export type Seen = { readonly from: number; readonly to: number; readonly times: number };

/**
 * Something to look closer at, `from` to `to`: by its buttons, by key (+, −, arrows with Alt, Escape for all of it), by drag,
 * by two fingers and by the wheel with Ctrl. Nothing is seen closer than `closest`; `first` of it, the newest, is seen first.
 */
export function ZoomFrame({
  label,
  from,
  to,
  closest,
  first,
  most = 860,
  children,
}: {
  label: string;
  from: number;
  to: number;
  closest: number;
  first?: number;
  /** As wide as it may be, px. */
  most?: number;
  children: (seen: Seen, width: number) => ReactNode;
}) {
  const { frame, width } = useWidth<HTMLDivElement>(most);
  const zoom = useTimeZoom(frame, { from, to, width, closest, ...(first === undefined ? {} : { first }) });
  const { times, move, closer, all } = zoom;
  const whole = times <= 1;
  const span = (to - from) * 1e-9;
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
  const buttons = [
    ["Earlier", () => move(-0.5), zoom.from <= from + span],
    ["Later", () => move(0.5), zoom.to >= to - span],
    ["Closer", () => closer(2), zoom.to - zoom.from <= closest * 1.001],
    ["Wider", () => closer(0.5), whole],
    ...(whole ? [] : [["All of it", all, false] as const]),
  ] as const;
  return (
    <div role="group" aria-label={label} onKeyDown={keys} style={{ maxWidth: most }}>
      <div ref={frame} className={`touch-pan-y ${whole ? "" : "cursor-grab active:cursor-grabbing"}`}>
        {children(zoom, width)}
      </div>
      <p className="no-print m-0 mt-3 flex flex-wrap gap-2">
        {buttons.map(([name, run, off]) => (
          <button key={name} type="button" className="btn" onClick={run} disabled={off}>
            {name}
          </button>
        ))}
      </p>
    </div>
  );
}
