"use client";
import { Download } from "lucide-react";
import { type ComponentType, type ReactNode, useEffect, useId, useMemo, useRef, useState } from "react";
import { Cursor } from "./cursor";
import { Grid, Layers, Words } from "./layers";
import { FLAG, type Layout, layoutOf } from "./layout";
import type { Reading, Spec } from "./spec";

/** How wide a chart is drawn: as wide as it may be, and no wider than where it stands, so that its words keep their size. */
export function useWidth<E extends HTMLElement = HTMLDivElement>(most: number) {
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

/** What every chart stands in: its picture, at its own size, and what saves it. `children` are drawn over its layers. */
export function PlotFrame({
  label,
  spec,
  layout,
  readable,
  most,
  moved,
  children,
}: {
  label: string;
  spec: Spec;
  layout: Layout;
  /** Whether its values can be read off one by one. */
  readable: boolean;
  /** As wide as it may be, px. */
  most: number;
  /** Layers of a layout of their own in place of the spec's, moved sideways by so many px. */
  moved?: { readonly layers: Spec["layers"]; readonly layout: Layout; readonly by: number };
  children?: ReactNode;
}) {
  const id = useId();
  const svg = useRef<SVGSVGElement>(null);
  const { plot } = layout;
  // A mark at the edge is whole; what is moved ends where the plot does.
  const beyond = moved ? 0 : 6;
  return (
    <>
      <svg
        ref={svg}
        viewBox={`0 0 ${layout.width} ${layout.height}`}
        // Its height stays through the first measuring, so that nothing under it jumps.
        style={{ width: "100%", maxWidth: most, height: layout.height }}
        preserveAspectRatio="xMinYMin meet"
        className="block"
        role={readable ? "group" : "img"}
        aria-label={label}
      >
        <defs>
          <clipPath id={`${id}-plot`}>
            <rect
              x={plot.left - beyond}
              y={plot.top - FLAG}
              width={plot.right - plot.left + 2 * beyond}
              height={plot.bottom - plot.top + FLAG + 6}
            />
          </clipPath>
          <pattern id={`${id}-hatch`} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="5" stroke="var(--rule-strong)" strokeWidth="2" />
          </pattern>
        </defs>
        <Grid spec={spec} layout={layout} />
        <g clipPath={`url(#${id}-plot)`}>
          {moved ? (
            <g transform={`translate(${moved.by.toFixed(2)},0)`}>
              <Layers layers={moved.layers} layout={moved.layout} id={id} />
            </g>
          ) : (
            <Layers layers={spec.layers} layout={layout} id={id} />
          )}
        </g>
        <Words layout={layout} />
        {children}
      </svg>
      <Save label={label} picture={() => svg.current} />
    </>
  );
}

type Choices = ComponentType<{ label: string; picture: () => SVGSVGElement | null; close: () => void }>;
/** Saves a chart as SVG or PNG; the choice is loaded when it is asked for. */
function Save(props: { label: string; picture: () => SVGSVGElement | null }) {
  const [Choices, setChoices] = useState<{ it: Choices } | null>(null);
  const face = <Download size={15} aria-hidden />;
  const at =
    "no-print absolute right-0 bottom-0 grid size-11 translate-x-3 translate-y-3 place-items-center text-ink-3";
  if (Choices) {
    const { it: Open } = Choices;
    return (
      <span className={at}>
        {face}
        <Open {...props} close={() => setChoices(null)} />
      </span>
    );
  }
  return (
    <button
      type="button"
      className={`${at} hover:text-ink`}
      aria-label={`Save the picture: ${props.label}`}
      onClick={() => void import("./save-choices").then((m) => setChoices({ it: m.SaveChoices }))}
    >
      {face}
    </button>
  );
}

/** A chart of any kind: its values read by pointer, by touch and by key, its words never under a line, saved as a picture. */
export function Plot({
  label,
  spec,
  readings = [],
  scatter = false,
  width: most = 860,
  height = 260,
  className = "",
}: {
  label: string;
  spec: Spec;
  readings?: readonly Reading[];
  /** Whether a value is found by both its axes: points that follow no order. */
  scatter?: boolean;
  width?: number;
  height?: number;
  className?: string;
}) {
  const { frame, width } = useWidth<HTMLElement>(most);
  const layout = useMemo(() => layoutOf(spec, width, height), [spec, width, height]);
  return (
    <figure ref={frame} className={`relative m-0 ${className}`} style={{ maxWidth: most }}>
      <PlotFrame label={label} spec={spec} layout={layout} readable={readings.length > 0} most={most}>
        <Cursor name={label} layout={layout} readings={readings} scatter={scatter} />
      </PlotFrame>
    </figure>
  );
}
