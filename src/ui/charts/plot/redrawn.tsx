"use client";
import { useMemo } from "react";
import type { Redraw } from "./figure";
import { layoutOf } from "./layout";
import { Picture } from "./picture";

/** A chart for a width of its own. */
export function Redrawn({
  label,
  most,
  width,
  spec,
  readings,
  scatter,
  height,
}: Redraw & { label: string; most: number; width: number }) {
  const layout = useMemo(() => layoutOf(spec, width, height), [spec, width, height]);
  return <Picture label={label} spec={spec} layout={layout} readings={readings} scatter={scatter} most={most} />;
}
