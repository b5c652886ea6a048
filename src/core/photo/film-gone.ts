import { type Plane, smoothed } from "./image";

/** Of each pixel: 0 film, 1 rust, 2 not told, 3 outside, 4 the film is gone and it does not rust. */
export const FILM = 0;
export const RUSTED = 1;
export const NOT_TOLD = 2;
export const OUTSIDE = 3;
export const BARE = 4;

/** How red and how blue rust commonly is beside green, as logarithms, and how far about that it reaches. */
const RUST = [0.6, -0.62] as const;
const REACH = [0.45, 0.5] as const;
const DARKEST = 10;
const BRIGHTEST = 250;

/** A pixel's colour, whatever the light: how red and how blue beside green; and how light, all as logarithms. */
export type Colours = { readonly u: Float32Array; readonly v: Float32Array; readonly light: Float32Array };
/** The film's own: its colour, its light at each pixel, and how far they spread. */
export type FilmSeen = {
  readonly u: number;
  readonly v: number;
  readonly light: Float32Array;
  readonly spread: { readonly colour: number; readonly light: number };
};

/** Colours of a picture, smoothed a little since a single pixel in the dark is mostly noise. Transparent pixels are outside. O(pixels). */
export function coloursOf(
  picture: { readonly width: number; readonly height: number; readonly rgba: Uint8ClampedArray },
  state: Uint8Array,
  sigma = 0.8,
): Colours {
  const { width, height, rgba } = picture;
  const n = width * height;
  const channels = [0, 1, 2].map((c): Plane => {
    const values = new Float32Array(n);
    for (let i = 0; i < n; i++) values[i] = rgba[i * 4 + c] as number;
    return smoothed({ width, height, values }, sigma);
  }) as unknown as readonly [Plane, Plane, Plane];
  const [u, v, light] = [new Float32Array(n), new Float32Array(n), new Float32Array(n)];
  for (let i = 0; i < n; i++) {
    const [r, g, b] = channels.map((c) => c.values[i] as number) as unknown as readonly [number, number, number];
    u[i] = Math.log((r + 3) / (g + 3));
    v[i] = Math.log((b + 3) / (g + 3));
    light[i] = Math.log(0.3 * r + 0.59 * g + 0.11 * b + 3);
    if (rgba[i * 4 + 3] === 0) state[i] = OUTSIDE;
    else if (state[i] === FILM && (Math.max(r, g, b) < DARKEST || Math.min(r, g, b) > BRIGHTEST)) state[i] = NOT_TOLD;
  }
  return { u, v, light };
}

export const likeRust = (u: number, v: number, within = 1): boolean =>
  ((u - RUST[0]) / REACH[0]) ** 2 + ((v - RUST[1]) / REACH[1]) ** 2 < within;

/** The middle of some numbers, which are put in order by it; 0 of none. */
export const middleOf = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/**
 * Marks what is no film: by its colour, which no shadow changes, or by how light it is beside what the film would be there.
 * Rust is told by its colour. A tint that is smooth, as of water that ran off rust, stays film; what is smooth, paler and
 * lighter than the film may be a highlight and is not told. O(pixels).
 */
export function markGone(
  { u, v, light }: Colours,
  film: FilmSeen,
  state: Uint8Array,
  rough: { readonly at: Float32Array; readonly still: number },
): void {
  const toRust = Math.hypot(RUST[0] - film.u, RUST[1] - film.v);
  const leastColour = Math.max(0.12, 5 * film.spread.colour);
  const leastLight = Math.max(0.2, 5 * film.spread.light);
  const whole = middleOf([...film.light.filter((_, i) => i % 97 === 0)]);
  for (let i = 0; i < state.length; i++) {
    if (state[i] !== FILM) continue;
    const [du, dv] = [(u[i] as number) - film.u, (v[i] as number) - film.v];
    const off = Math.hypot(du, dv);
    // Noise weighs more in the dark.
    const still = rough.still * Math.max(1, Math.exp(Math.min(2, whole - (light[i] as number))));
    const isRough = (rough.at[i] as number) > 1.5 * still;
    if (likeRust(u[i] as number, v[i] as number) && off > 0.5 * toRust) {
      if (off > 0.8 * toRust || isRough) state[i] = RUSTED;
      continue;
    }
    const lighter = (light[i] as number) - (film.light[i] as number);
    const paler = Math.hypot(u[i] as number, v[i] as number) < Math.hypot(film.u, film.v) - 0.02;
    if (lighter > 0.12 && (paler || off <= leastColour) && (rough.at[i] as number) < 1.1 * still) {
      if (lighter > 0.3) state[i] = NOT_TOLD;
    } else if (off > leastColour) {
      if (isRough || !towardRust(du, dv, film)) state[i] = BARE;
    } else if (Math.abs(lighter) > leastLight) state[i] = BARE;
  }
  halfWay({ u, v, light }, film, state);
}

/** Of what is bare, that which is nearer to the film than to what bare commonly is there lies at a rim, and is film. */
function halfWay({ u, v, light }: Colours, film: FilmSeen, state: Uint8Array): void {
  const [du, dv, dl] = [[] as number[], [] as number[], [] as number[]];
  for (let i = 0; i < state.length; i++)
    if (state[i] === BARE) {
      du.push((u[i] as number) - film.u);
      dv.push((v[i] as number) - film.v);
      dl.push((light[i] as number) - (film.light[i] as number));
    }
  if (du.length < 20) return;
  const way = [middleOf(du), middleOf(dv), middleOf(dl)] as const;
  const size = way[0] ** 2 + way[1] ** 2 + way[2] ** 2;
  if (size < 1e-4) return;
  for (let i = 0; i < state.length; i++) {
    if (state[i] !== BARE) continue;
    const along =
      ((u[i] as number) - film.u) * way[0] +
      ((v[i] as number) - film.v) * way[1] +
      ((light[i] as number) - (film.light[i] as number)) * way[2];
    if (along < 0.5 * size) state[i] = FILM;
  }
}
/** Whether a change of colour goes the way of rust, as a stain does. */
function towardRust(du: number, dv: number, film: FilmSeen): boolean {
  const [ru, rv] = [RUST[0] - film.u, RUST[1] - film.v];
  const along = du * ru + dv * rv;
  return along > 0 && along ** 2 > 0.8 * (du * du + dv * dv) * (ru * ru + rv * rv);
}

/** How uneven the light about a pixel is: five by five, by the spread of its logarithm. O(pixels). */
export function roughnessOf(light: Float32Array, width: number, height: number): Float32Array {
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
      out[y * width + x] = Math.sqrt(Math.max(0, square / 25 - (sum / 25) ** 2));
    }
  return out;
}

/** A pixel goes with most of its neighbours: single specks are noise. O(pixels). */
export function settledState(state: Uint8Array, width: number, height: number): Uint8Array {
  const out = Uint8Array.from(state);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      if (state[at] === OUTSIDE || state[at] === NOT_TOLD) continue;
      let [rust, bare] = [0, 0];
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          const s = state[at + dy * width + dx];
          if (s === RUSTED) rust++;
          else if (s === BARE) bare++;
        }
      out[at] = rust + bare <= 3 ? FILM : rust >= 5 ? RUSTED : bare >= 5 ? BARE : (state[at] as number);
    }
  return out;
}
