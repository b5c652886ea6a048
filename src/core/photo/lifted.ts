import { err, ok, type Result } from "../result";
import { type Homography, homographyOf, type Point, seenAt } from "./homography";
import { type Plane, valueAt } from "./image";
import { dot, leastSquares } from "./least-squares";

/** Pixels that a square is squared up to, and the film around the lattice that is looked at with it, in squares. */
export const SQUARE_PX = 48;
export const AROUND = 0.75;
/** Less apart than this, film and metal look alike, 0–255. */
const LEAST_CONTRAST = 20;
/** More of the lattice than this under a highlight is not to be told. */
const MOST_GLARE = 0.04;
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

type Rect = { readonly width: number; readonly colours: readonly Plane[]; readonly inside: Uint8Array };

/** The lattice and the film around it squared up, in three colours. O(pixels of it). */
function squaredUp(planes: readonly Plane[], seen: Homography, n: number): Rect {
  const width = Math.round((n + 2 * AROUND) * SQUARE_PX);
  const colours = planes.map(() => ({ width, height: width, values: new Float32Array(width * width) }));
  const inside = new Uint8Array(width * width);
  const [{ width: w, height: h }] = planes as readonly [Plane];
  for (let y = 0; y < width; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x + 0.5) / SQUARE_PX - AROUND, (y + 0.5) / SQUARE_PX - AROUND];
      const by = 1 / (seen[6] * u + seen[7] * v + 1);
      const px = (seen[0] * u + seen[1] * v + seen[2]) * by;
      const py = (seen[3] * u + seen[4] * v + seen[5]) * by;
      const at = y * width + x;
      if (px < 0 || py < 0 || px >= w - 1 || py >= h - 1) continue;
      inside[at] = 1;
      const from = Math.floor(py) * w + Math.floor(px);
      const [fx, fy] = [px - Math.floor(px), py - Math.floor(py)];
      for (let c = 0; c < 3; c++) {
        const from4 = (planes[c] as Plane).values;
        const top = (from4[from] as number) * (1 - fx) + (from4[from + 1] as number) * fx;
        const foot = (from4[from + w] as number) * (1 - fx) + (from4[from + w + 1] as number) * fx;
        (colours[c] as { values: Float32Array }).values[at] = top * (1 - fy) + foot * fy;
      }
    }
  return { width, colours, inside };
}

/** Squares from the nearest cut, and whether a pixel lies in the lattice; by place. */
function placesOf(width: number, n: number) {
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
  return { toCut, within };
}

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
type Colour = readonly [number, number, number];
const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

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
const sizeOf = (c: Colour): number => Math.hypot(...c);

