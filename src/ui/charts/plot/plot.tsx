import { PlotFigure } from "./figure";
import { layoutOf } from "./layout";
import { Picture } from "./picture";
import type { Reading, Spec } from "./spec";

/** A chart of any kind: its values read by pointer, by touch and by key, its words never under a line, saved as a picture. */
export function Plot({
  label,
  spec,
  readings = [],
  scatter = false,
  width = 860,
  height = 260,
  className = "",
}: {
  label: string;
  spec: Spec;
  readings?: readonly Reading[];
  scatter?: boolean;
  width?: number;
  height?: number;
  className?: string;
}) {
  return (
    <PlotFigure label={label} most={width} redraw={{ spec, readings, scatter, height }} className={className}>
      <Picture
        label={label}
        spec={spec}
        layout={layoutOf(spec, width, height)}
        readings={readings}
        scatter={scatter}
        most={width}
      />
    </PlotFigure>
  );
}
