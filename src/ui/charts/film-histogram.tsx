import { histogram } from "@/core/statistics";
import type { UnitSystem } from "@/core/units";
import { countOf, figure, withUnit } from "../format";
import { Plot } from "./plot/plot";
import type { Layer } from "./plot/spec";
import { axisOf } from "./ticks";

const BIN_UM = 4;

/** Readings in 4 µm bins on the sheet's range, with the lowest single spot allowed. */
export function FilmHistogram({
  valuesUm,
  minUm,
  maxUm,
  lowestUm,
  meanUm,
  units,
}: {
  valuesUm: readonly number[];
  minUm: number;
  maxUm: number | null;
  lowestUm: number;
  meanUm: number | null;
  units: UnitSystem;
}) {
  const found = histogram(valuesUm, BIN_UM);
  if (!found.ok) return <p className="soft py-8">No reading yet. Type one, or start the gauge.</p>;
  const bins = found.value.filter((b) => b.count > 0);
  const from = Math.min(lowestUm, bins[0]?.from ?? lowestUm) - BIN_UM;
  const to = Math.max(maxUm ?? 0, bins.at(-1)?.to ?? 0) + BIN_UM;
  const film = (um: number) => figure(um, "thickness", units).text;
  const edges = [minUm, ...(maxUm === null ? [] : [maxUm])];
  const line = (x: number): Layer => ({
    kind: "moment",
    x,
    tone: "in",
    width: 1.6,
    must: true,
    label: maxUm === null ? `${film(x)} and over` : film(x),
  });
  return (
    <Plot
      label={`${countOf(valuesUm.length, "reading")}; mean ${meanUm === null ? "none" : withUnit(meanUm, "thickness", units)}`}
      width={420}
      height={156}
      spec={{
        x: axisOf("thickness", [from, to], units),
        y: { domain: [0, Math.max(...bins.map((b) => b.count))], ticks: [] },
        layers: [
          { kind: "band", x: [minUm, maxUm] },
          ...edges.map(line),
          { kind: "moment", x: lowestUm, tone: "out", dash: "4 3", label: film(lowestUm), must: true },
          { kind: "bars", bars: bins.map((b) => ({ from: b.from, to: b.to, y: b.count, fill: "var(--ink-2)" })) },
          ...(meanUm === null
            ? []
            : [
                {
                  kind: "moment",
                  x: meanUm,
                  tone: "sorrel",
                  width: 2.5,
                  label: `mean ${film(meanUm)}`,
                  must: true,
                } satisfies Layer,
              ]),
        ],
      }}
      readings={bins.map((b) => ({
        x: (b.from + b.to) / 2,
        y: b.count,
        says: `${countOf(b.count, "reading")} from ${film(b.from)} to ${withUnit(b.to, "thickness", units)}`,
      }))}
    />
  );
}
