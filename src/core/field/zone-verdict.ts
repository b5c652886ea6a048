import { type VerdictResult, worstResult } from "../verdict";
import { creepRating } from "./creep";
import type { Blisters } from "./ratings";
import { flakingGrade, rustedLength } from "./ratings";
import { rustGrade } from "./rust";

/** What was found in a zone, each where it was looked at last; what is null was never looked at. */
export type ZoneFound = {
  /** Looked at by eye: sound, or something was there. */
  readonly soundByEye: boolean | null;
  readonly creepMm: number | null;
  readonly rustPercent: number | null;
  readonly blisters: Blisters | null;
  readonly flakedPercent: number | null;
  /** Tape on sound film, grade of ISO 2409; 0 nothing came off. */
  readonly tapeIso: number | null;
  readonly seam: { readonly rustedMm: number; readonly ofMm: number } | null;
  readonly glossRetentionPercent: number | null;
  readonly deltaE: number | null;
  /** By tape, 0 none … 5. */
  readonly chalk: number | null;
};
export type FoundName =
  | "eye"
  | "creep"
  | "rust"
  | "blisters"
  | "flaking"
  | "tape"
  | "seam"
  | "gloss"
  | "colour"
  | "chalk";
export type Judged = { readonly name: FoundName; readonly result: VerdictResult };
export type ZoneVerdict = {
  /** Whether it still keeps the metal, and whether it still looks as it did: unknown where nothing was looked at. */
  readonly protection: VerdictResult;
  readonly appearance: VerdictResult;
  readonly judged: readonly Judged[];
};

/** A creep rating: 9 and 10 are as good as none, under 6 the system has failed there. */
export const creepResult = (rating: number | null): VerdictResult =>
  rating === null ? "unknown" : rating >= 9 ? "in" : rating >= 6 ? "watch" : "out";
/** A degree of rusting: none, the first specks, more. Ri 3 is where a system is commonly taken to be at its end (ISO 12944-1). */
export const rustResult = (grade: number): VerdictResult => (grade === 0 ? "in" : grade <= 2 ? "watch" : "out");
const stepped = (value: number, upToIn: number, upToWatch: number): VerdictResult =>
  value <= upToIn ? "in" : value <= upToWatch ? "watch" : "out";

/**
 * Two verdicts of a zone by the standards' own scales: protection by eye (sound, or to be watched), creep, rust, blisters, flaking, tape and seam; appearance
 * by gloss kept, colour and chalk. Of each the worst stands; what was not looked at decides nothing and is not in. Limits of
 * appearance are those under which a finish is commonly said to have faded: half the gloss, ΔE 5, chalk 2.
 */
export function judgeZone(found: ZoneFound): ZoneVerdict {
  const protection: Judged[] = [];
  const appearance: Judged[] = [];
  if (found.soundByEye !== null) protection.push({ name: "eye", result: found.soundByEye ? "in" : "watch" });
  if (found.creepMm !== null) {
    const rating = creepRating(found.creepMm);
    protection.push({ name: "creep", result: creepResult(rating.ok ? rating.value : null) });
  }
  if (found.rustPercent !== null) {
    const grade = rustGrade(found.rustPercent);
    protection.push({ name: "rust", result: grade.ok ? rustResult(grade.value) : "unknown" });
  }
  if (found.blisters !== null) protection.push({ name: "blisters", result: stepped(found.blisters.density, 0, 2) });
  if (found.flakedPercent !== null) {
    const grade = flakingGrade(found.flakedPercent);
    protection.push({ name: "flaking", result: grade.ok ? stepped(grade.value, 0, 2) : "unknown" });
  }
  if (found.tapeIso !== null) protection.push({ name: "tape", result: stepped(found.tapeIso, 0, 2) });
  if (found.seam !== null) {
    const share = rustedLength(found.seam.rustedMm, found.seam.ofMm);
    protection.push({ name: "seam", result: share.ok ? stepped(share.value, 0, 5) : "unknown" });
  }
  if (found.glossRetentionPercent !== null)
    appearance.push({
      name: "gloss",
      result: found.glossRetentionPercent >= 75 ? "in" : found.glossRetentionPercent >= 50 ? "watch" : "out",
    });
  if (found.deltaE !== null) appearance.push({ name: "colour", result: stepped(found.deltaE, 2, 5) });
  if (found.chalk !== null) appearance.push({ name: "chalk", result: stepped(found.chalk, 0, 2) });
  const whole = (judged: readonly Judged[]): VerdictResult =>
    judged.length === 0 ? "unknown" : worstResult(judged.map((j) => j.result));
  return { protection: whole(protection), appearance: whole(appearance), judged: [...protection, ...appearance] };
}
