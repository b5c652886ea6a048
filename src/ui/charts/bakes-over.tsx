import type { Trace } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { HeatChart, type HeatSeries } from "./heat-chart";

type Named = { readonly name: string; readonly trace: Trace };
const seriesOf = ({ name, trace }: Named, kind: HeatSeries["kind"]): HeatSeries => ({
  name,
  kind,
  timeS: trace.timeS,
  tempC: trace.tempC,
});
const lastOf = ({ trace }: Named): number => trace.timeS.at(-1) ?? 0;

/** This bake's metal over that of others of the same part and powder, from the door: a slow oven or an early pull is seen at once. */
export function BakesOver({
  own,
  others,
  sheetC,
  units,
}: {
  own: Named | null;
  others: readonly Named[];
  sheetC: readonly number[];
  units: UnitSystem;
}) {
  const all = own ? [...others, own] : others;
  return (
    <div className="mt-2 overflow-x-auto">
      <HeatChart
        series={[...others.map((o) => seriesOf(o, "other")), ...(own ? [seriesOf(own, "measured")] : [])]}
        sheetC={[Math.min(...sheetC)]}
        windowS={null}
        // A trace left running for hours would squeeze the heating into a corner.
        lastS={Math.min(4 * 3600, Math.max(1800, ...all.map(lastOf)))}
        units={units}
        label="Metal of this bake over that of others of the same part and powder, by minutes since the door"
        height={220}
      />
    </div>
  );
}
