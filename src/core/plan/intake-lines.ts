import { err, type Failure, ok, type Result } from "../result";
import { parseNumber } from "../units";
import { areaOfShapesM2, checkPart, type PartFeature, type PlannedPart, type Shape, type Substrate } from "./part";

export type IntakeLine = PlannedPart & {
  readonly name: string;
  readonly pieces: number;
  /** Numbers that were not typed and were taken by usual practice: said, and graded assumed. */
  readonly assumed: readonly ("massKg" | "areaM2" | "thinnestMm")[];
};

/** Words of the trade for a metal, longest first where one holds another. */
export const substrateWords: readonly (readonly [RegExp, Substrate])[] = [
  [/^(cast alu(minium)?|casting|lm\d+)$/, "cast-aluminium"],
  [/^(cast iron|iron)$/, "cast-iron"],
  [/^(hot[- ]rolled( steel)?|hr|plate|steel)$/, "hot-rolled-steel"],
  [/^(cold[- ]rolled( steel)?|cr|sheet( steel)?)$/, "cold-rolled-steel"],
  [/^(alu(minium)?|al)$/, "aluminium"],
  [/^(galv(anised)?( steel)?|zinc)$/, "galvanised"],
  [/^(stainless( steel)?|ss)$/, "stainless"],
];
const featureWords: Record<string, PartFeature> = {
  laser: "thermal-cut-edges",
  plasma: "thermal-cut-edges",
  flame: "thermal-cut-edges",
  sharp: "sharp-edges",
  sheared: "sharp-edges",
  hollow: "hollow-section",
  tube: "hollow-section",
  "no drain": "no-drain-holes",
  recess: "deep-recess",
  corner: "deep-recess",
  fit: "fit-surface",
  thread: "threads",
  threads: "threads",
  rubber: "rubber-or-seals",
  seals: "rubber-or-seals",
  bearings: "rubber-or-seals",
  plastic: "rubber-or-seals",
  grease: "rubber-or-seals",
  tumbled: "tumbled",
  tempered: "heat-treated",
  "heat treated": "heat-treated",
  wheel: "heat-treated",
  hinge: "hinges",
  hinges: "hinges",
  frame: "open-frame",
  "open frame": "open-frame",
};

/**
 * Reads one line of a delivery: name, metal, size, then bare numbers in the order thickest section (mm), mass (kg), area
 * (m²), pieces: `Lamp head,cast aluminium,400x300x250,8,4.2,0.6,20`. Any of them may carry its unit and then stand
 * anywhere (`8mm`, `4.2kg`, `0.6m2`, `x20`), a section may be a range (`2-8`), and words add what the part has (`laser`,
 * `threads`, `laps 2.4`). Area can be added up from simple shapes: `plate 800x400`, `2 tube 60x2000`, `rhs 60x40x2000`. Mass and area left out are taken from the box and said to be assumed.
 * Failures: `empty`, `part-without` (what), `unknown-part-word` (word, place), and those of `checkPart`.
 */
