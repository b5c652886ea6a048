import type { SubgroupChart as Chart } from "@/core/control-charts";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { ControlPanels } from "./control-panels";

/** The film of racks: the mean of each one's spots over their spread. */
export function SubgroupChart({ chart, names, units }: { chart: Chart; names: readonly string[]; units: UnitSystem }) {
  return (
    <ControlPanels
      panels={[
        {
          title: "mean of the rack’s spots",
          values: chart.means,
          limits: [chart.lower, chart.centre, chart.upper],
        },
        {
          title: "spread within the rack",
          values: chart.spreads,
          limits: [chart.spreadLower, chart.meanSpread, chart.spreadUpper],
        },
      ]}
      format={(um) => withUnit(um, "thickness", units)}
      names={names.map((n) => `Rack ${n}`)}
      ends={[`rack ${names[0]}`, `rack ${names.at(-1)}`]}
    />
  );
}
