import type { Adjusted, Difference } from "@/core/comparison";
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
  substrate: "Metal",
  thickness: "Thickest section",
  delivery: "Delivery",
  hour: "Hour of hanging",
  weekday: "Weekday",
  blaster: "Blasted by",
  current: "Gun current",
  "gun-air": "Gun air",
  reclaim: "Reclaim",
  "booth-air": "Booth air",
  coat: "Coat",
  timing: "Bake timed by",
  bake: "Door to pull",
  dried: "Metal at the dry-off",
  outgas: "Outgassing bake",
  humidity: "Humidity",
  "air-dew-point": "Dew point of the compressed air",
  wet: "Longest wet between stages",
  wait: "From the last bath to powder",
  zone: "Zone",
  height: "Height",
  facing: "Faces",
  age: "Years up",
  system: "System",
  under: "Under the film",
  coater: "Coated by",
  site: "Site",
  customer: "Customer",
  road: "To a salted road",
  "salt-water": "To salt water",
  "standing-water": "To standing water",
};
const quantities: Record<string, Quantity> = {
  metal: "temperature",
  dried: "temperature",
  outgas: "temperature",
  "air-dew-point": "temperature",
  film: "thickness",
};

/** What was compared, as a label: “Powder lot”, “Conversion, pH”, “Time in rinse-2”. */
export function comparedName(variable: string): string {
  const [kind = "", which = "", parameter = ""] = variable.split(":");
  if (kind === "bath") return `${which}, ${parameterName[parameter] ?? parameter}`;
  if (kind === "exposed") return `Exposed to ${which.replaceAll("-", " ")}`;
  if (kind === "prep") return `Prepared: ${which.replaceAll("-", " ")}`;
  if (kind === "done") return `Step: ${which.replaceAll("-", " ")}`;
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
  if (kind === "wet") return minutesSeconds(value);
  if (kind === "hour") return `${value.toFixed(0)} h`;
  if (kind === "current") return `${value.toFixed(0)} µA`;
  if (kind === "gun-air") return plainly(value, "pressure", units);
  if (kind === "reclaim" || kind === "humidity") return `${value.toFixed(0)} %`;
  if (kind === "booth-air") return `${value.toFixed(2)} m/s`;
  if (kind === "bake") return `${value.toFixed(0)} min`;
  if (kind === "thickness") return plainly(value, "distance", units);
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

const times = (ratio: number): string =>
  ratio >= 100
    ? "over 100"
    : ratio < 0.01
      ? "under 0.01"
      : ratio >= 10
        ? ratio.toFixed(0)
        : ratio.toFixed(ratio < 1 ? 2 : 1);

/** The size of a difference with its 95 % interval: “odds 6.2 times (2.1–18)”, “higher in 84 of 100 pairs (73–95)”. */
export function effectSaid(d: Difference): string {
  const [low, high] = d.interval;
  if (d.kind === "category") return `odds ${times(d.test.oddsRatio)} times (${times(low)}–${times(high)})`;
  return pairsSaid(d.test.cliffsDelta, [low, high]);
}

/** Cliff’s δ as pairs of one of each side: in how many the one that shows it is the higher. */
function pairsSaid(delta: number, [low, high]: readonly [number, number]): string {
  const share = (x: number) => Math.round(50 * (1 + x));
  const up = delta >= 0;
  const [a, b] = up ? [share(low), share(high)] : [share(-high), share(-low)];
  return `${up ? "higher" : "lower"} in ${share(Math.abs(delta))} of 100 pairs (${a}–${b})`;
}

/** The same with another variable held still. */
export function adjustedSaid(a: Adjusted): string {
  const gone =
    a.interval !== null &&
    (a.value === null ? a.interval[0] <= 0 && a.interval[1] >= 0 : a.interval[0] <= 1 && a.interval[1] >= 1);
  const said =
    a.value === null
      ? pairsSaid(a.effect, a.interval ?? [a.effect, a.effect])
      : `odds ${Number.isFinite(a.effect) ? times(a.effect) : "over 100"} times${a.interval ? ` (${times(a.interval[0])}–${times(a.interval[1])})` : ""}`;
  return gone ? `${said}, so nothing sure is left` : said;
}
