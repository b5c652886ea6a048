import { err, ok, type Result } from "../result";
import type { PrepStep } from "./steps";

/** One thing said of how a step was done. */
export type HowField =
  | { readonly key: string; readonly kind: "choice"; readonly choices: readonly string[] }
  | {
      readonly key: string;
      readonly kind: "number";
      readonly unit: string;
      readonly bounds: readonly [number, number];
    }
  | { readonly key: string; readonly kind: "text" };
export type PrepHow = Readonly<Record<string, string | number>>;

const choice = (key: string, ...choices: string[]): HowField => ({ key, kind: "choice", choices });
const number = (key: string, unit: string, least: number, most: number): HowField => ({
  key,
  kind: "number",
  unit,
  bounds: [least, most],
});
const text = (key: string): HowField => ({ key, kind: "text" });
const longestText = 80;

/** What is asked of how each step was done; all of it may be left out. Cleanliness after ISO 8501-1. */
export const prepHow: { readonly [K in PrepStep]?: readonly HowField[] } = {
  strip: [text("stripper"), number("dwell", "min", 0, 2880), number("passes", "", 1, 20), number("left", "%", 0, 100)],
  degrease: [choice("with", "alkaline wash", "solvent", "steam")],
  grind: [choice("welds", "spatter off", "ground flush", "ground and blended")],
  "break-edges": [
    choice("edges", "broken", "radius 1 mm", "radius 2 mm or more"),
    choice("cut skin", "ground off", "left"),
  ],
  blast: [
    choice("media", "steel grit", "steel shot", "shot and grit", "garnet", "glass bead", "aluminium oxide"),
    number("pressure", "kPa", 50, 1500),
    choice("cleanliness", "Sa 1", "Sa 2", "Sa 2½", "Sa 3"),
    text("media lot"),
  ],
  sand: [number("grit", "", 16, 3000)],
  scuff: [number("grit", "", 16, 3000)],
  "blow-off": [choice("air", "dry and oil-free", "not checked")],
  "solvent-wipe": [
    choice("solvent", "acetone", "alcohol", "prep cleaner", "mineral spirits"),
    choice("wipe", "lint-free", "cotton", "paper"),
    choice("hands", "gloves", "bare"),
  ],
};

/** What of it is the shop's own way and is offered again; what somebody has to see each time (how clean, gloves on) is not. */
export const offeredAgain: ReadonlySet<string> = new Set([
  "stripper",
  "with",
  "media",
  "pressure",
  "media lot",
  "grit",
  "solvent",
  "wipe",
]);

/** Minutes a solvent wants to leave, at hall temperature. Source: shop practice, docs/methods.md. */
export const flashOffMinutesOf: Readonly<Record<string, number>> = {
  acetone: 5,
  alcohol: 8,
  "prep cleaner": 10,
  "mineral spirits": 30,
};

export type HowWarning =
  | "paper-leaves-fibres"
  | "handled-bare"
  | "air-not-checked"
  | "not-blasted-white"
  | "coating-left"
  | "cut-skin-left"
  | "slow-solvent"
  | "ferrous-media";

/** Metals that steel grit or shot embeds itself in, and rusts there: they take non-ferrous media, or a sweep of it. */
export const ferrousStains = (substrate: string): boolean =>
  ["stainless", "aluminium", "cast-aluminium", "galvanised"].includes(substrate);
const ferrousMedia: ReadonlySet<string> = new Set(["steel grit", "steel shot", "shot and grit"]);

/** Failure: `bad-how` with the field, its value and why. */
export function checkHow(step: PrepStep, how: PrepHow): Result<PrepHow> {
  const fields = prepHow[step] ?? [];
  for (const [key, value] of Object.entries(how)) {
    const bad = (why: string) => err({ kind: "bad-how", field: key, value, why });
    const field = fields.find((f) => f.key === key);
    if (!field) return bad("is not asked of this step");
    if (field.kind === "choice" && !field.choices.includes(String(value)))
      return bad(`is none of: ${field.choices.join(", ")}`);
    if (field.kind === "text" && (typeof value !== "string" || value.length > longestText))
      return bad(`is not words, ${longestText} characters at most`);
    if (field.kind !== "number") continue;
    const [least, most] = field.bounds;
    if (typeof value !== "number" || !(value >= least && value <= most)) return bad(`is not ${least} to ${most}`);
  }
  return ok(how);
}

/** What about the way it was done is known to lead to trouble. */
export function howWarnings(
  step: PrepStep,
  how: PrepHow | null,
  substrate: string | null = null,
): readonly HowWarning[] {
  if (!how) return [];
  const out: HowWarning[] = [];
  if (step === "solvent-wipe") {
    if (how.wipe === "paper") out.push("paper-leaves-fibres");
    if (how.hands === "bare") out.push("handled-bare");
    if (how.solvent === "mineral spirits") out.push("slow-solvent");
  }
  if (step === "blow-off" && how.air === "not checked") out.push("air-not-checked");
  if (step === "blast" && (how.cleanliness === "Sa 1" || how.cleanliness === "Sa 2")) out.push("not-blasted-white");
  if (step === "blast" && substrate !== null && ferrousStains(substrate) && ferrousMedia.has(String(how.media)))
    out.push("ferrous-media");
  if (step === "strip" && Number(how.left ?? 0) > 0) out.push("coating-left");
  if (step === "break-edges" && how["cut skin"] === "left") out.push("cut-skin-left");
  return out;
}
