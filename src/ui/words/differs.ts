import type { Difference } from "@/core/comparison";
import type { Quantity, UnitSystem } from "@/core/units";
import { minutesSeconds, plainly, span, withUnit } from "../format";
import { bathValue, parameterName } from "./baths";

const names: Record<string, string> = {
  part: "Part",
  powder: "Powder",
  lot: "Powder lot",
  booth: "Booth",
  painter: "Painter",
  gun: "Gun",
  kv: "Voltage",
  earth: "Earth",
  hooks: "Hook cycles",
  distance: "Gun distance",
  metal: "Metal as sprayed",
  oven: "Oven",
  place: "Place in the oven",
  film: "Film",
  wait: "From the last bath to powder",
  zone: "Zone",
  height: "Height",
  facing: "Faces",
  age: "Years up",
  system: "System",
  under: "Under the film",
  coater: "Coated by",
  site: "Site",
  customer: "Owner",
  road: "To a salted road",
  "salt-water": "To salt water",
  "standing-water": "To standing water",
};
const quantities: Record<string, Quantity> = { metal: "temperature", film: "thickness" };

/** What was compared, as a label: “Powder lot”, “Conversion, pH”, “Time in rinse-2”. */
export function comparedName(variable: string): string {
  const [kind = "", which = "", parameter = ""] = variable.split(":");
  if (kind === "bath") return `${which}, ${parameterName[parameter] ?? parameter}`;
  if (kind === "exposed") return `Exposed to ${which.replaceAll("-", " ")}`;
  if (kind === "seconds") return `Time in ${which.replaceAll("-", " ")}`;
  return names[kind] ?? kind;
}

/** A figure of what was compared, with its unit, for this person. */
export function comparedFigure(variable: string, value: number, units: UnitSystem): string {
  const [kind = "", , parameter = ""] = variable.split(":");
  if (kind === "bath") return bathValue(parameter, value, units);
  if (kind === "seconds") return minutesSeconds(value);
  if (kind === "wait") return span(value * 60_000);
  if (kind === "age") return `${value.toFixed(1)} years`;
  if (["height", "road", "salt-water", "standing-water"].includes(kind)) return `${Number(value.toFixed(1))} m`;
  if (kind === "kv") return `${value.toFixed(0)} kV`;
  if (kind === "earth") return `${value.toFixed(2)} MΩ`;
  if (kind === "distance") return plainly(value, "distance", units);
  const quantity = quantities[kind];
  return quantity ? withUnit(value, quantity, units) : String(value);
}

/** Affected against the others, each side with its number: “5 of 6”, “median 4.91 of 6”. */
export function sides(d: Difference, units: UnitSystem): { readonly affected: string; readonly others: string } {
  if (d.kind === "category")
    return { affected: `${d.affected.with} of ${d.affected.n}`, others: `${d.others.with} of ${d.others.n}` };
  const said = (side: { readonly n: number; readonly median: number }) =>
    `${comparedFigure(d.variable, side.median, units)} (${side.n})`;
  return { affected: said(d.affected), others: said(d.others) };
}

/** A probability as it is told: “0.012”, “< 0.001”. */
export const chance = (p: number): string => (p < 0.001 ? "< 0.001" : p.toFixed(3));
