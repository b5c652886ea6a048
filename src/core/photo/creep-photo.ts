import { err, ok, type Result } from "../result";
import {
  BARE,
  type Colours,
  coloursOf,
  FILM,
  type FilmSeen,
  likeRust,
  markGone,
  middleOf,
  NOT_TOLD,
  OUTSIDE,
  RUSTED,
  roughnessOf,
  settledState,
} from "./film-gone";
import type { Point } from "./homography";
import type { Picture } from "./image";
import { drawnFrom, type Scale } from "./scale-card";

/** What creep is measured from, in mm on the plane: a scribe by its two ends; a cut edge by two points and one on the film beside it; a chip by its middle and a point on its edge. */
export type CreepFrom =
  | { readonly kind: "scribe"; readonly a: Point; readonly b: Point }
  | { readonly kind: "edge"; readonly a: Point; readonly b: Point; readonly film: Point }
  | { readonly kind: "chip"; readonly middle: Point; readonly edge: Point };

/** The strip beside a scribe, edge or chip, laid straight, with what of it is film. */
export type CreepStrip = {
  readonly kind: CreepFrom["kind"];
  readonly picture: Picture;
  readonly mask: { readonly width: number; readonly height: number; readonly state: Uint8Array };
  readonly pxPerMm: number;
  readonly lengthMm: number;
  /** Row of the scribe, or from which the film goes on below. */
  readonly from: number;
  /** Between the film's colour and the bare metal's lies rust's: a yellow film, say. */
  readonly rimLikeRust: boolean;
};
export type CreepWidths = {
  /** At even spacing, mm: of a scribe from side to side, of an edge or chip from it. */
  readonly rustedMm: readonly number[];
  /** As far as the film is gone, rusted or not. */
  readonly looseMm: readonly number[];
  /** By area over length, mm, rusted and gone. */
  readonly rustedByAreaMm: number;
  readonly looseByAreaMm: number;
  /** Where they were read, px along the strip. */
  readonly at: readonly number[];
};

/** As far as the strip reaches on a side, mm. */
const REACH_MM = 22;
/** Pixels of a millimetre in the strip: no more than the photo has, and enough for a tenth. */
const MOST_PX_PER_MM = 14;
const MOST_LENGTH_PX = 1600;
/** What begins so near to the line hangs together with it, mm; a line off by more than this little is laid anew. */
const NEAR_MM = 2;
const LEAST_SHIFT_MM = 0.15;
/** Stations so far apart, mm, and at least so many. */
const EVERY_MM = 4;
const LEAST_STATIONS = 8;
const MOST_STATIONS = 40;
/** At the rim of rust its colour and the film's run into each other: what is gone beyond it by less than this is that, mm and px. */
const RIM_MM = 0.45;
const RIM_PX = 4;
/** Film so wide between what is gone ends it, mm. */
const GAP_MM = 0.5;

/**
 * Lays the strip beside a scribe, edge or chip straight and marks what of it rusts and where the film is gone, as far as that
 * hangs together with the scribe. Failures: `line-too-short` (mm), `film-like-rust`, `creep-out-of-picture` (the film is not
 * reached within the picture), `glare`. O(pixels of the strip).
 */
export function creepStrip(picture: Picture, scale: Scale, of: CreepFrom): Result<CreepStrip> {
  let strip = stripAt(picture, scale, of);
  if (of.kind !== "scribe") return strip;
  let line = of;
  // A finger is a millimetre off: the line is laid where the scribe is seen.
  for (let tries = 0; strip.ok && tries < 3; tries++) {
    const [near, far] = middlesOf(strip.value);
    if (Math.max(Math.abs(near), Math.abs(far)) < LEAST_SHIFT_MM) break;
    const size = Math.hypot(line.b[0] - line.a[0], line.b[1] - line.a[1]);
    const across: Point = [-(line.b[1] - line.a[1]) / size, (line.b[0] - line.a[0]) / size];
    const shifted = (p: Point, by: number): Point => [p[0] + by * across[0], p[1] + by * across[1]];
    line = { kind: "scribe", a: shifted(line.a, near), b: shifted(line.b, far) };
    strip = stripAt(picture, scale, line);
  }
  return strip;
}

