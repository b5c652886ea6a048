import { err, ok, type Result } from "../result";
import type { Point } from "./homography";

/** Turned, made larger or smaller, and moved: x → a·x − b·y + c, y → b·x + a·y + d. */
export type Similarity = { readonly a: number; readonly b: number; readonly c: number; readonly d: number };

/**
 * What lays two points of one picture on two of another: the same two places, in the same order. Failure: `points-too-near`
 * (px, of the picture that is laid).
 */
export function similarityOf(from: readonly [Point, Point], to: readonly [Point, Point]): Result<Similarity> {
  const [x, y] = [from[1][0] - from[0][0], from[1][1] - from[0][1]];
  const [u, v] = [to[1][0] - to[0][0], to[1][1] - to[0][1]];
  const size = x * x + y * y;
  if (!(Math.sqrt(size) >= 10) || !(Math.hypot(u, v) >= 10))
    return err({ kind: "points-too-near", px: Math.min(Math.sqrt(size), Math.hypot(u, v)) });
  const a = (x * u + y * v) / size;
  const b = (x * v - y * u) / size;
  return ok({ a, b, c: to[0][0] - a * from[0][0] + b * from[0][1], d: to[0][1] - b * from[0][0] - a * from[0][1] });
}
