import type { UnitSystem } from "@/core/units";
import { Plot } from "../charts/plot/plot";
import type { Layer } from "../charts/plot/spec";
import { axisOf } from "../charts/ticks";
import { withUnit } from "../format";

const ZONE = 46;

/** Every width by zone, its mean as a line: how even the creep is, and how far. */
export function CreepChart({
  zones,
  units,
}: {
  zones: readonly { zone: string; widthsMm: readonly number[]; meanMm: number }[];
  units: UnitSystem;
}) {
  const most = 1.1 * Math.max(1, ...zones.flatMap((z) => z.widthsMm));
  const said = (mm: number) => withUnit(mm, "creep", units);
  const widths = zones.flatMap((z, i) => z.widthsMm.map((x, k) => ({ x, y: -i, lift: k % 2 ? 4 : -4, zone: z.zone })));
  return (
    <Plot
      label={`Creep widths: ${zones.map((z) => `${z.zone} mean ${said(z.meanMm)}`).join("; ")}`}
      width={560}
      height={zones.length * ZONE + 26}
      scatter
      readings={widths.map((w) => ({ ...w, says: `${w.zone}: ${said(w.x)}` }))}
      spec={{
        x: axisOf("creep", [0, most], units),
        y: { domain: [0.5 - zones.length, 0.5], ticks: zones.map((z, i) => ({ at: -i, label: z.zone })) },
        layers: [
          {
            kind: "marks",
            marks: widths.map(({ zone, ...w }) => ({ ...w, tone: "sorrel", r: 5, opacity: 0.85 })),
          },
          ...zones.map(
            (z, i): Layer => ({ kind: "moment", x: z.meanMm, y: [-i - 0.3, -i + 0.3], tone: "ink", width: 2.5 }),
          ),
          ...zones.map(
            (z, i): Layer => ({
              kind: "beside",
              y: -i,
              text: `mean ${said(z.meanMm)}`,
              short: said(z.meanMm),
              tone: "ink",
            }),
          ),
        ],
      }}
    />
  );
}
