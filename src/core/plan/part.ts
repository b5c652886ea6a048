import { err, type Failure, ok, type Result } from "../result";

export const substrates = [
  "hot-rolled-steel",
  "cold-rolled-steel",
  "cast-aluminium",
  "cast-iron",
  "aluminium",
  "galvanised",
  "stainless",
] as const;
export type Substrate = (typeof substrates)[number];
export const partFeatures = [
  "thermal-cut-edges",
  "sharp-edges",
  "open-lap-seam",
  "hollow-section",
  "no-drain-holes",
  "deep-recess",
  "fit-surface",
  "threads",
  "rubber-or-seals",
  "hinges",
  /** Worked or tempered for strength (wheels, tempered sections): heat above the cure can take it away. */
  "heat-treated",
  /** Tumbled to deburr: a film of the tumbling compound stays on it. */
  "tumbled",
  /** Bars or tube with air between: its area may be less than its box's face. */
  "open-frame",
] as const;
export type PartFeature = (typeof partFeatures)[number];
/** What is placed on a part's sketch when it is planned. */
export const markKinds = ["hang", "mask", "plug", "rest", "drain", "earth", "pitting", "centre-of-mass"] as const;
export type MarkKind = (typeof markKinds)[number];
/** Rust grades A to D after ISO 8501-1; none where the metal is bright or does not rust. */
export const rustGrades = ["none", "A", "B", "C", "D"] as const;
export type RustGrade = (typeof rustGrades)[number];
export const oldCoatings = ["none", "known", "unknown"] as const;
export const exposures = [
  "indoor",
  "weather",
  "sun",
  "coast",
  "salt",
  "standing-water",
  "knocks",
  "heat",
  "chemicals",
] as const;
export type Exposure = (typeof exposures)[number];

/** Length, width, height of the smallest box round the part, mm. */
export type Box = { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number };
export type PlannedPart = {
  readonly substrate: Substrate;
  readonly features: readonly PartFeature[];
  readonly box: Box;
  readonly thinnestMm: number;
  readonly thickestMm: number;
  readonly massKg: number;
  readonly areaM2: number;
  /** Unsealed laps and stitch welds, m. */
  readonly lapM: number;
};
export type Condition = {
  readonly rust: RustGrade;
  readonly scale: boolean;
  readonly oldCoating: (typeof oldCoatings)[number];
  readonly weldSpatter: boolean;
  readonly oil: boolean;
};
export const asNew: Condition = { rust: "none", scale: false, oldCoating: "none", weldSpatter: false, oil: false };
export type Service = {
  readonly exposure: readonly Exposure[];
  /** Asked for by the customer, years; null where they did not say. */
  readonly lifeYears: number | null;
  readonly finish: "standard" | "smooth" | "texture" | "clear";
  /** Hottest the piece gets in service, °C; null where it is not heated. */
  readonly serviceC: number | null;
};

/** Density, kg/m³; the mass of a part cannot be more than that of its whole box in metal. */
export const densities: Record<Substrate, number> = {
  "hot-rolled-steel": 7850,
  "cold-rolled-steel": 7850,
  "cast-aluminium": 2700,
  "cast-iron": 7200,
  aluminium: 2700,
  galvanised: 7850,
  stainless: 7930,
};
/** No oven or booth takes more, and no hook carries it. */
export const LARGEST_BOX_MM = 30_000;

export const boxVolumeM3 = (box: Box): number => (box.lengthMm * box.widthMm * box.heightMm) / 1e9;
export const largestFaceM2 = (box: Box): number => {
  const [a, b] = [box.lengthMm, box.widthMm, box.heightMm].sort((x, y) => y - x);
  return ((a as number) * (b as number)) / 1e6;
};

/**
 * Whether a part can be as it was described: sizes over zero, sections in order and inside the box, mass possible for
 * the metal, area not less than the box's largest face. Failures: `bad-size` (which, value), `sections-crossed`,
 * `section-beyond-box`, `mass-beyond-box` (kg and the most the metal allows), `area-under-face` (m² both), `unknown-substrate`.
 */
