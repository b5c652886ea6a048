import type { FoundName, VisitDue, ZoneKind } from "@/core/field";
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

/** What was found in a zone at its newest visit, in a line. */
export function zoneFound(z: Pick<ZoneFile, "found" | "newest">, units: UnitSystem): string {
  const { found } = z;
  const film = z.newest.flatMap((c) => (c.row.film_um ?? []) as readonly number[]);
  const said = [
    found.creepMm === null ? "" : `creep ${withUnit(found.creepMm, "creep", units)}`,
    found.rustPercent === null ? "" : `rust ${found.rustPercent} %`,
    found.blisters === null
      ? ""
      : found.blisters.density === 0
        ? "no blisters"
        : `blisters ${found.blisters.density}(S${found.blisters.size})`,
    found.flakedPercent === null ? "" : `flaked ${found.flakedPercent} %`,
    found.seam === null ? "" : `seam ${Math.round(found.seam.rustedMm)} of ${Math.round(found.seam.ofMm)} mm rusted`,
    found.tapeIso === null ? "" : `tape ${found.tapeIso}`,
    found.chalk === null ? "" : `chalk ${found.chalk}`,
    found.glossRetentionPercent === null ? "" : `gloss kept ${found.glossRetentionPercent.toFixed(0)} %`,
    found.deltaE === null ? "" : `ΔE ${found.deltaE}`,
    film.length === 0 ? "" : `film ${withUnit(film.reduce((a, b) => a + b, 0) / film.length, "thickness", units)}`,
  ].filter(Boolean);
  if (said.length > 0) return said.join(", ");
  const sound = z.newest.map((c) => c.row.sound).filter((s) => s !== null);
  return z.newest.length === 0
    ? "not looked at yet"
    : sound.includes(false)
      ? "something was found, nothing measured"
      : sound.includes(true)
        ? "sound by eye, nothing measured"
        : "looked at";
}
