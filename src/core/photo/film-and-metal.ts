import { err, ok } from "../result";
import type { Plane } from "./image";
import { dot, leastSquares } from "./least-squares";
import { placesOf, type Rect } from "./squared-up";

/** Less apart than this, film and metal look alike, 0–255. */
const LEAST_CONTRAST = 20;
/** So many places of the picture, about, that the film's surface is told from. */
const SURFACE_PLACES = 18_000;
/** The film's own colour over the picture: light falls off smoothly, so a surface of the second degree through what is film, what is not left out. */
function filmSurface(rect: Rect, use: (at: number) => boolean): readonly Plane[] | null {
  const { width, colours } = rect;
  const bright = (at: number) => colours.reduce((s, c) => s + (c.values[at] as number), 0);
  const picked: number[] = [];
  // A surface of the second degree needs no more places than these to be told.
  const step = Math.max(3, Math.floor((width * width) / SURFACE_PLACES));
  for (let at = 0; at < width * width; at += step) if (use(at)) picked.push(at);
  if (picked.length < 60) return null;
  const terms = (at: number): readonly number[] => {
    const [x, y] = [(at % width) / width - 0.5, Math.floor(at / width) / width - 0.5];
    return [1, x, y, x * x, x * y, y * y];
  };
  const rows = picked.map(terms);
  const brightness = picked.map(bright);
  let kept = picked.map((_, i) => i);
  for (let round = 0; round < 4; round++) {
    const fit = leastSquares(
      kept.map((i) => rows[i] as readonly number[]),
      kept.map((i) => brightness[i] as number),
    );
    if (!fit) return null;
    const off = rows.map((row, i) => Math.abs((brightness[i] as number) - dot(fit, row)));
    const middle = [...off].sort((a, b) => a - b)[Math.floor(off.length / 2)] as number;
    kept = picked.map((_, i) => i).filter((i) => (off[i] as number) <= Math.max(6, 3 * middle));
    if (kept.length < 60) return null;
  }
  const keptRows = kept.map((i) => rows[i] as readonly number[]);
  return colours.map((c) => {
    const fit = leastSquares(
      keptRows,
      kept.map((i) => c.values[picked[i] as number] as number),
    );
    const values = new Float32Array(width * width);
    if (!fit) return { width, height: width, values };
    const [a, b, d, e, f, g] = fit as unknown as readonly [number, number, number, number, number, number];
    for (let row = 0, at = 0; row < width; row++) {
      const y = row / width - 0.5;
      for (let column = 0; column < width; column++, at++) {
        const x = column / width - 0.5;
        values[at] = a + b * x + d * y + e * x * x + f * x * y + g * y * y;
      }
    }
    return { width, height: width, values };
  });
}
export type Colour = readonly [number, number, number];
/** The middle one of some numbers, which it sorts; 0 of none. */
export const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** The light on each pixel, of the film's mean: the same light falls on film and metal. */
function lightOn([fr, fg, fb]: readonly [Float32Array, Float32Array, Float32Array]): (at: number) => number {
  let whole = 0;
  for (let at = 0; at < fr.length; at += 97) whole += (fr[at] as number) + (fg[at] as number) + (fb[at] as number);
  whole = whole / Math.ceil(fr.length / 97) || 1;
  return (at) => Math.max(0.3, ((fr[at] as number) + (fg[at] as number) + (fb[at] as number)) / whole);
}
type Three = readonly [Float32Array, Float32Array, Float32Array];
const valuesOf = (planes: readonly Plane[]): Three => planes.map((c) => c.values) as unknown as Three;

/** How far off the film's colour a pixel is, its light taken out. */
function offFilm({ colours }: Rect, film: readonly Plane[]): (at: number) => Colour {
  const [red, green, blue] = valuesOf(colours);
  const own = valuesOf(film);
  const [fr, fg, fb] = own;
  const light = lightOn(own);
  return (at) => {
    const by = 1 / light(at);
    return [
      ((red[at] as number) - (fr[at] as number)) * by,
      ((green[at] as number) - (fg[at] as number)) * by,
      ((blue[at] as number) - (fb[at] as number)) * by,
    ];
  };
}

