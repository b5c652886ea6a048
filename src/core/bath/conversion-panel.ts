import { within } from "../limits";
import type { VerdictResult } from "../verdict";

/** How a conversion coat looks; good is uniform and dull. */
export const panelLooks = ["uniform-dull", "streaked", "powdery", "rusted", "shiny"] as const;
export type PanelLook = (typeof panelLooks)[number];
/** A colour of the site's table with the weights it usually stands for, g/m²; null where it has no end. */
export type ColourBand = {
  readonly colour: string;
  readonly fromGPerM2: number;
  readonly toGPerM2: number | null;
};
/** Usual colours of iron phosphate; rough by nature, and a site can set its own. */
export const usualColours: readonly ColourBand[] = [
  { colour: "pale blue", fromGPerM2: 0.05, toGPerM2: 0.11 },
  { colour: "blue", fromGPerM2: 0.11, toGPerM2: 0.32 },
  { colour: "gold", fromGPerM2: 0.32, toGPerM2: 0.97 },
  { colour: "dull grey", fromGPerM2: 0.97, toGPerM2: null },
];

/**
 * A panel against the weight asked for, g/m². Weighed it is in or out; by colour alone it is in when the whole band lies
 * inside, out when none of it does, else to watch. A look that is not uniform and dull is out whatever it weighs.
 */
export function judgePanel(
  panel: { readonly gPerM2: number | null; readonly colour: string | null; readonly look: PanelLook },
  asked: readonly [number, number] | null,
  colours: readonly ColourBand[] = usualColours,
): VerdictResult {
  if (panel.look !== "uniform-dull") return "out";
  if (!asked) return "unknown";
  const [least, most] = asked;
  if (panel.gPerM2 !== null) return within(panel.gPerM2, least, most) ? "in" : "out";
  const band = colours.find((c) => c.colour === panel.colour);
  if (!band) return "unknown";
  const to = band.toGPerM2 ?? Number.POSITIVE_INFINITY;
  if (band.fromGPerM2 >= least && to <= most) return "in";
  return to <= least || band.fromGPerM2 >= most ? "out" : "watch";
}
