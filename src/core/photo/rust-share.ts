import { err, ok, type Result } from "../result";
import { checkPicture, type Picture, type Plane, planesOf, smoothed } from "./image";

/** Longest side that rust is told at, px. */
const TOLD_AT = 1000;
/** How red over green, and blue over green, rust commonly is, as logarithms, and how far about that it reaches. */
const RUST = [0.6, -0.62] as const;
const REACH = [0.45, 0.5] as const;
/** Film nearer to rust than this, in the same measure, is not to be told from it. */
const LEAST_APART = 0.35;
/** More of the frame than this that is not told is sent back. */
const MOST_UNKNOWN = 0.2;
/** Colour is smoothed by so many px. */
const COLOUR_SIGMA = 0.8;
/** Darker shows no colour; brighter in every channel is a highlight, 0–255. */
const DARKEST = 10;
const BRIGHTEST = 248;
/** So far on the way from film to rust a pixel is rust; further than this beside the way it is something else. */
const HALF_WAY = 0.5;
const BESIDE = 0.75;

export type RustPhoto = {
  /** Of the frame as far as it is told, %. */
  readonly sharePercent: number;
  /** Of the frame, not told, share. */
  readonly unknown: number;
  /** Of the frame, tinted as by water that ran off rust, %: no rust. */
  readonly stainPercent: number;
  /** 1 rust, 2 not told, 3 outside the frame, else 0. */
  readonly mask: { readonly width: number; readonly height: number; readonly state: Uint8Array };
  readonly picture: Picture;
};
/** A frame on the picture, of its width and height, 0–1, corner after corner; the whole of it where none is drawn. */
export type Frame = readonly (readonly [number, number])[] | null;

type Uv = readonly [number, number];
/** Numbers that are gathered to find their middle; of very many every so-manyth is enough. */
class Gathered {
  private values = new Float32Array(1024);
  private count = 0;
  push(value: number): void {
    if (this.count === this.values.length) {
      const more = new Float32Array(2 * this.count);
      more.set(this.values);
      this.values = more;
    }
    this.values[this.count++] = value;
  }
  get length(): number {
    return this.count;
  }
  /** The middle of them; 0 of none. */
  middle(): number {
    if (this.count === 0) return 0;
    const step = Math.max(1, Math.floor(this.count / MOST_SORTED));
    const some = new Float32Array(Math.floor(this.count / step));
    for (let i = 0; i < some.length; i++) some[i] = this.values[i * step] as number;
    return some.sort()[Math.floor(some.length / 2)] ?? 0;
  }
}
const MOST_SORTED = 20_000;
const BY_REACH = [1 / REACH[0] ** 2, 1 / REACH[1] ** 2] as const;
const likeRust = (u: number, v: number): boolean =>
  (u - RUST[0]) * (u - RUST[0]) * BY_REACH[0] + (v - RUST[1]) * (v - RUST[1]) * BY_REACH[1] < 1;

/**
 * The rusted share of a framed part of a photo, by colour: how red and how blue a pixel is beside green, which neither shadow nor
 * distance changes; the film's own colour is what most of the frame is, the rust's the middle of what is rust's colour and not
 * the film's. A tint without rust's roughness is a stain. Failures: those of `checkPicture`, `frame-too-small`,
 * `film-like-rust` (a brown film), `glare` (too much is not told). O(pixels).
 */