/** How far off its line, mm, the middle of what is gone lies at the strip's two ends; 0 where nothing is. */
function middlesOf({ mask: { width, height, state }, from, pxPerMm }: CreepStrip): readonly [number, number] {
  const [first, second] = [[] as number[], [] as number[]];
  const reach = Math.round(3 * NEAR_MM * pxPerMm);
  for (let x = 0; x < width; x += 2) {
    let [top, foot] = [-1, -1];
    for (let y = Math.max(0, from - reach); y < Math.min(height, from + reach); y++) {
      const s = state[y * width + x];
      if (s !== RUSTED && s !== BARE) continue;
      if (top < 0) top = y;
      foot = y;
    }
    if (top >= 0) (2 * x < width ? first : second).push(((top + foot + 1) / 2 - from) / pxPerMm);
  }
  if (first.length < 5 || second.length < 5) return [0, 0];
  // Each half's middle lies a quarter in from its end.
  const [a, b] = [middleOf(first), middleOf(second)];
  return [a - (b - a) / 2, b + (b - a) / 2];
}

function stripAt(picture: Picture, scale: Scale, of: CreepFrom): Result<CreepStrip> {
  const s = Math.min(MOST_PX_PER_MM, Math.max(4, scale.pxPerMm));
  const laid = laidOut(of, s);
  if (!laid.ok) return laid;
  const { lengthMm, pxPerMm, height, from, at } = laid.value;
  const width = Math.round(lengthMm * pxPerMm);
  const strip = drawnFrom(picture, scale, width, height, at);
  const state = new Uint8Array(width * height);
  const colours = coloursOf(strip, state);
  outsideCard(scale, at, state, width, height);
  const film = filmBeside(colours, state, width, height, from, of.kind === "scribe");
  if (!film) return err({ kind: "creep-out-of-picture" });
  if (likeRust(film.u, film.v) && Math.hypot(film.u - 0.6, film.v + 0.62) < 0.35)
    return err({ kind: "film-like-rust" });
  const rough = roughnessOf(colours.light, width, height);
  markGone(colours, film, state, {
    at: rough,
    still: stillOf(rough, state, width, height, from, of.kind === "scribe"),
  });
  const settled = settledState(state, width, height);
  const joined = hangingTogether(settled, width, height, from, pxPerMm, of.kind === "scribe");
  let unknown = 0;
  for (let x = 0; x < width; x++)
    for (let y = from; y < Math.min(height, from + Math.round(3 * pxPerMm)); y++)
      if (joined[y * width + x] === NOT_TOLD) unknown++;
  if (unknown > 0.25 * width * Math.round(3 * pxPerMm))
    return err({ kind: "glare", sharePercent: (100 * unknown) / (width * 3 * pxPerMm) });
  return ok({
    kind: of.kind,
    picture: strip,
    mask: { width, height, state: joined },
    pxPerMm,
    lengthMm,
    from,
    rimLikeRust: rustBetween(colours, film, joined),
  });
}

/** Whether rust's colour lies on the way from the film's to that of what is bare. */
function rustBetween({ u, v }: Colours, film: FilmSeen, state: Uint8Array): boolean {
  const [us, vs] = [[] as number[], [] as number[]];
  for (let i = 0; i < state.length; i++)
    if (state[i] === BARE) {
      us.push(u[i] as number);
      vs.push(v[i] as number);
    }
  if (us.length < 20) return false;
  const [bu, bv] = [middleOf(us), middleOf(vs)];
  const mixed = (t: number, a: number, b: number) => Math.log((1 - t) * Math.exp(a) + t * Math.exp(b));
  return [0.2, 0.35, 0.5, 0.65].some((t) => likeRust(mixed(t, film.u, bu), mixed(t, film.v, bv), 1.8));
}

type LaidOut = {
  readonly lengthMm: number;
  readonly pxPerMm: number;
  readonly height: number;
  readonly from: number;
  readonly at: (x: number, y: number) => Point;
};
function laidOut(of: CreepFrom, most: number): Result<LaidOut> {
  if (of.kind === "chip") {
    const radius = Math.hypot(of.edge[0] - of.middle[0], of.edge[1] - of.middle[1]);
    if (radius < 0.3) return err({ kind: "line-too-short", mm: radius });
    const lengthMm = 2 * Math.PI * radius;
    const pxPerMm = Math.min(most, MOST_LENGTH_PX / lengthMm);
    const width = Math.round(lengthMm * pxPerMm);
    const inside = Math.min(radius, 2);
    const from = Math.round(inside * pxPerMm);
    return ok({
      lengthMm,
      pxPerMm,
      height: from + Math.round(REACH_MM * pxPerMm),
      from,
      at: (x, y) => {
        const angle = (2 * Math.PI * (x + 0.5)) / width;
        const out = radius + (y + 0.5 - from) / pxPerMm;
        return [of.middle[0] + out * Math.cos(angle), of.middle[1] + out * Math.sin(angle)];
      },
    });
  }
  const lengthMm = Math.hypot(of.b[0] - of.a[0], of.b[1] - of.a[1]);
  if (lengthMm < 10) return err({ kind: "line-too-short", mm: lengthMm });
  const pxPerMm = Math.min(most, MOST_LENGTH_PX / lengthMm);
  const along: Point = [(of.b[0] - of.a[0]) / lengthMm, (of.b[1] - of.a[1]) / lengthMm];
  let across: Point = [-along[1], along[0]];
  if (of.kind === "edge" && (of.film[0] - of.a[0]) * across[0] + (of.film[1] - of.a[1]) * across[1] < 0)
    across = [-across[0], -across[1]];
  const above = of.kind === "scribe" ? REACH_MM : 1;
  const from = Math.round(above * pxPerMm);
  return ok({
    lengthMm,
    pxPerMm,
    height: from + Math.round(REACH_MM * pxPerMm),
    from,
    at: (x, y) => {
      const [t, n] = [(x + 0.5) / pxPerMm, (y + 0.5 - from) / pxPerMm];
      return [of.a[0] + t * along[0] + n * across[0], of.a[1] + t * along[1] + n * across[1]];
    },
  });
}