/** How far from film (0) to metal (1) each pixel is, and how far beside the way between the two, in the same measure. O(pixels). */
function between(rect: Rect, film: readonly Plane[], [mr, mg, mb]: Colour) {
  const { width, colours } = rect;
  const [red, green, blue] = valuesOf(colours);
  const own = valuesOf(film);
  const [fr, fg, fb] = own;
  const t = new Float32Array(width * width);
  const beside = new Float32Array(width * width);
  const size = mr * mr + mg * mg + mb * mb;
  const light = lightOn(own);
  for (let at = 0; at < t.length; at++) {
    const by = 1 / light(at);
    const r = ((red[at] as number) - (fr[at] as number)) * by;
    const g = ((green[at] as number) - (fg[at] as number)) * by;
    const b = ((blue[at] as number) - (fb[at] as number)) * by;
    const along = (r * mr + g * mg + b * mb) / size;
    t[at] = along;
    const x = r - along * mr;
    const y = g - along * mg;
    const z = b - along * mb;
    beside[at] = Math.sqrt((x * x + y * y + z * z) / size);
  }
  return { t, beside, off: offFilm(rect, film) };
}

const medianColour = (list: readonly Colour[]): Colour =>
  [0, 1, 2].map((c) => median(list.map((v) => v[c] as number))) as unknown as Colour;
/** How far apart a colour is from none, 0–441. */
const sizeOf = ([r, g, b]: Colour): number => Math.sqrt(r * r + g * g + b * b);

/** Rounds in which film and metal make each other out; one is enough to see where the cuts lie. */
const ROUNDS = 3;
/** Film and metal told apart in one picture squared up. Failures: `no-film-to-go-by` (none is seen around it), `looks-alike`. O(pixels). */
export function toldApart(rect: Rect, n: number, rounds = ROUNDS) {
  const { width, inside } = rect;
  const { toCut, within } = placesOf(width, n);
  const film0 = filmSurface(rect, (at) => inside[at] === 1 && within[at] === 0 && (toCut[at] as number) > 0.16);
  if (!film0) return err({ kind: "no-film-to-go-by" });
  // Metal shows in the cuts; what differs most from the film there is the most of it.
  const off = offFilm(rect, film0);
  const cut: { readonly off: Colour; readonly size: number }[] = [];
  for (let at = 0; at < toCut.length; at++)
    if (within[at] === 1 && (toCut[at] as number) < 0.025) {
      const colour = off(at);
      cut.push({ off: colour, size: sizeOf(colour) });
    }
  cut.sort((a, b) => b.size - a.size);
  let metal = medianColour(cut.slice(0, Math.ceil(cut.length * 0.6)).map((c) => c.off));
  if (sizeOf(metal) < 0.5 * LEAST_CONTRAST) return err({ kind: "looks-alike", contrast: sizeOf(metal) });
  let film: readonly Plane[] = film0;
  let apart = between(rect, film, metal);
  for (let round = 0; round < rounds; round++) {
    // A cut is narrow and its metal blurred with film: where squares came off, the metal is seen whole.
    const bare: Colour[] = [];
    let looked = 0;
    for (let at = 0; at < toCut.length; at += 2) {
      if (within[at] !== 1 || (toCut[at] as number) < 0.1) continue;
      looked++;
      if ((apart.t[at] as number) > 0.6 && (apart.beside[at] as number) < 0.8) bare.push(apart.off(at));
    }
    if (bare.length > Math.max(30, looked * 0.004)) {
      const seen = medianColour(bare);
      if (sizeOf(seen) > 0.8 * sizeOf(metal)) metal = seen;
    }
    apart = between(rect, film, metal);
    film = nearFilm(rect, film0, apart.t);
    apart = between(rect, film, metal);
  }
  if (sizeOf(metal) < LEAST_CONTRAST) return err({ kind: "looks-alike", contrast: sizeOf(metal) });
  return ok({ film, far: film0, metal, ...apart, toCut, within });
}