/** Where film and metal are told apart in one picture squared up; null where they look alike or there is no film to go by. */
function toldApart(rect: Rect, n: number) {
  const { width, inside } = rect;
  const { toCut, within } = placesOf(width, n);
  const film0 = filmSurface(rect, (at) => inside[at] === 1 && within[at] === 0 && (toCut[at] as number) > 0.16);
  if (!film0) return null;
  // Metal shows in the cuts; what differs most from the film there is the most of it.
  const first = between(rect, film0, [1, 0, 0]);
  const cut: Colour[] = [];
  for (let at = 0; at < toCut.length; at++)
    if (within[at] === 1 && (toCut[at] as number) < 0.025) cut.push(first.off(at));
  cut.sort((a, b) => sizeOf(b) - sizeOf(a));
  let metal = medianColour(cut.slice(0, Math.ceil(cut.length * 0.6)));
  if (sizeOf(metal) < 0.5 * LEAST_CONTRAST) return null;
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
  return { film, far: film0, metal, ...apart, toCut, within };
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

/** A place in squares as a pixel of what was squared up. */
const pixel = (w: number): number => Math.round((w + AROUND) * SQUARE_PX - 0.5);

/** A place where a cut was seen, in squares: it is the cut of that number of the one family or the other. */
type CutSeen = { readonly family: 0 | 1; readonly cut: number; readonly u: number; readonly v: number };

/** Where cuts are seen between film on both sides, at the rim also where only outside is film; and how wide they are, in squares. */
function cutsSeen(
  t: Float32Array,
  width: number,
  n: number,
): { readonly seen: readonly CutSeen[]; readonly kerf: number } {
  const reach = Math.round(0.3 * SQUARE_PX);
  const side = Math.round(0.17 * SQUARE_PX);
  const place = (px: number) => (px + 0.5) / SQUARE_PX - AROUND;
  const widths: number[] = [];
  const seen: CutSeen[] = [];
  const rims: (CutSeen & { readonly outward: number })[] = [];
  for (const family of [0, 1] as const)
    for (let cut = 0; cut <= n; cut++) {
      const middle = pixel(cut);
      for (let along = pixel(0) + 4; along < pixel(n) - 4; along += 3) {
        const w = place(along);
        if (Math.abs(w - Math.round(w)) < 0.16) continue;
        const value = (d: number): number =>
          (family === 0 ? t[along * width + middle + d] : t[(middle + d) * width + along]) as number;
        const at = (across: number) => (family === 0 ? { u: across, v: w } : { u: w, v: across });
        const [left, right] = [value(-reach), value(reach)];
        // The cut may still lie a good part of a square off: the most metal about is it, where film is on both sides of that.
        let top = -reach;
        for (let d = -reach; d <= reach; d++) if (value(d) > value(top)) top = d;
        if (Math.abs(value(top - side)) < 0.3 && Math.abs(value(top + side)) < 0.3) {
          let [sum, moment] = [0, 0];
          for (let d = top - side + 1; d < top + side; d++) {
            const v = value(d);
            if (v < 0.15) continue;
            sum += v;
            moment += v * d;
          }
          if (sum < 0.6 || sum > 0.25 * SQUARE_PX) continue;
          widths.push(sum / SQUARE_PX);
          seen.push({ family, cut, ...at(place(middle + moment / sum)) });
        } else if (
          (cut === 0 && Math.abs(left) < 0.3 && right > 0.7) ||
          (cut === n && Math.abs(right) < 0.3 && left > 0.7)
        ) {
          const outward = cut === 0 ? -1 : 1;
          for (let d = outward * reach; d !== -outward * reach; d -= outward) {
            const [here, next] = [value(d), value(d - outward)];
            if (here >= 0.5 || next < 0.5) continue;
            rims.push({ family, cut, outward, ...at(place(middle + d - (outward * (0.5 - here)) / (next - here))) });
            break;
          }
        }
      }
    }
  const kerf = widths.length > 0 ? median(widths) : 0.06;
  // Seen from outside a rim begins half a cut before its middle.
  for (const { outward, ...r } of rims)
    seen.push(r.family === 0 ? { ...r, u: r.u - (outward * kerf) / 2 } : { ...r, v: r.v - (outward * kerf) / 2 });
  return { seen, kerf };
}

/** Few places decide little: what they leave open stays as it was found. */
const HELD = 4;
/** Further off than this from its cut a place is of something else, in squares. */
const OFF_CUT = 0.05;

/** The lattice set right by all places where its cuts are seen; what they say nothing of stays as it was. */
function cutsSetRight(
  t: Float32Array,
  width: number,
  n: number,
  seen: Homography,
): { readonly seen: Homography; readonly kerf: number } | null {
  const all = cutsSeen(t, width, n);
  if (all.seen.length < 40) return null;
  const still = [1, 0, 0, 0, 1, 0, 0, 0] as const;
  const prior = [HELD, HELD, HELD, HELD, HELD, HELD, HELD * n, HELD * n];
  let kept = all.seen;
  let g: Homography = still;
  for (let round = 0; round < 3; round++) {
    const rows = kept.map(({ family, cut, u, v }) =>
      family === 0 ? [u, v, 1, 0, 0, 0, -cut * u, -cut * v] : [0, 0, 0, u, v, 1, -cut * u, -cut * v],
    );
    const values = kept.map((c) => c.cut);
    for (const [k, weight] of prior.entries()) {
      rows.push(Array.from({ length: 8 }, (_, i) => (i === k ? weight : 0)));
      values.push(weight * (still[k] as number));
    }
    const solved = leastSquares(rows, values);
    if (!solved) return null;
    g = solved as unknown as Homography;
    const own = g;
    kept = all.seen.filter((c) => Math.abs(seenAt(own, [c.u, c.v])[c.family] - c.cut) < OFF_CUT / (round + 1) + 0.02);
    if (kept.length < 40) return null;
  }
  const set = homographyOf(
    (
      [
        [0, 0],
        [n, 0],
        [n, n],
        [0, n],
      ] as const
    ).map((corner): [Point, Point] => {
      let [u, v]: [number, number] = [corner[0], corner[1]];
      for (let k = 0; k < 8; k++) {
        const [x, y] = seenAt(g, [u, v]);
        u -= x - corner[0];
        v -= y - corner[1];
      }
      return [corner, seenAt(seen, [u, v])];
    }),
  );
  return set.ok ? { seen: set.value, kerf: all.kerf } : null;
}

/** Rounds of setting right, and the move of a corner, in squares, after which there is nothing left to set. */
const MOST_ROUNDS = 6;
const SETTLED = 0.012;
function furthest(was: Homography, is: Homography, n: number): number {
  const step = Math.hypot(...([0, 1] as const).map((c) => seenAt(was, [n, 0])[c] - seenAt(was, [0, 0])[c])) / n;
  return Math.max(
    ...(
      [
        [0, 0],
        [n, 0],
        [n, n],
        [0, n],
      ] as const
    ).map((corner) => {
      const [a, b] = [seenAt(was, corner), seenAt(is, corner)];
      return Math.hypot(a[0] - b[0], a[1] - b[1]) / step;
    }),
  );
}

/**
 * What came off a lattice that was found, square by square: film and metal told apart by colour, the light on them taken out,
 * the cuts themselves left out. Failures: `no-film-to-go-by`, `looks-alike` (film and metal), `no-lattice` (its cuts do not
 * show where they must), `glare`. O(pixels of the lattice).
 */
export function liftedShare(
  planes: readonly Plane[],
  found: { readonly seen: Homography; readonly cuts: 6 | 11 },
): Result<Squared> {
  const n = found.cuts - 1;
  let seen = found.seen;
  let rect = squaredUp(planes, seen, n);
  let told = toldApart(rect, n);
  if (!told) return err({ kind: "no-film-to-go-by" });
  let kerf = 0.06;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const right = cutsSetRight(told.t, rect.width, n, seen);
    if (!right) break;
    const moved = furthest(seen, right.seen, n);
    seen = right.seen;
    kerf = right.kerf;
    rect = squaredUp(planes, seen, n);
    const again = toldApart(rect, n);
    if (!again) return err({ kind: "no-film-to-go-by" });
    told = again;
    if (moved < SETTLED) break;
  }
  const { t, beside, metal, film, far, toCut, within } = told;
  const places = cutsSeen(t, rect.width, n).seen;
  const onCuts = places.filter((c) => Math.abs((c.family === 0 ? c.u : c.v) - c.cut) < 0.025).length;
  if (onCuts < LEAST_TRUE * places.length) return err({ kind: "no-lattice", support: onCuts / places.length });
  if (sizeOf(metal) < LEAST_CONTRAST) return err({ kind: "looks-alike", contrast: sizeOf(metal) });
  const state = new Uint8Array(t.length);
  const half = kerf / 2;
  for (let at = 0; at < t.length; at++) {
    const value = t[at] as number;
    state[at] = value > 1.45 || (beside[at] as number) > 0.9 ? 2 : value > 0.5 ? 1 : 0;
    // The cuts themselves are no part of what came off.
    if (state[at] === 1 && within[at] === 1 && (toCut[at] as number) <= half) state[at] = 0;
    if (rect.inside[at] !== 1 || highlight(film, far, metal, at) > HIGHLIGHT) state[at] = 2;
  }
  const { squares, unknown } = sharesOf(state, rect.width, n, half);
  const shown = cutsShown(t, state, rect.width, n);
  if (shown < LEAST_SHOWN) return err({ kind: "no-lattice", support: shown });
  if (unknown > MOST_GLARE) return err({ kind: "glare", sharePercent: 100 * unknown });
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

/** Film this far on the way to metal by a highlight alone is not to be told from metal. */
const HIGHLIGHT = 0.3;
const highlight = (film: readonly Plane[], far: readonly Plane[], metal: Colour, at: number): number => {
  let [along, size] = [0, 0];
  for (let c = 0; c < 3; c++) {
    const m = metal[c] as number;
    along += ((film[c]?.values[at] as number) - (far[c]?.values[at] as number)) * m;
    size += m * m;
  }
  return along / size;
};

/** Right beside a cut its own blur is seen, in squares: there a square is taken for what it is a little further in. */
const BESIDE_CUT = 0.024;
const SAMPLES = 56;
/** Share of each square between its cuts that came off, and of all of them the share that is not told. O(samples). */
export function sharesOf(
  state: Uint8Array,
  width: number,
  n: number,
  half: number,
): { readonly squares: readonly number[]; readonly unknown: number } {
  let unknown = 0;
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
    return told > 0 ? off / told : 0;
  });
  return { squares, unknown: unknown / (n * n * SAMPLES * SAMPLES) };
}