export function rustShare(picture: Picture, frame: Frame = null): Result<RustPhoto> {
  const checked = checkPicture(picture);
  if (!checked.ok) return checked;
  const { planes } = planesOf(picture, TOLD_AT);
  // Colour is told from a pixel with its neighbours: in the dark a single one is mostly noise.
  const [red, green, blue] = planes.map((p) => smoothed(p, COLOUR_SIGMA)) as unknown as readonly [Plane, Plane, Plane];
  const { width, height } = red;
  const n = width * height;
  const inside = framed(frame, width, height);
  const u = new Float32Array(n);
  const v = new Float32Array(n);
  const light = new Float32Array(n);
  const state = new Uint8Array(n);
  let of = 0;
  const [rs, gs, bs] = [red.values, green.values, blue.values];
  const [r0, g0, b0] = planes.map((p) => p.values) as unknown as readonly [Float32Array, Float32Array, Float32Array];
  for (let at = 0; at < n; at++) {
    // Written out: what is done for every pixel makes no lists.
    const r = rs[at] as number;
    const g = gs[at] as number;
    const b = bs[at] as number;
    light[at] = 0.3 * (r0[at] as number) + 0.59 * (g0[at] as number) + 0.11 * (b0[at] as number);
    u[at] = Math.log((r + 3) / (g + 3));
    v[at] = Math.log((b + 3) / (g + 3));
    if (inside[at] === 0) state[at] = 3;
    else {
      of++;
      if (Math.max(r, g, b) < DARKEST || Math.min(r, g, b) > BRIGHTEST) state[at] = 2;
    }
  }
  if (of < 900) return err({ kind: "frame-too-small", pixels: of });
  const film = filmColour(u, v, state);
  if (Math.hypot(film[0] - RUST[0], film[1] - RUST[1]) < LEAST_APART) return err({ kind: "film-like-rust" });
  const rust = rustColour(u, v, state, film);
  let stained = 0;
  if (rust) {
    const way = [rust[0] - film[0], rust[1] - film[1]] as const;
    const size = way[0] ** 2 + way[1] ** 2;
    const rough = roughness(light, width, height);
    const still = filmRoughness(rough, u, v, state, film);
    for (let at = 0; at < n; at++) {
      if (state[at] !== 0) continue;
      const x = (u[at] as number) - film[0];
      const y = (v[at] as number) - film[1];
      const along = (x * way[0] + y * way[1]) / size;
      if (along <= HALF_WAY) continue;
      const offX = x - along * way[0];
      const offY = y - along * way[1];
      if (offX * offX + offY * offY > BESIDE * BESIDE * size) continue;
      // Water that ran off rust tints a film evenly; rust itself is rough.
      if (along < 0.85 && (rough[at] as number) < 1.5 * still) {
        stained++;
        continue;
      }
      state[at] = 1;
    }
  }
  const settledState = settled(state, width, height);
  let [rusted, unknown] = [0, 0];
  for (let at = 0; at < n; at++) {
    if (settledState[at] === 1) rusted++;
    else if (settledState[at] === 2) unknown++;
  }
  if (unknown > MOST_UNKNOWN * of) return err({ kind: "glare", sharePercent: (100 * unknown) / of });
  return ok({
    sharePercent: (100 * rusted) / Math.max(1, of - unknown),
    unknown: unknown / of,
    stainPercent: (100 * stained) / of,
    mask: { width, height, state: settledState },
    picture: { width, height, rgba: drawn(planes, n) },
  });
}

/** Share of rust in a mask as somebody left it, % of what is told. O(pixels). */
export function shareOfMask(state: Uint8Array): number {
  let [rusted, told] = [0, 0];
  for (const s of state) {
    if (s === 1) rusted++;
    if (s === 0 || s === 1) told++;
  }
  return told === 0 ? 0 : (100 * rusted) / told;
}

/** How much of a mask a person changed, % of what is told: brushed in, and brushed out. O(pixels). */
export function changedShares(
  machine: Uint8Array,
  accepted: Uint8Array,
): { readonly addedPercent: number; readonly removedPercent: number } {
  let [added, removed, told] = [0, 0, 0];
  for (let i = 0; i < accepted.length; i++) {
    if (accepted[i] === 0 || accepted[i] === 1) told++;
    if (accepted[i] === 1 && machine[i] !== 1) added++;
    if (accepted[i] !== 1 && machine[i] === 1) removed++;
  }
  const share = (n: number) => (told === 0 ? 0 : (100 * n) / told);
  return { addedPercent: share(added), removedPercent: share(removed) };
}

/** 1 inside the frame. Even-odd by rows. */
export function framed(frame: Frame, width: number, height: number): Uint8Array {
  const inside = new Uint8Array(width * height);
  if (frame === null || frame.length < 3) return inside.fill(1);
  for (let y = 0; y < height; y++) {
    const py = (y + 0.5) / height;
    const cuts: number[] = [];
    for (const [i, a] of frame.entries()) {
      const b = frame[(i + 1) % frame.length] as readonly [number, number];
      if (a[1] > py !== b[1] > py) cuts.push(a[0] + ((py - a[1]) / (b[1] - a[1])) * (b[0] - a[0]));
    }
    cuts.sort((a, b) => a - b);
    for (let k = 0; k + 1 < cuts.length; k += 2)
      inside.fill(
        1,
        y * width + Math.max(0, Math.ceil((cuts[k] as number) * width - 0.5)),
        y * width + Math.min(width, Math.ceil((cuts[k + 1] as number) * width - 0.5)),
      );
  }
  return inside;
}

/** The colour that most of the frame has and that is not rust's; where all of it is rust's, that of what is least so. */
function filmColour(u: Float32Array, v: Float32Array, state: Uint8Array): Uv {
  const size = 0.08;
  // Of 0–255 with three added a logarithm is under 4.5 either way.
  const side = 2 * Math.ceil(4.6 / size) + 1;
  const zero = (side - 1) / 2;
  const cells = new Uint32Array(side * side);
  for (let at = 0; at < state.length; at += 2) {
    if (state[at] !== 0 || likeRust(u[at] as number, v[at] as number)) continue;
    const key = (Math.round((u[at] as number) / size) + zero) * side + Math.round((v[at] as number) / size) + zero;
    cells[key] = (cells[key] as number) + 1;
  }
  let [best, most] = [0, 0];
  for (let key = 0; key < cells.length; key++)
    if ((cells[key] as number) > most) {
      most = cells[key] as number;
      best = key;
    }
  // A brown film has hardly anything that is not rust's colour.
  if (most < 0.005 * state.length) {
    const [all, vs] = [new Gathered(), new Gathered()];
    for (let at = 0; at < state.length; at += 5)
      if (state[at] === 0) {
        all.push(u[at] as number);
        vs.push(v[at] as number);
      }
    return [all.middle(), vs.middle()];
  }
  const about: Uv = [(Math.floor(best / side) - zero) * size, ((best % side) - zero) * size];
  const [us, vs] = [new Gathered(), new Gathered()];
  for (let at = 0; at < state.length; at += 3)
    if (state[at] === 0 && ((u[at] as number) - about[0]) ** 2 + ((v[at] as number) - about[1]) ** 2 < 0.04) {
      us.push(u[at] as number);
      vs.push(v[at] as number);
    }
  return [us.middle(), vs.middle()];
}

