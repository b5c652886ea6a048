import type { Homography, Point } from "./homography";
import type { Plane } from "./image";

/** Pixels that a square is squared up to, and the film around the lattice that is looked at with it, in squares. */
export const SQUARE_PX = 48;
export const AROUND = 0.75;
/** The lattice and the film around it as seen square on; `inside` is 1 where the picture reaches. */
export type Rect = { readonly width: number; readonly colours: readonly Plane[]; readonly inside: Uint8Array };

/** The lattice and the film around it squared up, in three colours. O(pixels of it). */
export function squaredUp(planes: readonly Plane[], seen: Homography, n: number): Rect {
  const width = Math.round((n + 2 * AROUND) * SQUARE_PX);
  const colours = planes.map(() => ({ width, height: width, values: new Float32Array(width * width) }));
  const inside = new Uint8Array(width * width);
  const [{ width: w, height: h }] = planes as readonly [Plane];
  for (let y = 0; y < width; y++)
    for (let x = 0; x < width; x++) {
      const u = (x + 0.5) / SQUARE_PX - AROUND;
      const v = (y + 0.5) / SQUARE_PX - AROUND;
      const by = 1 / (seen[6] * u + seen[7] * v + 1);
      const px = (seen[0] * u + seen[1] * v + seen[2]) * by;
      const py = (seen[3] * u + seen[4] * v + seen[5]) * by;
      const at = y * width + x;
      if (px < 0 || py < 0 || px >= w - 1 || py >= h - 1) continue;
      inside[at] = 1;
      const from = Math.floor(py) * w + Math.floor(px);
      const fx = px - Math.floor(px);
      const fy = py - Math.floor(py);
      for (let c = 0; c < 3; c++) {
        const from4 = (planes[c] as Plane).values;
        const top = (from4[from] as number) * (1 - fx) + (from4[from + 1] as number) * fx;
        const foot = (from4[from + w] as number) * (1 - fx) + (from4[from + w + 1] as number) * fx;
        (colours[c] as { values: Float32Array }).values[at] = top * (1 - fy) + foot * fy;
      }
    }
  return { width, colours, inside };
}

/** Squares from the nearest cut, and whether a pixel lies in the lattice; by place. Worked out once for a lattice of n: read only. */
export function placesOf(width: number, n: number): Places {
  const known = places.get(n);
  if (known?.toCut.length === width * width) return known;
  const toCut = new Float32Array(width * width);
  const within = new Uint8Array(width * width);
  for (let y = 0; y < width; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x + 0.5) / SQUARE_PX - AROUND, (y + 0.5) / SQUARE_PX - AROUND];
      const near = (w: number) => Math.abs(w - Math.min(n, Math.max(0, Math.round(w))));
      const at = y * width + x;
      within[at] = u > 0 && v > 0 && u < n && v < n ? 1 : 0;
      // Outside, cuts that run on past the lattice lie where the lattice's own would.
      toCut[at] = Math.min(near(u), near(v));
    }
  const made = { toCut, within };
  places.set(n, made);
  return made;
}
type Places = { readonly toCut: Float32Array; readonly within: Uint8Array };
const places = new Map<number, Places>();

/** A place in squares as a pixel of what was squared up. */
export const pixel = (w: number): number => Math.round((w + AROUND) * SQUARE_PX - 0.5);
/** The corners of a lattice of n squares in its own plane: upper left, upper right, lower right, lower left. */
export const cornerPlaces = (n: number): readonly [Point, Point, Point, Point] => [
  [0, 0],
  [n, 0],
  [n, n],
  [0, n],
];