/** Of the stretches of cuts that must show, those that do: metal between film on both sides, or an edge where one side is bare. */
function cutsShown(t: Float32Array, state: Uint8Array, width: number, n: number): number {
  let [must, do_] = [0, 0];
  const [near, far] = [Math.round(0.04 * SQUARE_PX), Math.round(0.3 * SQUARE_PX)];
  for (const family of [0, 1])
    for (let i = 0; i <= n; i++)
      for (let j = 0; j < n; j++) {
        let [ridge, step, looked] = [0, 0, 0];
        for (let k = 0; k < 16; k++) {
          const along = pixel(j + 0.16 + (0.68 * (k + 0.5)) / 16);
          const at = (d: number) => {
            const across = pixel(i) + d;
            return family === 0 ? along * width + across : across * width + along;
          };
          const [left, right] = [at(-far), at(far)];
          if (left < 0 || right >= t.length || state[left] === 2 || state[right] === 2) continue;
          const [l, r] = [t[left] as number, t[right] as number];
          let peak = 0;
          for (let d = -near; d <= near; d++) peak = Math.max(peak, t[at(d)] as number);
          if (l < 0.5 && r < 0.5) {
            looked++;
            if (peak - Math.max(l, r) > 0.22) ridge++;
          } else if (l < 0.5 !== r < 0.5) {
            // A flake may end anywhere; at the rim of the lattice it ends at its cut.
            if (i !== 0 && i !== n) continue;
            looked++;
            if (peak > 0.5) step++;
          }
        }
        if (looked < 6) continue;
        must++;
        if (ridge + step > 0.6 * looked) do_++;
      }
  return must < 8 ? 0 : do_ / must;
}
