import { err, ok, type Result } from "../result";

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
  // Normal equations of the direct linear transform, eight unknowns.
  const a: Float64Array[] = Array.from({ length: 8 }, () => new Float64Array(9));
  const add = (row: readonly number[], value: number) => {
    for (let i = 0; i < 8; i++) {
      const line = a[i] as Float64Array;
      for (let j = 0; j < 8; j++) line[j] = (line[j] as number) + (row[i] as number) * (row[j] as number);
      line[8] = (line[8] as number) + (row[i] as number) * value;
    }
  };
  for (const [[u, v], [x, y]] of pairs) {
    add([u, v, 1, 0, 0, 0, -u * x, -v * x], x);
    add([0, 0, 0, u, v, 1, -u * y, -v * y], y);
  }
  for (let i = 0; i < 8; i++) {
    let best = i;
    for (let r = i + 1; r < 8; r++)
      if (Math.abs((a[r] as Float64Array)[i] as number) > Math.abs((a[best] as Float64Array)[i] as number)) best = r;
    [a[i], a[best]] = [a[best] as Float64Array, a[i] as Float64Array];
    const pivot = (a[i] as Float64Array)[i] as number;
    if (!(Math.abs(pivot) > 1e-9)) return err({ kind: "flat-points", points: pairs.length });
    for (let r = 0; r < 8; r++) {
      if (r === i) continue;
      const by = ((a[r] as Float64Array)[i] as number) / pivot;
      for (let c = i; c < 9; c++)
        (a[r] as Float64Array)[c] = ((a[r] as Float64Array)[c] as number) - by * ((a[i] as Float64Array)[c] as number);
    }
  }
  const h = a.map((row, i) => (row[8] as number) / (row[i] as number));
  return ok(h as unknown as Homography);
}