/** The card is no film. */
function outsideCard(
  scale: Scale,
  at: (x: number, y: number) => Point,
  state: Uint8Array,
  width: number,
  height: number,
) {
  if (!scale.card) return;
  const edge = 8;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = at(x, y);
      if (u > -edge && v > -edge && u < scale.card.widthMm + edge && v < scale.card.heightMm + edge)
        state[y * width + x] = OUTSIDE;
    }
}

/** Rows far from the line, where film is looked for: above and below of a scribe, below of an edge or chip. */
function farRows(height: number, from: number, both: boolean): readonly (readonly [number, number])[] {
  const below = [Math.round(from + 0.62 * (height - from)), height] as const;
  return both ? [[0, Math.round(0.38 * from)], below] : [below];
}

/**
 * The film's own colour and light, by what lies far from the line: the middle colour of what is not rust's, and column by
 * column how light it is there, so that a shadow across the strip is followed. Null where no film is seen.
 */
function filmBeside(
  { u, v, light }: Colours,
  state: Uint8Array,
  width: number,
  height: number,
  from: number,
  both: boolean,
): FilmSeen | null {
  const bands = farRows(height, from, both);
  const [us, vs] = [[] as number[], [] as number[]];
  let there = 0;
  for (const [y0, y1] of bands)
    for (let y = y0; y < y1; y += 2)
      for (let x = 0; x < width; x += 2) {
        const i = y * width + x;
        if (state[i] !== FILM) continue;
        there++;
        us.push(u[i] as number);
        vs.push(v[i] as number);
      }
  if (there < 60) return null;
  const [fu, fv] = [middleOf(us), middleOf(vs)];
  const offs: number[] = [];
  const usable = (i: number) => state[i] === FILM && Math.hypot((u[i] as number) - fu, (v[i] as number) - fv) < 0.18;
  const rows = bands.map(([y0, y1]) => {
    const row = new Float32Array(width).fill(Number.NaN);
    for (let x = 0; x < width; x++) {
      const values: number[] = [];
      for (let dx = -6; dx <= 6; dx += 2)
        for (let y = y0; y < y1; y += 2) {
          const at = x + dx;
          if (at < 0 || at >= width) continue;
          const i = y * width + at;
          if (usable(i)) values.push(light[i] as number);
        }
      if (values.length > 4) row[x] = middleOf(values);
    }
    const known = row.filter((r) => !Number.isNaN(r));
    const all = middleOf([...known]);
    return { middle: (y0 + y1) / 2, row: row.map((r) => (Number.isNaN(r) ? all : r)), known: known.length };
  });
  const told = rows.filter((r) => r.known > 0.1 * width);
  const [first, last] = [told[0], told.at(-1)];
  if (!first || !last) return null;
  const expected = new Float32Array(light.length);
  for (let y = 0; y < height; y++) {
    const t = first === last ? 0 : Math.min(1, Math.max(0, (y - first.middle) / (last.middle - first.middle)));
    for (let x = 0; x < width; x++)
      expected[y * width + x] = (1 - t) * (first.row[x] as number) + t * (last.row[x] as number);
  }
  const lights: number[] = [];
  for (const [y0, y1] of bands)
    for (let y = y0; y < y1; y += 3)
      for (let x = 0; x < width; x += 3) {
        const i = y * width + x;
        if (!usable(i)) continue;
        offs.push(Math.hypot((u[i] as number) - fu, (v[i] as number) - fv));
        lights.push(Math.abs((light[i] as number) - (expected[i] as number)));
      }
  return { u: fu, v: fv, light: expected, spread: { colour: middleOf(offs), light: 1.48 * middleOf(lights) } };
}

