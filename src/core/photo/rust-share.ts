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
const middle = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
const likeRust = ([u, v]: Uv): boolean => ((u - RUST[0]) / REACH[0]) ** 2 + ((v - RUST[1]) / REACH[1]) ** 2 < 1;

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
  for (let at = 0; at < n; at++) {
    const [r, g, b] = [red.values[at] as number, green.values[at] as number, blue.values[at] as number];
    light[at] =
      0.3 * (planes[0]?.values[at] as number) +
      0.59 * (planes[1]?.values[at] as number) +
      0.11 * (planes[2]?.values[at] as number);
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
  const rough = roughness(light, width, height);
  let stained = 0;
  if (rust) {
    const way = [rust[0] - film[0], rust[1] - film[1]] as const;
    const size = way[0] ** 2 + way[1] ** 2;
    const still = filmRoughness(rough, u, v, state, film);
    for (let at = 0; at < n; at++) {
      if (state[at] !== 0) continue;
      const [x, y] = [(u[at] as number) - film[0], (v[at] as number) - film[1]];
      const along = (x * way[0] + y * way[1]) / size;
      if (along <= HALF_WAY) continue;
      const off = Math.hypot(x - along * way[0], y - along * way[1]) / Math.sqrt(size);
      if (off > BESIDE) continue;
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
  const cells = new Map<number, number>();
  const size = 0.08;
  const keyOf = (at: number) =>
    Math.round((u[at] as number) / size + 200) * 1000 + Math.round((v[at] as number) / size + 200);
  for (let at = 0; at < state.length; at += 2) {
    if (state[at] !== 0 || likeRust([u[at] as number, v[at] as number])) continue;
    const key = keyOf(at);
    cells.set(key, (cells.get(key) ?? 0) + 1);
  }
  let best = -1;
  let most = 0;
  for (const [key, count] of cells)
    if (count > most) {
      most = count;
      best = key;
    }
  // A brown film has hardly anything that is not rust's colour.
  if (most < 0.005 * state.length) {
    const [all, vs] = [[] as number[], [] as number[]];
    for (let at = 0; at < state.length; at += 5)
      if (state[at] === 0) {
        all.push(u[at] as number);
        vs.push(v[at] as number);
      }
    return [middle(all), middle(vs)];
  }
  const about: Uv = [(Math.floor(best / 1000) - 200) * size, ((best % 1000) - 200) * size];
  const [us, vs] = [[] as number[], [] as number[]];
  for (let at = 0; at < state.length; at += 3)
    if (state[at] === 0 && Math.hypot((u[at] as number) - about[0], (v[at] as number) - about[1]) < 0.2) {
      us.push(u[at] as number);
      vs.push(v[at] as number);
    }
  return [middle(us), middle(vs)];
}

/** The middle colour of what is rust's and not the film's; null where there is none to speak of. */
function rustColour(u: Float32Array, v: Float32Array, state: Uint8Array, film: Uv): Uv | null {
  const [us, vs] = [[] as number[], [] as number[]];
  const least = 0.55 * Math.hypot(RUST[0] - film[0], RUST[1] - film[1]);
  for (let at = 0; at < state.length; at++) {
    if (state[at] !== 0) continue;
    const here: Uv = [u[at] as number, v[at] as number];
    if (likeRust(here) && Math.hypot(here[0] - film[0], here[1] - film[1]) > least) {
      us.push(here[0]);
      vs.push(here[1]);
    }
  }
  return us.length < 6 ? null : [middle(us), middle(vs)];
}

/** How uneven the light of a pixel's surroundings is, of its own light: five by five, by the spread. */
function roughness(light: Float32Array, width: number, height: number): Float32Array {
  const out = new Float32Array(light.length);
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      let [sum, square] = [0, 0];
      for (let dy = -2; dy <= 2; dy++)
        for (let dx = -2; dx <= 2; dx++) {
          const l = light[(y + dy) * width + x + dx] as number;
          sum += l;
          square += l * l;
        }
      const mean = sum / 25;
      out[y * width + x] = Math.sqrt(Math.max(0, square / 25 - mean * mean)) / (mean + 6);
    }
  return out;
}
/** The usual roughness of the film itself. */
function filmRoughness(rough: Float32Array, u: Float32Array, v: Float32Array, state: Uint8Array, film: Uv): number {
  const values: number[] = [];
  for (let at = 0; at < state.length; at += 7)
    if (
      state[at] === 0 &&
      (rough[at] as number) > 0 &&
      Math.hypot((u[at] as number) - film[0], (v[at] as number) - film[1]) < 0.15
    )
      values.push(rough[at] as number);
  return middle(values);
}

/** A pixel goes with most of its neighbours: single specks are noise. */
function settled(state: Uint8Array, width: number, height: number): Uint8Array {
  const out = Uint8Array.from(state);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      if (state[at] !== 0 && state[at] !== 1) continue;
      let rusted = 0;
      for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) if (state[at + dy * width + dx] === 1) rusted++;
      out[at] = rusted >= 5 ? 1 : rusted <= 2 ? 0 : (state[at] as number);
    }
  return out;
}

function drawn(planes: readonly Plane[], n: number): Uint8ClampedArray {
  const rgba = new Uint8ClampedArray(n * 4);
  for (let at = 0; at < n; at++) {
    for (let c = 0; c < 3; c++) rgba[at * 4 + c] = planes[c]?.values[at] as number;
    rgba[at * 4 + 3] = 255;
  }
  return rgba;
}