export function parseIntakeLine(line: string): Result<IntakeLine> {
  const cells = line
    .split(/[,;\t]/)
    .map((c) => c.trim())
    .filter((c) => c !== "");
  const [name, ...rest] = cells;
  if (!name) return err({ kind: "empty" });
  let substrate: Substrate | null = null;
  let box: PlannedPart["box"] | null = null;
  const features = new Set<PartFeature>();
  let lapM = 0;
  let section: [number, number] | null = null;
  const bare: number[] = [];
  const shapes: Shape[] = [];
  const named: { massKg?: number; areaM2?: number; pieces?: number } = {};
  for (const [i, cell] of rest.entries()) {
    const word = cell.toLowerCase();
    const metal = substrateWords.find(([pattern]) => pattern.test(word))?.[1];
    const feature = featureWords[word];
    const laps = /^laps?\s*([\d.,]+)?\s*m?$/.exec(word);
    const size = /^([\d.]+)\s*[x×*]\s*([\d.]+)\s*[x×*]\s*([\d.]+)\s*(mm|cm|m|in)?$/.exec(word);
    const range = /^([\d.]+)\s*[-–]\s*([\d.]+)\s*(mm)?$/.exec(word);
    const unit = /^x?\s*([\d.,]+)\s*(mm|kg|lb|m2|m²|sqm|pcs|pieces|off)$/.exec(word);
    const times = /^x\s*(\d+)$/.exec(word);
    const shape = shapeOf(word);
    if (shape) shapes.push(shape);
    else if (metal && substrate === null) substrate = metal;
    else if (feature) features.add(feature);
    else if (laps) {
      lapM = laps[1] ? Number(laps[1].replace(",", ".")) : 1;
      features.add("open-lap-seam");
    } else if (size) {
      const scale = { mm: 1, cm: 10, m: 1000, in: 25.4 }[size[4] ?? "mm"] as number;
      box = { lengthMm: Number(size[1]) * scale, widthMm: Number(size[2]) * scale, heightMm: Number(size[3]) * scale };
    } else if (range) section = [Number(range[1]), Number(range[2])];
    else if (times) named.pieces = Number(times[1]);
    else if (unit) {
      const value = parseNumber(unit[1] as string);
      if (!value.ok) return value;
      if (unit[2] === "mm") section = [value.value, value.value];
      else if (unit[2] === "kg") named.massKg = value.value;
      else if (unit[2] === "lb") named.massKg = value.value * 0.45359237;
      else if (["m2", "m²", "sqm"].includes(unit[2] as string)) named.areaM2 = value.value;
      else named.pieces = value.value;
    } else {
      const value = parseNumber(word);
      if (!value.ok)
        return value.error.kind === "ambiguous-number"
          ? value
          : err({ kind: "unknown-part-word", word: cell, at: i + 2 });
      bare.push(value.value);
    }
  }
  if (!substrate) return err({ kind: "part-without", what: "its metal", name });
  if (!box) return err({ kind: "part-without", what: "its size, like 400x300x250", name });
  const next = (): number | undefined => bare.shift();
  const thickest = section?.[1] ?? next();
  if (thickest === undefined) return err({ kind: "part-without", what: "its thickest section, mm", name });
  const massKg = named.massKg ?? next();
  const added = shapes.length > 0 ? areaOfShapesM2(shapes) : null;
  if (added && !added.ok) return added;
  const areaM2 = named.areaM2 ?? added?.value ?? next();
  const pieces = named.pieces ?? next() ?? 1;
  if (bare.length > 0) return err({ kind: "unknown-part-word", word: String(bare[0]), at: rest.length + 1 });
  if (!Number.isInteger(pieces) || pieces < 1 || pieces > 100_000) return err({ kind: "bad-count", pieces });
  const assumed: IntakeLine["assumed"][number][] = [];
  if (massKg === undefined) assumed.push("massKg");
  if (areaM2 === undefined) assumed.push("areaM2");
  const surface = boxSurfaceM2(box);
  const part: PlannedPart = {
    substrate,
    features: [...features],
    box,
    thickestMm: Math.max(thickest, section?.[0] ?? 0),
    thinnestMm: Math.min(section?.[0] ?? thickest, thickest),
    areaM2: areaM2 ?? surface,
    massKg: massKg ?? shellMassKg(substrate, surface, section?.[0] ?? thickest, box),
    lapM,
  };
  const checked = checkPart(part);
  return checked.ok ? ok({ ...part, name, pieces, assumed }) : checked;
}