function stillOf(
  rough: Float32Array,
  state: Uint8Array,
  width: number,
  height: number,
  from: number,
  both: boolean,
): number {
  const values: number[] = [];
  for (const [y0, y1] of farRows(height, from, both))
    for (let y = y0; y < y1; y += 3)
      for (let x = 2; x < width - 2; x += 3)
        if (state[y * width + x] === FILM) values.push(rough[y * width + x] as number);
  return Math.max(0.004, middleOf(values));
}

/** What is gone as far as it hangs together with the line; the rest is film again. O(pixels). */
function hangingTogether(
  state: Uint8Array,
  width: number,
  height: number,
  from: number,
  pxPerMm: number,
  both: boolean,
): Uint8Array {
  const gap = Math.max(1, Math.round(GAP_MM * pxPerMm));
  const out = Uint8Array.from(state, (s) => (s === RUSTED || s === BARE ? FILM : s));
  const reached = new Uint8Array(state.length);
  const queue: number[] = [];
  const take = (x: number, y: number) => {
    const i = y * width + x;
    if (reached[i] === 1 || (state[i] !== RUSTED && state[i] !== BARE)) return;
    reached[i] = 1;
    queue.push(i);
  };
  const near = Math.max(1, Math.round(NEAR_MM * pxPerMm));
  for (let x = 0; x < width; x++)
    for (let y = both ? Math.max(0, from - near) : from; y < Math.min(height, from + near); y++) take(x, y);
  while (queue.length > 0) {
    const i = queue.pop() as number;
    out[i] = state[i] as number;
    const [x, y] = [i % width, Math.floor(i / width)];
    // Straight across a narrow bridge of film as well.
    for (let d = 1; d <= gap; d++) {
      if (y + d < height) take(x, y + d);
      if (y - d >= 0) take(x, y - d);
    }
    if (x + 1 < width) take(x + 1, y);
    if (x > 0) take(x - 1, y);
  }
  return out;
}

/** Widths of a strip as its mask stands, at even spacing; each the middle of a millimetre's columns. O(pixels). */
export function creepWidths(strip: CreepStrip, state: Uint8Array = strip.mask.state): CreepWidths {
  const { width, height } = strip.mask;
  const { pxPerMm, from, kind, lengthMm } = strip;
  const columns = Array.from({ length: width }, (_, x) =>
    columnOf(state, x, width, height, from, kind === "scribe", Math.max(RIM_PX, RIM_MM * pxPerMm), strip.rimLikeRust),
  );
  const n = Math.max(LEAST_STATIONS, Math.min(MOST_STATIONS, Math.round(lengthMm / EVERY_MM)));
  const half = Math.max(1, Math.round(0.5 * pxPerMm));
  const at = Array.from({ length: n }, (_, i) => Math.min(width - 1, Math.round(((i + 0.5) * width) / n)));
  const read = (of: "rust" | "gone") =>
    at.map((x) => {
      const about: number[] = [];
      for (let dx = -half; dx <= half; dx++) {
        const column = columns[Math.min(width - 1, Math.max(0, x + dx))];
        if (column) about.push(column[of] / pxPerMm);
      }
      return middleOf(about);
    });
  const area = (of: "rust" | "gone") => columns.reduce((sum, c) => sum + c[of], 0) / (width * pxPerMm);
  return {
    rustedMm: read("rust"),
    looseMm: read("gone"),
    rustedByAreaMm: area("rust"),
    looseByAreaMm: area("gone"),
    at,
  };
}

/** How far a column rusts, and how far its film is gone, px: to the last of it on each side. */
function columnOf(
  state: Uint8Array,
  x: number,
  width: number,
  height: number,
  from: number,
  both: boolean,
  rim: number,
  rimLikeRust: boolean,
): { readonly rust: number; readonly gone: number } {
  let [rust, gone] = [0, 0];
  const side = (step: 1 | -1) => {
    const at = (far: number) => state[(step === 1 ? from + far - 1 : from - far) * width + x];
    const most = step === 1 ? height - from : from;
    let [lastRust, lastGone] = [0, 0];
    for (let far = 1; far <= most; far++) {
      const s = at(far);
      if (s === RUSTED) lastRust = far;
      if (s === RUSTED || s === BARE) lastGone = far;
    }
    // A thin line of rust's colour beyond bare metal is where metal and film run into each other.
    let inner = lastRust;
    while (inner > 0 && at(inner) === RUSTED) inner--;
    let bare = inner;
    while (bare > 0 && at(bare) === BARE) bare--;
    if (rimLikeRust && lastRust - inner < rim && inner - bare >= rim) lastRust = bare;
    rust += lastRust;
    gone += lastGone - lastRust < rim ? lastRust : lastGone;
  };
  side(1);
  if (both) side(-1);
  return { rust, gone };
}
