import { differenceCiede2000 } from "culori/fn";
import { err, ok, type Result } from "../result";

/** A colour as a colour meter gives it: CIE L*a*b*, D65, 10° or 2°, the same for both that are compared. */
export type Lab = readonly [lightness: number, a: number, b: number];

const difference = differenceCiede2000();
const isLab = ([l, a, b]: Lab): boolean => l >= 0 && l <= 100 && Math.abs(a) <= 200 && Math.abs(b) <= 200;

/** Colour difference ΔE00 between two colours. Failure: `bad-colour` (one that no meter gives). Source: ISO/CIE 11664-6. */
export function colourDifference(one: Lab, other: Lab): Result<number> {
  for (const lab of [one, other]) if (!isLab(lab)) return err({ kind: "bad-colour", lab: lab.join(" ") });
  const as = ([l, a, b]: Lab) => ({ mode: "lab65" as const, l, a, b });
  return ok(difference(as(one), as(other)));
}
