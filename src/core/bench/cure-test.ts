import { within } from "../limits";
import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";

/** Pencils from the softest to the hardest: a film's hardness is the hardest that leaves no mark through it. */
export const pencils = ["6B", "5B", "4B", "3B", "2B", "B", "HB", "F", "H", "2H", "3H", "4H", "5H", "6H"] as const;
/**
 * Tests of the film beside cross-cut and rub: hardness by pencil (its place among the pencils), impact without a crack
 * (kg·cm), bend without a crack (smallest mandrel, mm), gloss at three angles (GU, mean of three or more), colour from the
 * standard panel (ΔE, as the instrument gives it), smoothness beside the panels (1 coarse … 10 smooth), holes to the metal found
 * by the sponge or spark (each test counts them).
 */
export const cureTests = [
  "pencil-hardness",
  "impact",
  "bend",
  "gloss-60",
  "gloss-20",
  "gloss-85",
  "colour",
  "smoothness",
  "holidays",
] as const;
export type CureTest = (typeof cureTests)[number];
/** What a job may ask for beside the cross-cut and the rub. */
export const benchTests = [...cureTests, "pull-off"] as const;
export type BenchTest = (typeof benchTests)[number];
export const cureTestUnit: Record<BenchTest, string> = {
  "pencil-hardness": "",
  impact: "kg·cm",
  bend: "mm",
  "gloss-60": "GU",
  "gloss-20": "GU",
  "gloss-85": "GU",
  colour: "ΔE",
  smoothness: "of 10",
  holidays: "found",
  "pull-off": "MPa",
};
const bounds: Record<CureTest, readonly [number, number]> = {
  "pencil-hardness": [0, pencils.length - 1],
  impact: [0, 1000],
  bend: [0, 200],
  "gloss-60": [0, 200],
  "gloss-20": [0, 200],
  "gloss-85": [0, 200],
  colour: [0, 100],
  smoothness: [1, 10],
  holidays: [0, 10_000],
};
/** Told in whole steps: a pencil, a panel, holes counted. */
const wholeSteps: ReadonlySet<CureTest> = new Set(["pencil-hardness", "smoothness", "holidays"]);
const isGloss = (test: CureTest): boolean => test.startsWith("gloss-");

/** The angle that tells glosses apart best, after what 60° reads: over 70 GU at 20°, under 10 GU at 85°. Source: ISO 2813. */
export const glossAngleFor = (at60Gu: number): 20 | 60 | 85 => (at60Gu > 70 ? 20 : at60Gu < 10 ? 85 : 60);
export const GLOSS_READINGS_LEAST = 3;

export type JudgedCureTest = {
  readonly value: number;
  readonly lower: number | null;
  readonly upper: number | null;
  /** Unknown where nothing was asked: a number without a limit is no verdict. */
  readonly result: VerdictResult;
};

/**
 * A test by its readings and what was asked: the mean of them, of impact the lowest blow, of smoothness the roughest place, of holidays the most. Failures: `too-few-readings` (gloss wants three), `beyond-instrument`,
 * `bad-input`. Source: after ISO 15184 (pencil), ISO 6272 (impact), ISO 1519 (bend), ISO 2813 (gloss), ASTM D5162 (holidays).
 */
export function judgeCureTest(
  test: CureTest,
  readings: readonly number[],
  lower: number | null,
  upper: number | null,
): Result<JudgedCureTest> {
  const need = isGloss(test) ? GLOSS_READINGS_LEAST : 1;
  if (readings.length < need) return err({ kind: "too-few-readings", got: readings.length, need });
  const [least, most] = bounds[test];
  for (const value of readings)
    if (!(value >= least && value <= most))
      return err({ kind: "beyond-instrument", parameter: test.replaceAll("-", " "), value, least, most });
  if (wholeSteps.has(test) && !readings.every(Number.isInteger))
    return err({
      kind: "bad-input",
      name: test === "pencil-hardness" ? "pencil" : test,
      value: readings.find((r) => !Number.isInteger(r)),
    });
  if (lower !== null && upper !== null && lower > upper)
    return err({ kind: "bad-input", name: "least asked", value: lower });
  // One blow that cracks is a crack: impact is its lowest blow, whatever the others bore. Of holes the worst test stands, and the roughest place.
  const value =
    test === "impact" || test === "smoothness"
      ? Math.min(...readings)
      : test === "holidays"
        ? Math.max(...readings)
        : readings.reduce((a, b) => a + b, 0) / readings.length;
  const asked = lower !== null || upper !== null;
  return ok({ value, lower, upper, result: asked ? (within(value, lower, upper) ? "in" : "out") : "unknown" });
}
