import { err, ok, type Result } from "../result";
import { type Homography, homographyOf, type Point, seenAt } from "./homography";
import { checkPicture, type Picture, planesOf } from "./image";

/** The scale card: four marks at the corners of a rectangle, each a black disc within a black ring, mm. */
export const CARD = {
  widthMm: 80,
  heightMm: 50,
  ringOuterMm: 4,
  ringInnerMm: 2.6,
  discMm: 1.4,
  /** White about it, so that it is found on a dark film. */
  borderMm: 7,
} as const;

/** Longest side that the card is looked for at, px. */
const LOOKED_AT = 2000;
/** A mark with fewer pixels across its disc is not placed well enough. */
const LEAST_DISC_PX = 4;
/** Nearer sides of the card may be so much longer than those farther off: more is too much aslant. */
const MOST_ASLANT = 1.5;
/** Fewer pixels a millimetre do not show a tenth of one. */
export const LEAST_PX_PER_MM = 3;

/** A plane with its scale as it is seen in a picture: mm on the plane to px. */
export type Scale = {
  readonly by: "card" | "two-points";
  readonly seen: Homography;
  /** Pixels of a millimetre, where the scale lies. */
  readonly pxPerMm: number;
  /** What the scale itself covers on the plane, mm: nothing is measured there. */
  readonly card: { readonly widthMm: number; readonly heightMm: number } | null;
};

type Blob = { x: number; y: number; area: number; left: number; right: number; top: number; bottom: number };

/**
 * The scale card in a picture: where its four marks are seen, and so what a millimetre on its plane is, wherever the camera
 * stood. Failures: those of `checkPicture`, `no-card`, `card-not-whole` (with the marks that are seen), `card-aslant`,
 * `too-far` (with the pixels a millimetre has). O(pixels).
 */
export function findCard(picture: Picture): Result<Scale> {
  const checked = checkPicture(picture);
  if (!checked.ok) return checked;
  const { planes, by } = planesOf(picture, LOOKED_AT);
  const [red, green, blue] = planes as readonly [(typeof planes)[0], (typeof planes)[0], (typeof planes)[0]];
  const { width, height } = red;
  const light = new Float32Array(width * height);
  for (let i = 0; i < light.length; i++)
    light[i] = 0.3 * (red.values[i] as number) + 0.59 * (green.values[i] as number) + 0.11 * (blue.values[i] as number);
  const marks = marksIn(light, width, height);
  if (marks.length === 0) return err({ kind: "no-card" });
  const four = marks.length < 4 ? null : cardOf(marks);
  if (!four) return err({ kind: "card-not-whole", marks: Math.min(3, marks.length) });
  const corners = four.map(([x, y]): Point => [(x + 0.5) * by, (y + 0.5) * by]);
  return scaleOf(corners as unknown as readonly [Point, Point, Point, Point]);
}

const length = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** The card by its corners as they are seen, px, in whatever order they were given. Failures: `card-aslant`, `too-far`, `flat-points`. */
export function scaleOf(corners: readonly [Point, Point, Point, Point]): Result<Scale> {
  const [a, b, c, d] = round(corners);
  const long = length(a, b) + length(c, d) >= length(b, c) + length(d, a);
  const seen = long ? [a, b, c, d] : [b, c, d, a];
  const [p, q, r, s] = seen as unknown as readonly [Point, Point, Point, Point];
  const aslant = Math.max(
    ratio(length(p, q), length(s, r)),
    ratio(length(p, s), length(q, r)),
    ratio(length(p, q) / CARD.widthMm, length(p, s) / CARD.heightMm),
  );
  if (aslant > MOST_ASLANT) return err({ kind: "card-aslant", times: aslant });
  const h = homographyOf([
    [[0, 0], p],
    [[CARD.widthMm, 0], q],
    [[CARD.widthMm, CARD.heightMm], r],
    [[0, CARD.heightMm], s],
  ]);
  if (!h.ok) return h;
  const pxPerMm = (length(p, q) + length(s, r)) / (2 * CARD.widthMm);
  if (pxPerMm < LEAST_PX_PER_MM) return err({ kind: "too-far", pxPerMm });
  return ok({ by: "card", seen: h.value, pxPerMm, card: { widthMm: CARD.widthMm, heightMm: CARD.heightMm } });
}

/**
 * A scale by two points of known distance, px; the camera stands square on, or it is wrong by as much as it stands aslant.
 * Failures: `points-too-near` (with their distance), `bad-input`, `too-far`.
 */
export function scaleByPoints(a: Point, b: Point, mm: number): Result<Scale> {
  if (!(mm > 0 && mm < 5000)) return err({ kind: "bad-input", name: "mm", value: mm });
  const px = length(a, b);
  if (px < 40) return err({ kind: "points-too-near", px });
  const pxPerMm = px / mm;
  if (pxPerMm < LEAST_PX_PER_MM) return err({ kind: "too-far", pxPerMm });
  return ok({ by: "two-points", seen: [pxPerMm, 0, 0, 0, pxPerMm, 0, 0, 0], pxPerMm, card: null });
}

