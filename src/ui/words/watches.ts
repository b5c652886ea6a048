import type { UnitSystem } from "@/core/units";
import type { Condition, WatchCounts } from "@/server/causes/watches";
import { comparedFigure, comparedName } from "./differs";

/** The conditions of a watch, in words: “inhibitor under 200 mg/L and longest wet between stages over 4 min 00 s”. */
export const conditionsSaid = (when: readonly Condition[], units: UnitSystem): string =>
  when
    .map((c) => {
      const name = comparedName(c.variable);
      const bounds = [
        c.under !== null ? `under ${comparedFigure(c.variable, c.under, units)}` : "",
        c.over !== null ? `over ${comparedFigure(c.variable, c.over, units)}` : "",
      ].filter(Boolean);
      return `${name.charAt(0).toLowerCase()}${name.slice(1)} ${bounds.join(" or ")}`;
    })
    .join(" and ");

/** How often it led to the defect, and how often not. */
export const ledSaid = ({ met, notMet }: WatchCounts): string =>
  `of ${met.racks} racks that met it ${met.withIt} showed it and ${met.racks - met.withIt} did not; of ${notMet.racks} others ${notMet.withIt} did`;
