import { seededRandom } from "../statistics";

/** How a coated structure stands: what is under and over the metal, and what wears it. A make-believe of its own, sharing nothing with what judges it. */
export type AgeingStructure = {
  readonly seed: number;
  readonly blasted: boolean;
  readonly primer: boolean;
  readonly filmUm: number;
  /** Of the top coat's resin, standard 1, of a higher grade 0.4. */
  readonly fading: number;
  /** Salt, 0 none to 1 sea spray; how long it stays wet, 0 to 1; knocks a year; sun on the open side, 0 to 1. */
  readonly salt: number;
  readonly wet: number;
  readonly knocks: number;
  readonly sun: number;
};
export type AgeingZone = {
  readonly kind: "edge" | "seam" | "foot" | "chip" | "face" | "sheltered";
  /** Seam sealed when it was made. */
  readonly sealed?: boolean;
};
/** As a zone is after so many years, true values before anybody reads them. */
export type Aged = {
  readonly creepMm: number;
  readonly rustPercent: number;
  readonly blisterDensity: number;
  readonly chalk: number;
  readonly glossGu: number;
  readonly seamRustedShare: number;
  readonly deltaE: number;
};

const GLOSS_NEW_GU = 82;
/** Years that water takes to the metal through the film, at the place: film over what drives it. */
const yearsToMetal = (film: number, drive: number): number => (film / 70) ** 1.6 * (2.4 / Math.max(0.08, drive));

/**
 * A zone after so many years. Water and salt drive rust once they reach the metal: through the film after a time that goes
 * with its thickness squared and more, at once where it was knocked; from there it creeps with the square root of time, slower
 * over a blasted and primed ground. Sun takes the gloss by its dose, and binder with it, which chalks. O(1).
 */
export function aged(structure: AgeingStructure, zone: AgeingZone, years: number): Aged {
  const random = seededRandom(structure.seed);
  const own = Math.exp(random.normal(0, 0.16));
  const { salt, wet, knocks, sun } = structure;
  const thin = { edge: 0.45, seam: 0.6, foot: 0.9, chip: 1, face: 1, sheltered: 1 }[zone.kind];
  const drive =
    own *
    (0.15 + 0.9 * wet + 1.2 * salt) *
    { edge: 1, seam: zone.sealed ? 0.35 : 1.5, foot: 1.35, chip: 1, face: 0.6, sheltered: 0.3 }[zone.kind];
  const grip = (structure.blasted ? 1 : 2.6) * (structure.primer ? 0.28 : 1);
  const first = zone.kind === "chip" ? 1 / Math.max(0.2, knocks) : yearsToMetal(structure.filmUm * thin, drive * grip);
  const since = Math.max(0, years - first);
  const creepMm = since === 0 ? 0 : 1.15 * drive * grip * Math.sqrt(since);
  const open = zone.kind === "chip" ? 0.06 : zone.kind === "edge" || zone.kind === "seam" ? 0.5 : 0.3;
  const rustPercent = Math.min(90, open * drive * grip * since ** 1.3);
  const dose = (zone.kind === "sheltered" ? 0.08 : zone.kind === "foot" ? 0.4 : 1) * sun * structure.fading * years;
  return {
    creepMm,
    rustPercent,
    blisterDensity: Math.min(5, Math.floor(since * wet * grip * 0.45)),
    chalk: Math.min(5, Math.floor(dose * 0.62)),
    glossGu: GLOSS_NEW_GU * Math.exp(-0.19 * dose),
    seamRustedShare: zone.kind === "seam" ? Math.min(1, 0.018 * drive * grip * since ** 1.4) : 0,
    deltaE: 0.95 * dose,
  };
}
