import { err, ok, type Result } from "../result";

/** A picture as it is worked on: rows of red, green, blue (and anything fourth), 0–255. */
export type Picture = { readonly width: number; readonly height: number; readonly rgba: Uint8ClampedArray };
/** One channel, or anything else that each pixel has one of. */
export type Plane = { readonly width: number; readonly height: number; readonly values: Float32Array };

export const plane = (width: number, height: number): Plane => ({
  width,
  height,
  values: new Float32Array(width * height),
});

/** Most pixels that are taken: more is no photo of a bench. */
export const MOST_PIXELS = 60e6;
/** Fewest on a side that show anything. */
export const LEAST_SIDE = 64;

/** Failures: `photo-too-large`, `photo-too-small`, `bad-photo` (its pixels are not as many as it says). */
export function checkPicture({ width, height, rgba }: Picture): Result<true> {
  if (width * height > MOST_PIXELS) return err({ kind: "photo-too-large", megapixels: (width * height) / 1e6 });
  if (!(width >= LEAST_SIDE && height >= LEAST_SIDE)) return err({ kind: "photo-too-small", width, height });
  if (rgba.length !== width * height * 4)
    return err({ kind: "bad-photo", pixels: rgba.length / 4, of: width * height });
  return ok(true);
}

/** The three colours as planes, made smaller by whole pixels so that no side is over `most` px: each the mean of what it covers. O(pixels). */
export function planesOf(picture: Picture, most: number): { readonly planes: readonly Plane[]; readonly by: number } {
  const by = Math.max(1, Math.ceil(Math.max(picture.width, picture.height) / most));
  const [width, height] = [Math.floor(picture.width / by), Math.floor(picture.height / by)];
  const planes = [plane(width, height), plane(width, height), plane(width, height)] as const;
  const [red, green, blue] = planes.map((p) => p.values) as unknown as readonly [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const { rgba } = picture;
  const share = 1 / (by * by);
  const row = picture.width * 4;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      // Written out: what is done for every pixel makes no lists.
      let r = 0;
      let g = 0;
      let b = 0;
      const first = y * by * row + x * by * 4;
      for (let dy = 0; dy < by; dy++) {
        const end = first + dy * row + by * 4;
        for (let at = end - by * 4; at < end; at += 4) {
          r += rgba[at] as number;
          g += rgba[at + 1] as number;
          b += rgba[at + 2] as number;
        }
      }
      const to = y * width + x;
      red[to] = r * share;
      green[to] = g * share;
      blue[to] = b * share;
    }
  return { planes, by };
}

/** Half as wide and as high, each pixel the mean of four. O(pixels). */
export function halved({ width, height, values }: Plane): Plane {
  const [w, h] = [Math.floor(width / 2), Math.floor(height / 2)];
  const out = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const at = 2 * y * width + 2 * x;
      out[y * w + x] =
        ((values[at] as number) +
          (values[at + 1] as number) +
          (values[at + width] as number) +
          (values[at + width + 1] as number)) /
        4;
    }
  return { width: w, height: h, values: out };
}

/** Smoothed by a Gaussian of so many px, edges held. O(pixels × width of it). */
export function smoothed({ width, height, values }: Plane, sigma: number): Plane {
  const radius = Math.max(1, Math.ceil(sigma * 2.6));
  const kernel = Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-((i - radius) ** 2) / (2 * sigma * sigma)));
  const sum = kernel.reduce((a, b) => a + b, 0);
  const weights = Float32Array.from(kernel, (k) => k / sum);
  const across = new Float32Array(width * height);
  const out = new Float32Array(width * height);
  const at = (k: number) => weights[radius + k] ?? 0;
  const [w0, w1, w2, w3] = [at(0), at(1), at(2), at(3)];
  const run = (from: Float32Array, to: Float32Array, step: number, start: number, length: number) => {
    for (let i = 0; i < length; i++) {
      if (i >= radius && i < length - radius) continue;
      let total = 0;
      for (let k = -radius; k <= radius; k++)
        total +=
          (weights[k + radius] as number) * (from[start + Math.min(length - 1, Math.max(0, i + k)) * step] as number);
      to[start + i * step] = total;
    }
  };
  /** Away from the edges, a row at a time: seven taps written out, more of them in turn. */
  const rows = (from: Float32Array, to: Float32Array, step: number, x0: number, x1: number, y0: number, y1: number) => {
    for (let y = y0; y < y1; y++) {
      const end = y * width + x1;
      if (radius <= 3)
        for (let i = y * width + x0; i < end; i++)
          to[i] =
            w0 * (from[i] as number) +
            w1 * ((from[i - step] as number) + (from[i + step] as number)) +
            (radius > 1 ? w2 * ((from[i - 2 * step] as number) + (from[i + 2 * step] as number)) : 0) +
            (radius > 2 ? w3 * ((from[i - 3 * step] as number) + (from[i + 3 * step] as number)) : 0);
      else
        for (let i = y * width + x0; i < end; i++) {
          let total = 0;
          for (let k = 0, j = i - radius * step; k < weights.length; k++, j += step)
            total += (weights[k] as number) * (from[j] as number);
          to[i] = total;
        }
    }
  };
  for (let y = 0; y < height; y++) run(values, across, 1, y * width, width);
  rows(values, across, 1, radius, width - radius, 0, height);
  for (let x = 0; x < width; x++) run(across, out, width, x, height);
  rows(across, out, width, 0, width, radius, height - radius);
  return { width, height, values: out };
}

/** The value between four pixels; the nearest edge outside. */
export function valueAt({ width, height, values }: Plane, x: number, y: number): number {
  const cx = Math.min(width - 1, Math.max(0, x));
  const cy = Math.min(height - 1, Math.max(0, y));
  const [x0, y0] = [Math.floor(cx), Math.floor(cy)];
  const [x1, y1] = [Math.min(width - 1, x0 + 1), Math.min(height - 1, y0 + 1)];
  const [fx, fy] = [cx - x0, cy - y0];
  const top = (values[y0 * width + x0] as number) * (1 - fx) + (values[y0 * width + x1] as number) * fx;
  const foot = (values[y1 * width + x0] as number) * (1 - fx) + (values[y1 * width + x1] as number) * fx;
  return top * (1 - fy) + foot * fy;
}