/** Where a pixel lies on the plane, mm. */
export function onPlane({ seen: h }: Pick<Scale, "seen">, [x, y]: Point): Point {
  // Inverse of the homography: two linear equations in u and v.
  const a = h[0] - h[6] * x;
  const b = h[1] - h[7] * x;
  const c = h[3] - h[6] * y;
  const d = h[4] - h[7] * y;
  const det = a * d - b * c;
  return [((x - h[2]) * d - (y - h[5]) * b) / det, (a * (y - h[5]) - c * (x - h[2])) / det];
}

const ratio = (a: number, b: number): number => Math.max(a, b) / Math.max(1e-9, Math.min(a, b));

/** Four points in turn about their middle, however they were given: swapped ones are put right. */
export function round(points: readonly [Point, Point, Point, Point]): readonly [Point, Point, Point, Point] {
  const mx = points.reduce((s, p) => s + p[0], 0) / 4;
  const my = points.reduce((s, p) => s + p[1], 0) / 4;
  return [...points].sort(
    (p, q) => Math.atan2(p[1] - my, p[0] - mx) - Math.atan2(q[1] - my, q[0] - mx),
  ) as unknown as readonly [Point, Point, Point, Point];
}

/** Discs within rings, by what is darker than its surroundings. */
function marksIn(light: Float32Array, width: number, height: number): (Blob & { readonly across: number })[] {
  const dark = darker(light, width, height);
  const blobs = blobsIn(dark, width, height);
  const discs = blobs.filter((b) => {
    const [w, h] = [b.right - b.left + 1, b.bottom - b.top + 1];
    const full = b.area / ((Math.PI / 4) * w * h);
    return Math.min(w, h) >= LEAST_DISC_PX && ratio(w, h) < 1.9 && full > 0.72 && full < 1.3;
  });
  const rings = blobs.filter((b) => {
    const [w, h] = [b.right - b.left + 1, b.bottom - b.top + 1];
    const full = b.area / ((Math.PI / 4) * w * h);
    return Math.min(w, h) >= 2 * LEAST_DISC_PX && ratio(w, h) < 1.9 && full > 0.35 && full < 0.82;
  });
  const marks: (Blob & { readonly across: number })[] = [];
  for (const disc of discs) {
    const ring = rings.find((r) => {
      const across = (r.right - r.left + r.bottom - r.top) / 2;
      const own = (disc.right - disc.left + disc.bottom - disc.top) / 2 + 1;
      const times = (across + 1) / own;
      return (
        r.left < disc.left &&
        r.right > disc.right &&
        r.top < disc.top &&
        r.bottom > disc.bottom &&
        Math.hypot(r.x - disc.x, r.y - disc.y) < 0.09 * across &&
        times > 2 &&
        times < 4
      );
    });
    if (!ring) continue;
    const sum = disc.area + ring.area;
    // The middle of both: the ring has more pixels to go by.
    marks.push({
      ...disc,
      x: (disc.x * disc.area + ring.x * ring.area) / sum,
      y: (disc.y * disc.area + ring.y * ring.area) / sum,
      across: (ring.right - ring.left + ring.bottom - ring.top) / 2 + 1,
    });
  }
  return marks;
}

/** 1 where a pixel is clearly darker than what is about it: by the mean of a square, from sums. O(pixels). */
function darker(light: Float32Array, width: number, height: number): Uint8Array {
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += light[y * width + x] as number;
      sums[(y + 1) * (width + 1) + x + 1] = (sums[y * (width + 1) + x + 1] as number) + row;
    }
  }
  const reach = Math.max(8, Math.round(Math.max(width, height) / 45));
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const [y0, y1] = [Math.max(0, y - reach), Math.min(height, y + reach + 1)];
    for (let x = 0; x < width; x++) {
      const [x0, x1] = [Math.max(0, x - reach), Math.min(width, x + reach + 1)];
      const sum =
        (sums[y1 * (width + 1) + x1] as number) -
        (sums[y0 * (width + 1) + x1] as number) -
        (sums[y1 * (width + 1) + x0] as number) +
        (sums[y0 * (width + 1) + x0] as number);
      const mean = sum / ((y1 - y0) * (x1 - x0));
      if ((light[y * width + x] as number) < 0.72 * mean - 2) out[y * width + x] = 1;
    }
  }
  return out;
}