/** How much film so far off counts, by the square of the distance in cells. */
const NEAR = Array.from({ length: 33 }, (_, squared) => Math.exp(-squared / 8));
/** The film's colour close by, from what is film there: a soft highlight or a shadow belongs to it. */
function nearFilm(rect: Rect, far: readonly Plane[], t: Float32Array): readonly Plane[] {
  const { width, colours, inside } = rect;
  const step = 8;
  const cells = Math.ceil(width / step);
  const weight = new Float32Array(cells * cells);
  const sums = colours.map(() => new Float32Array(cells * cells));
  const own = colours.map((c) => c.values);
  const off = far.map((c) => c.values);
  for (let y = 0, at = 0; y < width; y++)
    for (let x = 0; x < width; x++, at++) {
      if (inside[at] !== 1 || Math.abs(t[at] as number) > 0.3) continue;
      const cell = Math.floor(y / step) * cells + Math.floor(x / step);
      weight[cell] = (weight[cell] as number) + 1;
      for (let c = 0; c < 3; c++) {
        const s = sums[c] as Float32Array;
        s[cell] =
          (s[cell] as number) + ((own[c] as Float32Array)[at] as number) - ((off[c] as Float32Array)[at] as number);
      }
    }
  const reach = 4;
  const grids = colours.map(() => new Float32Array(cells * cells));
  for (let y = 0; y < cells; y++)
    for (let x = 0; x < cells; x++) {
      let r = 0;
      let g = 0;
      let b = 0;
      let of = 0;
      for (let yy = Math.max(0, y - reach); yy <= Math.min(cells - 1, y + reach); yy++)
        for (let xx = Math.max(0, x - reach); xx <= Math.min(cells - 1, x + reach); xx++) {
          const k = NEAR[(xx - x) * (xx - x) + (yy - y) * (yy - y)] as number;
          const cell = yy * cells + xx;
          r += k * (sums[0]?.[cell] as number);
          g += k * (sums[1]?.[cell] as number);
          b += k * (sums[2]?.[cell] as number);
          of += k * (weight[cell] as number);
        }
      // With little film about it is the surface alone.
      const by = 1 / (of + 60);
      const cell = y * cells + x;
      (grids[0] as Float32Array)[cell] = r * by;
      (grids[1] as Float32Array)[cell] = g * by;
      (grids[2] as Float32Array)[cell] = b * by;
    }
  return grids.map((grid, c) => {
    const values = new Float32Array(width * width);
    const surface = far[c]?.values as Float32Array;
    // Between four cells, the nearest at the edge.
    const between = (k: number) => Math.min(cells - 1, Math.max(0, (k + 0.5) / step - 0.5));
    for (let y = 0, at = 0; y < width; y++) {
      const cy = between(y);
      const y0 = Math.floor(cy);
      const fy = cy - y0;
      const upper = y0 * cells;
      const lower = Math.min(cells - 1, y0 + 1) * cells;
      for (let x = 0; x < width; x++, at++) {
        const cx = between(x);
        const x0 = Math.floor(cx);
        const x1 = Math.min(cells - 1, x0 + 1);
        const fx = cx - x0;
        const top = (grid[upper + x0] as number) * (1 - fx) + (grid[upper + x1] as number) * fx;
        const foot = (grid[lower + x0] as number) * (1 - fx) + (grid[lower + x1] as number) * fx;
        values[at] = (surface[at] as number) + top * (1 - fy) + foot * fy;
      }
    }
    return { width, height: width, values };
  });
}

/** Film this far on the way to metal by a highlight alone is not to be told from metal. */
export const HIGHLIGHT = 0.3;
export const highlight = (film: readonly Plane[], far: readonly Plane[], metal: Colour, at: number): number => {
  let [along, size] = [0, 0];
  for (let c = 0; c < 3; c++) {
    const m = metal[c] as number;
    along += ((film[c]?.values[at] as number) - (far[c]?.values[at] as number)) * m;
    size += m * m;
  }
  return along / size;
};