export function checkPart(part: PlannedPart): Result<PlannedPart> {
  if (!substrates.includes(part.substrate))
    return err({ kind: "unknown-substrate", name: String(part.substrate), of: substrates });
  const sizes: [string, number][] = [
    ["length, mm", part.box.lengthMm],
    ["width, mm", part.box.widthMm],
    ["height, mm", part.box.heightMm],
    ["thickest section, mm", part.thickestMm],
    ["thinnest section, mm", part.thinnestMm],
    ["mass, kg", part.massKg],
    ["area, m²", part.areaM2],
  ];
  for (const [name, value] of sizes)
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-size", name, value });
  for (const [name, value] of sizes.slice(0, 3))
    if (value > LARGEST_BOX_MM) return err({ kind: "bad-size", name, value });
  if (!(part.lapM >= 0) || !Number.isFinite(part.lapM))
    return err({ kind: "bad-size", name: "laps, m", value: part.lapM });
  if (part.thinnestMm > part.thickestMm)
    return err({ kind: "sections-crossed", thinnestMm: part.thinnestMm, thickestMm: part.thickestMm });
  const widest = Math.max(part.box.lengthMm, part.box.widthMm, part.box.heightMm);
  if (part.thickestMm > widest) return err({ kind: "section-beyond-box", thickestMm: part.thickestMm, boxMm: widest });
  const mostKg = densities[part.substrate] * boxVolumeM3(part.box);
  if (part.massKg > mostKg * 1.001)
    return err({ kind: "mass-beyond-box", massKg: part.massKg, mostKg, substrate: part.substrate });
  const faceM2 = largestFaceM2(part.box);
  if (!part.features.includes("open-frame") && part.areaM2 < faceM2 * 0.999)
    return err({ kind: "area-under-face", areaM2: part.areaM2, faceM2 });
  return ok(part);
}

/** A simple shape that a part is made of; sizes in mm, `count` of them. Both sides of a plate, the outside of the rest. */
export type Shape = { readonly count: number } & (
  | { readonly shape: "plate"; readonly lengthMm: number; readonly widthMm: number }
  | { readonly shape: "round-tube"; readonly outerMm: number; readonly lengthMm: number }
  | { readonly shape: "box-section"; readonly aMm: number; readonly bMm: number; readonly lengthMm: number }
  | { readonly shape: "block"; readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number }
  | { readonly shape: "sphere"; readonly diameterMm: number }
);

/** Area to coat, m², of shapes added up; where they join is not taken off. Failures: `no-shapes`, `bad-size`. */
export function areaOfShapesM2(shapes: readonly Shape[]): Result<number> {
  if (shapes.length === 0) return err({ kind: "no-shapes" });
  let mm2 = 0;
  for (const s of shapes) {
    for (const [name, value] of Object.entries(s))
      if (name !== "shape" && (!(Number(value) > 0) || !Number.isFinite(Number(value))))
        return err({ kind: "bad-size", name: `${s.shape}: ${name}`, value: Number(value) });
    mm2 += s.count * oneMm2(s);
  }
  return ok(mm2 / 1e6);
}

function oneMm2(s: Shape): number {
  switch (s.shape) {
    case "plate":
      return 2 * s.lengthMm * s.widthMm;
    case "round-tube":
      return Math.PI * s.outerMm * s.lengthMm;
    case "box-section":
      return 2 * (s.aMm + s.bMm) * s.lengthMm;
    case "block":
      return 2 * (s.lengthMm * s.widthMm + s.lengthMm * s.heightMm + s.widthMm * s.heightMm);
    case "sphere":
      return Math.PI * s.diameterMm ** 2;
  }
}

/** A part that is refused, with what it was called: for lists of parts, where the line matters. */
export type PartFailure = Failure;
