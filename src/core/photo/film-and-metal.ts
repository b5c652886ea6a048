import { err, ok } from "../result";
import { type Plane, valueAt } from "./image";
import { dot, leastSquares } from "./least-squares";
import { placesOf, type Rect } from "./squared-up";

/** Less apart than this, film and metal look alike, 0–255. */
const LEAST_CONTRAST = 20;
/** The film's own colour over the picture: light falls off smoothly, so a surface of the second degree through what is film, what is not left out. */
function filmSurface(rect: Rect, use: (at: number) => boolean): readonly Plane[] | null {
  const { width, colours } = rect;
  const bright = (at: number) => colours.reduce((s, c) => s + (c.values[at] as number), 0);
  const picked: number[] = [];
  for (let at = 0; at < width * width; at += 3) if (use(at)) picked.push(at);
  if (picked.length < 60) return null;
  const terms = (at: number): readonly number[] => {
    const [x, y] = [(at % width) / width - 0.5, Math.floor(at / width) / width - 0.5];
    return [1, x, y, x * x, x * y, y * y];
  };
  let kept = picked;
  for (let round = 0; round < 4; round++) {
    const values = kept.map(bright);
    const fit = leastSquares(kept.map(terms), values);
    if (!fit) return null;
    const off = picked.map((at) => Math.abs(bright(at) - dot(fit, terms(at))));
    const middle = [...off].sort((a, b) => a - b)[Math.floor(off.length / 2)] as number;
    kept = picked.filter((_, i) => (off[i] as number) <= Math.max(6, 3 * middle));
    if (kept.length < 60) return null;
  }
  const rows = kept.map(terms);
  return colours.map((c) => {
    const fit = leastSquares(
      rows,
      kept.map((at) => c.values[at] as number),
    );
    const values = new Float32Array(width * width);
    if (fit) for (let at = 0; at < values.length; at++) values[at] = dot(fit, terms(at));
    return { width, height: width, values };
  });
}
export type Colour = readonly [number, number, number];
/** The middle one of some numbers, which it sorts; 0 of none. */
export const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** How far from film (0) to metal (1) each pixel is, and how far beside the way between the two, in the same measure. O(pixels). */
function between(rect: Rect, film: readonly Plane[], [mr, mg, mb]: Colour) {
  const { width, colours } = rect;
  const [red, green, blue] = colours.map((c) => c.values) as [Float32Array, Float32Array, Float32Array];
  const [fr, fg, fb] = film.map((c) => c.values) as [Float32Array, Float32Array, Float32Array];
  const t = new Float32Array(width * width);
  const beside = new Float32Array(width * width);
  const size = mr * mr + mg * mg + mb * mb;
  let whole = 0;
  for (let at = 0; at < fr.length; at += 97) whole += (fr[at] as number) + (fg[at] as number) + (fb[at] as number);
  whole = whole / Math.ceil(fr.length / 97) || 1;
  // The same light falls on both.
  const light = (at: number) => Math.max(0.3, ((fr[at] as number) + (fg[at] as number) + (fb[at] as number)) / whole);
  for (let at = 0; at < t.length; at++) {
    const by = 1 / light(at);
    const r = ((red[at] as number) - (fr[at] as number)) * by;
    const g = ((green[at] as number) - (fg[at] as number)) * by;
    const b = ((blue[at] as number) - (fb[at] as number)) * by;
    const along = (r * mr + g * mg + b * mb) / size;
    t[at] = along;
    const [x, y, z] = [r - along * mr, g - along * mg, b - along * mb];
    beside[at] = Math.sqrt((x * x + y * y + z * z) / size);
  }
  const off = (at: number): Colour => {
    const by = 1 / light(at);
    return [
      ((red[at] as number) - (fr[at] as number)) * by,
      ((green[at] as number) - (fg[at] as number)) * by,
      ((blue[at] as number) - (fb[at] as number)) * by,
    ];
  };
  return { t, beside, off };
}

const medianColour = (list: readonly Colour[]): Colour =>
  [0, 1, 2].map((c) => median(list.map((v) => v[c] as number))) as unknown as Colour;
/** How far apart a colour is from none, 0–441. */
const sizeOf = (c: Colour): number => Math.hypot(...c);

/** Film and metal told apart in one picture squared up. Failures: `no-film-to-go-by` (none is seen around it), `looks-alike`. O(pixels). */
export function toldApart(rect: Rect, n: number) {
  const { width, inside } = rect;
  const { toCut, within } = placesOf(width, n);
  const film0 = filmSurface(rect, (at) => inside[at] === 1 && within[at] === 0 && (toCut[at] as number) > 0.16);
  if (!film0) return err({ kind: "no-film-to-go-by" });
  // Metal shows in the cuts; what differs most from the film there is the most of it.
  const first = between(rect, film0, [1, 0, 0]);
  const cut: Colour[] = [];
  for (let at = 0; at < toCut.length; at++)
    if (within[at] === 1 && (toCut[at] as number) < 0.025) cut.push(first.off(at));
  cut.sort((a, b) => sizeOf(b) - sizeOf(a));
  let metal = medianColour(cut.slice(0, Math.ceil(cut.length * 0.6)));
  if (sizeOf(metal) < 0.5 * LEAST_CONTRAST) return err({ kind: "looks-alike", contrast: sizeOf(metal) });
  let film: readonly Plane[] = film0;
  let apart = between(rect, film, metal);
  for (let round = 0; round < 3; round++) {
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

/** The film's colour close by, from what is film there: a soft highlight or a shadow belongs to it. */
function nearFilm(rect: Rect, far: readonly Plane[], t: Float32Array): readonly Plane[] {
  const { width, colours, inside } = rect;
  const step = 8;
  const cells = Math.ceil(width / step);
  const weight = new Float32Array(cells * cells);
  const sums = colours.map(() => new Float32Array(cells * cells));
  for (let at = 0; at < t.length; at++) {
    if (inside[at] !== 1 || Math.abs(t[at] as number) > 0.3) continue;
    const cell = Math.floor(Math.floor(at / width) / step) * cells + Math.floor((at % width) / step);
    weight[cell] = (weight[cell] as number) + 1;
    for (const [c, s] of sums.entries())
      s[cell] = (s[cell] as number) + (colours[c]?.values[at] as number) - (far[c]?.values[at] as number);
  }
  const reach = 4;
  return colours.map((_, c) => {
    const grid = new Float32Array(cells * cells);
    for (let y = 0; y < cells; y++)
      for (let x = 0; x < cells; x++) {
        let [sum, of] = [0, 0];
        for (let dy = -reach; dy <= reach; dy++)
          for (let dx = -reach; dx <= reach; dx++) {
            const [yy, xx] = [y + dy, x + dx];
            if (yy < 0 || xx < 0 || yy >= cells || xx >= cells) continue;
            const k = Math.exp(-(dx * dx + dy * dy) / 8);
            sum += k * (sums[c]?.[yy * cells + xx] as number);
            of += k * (weight[yy * cells + xx] as number);
          }
        // With little film about it is the surface alone.
        grid[y * cells + x] = sum / (of + 60);
      }
    const soft: Plane = { width: cells, height: cells, values: grid };
    const values = new Float32Array(width * width);
    for (let y = 0; y < width; y++)
      for (let x = 0; x < width; x++) {
        const at = y * width + x;
        values[at] = (far[c]?.values[at] as number) + valueAt(soft, (x + 0.5) / step - 0.5, (y + 0.5) / step - 0.5);
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
