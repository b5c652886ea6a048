"use client";
import { Download } from "lucide-react";
import { type ComponentType, type ReactNode, type RefObject, useEffect, useRef, useState } from "react";
import type { Redrawn as RedrawnType } from "./redrawn";
import type { Reading, Spec } from "./spec";

/** How wide a chart may be drawn: up to `most` px, and no wider than where it stands, so that its words keep their size. */
export function useWidth<E extends HTMLElement>(most: number): { frame: RefObject<E | null>; width: number } {
  const frame = useRef<E>(null);
  const [width, setWidth] = useState(most);
  useEffect(() => {
    const node = frame.current;
    if (!node) return;
    const seen = new ResizeObserver(() => {
      // Nothing is as wide as nothing while it is folded away.
      if (node.clientWidth > 0) setWidth(Math.min(most, node.clientWidth));
    });
    seen.observe(node);
    return () => seen.disconnect();
  }, [most]);
  return { frame, width };
}

export type Redraw = {
  readonly spec: Spec;
  readonly readings: readonly Reading[];
  readonly scatter: boolean;
  readonly height: number;
};

/** What a chart stands in. Where it is narrower than it was drawn it is drawn anew for its width; what draws is loaded for that. */
export function PlotFigure({
  label,
  most,
  redraw,
  className = "",
  children,
}: {
  label: string;
  most: number;
  redraw: Redraw;
  className?: string;
  children: ReactNode;
}) {
  const { frame, width } = useWidth<HTMLElement>(most);
  const [drawing, setDrawing] = useState<{ Redrawn: typeof RedrawnType } | null>(null);
  const narrow = width < most;
  useEffect(() => {
    if (narrow) void import("./redrawn").then(setDrawing);
  }, [narrow]);
  return (
    <figure ref={frame} className={`relative m-0 self-start ${className}`} style={{ maxWidth: most }}>
      {narrow && drawing ? <drawing.Redrawn label={label} most={most} width={width} {...redraw} /> : children}
      <Save label={label} />
    </figure>
  );
}

type Choices = ComponentType<{ label: string; picture: () => SVGSVGElement | null; close: () => void }>;
/** Saves the chart of its figure as SVG or PNG; the choice is loaded when it is asked for. */
export function Save({ label }: { label: string }) {
  const [choices, setChoices] = useState<{ Open: Choices } | null>(null);
  const corner = useRef<HTMLSpanElement>(null);
  const picture = () => corner.current?.closest("figure")?.querySelector<SVGSVGElement>(":scope > svg") ?? null;
  const face = <Download size={15} aria-hidden />;
  return (
    <span
      ref={corner}
      className="no-print absolute right-0 bottom-0 grid size-11 translate-x-3 translate-y-3 place-items-center text-ink-3"
    >
      {choices ? (
        <>
          {face}
          <choices.Open label={label} picture={picture} close={() => setChoices(null)} />
        </>
      ) : (
        <button
          type="button"
          className="grid size-11 place-items-center hover:text-ink"
          aria-label={`Save the picture: ${label}`}
          onClick={() => void import("./save-choices").then((m) => setChoices({ Open: m.SaveChoices }))}
        >
          {face}
        </button>
      )}
    </span>
  );
}
