import {
  type CostClass,
  type DesignNote,
  type FoundName,
  ONE_VISIT_MS,
  type Repair,
  type VisitDue,
  type ZoneKind,
} from "@/core/field";
import type { flakeBacks, flakeUnders } from "@/core/kinds/zone-visit";
import type { UnitSystem } from "@/core/units";
import type { ZoneFile } from "@/server/field/zones-of";
import { withUnit } from "../format";

export const zoneKindName: Record<ZoneKind, string> = {
  edge: "edge",
  seam: "seam or lap",
  weld: "weld",
  foot: "foot near the ground",
  splash: "splash zone",
  contact: "where something rests or is bolted",
  chip: "chip or knock",
  face: "open face",
  sheltered: "sheltered, for comparison",
};
export const foundName: Record<FoundName, string> = {
  eye: "seen by eye",
  creep: "creep",
  rust: "rust",
  blisters: "blisters",
  flaking: "flaking",
  tape: "tape",
  seam: "seam",
  gloss: "gloss",
  colour: "colour",
  chalk: "chalk",
};
export const visitDueName: Record<VisitDue["why"], string> = {
  "first-year": "first year",
  "third-year": "third year",
  "fifth-year": "fifth year",
  later: "every second year",
  trouble: "half a year after trouble",
  promise: "before what was promised ends",
  "never-seen": "nobody has looked yet",
};

export const wearName = { salt: "In salt or standing water", weather: "In the weather", indoor: "Indoors" } as const;

/** What is found on the back of a flake, and under it. */
export const flakeBackName = {
  scale: "blue-grey scale",
  rust: "rust",
  bright: "nothing, it is clean",
  coat: "a coat; one was left behind",
  mixed: "scale and clean film side by side",
} as const satisfies Record<(typeof flakeBacks)[number], string>;
export const flakeUnderName = {
  bright: "bright, smooth metal",
  rust: "rust",
  scale: "blue-grey scale",
  coat: "another coat",
  pretreated: "grey, matt pretreated metal",
} as const satisfies Record<(typeof flakeUnders)[number], string>;

const compass = ["north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"] as const;
/** Which way a bearing faces, in a word. */
export const facing = (deg: number): string => compass[Math.round((((deg % 360) + 360) % 360) / 45) % 8] as string;

/** What a zone is and where, in a line. */
export const zonePlace = (z: Pick<ZoneFile, "what" | "heightM" | "bearingDeg" | "lengthMm" | "registered">): string =>
  [
    z.registered ? zoneKindName[z.what] : "named at a visit alone",
    z.heightM === null ? "" : `${z.heightM} m up`,
    z.bearingDeg === null ? "" : `faces ${facing(z.bearingDeg)}`,
    z.lengthMm === null ? "" : `${(z.lengthMm / 1000).toFixed(1)} m long`,
  ]
    .filter(Boolean)
    .join(", ");

