import { err, ok, type Result } from "../result";
import { cutsSeen, cutsSetRight, cutsShown } from "./cuts-seen";
import { HIGHLIGHT, highlight, toldApart } from "./film-and-metal";
import { type Homography, seenAt } from "./homography";
import type { Plane } from "./image";
import { AROUND, cornerPlaces, SQUARE_PX, squaredUp } from "./squared-up";

/** More of the lattice than this under a highlight is not to be told. */
const MOST_GLARE = 0.04;
/** Of any one square so much is told, or what it lost is a guess. */
const LEAST_TOLD = 0.5;
/** Of the places where a cut is seen, so many lie on one of the lattice. */
const LEAST_TRUE = 0.72;
/** So many of the cuts that must show do. */
const LEAST_SHOWN = 0.8;

export type Squared = {
  readonly cuts: 6 | 11;
  readonly seen: Homography;
  /** Width of a cut, in squares. */
  readonly kerf: number;
  /** Share of each square that came off, row by row, 0–1. */
  readonly squares: readonly number[];
  /** Of all of them, %. */
  readonly removedPercent: number;
  /** Under a highlight, not told, share of the lattice. */
  readonly glare: number;
  /** Squared up: so many px a square, the film around included; 1 came off, 2 not told, else 0. */
  readonly mask: { readonly width: number; readonly state: Uint8Array };
  /** The same in colour, for whoever looks at it. */
  readonly picture: { readonly width: number; readonly rgba: Uint8ClampedArray };
};

/** Rounds of setting right, and the move of a corner, in squares, after which there is nothing left to set. */
const MOST_ROUNDS = 6;
const SETTLED = 0.012;
function furthest(was: Homography, is: Homography, n: number): number {
  const step = Math.hypot(...([0, 1] as const).map((c) => seenAt(was, [n, 0])[c] - seenAt(was, [0, 0])[c])) / n;
  return Math.max(
    ...cornerPlaces(n).map((corner) => {
      const [a, b] = [seenAt(was, corner), seenAt(is, corner)];
      return Math.hypot(a[0] - b[0], a[1] - b[1]) / step;
    }),
  );
}

/**
 * What came off a lattice that was found, square by square: film and metal told apart by colour, the light on them taken out,
 * the cuts themselves left out. Failures: `no-film-to-go-by`, `looks-alike` (film and metal), `no-lattice` (its cuts do not
 * show where they must), `lattice-cut-off` (by the edge of the picture), `glare`. O(pixels of the lattice).
 */
export function liftedShare(
  planes: readonly Plane[],
  found: { readonly seen: Homography; readonly cuts: 6 | 11 },
): Result<Squared> {
  const n = found.cuts - 1;
  let seen = found.seen;
  let rect = squaredUp(planes, seen, n);
  let told = toldApart(rect, n, 1);
  if (!told.ok) return told;
  let kerf = 0.06;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const right = cutsSetRight(told.value.t, rect.width, n, seen);
    if (!right) break;
    const moved = furthest(seen, right.seen, n);
    seen = right.seen;
    kerf = right.kerf;
    rect = squaredUp(planes, seen, n);
    const again = toldApart(rect, n, 1);
    if (!again.ok) return again;
    told = again;
    if (moved < SETTLED) break;
  }
  told = toldApart(rect, n);
  if (!told.ok) return told;
  const { t, beside, metal, film, far, toCut, within } = told.value;
  const places = cutsSeen(t, rect.width, n).seen;
  const onCuts = places.filter((c) => Math.abs((c.family === 0 ? c.u : c.v) - c.cut) < 0.025).length;
  if (onCuts < LEAST_TRUE * places.length) return err({ kind: "no-lattice", support: onCuts / places.length });
  const state = new Uint8Array(t.length);
  const half = kerf / 2;
  let outside = 0;
  for (let at = 0; at < t.length; at++) {
    const value = t[at] as number;
    state[at] = value > 1.45 || (beside[at] as number) > 0.9 ? 2 : value > 0.5 ? 1 : 0;
    // The cuts themselves are no part of what came off.
    if (state[at] === 1 && within[at] === 1 && (toCut[at] as number) <= half) state[at] = 0;
    if (highlight(film, far, metal, at) > HIGHLIGHT) state[at] = 2;
    if (rect.inside[at] === 1) continue;
    state[at] = 2;
    if (within[at] === 1) outside++;
  }
  // Out of the picture there is nothing to be told of it.
  if (outside > 0) return err({ kind: "lattice-cut-off" });
  const { squares, unknown, leastTold } = sharesOf(state, rect.width, n, half);
  const shown = cutsShown(t, state, rect.width, n);
  if (shown < LEAST_SHOWN) return err({ kind: "no-lattice", support: shown });
  if (unknown > MOST_GLARE || leastTold < LEAST_TOLD) return err({ kind: "glare", sharePercent: 100 * unknown });
  const rgba = new Uint8ClampedArray(t.length * 4);
  for (let at = 0; at < t.length; at++) {
    for (let c = 0; c < 3; c++) rgba[at * 4 + c] = rect.colours[c]?.values[at] as number;
    rgba[at * 4 + 3] = 255;
  }
  return ok({
    cuts: found.cuts,
    seen,
    kerf,
    squares,
    removedPercent: (100 * squares.reduce((a, b) => a + b, 0)) / squares.length,
    glare: unknown,
    mask: { width: rect.width, state },
    picture: { width: rect.width, rgba },
  });
}

/** Right beside a cut its own blur is seen, in squares: there a square is taken for what it is a little further in. */
const BESIDE_CUT = 0.024;
const SAMPLES = 56;
/** Share of each square between its cuts that came off, of all of them the share that is not told, and of the one that is told least how much is. O(samples). */
export function sharesOf(
  state: Uint8Array,
  width: number,
  n: number,
  half: number,
): { readonly squares: readonly number[]; readonly unknown: number; readonly leastTold: number } {
  let unknown = 0;
  let leastTold = 1;
  const [least, most] = [half + BESIDE_CUT, 1 - half - BESIDE_CUT];
  const squares = Array.from({ length: n * n }, (_, square) => {
    const [col, row] = [square % n, Math.floor(square / n)];
    let [off, told] = [0, 0];
    for (let i = 0; i < SAMPLES; i++)
      for (let j = 0; j < SAMPLES; j++) {
        const place = (k: number) => Math.min(most, Math.max(least, half + ((1 - 2 * half) * (k + 0.5)) / SAMPLES));
        const x = Math.floor((col + place(i) + AROUND) * SQUARE_PX);
        const y = Math.floor((row + place(j) + AROUND) * SQUARE_PX);
        const is = state[y * width + x];
        if (is === 2) {
          unknown++;
          continue;
        }
        told++;
        if (is === 1) off++;
      }
    leastTold = Math.min(leastTold, told / (SAMPLES * SAMPLES));
    return told > 0 ? off / told : 0;
  });
  return { squares, unknown: unknown / (n * n * SAMPLES * SAMPLES), leastTold };
}