/** What hangs together of a mask, with where its middle is. O(pixels). */
export function blobsIn(mask: Uint8Array, width: number, height: number): Blob[] {
  const seen = new Uint8Array(mask.length);
  const stack = new Int32Array(mask.length);
  const out: Blob[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (mask[start] !== 1 || seen[start] === 1) continue;
    const blob: Blob = { x: 0, y: 0, area: 0, left: width, right: 0, top: height, bottom: 0 };
    let top = 0;
    stack[top++] = start;
    seen[start] = 1;
    while (top > 0) {
      const at = stack[--top] as number;
      const [x, y] = [at % width, Math.floor(at / width)];
      blob.x += x;
      blob.y += y;
      blob.area++;
      blob.left = Math.min(blob.left, x);
      blob.right = Math.max(blob.right, x);
      blob.top = Math.min(blob.top, y);
      blob.bottom = Math.max(blob.bottom, y);
      for (const [nx, ny] of [
        [x - 1, y],
        [x + 1, y],
        [x, y - 1],
        [x, y + 1],
      ] as const) {
        if (nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
        const to = ny * width + nx;
        if (mask[to] === 1 && seen[to] === 0) {
          seen[to] = 1;
          stack[top++] = to;
        }
      }
    }
    blob.x /= blob.area;
    blob.y /= blob.area;
    out.push(blob);
  }
  return out;
}

/** Four of the marks that stand as the card's do: of a size, and the corners of its rectangle. Null where none do. */
function cardOf(marks: readonly (Blob & { readonly across: number })[]): readonly Point[] | null {
  const some = [...marks].sort((a, b) => b.across - a.across).slice(0, 12);
  let best: { points: readonly Point[]; off: number } | null = null;
  for (let a = 0; a < some.length; a++)
    for (let b = a + 1; b < some.length; b++)
      for (let c = b + 1; c < some.length; c++)
        for (let d = c + 1; d < some.length; d++) {
          const four = [some[a], some[b], some[c], some[d]] as (Blob & { readonly across: number })[];
          const sizes = four.map((m) => m.across);
          if (Math.max(...sizes) > 1.7 * Math.min(...sizes)) continue;
          const points = round(four.map((m): Point => [m.x, m.y]) as unknown as readonly [Point, Point, Point, Point]);
          const [p, q, r, s] = points;
          const [one, two] = [(length(p, q) + length(r, s)) / 2, (length(q, r) + length(s, p)) / 2];
          // A mark is a tenth of the card's long side, and the sides are as they are, as far as it is aslant.
          const across = sizes.reduce((x, y) => x + y, 0) / 4;
          const off =
            Math.abs(Math.log(Math.max(one, two) / across / (CARD.widthMm / (2 * CARD.ringOuterMm)))) +
            Math.abs(Math.log(ratio(one, two) / (CARD.widthMm / CARD.heightMm)));
          if (off < 0.6 && (!best || off < best.off)) best = { points, off };
        }
  return best?.points ?? null;
}

/** Bounds of what a picture shows of the plane, mm, within `most` of the scale's middle. */
export function shownMm(
  scale: Scale,
  picture: { readonly width: number; readonly height: number },
  most = 250,
): { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number } {
  const { width, height } = picture;
  const edges: Point[] = [];
  for (let i = 0; i <= 16; i++) {
    const [x, y] = [(width * i) / 16, (height * i) / 16];
    edges.push([x, 0], [x, height], [0, y], [width, y]);
  }
  const mid: Point = scale.card
    ? [scale.card.widthMm / 2, scale.card.heightMm / 2]
    : onPlane(scale, [width / 2, height / 2]);
  // Beyond the horizon a pixel lies nowhere on the plane.
  const there = edges
    .map((p) => onPlane(scale, p))
    .filter((p) => {
      const back = seenAt(scale.seen, p);
      return (
        Number.isFinite(p[0]) &&
        Math.hypot(back[0], back[1]) < 1e6 &&
        scale.seen[6] * p[0] + scale.seen[7] * p[1] + 1 > 0.05
      );
    });
  const held = (value: number, about: number) => Math.min(about + most, Math.max(about - most, value));
  const xs = there.map((p) => held(p[0], mid[0]));
  const ys = there.map((p) => held(p[1], mid[1]));
  return {
    left: Math.min(...xs, mid[0] - 1),
    right: Math.max(...xs, mid[0] + 1),
    top: Math.min(...ys, mid[1] - 1),
    bottom: Math.max(...ys, mid[1] + 1),
  };
}

/** What lies on the plane as seen square on: `at` gives the place, mm, of each pixel that is drawn. Outside the picture is transparent. O(pixels drawn). */
export function drawnFrom(
  picture: Picture,
  scale: Pick<Scale, "seen">,
  width: number,
  height: number,
  at: (x: number, y: number) => Point,
): Picture {
  const rgba = new Uint8ClampedArray(width * height * 4);
  const { width: w, height: h, rgba: from } = picture;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [px, py] = seenAt(scale.seen, at(x, y));
      const [cx, cy] = [px - 0.5, py - 0.5];
      if (!(cx >= 0 && cy >= 0 && cx < w - 1 && cy < h - 1)) continue;
      const [x0, y0] = [Math.floor(cx), Math.floor(cy)];
      const [fx, fy] = [cx - x0, cy - y0];
      const to = (y * width + x) * 4;
      const first = (y0 * w + x0) * 4;
      for (let c = 0; c < 3; c++) {
        const top = (from[first + c] as number) * (1 - fx) + (from[first + 4 + c] as number) * fx;
        const foot = (from[first + w * 4 + c] as number) * (1 - fx) + (from[first + w * 4 + 4 + c] as number) * fx;
        rgba[to + c] = top * (1 - fy) + foot * fy;
      }
      rgba[to + 3] = 255;
    }
  return { width, height, rgba };
}
