import { err, ok, type Result } from "../result";
import {
  BARE,
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
import { checkPicture, type Picture, planesOf } from "./image";
import { type Frame, framed } from "./rust-share";

/** Longest side that it is told at, px. */
const TOLD_AT = 1000;
/** More of the frame than this that is not told is sent back. */
const MOST_UNKNOWN = 0.2;
/** Squares that the light of the film is followed by, a side. */
const SQUARES = 8;

export type FlakedPhoto = {
  /** Where the film is gone, rusting or not, of the frame as far as it is told, %. */
  readonly sharePercent: number;
  readonly rustedPercent: number;
  readonly unknown: number;
  readonly mask: { readonly width: number; readonly height: number; readonly state: Uint8Array };
  readonly picture: Picture;
};

/**
 * The share of a framed part of a photo where the film is gone: what is neither the film's colour nor as light as the film is
 * there; metal, another coat and rust alike. Failures: those of `checkPicture`, `frame-too-small`, `film-like-rust`, `glare`. O(pixels).
 */
export function flakedShare(picture: Picture, frame: Frame = null): Result<FlakedPhoto> {
  const checked = checkPicture(picture);
  if (!checked.ok) return checked;
  const { planes } = planesOf(picture, TOLD_AT);
  const { width, height } = planes[0] as (typeof planes)[0];
  const n = width * height;
  const rgba = new Uint8ClampedArray(n * 4);
  for (let i = 0; i < n; i++) {
    for (let c = 0; c < 3; c++) rgba[i * 4 + c] = planes[c]?.values[i] as number;
    rgba[i * 4 + 3] = 255;
  }
  const small: Picture = { width, height, rgba };
  const state = new Uint8Array(n);
  const inside = framed(frame, width, height);
  let of = 0;
  for (let i = 0; i < n; i++) {
    if (inside[i] === 0) state[i] = OUTSIDE;
    else of++;
  }
  if (of < 900) return err({ kind: "frame-too-small", pixels: of });
  const colours = coloursOf(small, state);
  const film = filmOf(colours, state, width, height);
  if (likeRust(film.u, film.v) && Math.hypot(film.u - 0.6, film.v + 0.62) < 0.35)
    return err({ kind: "film-like-rust" });
  const rough = roughnessOf(colours.light, width, height);
  const stills: number[] = [];
  for (let i = 0; i < n; i += 7)
    if (state[i] === FILM && Math.hypot((colours.u[i] as number) - film.u, (colours.v[i] as number) - film.v) < 0.15)
      stills.push(rough[i] as number);
  markGone(colours, film, state, { at: rough, still: Math.max(0.004, middleOf(stills)) });
  const settled = settledState(state, width, height);
  let [gone, rusted, unknown] = [0, 0, 0];
  for (const s of settled) {
    if (s === RUSTED) rusted++;
    if (s === RUSTED || s === BARE) gone++;
    if (s === NOT_TOLD) unknown++;
  }
  if (unknown > MOST_UNKNOWN * of) return err({ kind: "glare", sharePercent: (100 * unknown) / of });
  const told = Math.max(1, of - unknown);
  return ok({
    sharePercent: (100 * gone) / told,
    rustedPercent: (100 * rusted) / told,
    unknown: unknown / of,
    mask: { width, height, state: settled },
    picture: small,
  });
}

/** The film as most of the frame has it: its commonest colour, and how light it is square by square, so that a shadow is followed. */
function filmOf(
  { u, v, light }: { readonly u: Float32Array; readonly v: Float32Array; readonly light: Float32Array },
  state: Uint8Array,
  width: number,
  height: number,
): FilmSeen {
  const size = 0.06;
  const cells = new Map<number, number>();
  for (let i = 0; i < state.length; i += 2) {
    if (state[i] !== FILM) continue;
    const key = Math.round((u[i] as number) / size + 200) * 1000 + Math.round((v[i] as number) / size + 200);
    cells.set(key, (cells.get(key) ?? 0) + 1);
  }
  const [best] = [...cells].sort((a, b) => b[1] - a[1])[0] ?? [200_200];
  const about = [(Math.floor(best / 1000) - 200) * size, ((best % 1000) - 200) * size] as const;
  const near = (i: number, at: readonly [number, number], within: number) =>
    state[i] === FILM && Math.hypot((u[i] as number) - at[0], (v[i] as number) - at[1]) < within;
  const [us, vs, offs] = [[] as number[], [] as number[], [] as number[]];
  for (let i = 0; i < state.length; i += 3)
    if (near(i, about, 0.15)) {
      us.push(u[i] as number);
      vs.push(v[i] as number);
    }
  const own = [middleOf(us), middleOf(vs)] as const;
  // The commonest light of the film's colour in each square: bare metal of the same colour is the fewer there.
  const grid = Array.from({ length: SQUARES * SQUARES }, () => [] as number[]);
  const all: number[] = [];
  for (let y = 0; y < height; y += 2)
    for (let x = 0; x < width; x += 2) {
      const i = y * width + x;
      if (!near(i, own, 0.15)) continue;
      const square = Math.floor((y * SQUARES) / height) * SQUARES + Math.floor((x * SQUARES) / width);
      grid[square]?.push(light[i] as number);
      all.push(light[i] as number);
      offs.push(Math.hypot((u[i] as number) - own[0], (v[i] as number) - own[1]));
    }
  const whole = middleOf(all);
  const known = grid.map((values) => (values.length > 30 ? commonest(values) : Number.NaN));
  const at = (sx: number, sy: number): number => {
    const value = known[Math.min(SQUARES - 1, Math.max(0, sy)) * SQUARES + Math.min(SQUARES - 1, Math.max(0, sx))];
    return value === undefined || Number.isNaN(value) ? whole : value;
  };
  const expected = new Float32Array(state.length);
  const lights: number[] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [gx, gy] = [((x + 0.5) * SQUARES) / width - 0.5, ((y + 0.5) * SQUARES) / height - 0.5];
      const [x0, y0] = [Math.floor(gx), Math.floor(gy)];
      const [fx, fy] = [gx - x0, gy - y0];
      const i = y * width + x;
      expected[i] =
        (at(x0, y0) * (1 - fx) + at(x0 + 1, y0) * fx) * (1 - fy) +
        (at(x0, y0 + 1) * (1 - fx) + at(x0 + 1, y0 + 1) * fx) * fy;
      if (i % 11 === 0 && near(i, own, 0.15)) lights.push(Math.abs((light[i] as number) - (expected[i] as number)));
    }
  return { u: own[0], v: own[1], light: expected, spread: { colour: middleOf(offs), light: 1.48 * middleOf(lights) } };
}

/** The commonest of some values, by windows of 0.15. */
function commonest(values: number[]): number {
  values.sort((a, b) => a - b);
  let [best, most, from] = [values[0] as number, 0, 0];
  for (let to = 0; to < values.length; to++) {
    while ((values[to] as number) - (values[from] as number) > 0.15) from++;
    if (to - from > most) {
      most = to - from;
      best = values[(from + to) >> 1] as number;
    }
  }
  return best;
}

/** Share of a mask where the film is gone as somebody left it, % of what is told. O(pixels). */
export function goneOfMask(state: Uint8Array): number {
  let [gone, told] = [0, 0];
  for (const s of state) {
    if (s === RUSTED || s === BARE) gone++;
    if (s === FILM || s === RUSTED || s === BARE) told++;
  }
  return told === 0 ? 0 : (100 * gone) / told;
}
