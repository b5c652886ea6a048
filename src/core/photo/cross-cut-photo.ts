import { type CrossCut, crossCutGrade } from "../bench";
import type { Result } from "../result";
import { type Homography, homographyOf, type Point } from "./homography";
import { checkPicture, halved, type Picture, type Plane, planesOf } from "./image";
import { findLattice } from "./lattice";
import { liftedShare, type Squared } from "./lifted";
import { cornerPlaces } from "./squared-up";

/** Longest side that what came off is told at, px, and the longest that the lattice is looked for at: more shows no more of it. */
const LOOKED_AT = 1000;
const FOUND_AT = 620;
/** The same plane in a picture twice as large. */
function nearer(h: Homography): Homography {
  const [a, b, c, d, e, f, g, i] = h;
  return [2 * a + 0.5 * g, 2 * b + 0.5 * i, 2 * c + 0.5, 2 * d + 0.5 * g, 2 * e + 0.5 * i, 2 * f + 0.5, g, i];
}

export type CrossCutPhoto = Squared & { readonly grade: CrossCut };

/**
 * A cross-cut read from a photo: the lattice found and squared up, what came off told by colour. `corners`, where somebody
 * tapped them (upper left, upper right, lower right, lower left), stand for the finding. Failures: those of `checkPicture`,
 * `no-lattice`, `two-lattices`, `lattice-cut-off`, `no-film-to-go-by`, `looks-alike`, `glare`, `flat-points`. O(pixels).
 */
export function readCrossCut(
  picture: Picture,
  cuts: 6 | 11,
  corners: readonly [Point, Point, Point, Point] | null = null,
): Result<CrossCutPhoto> {
  const checked = checkPicture(picture);
  if (!checked.ok) return checked;
  const { planes, by } = planesOf(picture, LOOKED_AT);
  const lifted = corners ? byCorners(planes, cuts, corners, by) : foundAndTold(planes, cuts);
  if (!lifted.ok) return lifted;
  const grade = crossCutGrade(Math.min(100, Math.max(0, snapped(lifted.value.removedPercent))));
  return grade.ok ? { ok: true, value: { ...lifted.value, grade: grade.value } } : grade;
}

/** The lattice looked for from further off, where its cuts are seen best, and from near where that comes to nothing. */
function foundAndTold(planes: readonly Plane[], cuts: 6 | 11): Result<Squared> {
  const far = Math.max(...planes.map((p) => Math.max(p.width, p.height))) > FOUND_AT;
  const told = (from: readonly Plane[], closer: boolean): Result<Squared> => {
    const lattice = findLattice(from, cuts);
    if (!lattice.ok) return lattice;
    return liftedShare(planes, { seen: closer ? nearer(lattice.value.seen) : lattice.value.seen, cuts });
  };
  const first = told(far ? planes.map(halved) : planes, far);
  return first.ok || !far || first.error.kind !== "no-lattice" ? first : told(planes, false);
}

function byCorners(
  planes: readonly Plane[],
  cuts: 6 | 11,
  corners: readonly [Point, Point, Point, Point],
  by: number,
): Result<Squared> {
  const n = cuts - 1;
  const on = cornerPlaces(n);
  const seen = homographyOf(
    corners.map(([x, y], i) => [on[i] as Point, [(x + 0.5) / by - 0.5, (y + 0.5) / by - 0.5]] as const),
  );
  return seen.ok ? liftedShare(planes, { seen: seen.value, cuts }) : seen;
}

/** So little that it is the edge of the cuts themselves is nothing. */
export const NOTHING_PERCENT = 0.25;
const snapped = (percent: number): number => (percent < NOTHING_PERCENT ? 0 : percent);
