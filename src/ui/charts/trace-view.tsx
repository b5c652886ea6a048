"use client";
import type { ComponentProps } from "react";
import { ZoomFrame } from "./plot/zoom";
import { TraceChart } from "./trace-chart";

const LEAST_S = 60;

/** An oven trace to look closer at. */
export function TraceView(props: Omit<ComponentProps<typeof TraceChart>, "fromS" | "toS">) {
  const lastS = Math.max(LEAST_S, ...props.channels.map((c) => c.timeS.at(-1) ?? 0));
  return (
    <ZoomFrame label="A closer look at the trace" from={0} to={lastS} closest={LEAST_S}>
      {({ from, to }) => <TraceChart {...props} fromS={from} toS={to} />}
    </ZoomFrame>
  );
}