/** The middle colour of what is rust's and not the film's; null where there is none to speak of. */
function rustColour(u: Float32Array, v: Float32Array, state: Uint8Array, film: Uv): Uv | null {
  const [us, vs] = [new Gathered(), new Gathered()];
  const least = 0.55 * Math.hypot(RUST[0] - film[0], RUST[1] - film[1]);
  for (let at = 0; at < state.length; at++) {
    if (state[at] !== 0) continue;
    const hereU = u[at] as number;
    const hereV = v[at] as number;
    if (likeRust(hereU, hereV) && (hereU - film[0]) ** 2 + (hereV - film[1]) ** 2 > least * least) {
      us.push(hereU);
      vs.push(hereV);
    }
  }
  return us.length < 6 ? null : [us.middle(), vs.middle()];
}

/** How uneven the light of a pixel's surroundings is, of its own light: five by five, by the spread; 0 at the picture's edge. */
function roughness(light: Float32Array, width: number, height: number): Float32Array {
  const n = width * height;
  const [sums, squares, out] = [new Float32Array(n), new Float32Array(n), new Float32Array(n)];
  // Sums of five across; then of five such down, carried along.
  for (let y = 0; y < height; y++) {
    const end = (y + 1) * width - 2;
    for (let at = y * width + 2; at < end; at++) {
      const a = light[at - 2] as number;
      const b = light[at - 1] as number;
      const c = light[at] as number;
      const d = light[at + 1] as number;
      const e = light[at + 2] as number;
      sums[at] = a + b + c + d + e;
      squares[at] = a * a + b * b + c * c + d * d + e * e;
    }
  }
  for (let y = 2; y < height - 2; y++) {
    const end = (y + 1) * width - 2;
    for (let at = y * width + 2; at < end; at++) {
      const mean =
        ((sums[at - 2 * width] as number) +
          (sums[at - width] as number) +
          (sums[at] as number) +
          (sums[at + width] as number) +
          (sums[at + 2 * width] as number)) /
        25;
      const square =
        ((squares[at - 2 * width] as number) +
          (squares[at - width] as number) +
          (squares[at] as number) +
          (squares[at + width] as number) +
          (squares[at + 2 * width] as number)) /
        25;
      const off = square - mean * mean;
      out[at] = off > 0 ? Math.sqrt(off) / (mean + 6) : 0;
    }
  }
  return out;
}
/** The usual roughness of the film itself. */
function filmRoughness(roughs: Float32Array, u: Float32Array, v: Float32Array, state: Uint8Array, film: Uv): number {
  const values = new Gathered();
  // Some ten thousand of them tell it.
  const step = Math.max(7, Math.floor(state.length / 12_000)) | 1;
  for (let at = 0; at < state.length; at += step) {
    if (state[at] !== 0 || ((u[at] as number) - film[0]) ** 2 + ((v[at] as number) - film[1]) ** 2 >= 0.0225) continue;
    const rough = roughs[at] as number;
    if (rough > 0) values.push(rough);
  }
  return values.middle();
}

/** A pixel goes with most of its neighbours: single specks are noise. */
function settled(state: Uint8Array, width: number, height: number): Uint8Array {
  const out = Uint8Array.from(state);
  // How many of three across rust; then three such down.
  const across = new Uint8Array(state.length);
  for (let at = 1; at < state.length - 1; at++)
    across[at] = Number(state[at - 1] === 1) + Number(state[at] === 1) + Number(state[at + 1] === 1);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      const own = state[at] as number;
      if (own > 1) continue;
      const rusted = (across[at - width] as number) + (across[at] as number) + (across[at + width] as number);
      out[at] = rusted >= 5 ? 1 : rusted <= 2 ? 0 : own;
    }
  return out;
}

function drawn(planes: readonly Plane[], n: number): Uint8ClampedArray {
  const rgba = new Uint8ClampedArray(n * 4).fill(255);
  for (const [c, { values }] of planes.entries())
    for (let at = 0, to = c; at < n; at++, to += 4) rgba[to] = values[at] as number;
  return rgba;
}
