import { err, ok, type Result } from "../result";
import { leastSquares } from "./least-squares";

export type Point = readonly [x: number, y: number];
/** A plane seen from aslant, row by row: [h0 h1 h2; h3 h4 h5; h6 h7 1]. */
export type Homography = readonly [number, number, number, number, number, number, number, number];

/** Where a point of the plane is seen. */
export function seenAt(h: Homography, [u, v]: Point): Point {
  const w = h[6] * u + h[7] * v + 1;
  return [(h[0] * u + h[1] * v + h[2]) / w, (h[3] * u + h[4] * v + h[5]) / w];
}

/**
 * The homography that takes the points of a plane to where they are seen, by least squares over four or more pairs. Failures:
 * `too-few-corners`, `flat-points` (they lie on a line). O(n).
 */
export function homographyOf(pairs: readonly (readonly [on: Point, seen: Point])[]): Result<Homography> {
  if (pairs.length < 4) return err({ kind: "too-few-corners", got: pairs.length, need: 4 });
  // The direct linear transform, two rows a pair.
  const rows = pairs.flatMap(([[u, v], [x, y]]) => [
    [u, v, 1, 0, 0, 0, -u * x, -v * x],
    [0, 0, 0, u, v, 1, -u * y, -v * y],
  ]);
  const h = leastSquares(
    rows,
    pairs.flatMap(([, [x, y]]) => [x, y]),
  );
  if (!h) return err({ kind: "flat-points", points: pairs.length });
  return ok(h as unknown as Homography);
}
