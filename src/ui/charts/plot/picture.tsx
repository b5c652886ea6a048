import { type ReactNode, useId, useMemo } from "react";
import { Cursor } from "./cursor";
import { Grid, Layers, Words } from "./layers";
import { FLAG, type Layout } from "./layout";
import type { Reading, Spec } from "./spec";

/** A chart's picture at its own size, `layout` of `spec`. `children` are drawn over its layers. */
export function Picture({
  label,
  name = label,
  spec,
  layout,
  readings,
  scatter = false,
  most,
  moved,
  children,
}: {
  label: string;
  /** What its values are read under; its label, where that does not change. */
  name?: string;
  spec: Spec;
  layout: Layout;
  readings: readonly Reading[];
  /** Whether a value is found by both its axes: points that follow no order. */
  scatter?: boolean;
  /** As wide as it may be, px. */
  most: number;
  /** Layers of a layout of their own in place of the spec's, moved sideways by so many px. */
  moved?: { readonly layers: Spec["layers"]; readonly layout: Layout; readonly by: number };
  children?: ReactNode;
}) {
  const id = useId();
  const { plot } = layout;
  const { x, y } = moved?.layout ?? layout;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a layout's scales change with it
  const points = useMemo(() => readings.map((r) => ({ x: x(r.x), y: y(r.y), says: r.says })), [readings, x]);
  // A mark at the edge is whole; what is moved ends where the plot does.
  const beyond = moved ? 0 : 6;
  return (
    <svg
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      // Its height stays through the first measuring, so that nothing under it jumps.
      style={{ width: "100%", maxWidth: most, height: layout.height }}
      preserveAspectRatio="xMinYMin meet"
      className="block"
      role={readings.length > 0 ? "group" : "img"}
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
      <Cursor name={name} plot={plot} width={layout.width} points={points} shift={moved?.by ?? 0} scatter={scatter} />
    </svg>
  );
}