/** What was found in a zone, in a line, each as it was read last; what was not read at the newest visit bears its day. */
export function zoneFound(
  z: Pick<ZoneFile, "found" | "readAt" | "filmUm" | "newest">,
  units: UnitSystem,
  day: (moment: Date) => string,
): string {
  const { found } = z;
  const newest = z.newest[0]?.at;
  const said = (name: keyof ZoneFile["readAt"], text: string) => {
    const at = z.readAt[name];
    return at && newest && newest.getTime() - at.getTime() > ONE_VISIT_MS ? `${text} (${day(at)})` : text;
  };
  const measured = [
    found.creepMm === null ? "" : said("creep", `creep ${withUnit(found.creepMm, "creep", units)}`),
    found.rustPercent === null ? "" : said("rust", `rust ${found.rustPercent}\u00a0%`),
    found.blisters === null
      ? ""
      : said(
          "blisters",
          found.blisters.density === 0 ? "no blisters" : `blisters ${found.blisters.density}(S${found.blisters.size})`,
        ),
    found.flakedPercent === null ? "" : said("flaking", `flaked ${found.flakedPercent}\u00a0%`),
    found.seam === null
      ? ""
      : said("seam", `seam ${Math.round(found.seam.rustedMm)} of ${Math.round(found.seam.ofMm)} mm rusted`),
    found.tapeIso === null ? "" : said("tape", `tape ${found.tapeIso}`),
    found.chalk === null ? "" : said("chalk", `chalk ${found.chalk}`),
    found.glossRetentionPercent === null
      ? ""
      : said("gloss", `gloss kept ${found.glossRetentionPercent.toFixed(0)}\u00a0%`),
    found.deltaE === null ? "" : said("colour", `ΔE ${found.deltaE}`),
    z.filmUm.length === 0
      ? ""
      : said("film", `film ${withUnit(z.filmUm.reduce((a, b) => a + b, 0) / z.filmUm.length, "thickness", units)}`),
  ].filter(Boolean);
  const byEye = found.soundByEye === null ? "" : said("eye", found.soundByEye ? "sound by eye" : "something was seen");
  if (measured.length > 0) return [...measured, byEye].filter(Boolean).join(", ");
  if (byEye) return `${byEye}, nothing measured`;
  return z.newest.length === 0 ? "not looked at yet" : "looked at";
}

export const repairName: Record<Repair, string> = {
  "wash-and-watch": "Wash the salt and dirt off, and look again in half a year.",
  "spot-repair": "Take the rust and the loose film back to sound film, feather its edge, prime and touch up.",
  "edge-repair": "Take it back to sound film, break the edge to a radius of 2 mm, prime and coat the edge on its own.",
  "open-and-seal": "Open the lap, rinse the salt out, dry it, treat the rust, seal it, and repair beside it.",
  "foot-repair":
    "Clear soil and leaves away, let water run off, take the foot back to bright metal, prime, and coat it twice.",
  recoat: "More than spots: take it down, strip it, and coat it anew over a primer.",
  "wash-and-polish": "Wash and polish it; the gloss comes back in part.",
  "coat-over-faded": "Wash the chalk off, sand it, and coat over it where its look matters.",
};
export const repairCaution: Record<Repair, string> = {
  "wash-and-watch": "",
  "spot-repair": "Old paint may hold lead: test before it is sanded; respirator on.",
  "edge-repair": "Old paint may hold lead: test before it is ground; eyes, gloves, respirator.",
  "open-and-seal": "Spreading a lap can tear it: wedge gently, gloves on.",
  "foot-repair": "Power off where cables run in it. Old paint may hold lead: test before it is ground.",
  recoat: "Lifting and burning off are for those licensed for it; old paint may hold lead.",
  "wash-and-polish": "",
  "coat-over-faded": "Sanding dust: respirator on.",
};
export const costName: Record<CostClass, string> = {
  small: "small: an hour on site",
  middle: "middle: a day on site",
  large: "large: taken down and coated anew",
};
export const designName: Record<DesignNote, string> = {
  "break-edges": "Round every cut edge to 2 mm before it is coated: a sharp one is coated thin and rusts first.",
  "close-laps": "Weld laps all round or have them sealed: water stands between two sheets and no powder goes in.",
  "drain-and-lift": "Keep feet off the ground by a hand’s breadth, with holes where water can leave.",
  "guard-knocks": "Put a guard where it is knocked, or a primer under the coat: rust creeps from every chip.",
  "part-contacts": "Put plastic between what rests on each other, and touch up after the bolts are tight.",
  "better-grade": "Ask for a resin of the higher weathering grade where the sun falls on it.",
};

/** When a limit is reached, as a range of years; null where it may never be. */
export const forecastSaid = ([soon, late]: readonly [number, number | null]): string =>
  `past its limit in ${late === null ? `${soon.toFixed(1)} years at the soonest` : `${soon.toFixed(1)} to ${late.toFixed(1)} years`} if it goes on so`;