/** A known part as the line that would be read back to it: what a library offers for the next delivery. */
export function intakeLineOf(part: PlannedPart & { readonly name: string }, pieces = 1): string {
  const { box } = part;
  const word = (feature: PartFeature) => Object.entries(featureWords).find(([, f]) => f === feature)?.[0];
  return [
    part.name.replaceAll(/[,;\t]/g, " "),
    part.substrate.replaceAll("-", " "),
    `${box.lengthMm}x${box.widthMm}x${box.heightMm}`,
    part.thinnestMm === part.thickestMm ? `${part.thickestMm}mm` : `${part.thinnestMm}-${part.thickestMm}`,
    `${part.massKg}kg`,
    `${part.areaM2}m2`,
    `x${pieces}`,
    ...part.features.flatMap((f) => (f === "open-lap-seam" ? [] : (word(f) ?? []))),
    ...(part.lapM > 0 ? [`laps ${part.lapM}`] : []),
  ].join(",");
}

/** `2 plate 800x400`, `tube 60x2000` (outside diameter by length), `rhs 60x40x2000`, `block 100x80x60`, `ball 120`; mm. */
function shapeOf(word: string): Shape | null {
  const parts =
    /^(?:(\d+)\s*[x×*]?\s*)?(plate|tube|rhs|block|ball)\s+([\d.]+)(?:\s*[x×*]\s*([\d.]+))?(?:\s*[x×*]\s*([\d.]+))?$/.exec(
      word,
    );
  if (!parts) return null;
  const count = Number(parts[1] ?? 1);
  const [a, b, c] = [parts[3], parts[4], parts[5]].map((n) => (n === undefined ? null : Number(n)));
  if (parts[2] === "plate" && a && b && c === null) return { shape: "plate", count, lengthMm: a, widthMm: b };
  if (parts[2] === "tube" && a && b && c === null) return { shape: "round-tube", count, outerMm: a, lengthMm: b };
  if (parts[2] === "rhs" && a && b && c) return { shape: "box-section", count, aMm: a, bMm: b, lengthMm: c };
  if (parts[2] === "block" && a && b && c) return { shape: "block", count, lengthMm: a, widthMm: b, heightMm: c };
  if (parts[2] === "ball" && a && b === null) return { shape: "sphere", count, diameterMm: a };
  return null;
}

const boxSurfaceM2 = (b: PlannedPart["box"]) =>
  (2 * (b.lengthMm * b.widthMm + b.lengthMm * b.heightMm + b.widthMm * b.heightMm)) / 1e6;
/** Mass where none was given: the box as a shell of its thinnest section, and never more than a fifth of the box in metal. */
function shellMassKg(substrate: Substrate, surfaceM2: number, sectionMm: number, box: PlannedPart["box"]): number {
  const density =
    { "cast-aluminium": 2700, aluminium: 2700, "cast-iron": 7200, stainless: 7930 }[substrate as string] ?? 7850;
  const solid = (density * box.lengthMm * box.widthMm * box.heightMm) / 1e9;
  return Math.min(surfaceM2 * (sectionMm / 1000) * density, solid * 0.2);
}

export type IntakeList = {
  readonly parts: readonly (IntakeLine & { readonly line: number })[];
  readonly problems: readonly { readonly line: number; readonly text: string; readonly failure: Failure }[];
};
/** Parts of one delivery at most. */
export const MOST_INTAKE_LINES = 500;

/** Reads a delivery, one part a line; each line that cannot be taken is named with its number, none is dropped. Failure: `too-many-lines`. */
export function parseIntakeList(text: string): Result<IntakeList> {
  const lines = text.split(/\r?\n/);
  const filled = lines.filter((l) => l.trim() !== "").length;
  if (filled > MOST_INTAKE_LINES) return err({ kind: "too-many-lines", got: filled, most: MOST_INTAKE_LINES });
  const parts: (IntakeLine & { line: number })[] = [];
  const problems: { line: number; text: string; failure: Failure }[] = [];
  for (const [i, text] of lines.entries()) {
    if (text.trim() === "" || /^\s*(name|part)\s*[,;\t]/i.test(text)) continue;
    const read = parseIntakeLine(text);
    if (read.ok) parts.push({ ...read.value, line: i + 1 });
    else problems.push({ line: i + 1, text: text.trim(), failure: read.error });
  }
  return ok({ parts, problems });
}
