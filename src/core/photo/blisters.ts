import { err, ok, type Result } from "../result";
import { middleOf } from "./film-gone";
import { checkPicture, halved, type Picture, type Plane, smoothed, valueAt } from "./image";
import { blobsIn, drawnFrom, type Scale, shownMm } from "./scale-card";

/** What is looked at, pixels of a millimetre at most, and longest side, px. */
const MOST_PX_PER_MM = 10;
const LONGEST_PX = 1200;
/** Smaller ones are noise, larger ones are dents or shadows, mm across. */
const SMALLEST_MM = 0.4;
const LARGEST_MM = 15;
/** Gaps that are closed, one after another, mm. */
const CLOSED_MM = [0.2, 0.45, 1] as const;
/** So many times its usual unevenness is more than the film's. */
const MORE = 4;

export type BlisterCount = {
  readonly count: number;
  readonly perDm2: number;
  /** Across, the middle of them, mm; null where there are none. */
  readonly medianMm: number | null;
  /** Of the area, %. */
  readonly coveredPercent: number;
};
export type BlistersPhoto = {
  readonly picture: Picture;
  /** 1 blister, 3 outside, else 0. */
  readonly mask: { readonly width: number; readonly height: number; readonly state: Uint8Array };
  readonly pxPerMm: number;
};

/**
 * Blisters in what a photo shows of the plane of its scale, under light from the side: what is lighter on one side and darker on
 * the other than the film about it. Failures: those of `checkPicture`, `frame-too-small` (under a square of 20 mm). O(pixels).
 */
export function findBlisters(picture: Picture, scale: Scale): Result<BlistersPhoto> {
  const checked = checkPicture(picture);
  if (!checked.ok) return checked;
  const shown = shownMm(scale, picture);
  const [wide, high] = [shown.right - shown.left, shown.bottom - shown.top];
  if (!(wide > 20 && high > 20)) return err({ kind: "frame-too-small", pixels: Math.round(wide * high) });
  const pxPerMm = Math.min(MOST_PX_PER_MM, scale.pxPerMm, LONGEST_PX / Math.max(wide, high));
  const [width, height] = [Math.round(wide * pxPerMm), Math.round(high * pxPerMm)];
  const at = (x: number, y: number) => [shown.left + (x + 0.5) / pxPerMm, shown.top + (y + 0.5) / pxPerMm] as const;
  const square = drawnFrom(picture, scale, width, height, at);
  const n = width * height;
  const state = new Uint8Array(n);
  const light: Plane = { width, height, values: new Float32Array(n) };
  for (let i = 0; i < n; i++) {
    light.values[i] = Math.log(
      0.3 * (square.rgba[i * 4] as number) +
        0.59 * (square.rgba[i * 4 + 1] as number) +
        0.11 * (square.rgba[i * 4 + 2] as number) +
        4,
    );
    if (square.rgba[i * 4 + 3] === 0) state[i] = 3;
  }
  if (scale.card)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const [u, v] = at(x, y);
        if (u > -9 && v > -9 && u < scale.card.widthMm + 9 && v < scale.card.heightMm + 9) state[y * width + x] = 3;
      }
  const fine = smoothed(light, Math.max(0.8, 0.12 * pxPerMm));
  // What changes so slowly is told at a quarter of the size.
  const about = smoothed(halved(halved(light)), (3.5 * pxPerMm) / 4);
  const uneven = new Float32Array(n);
  const usual: number[] = [];
  for (let i = 0; i < n; i++) {
    if (state[i] === 3) continue;
    const [x, y] = [i % width, Math.floor(i / width)];
    uneven[i] = (fine.values[i] as number) - valueAt(about, (x + 0.5) / 4 - 0.5, (y + 0.5) / 4 - 0.5);
    if (i % 5 === 0) usual.push(Math.abs(uneven[i] as number));
  }
  const least = Math.max(0.025, MORE * 1.48 * lowerOf(usual));
  const raw = new Uint8Array(n);
  for (let i = 0; i < n; i++) if (state[i] !== 3 && Math.abs(uneven[i] as number) > least) raw[i] = 1;
  // Its light and its dark side are one: closed over the line between them, small ones first, so that two beside each other stay two.
  for (const mm of CLOSED_MM) {
    const closed = closedBy(raw, width, height, Math.max(1, Math.round(mm * pxPerMm)));
    for (const blob of blobsIn(closed, width, height)) {
      const [w, h] = [blob.right - blob.left + 1, blob.bottom - blob.top + 1];
      const across = Math.sqrt((4 * blob.area) / Math.PI) / pxPerMm;
      // Half of one is twice as long as it is wide.
      const isRound = Math.max(w, h) / Math.min(w, h) < 1.6 && blob.area > 0.55 * w * h;
      if (across < SMALLEST_MM || across > LARGEST_MM || !isRound) continue;
      for (let y = blob.top; y <= blob.bottom; y++)
        for (let x = blob.left; x <= blob.right; x++) {
          const i = y * width + x;
          if (closed[i] === 1 && state[i] === 0) state[i] = 1;
          raw[i] = 0;
        }
    }
  }
  return ok({ picture: square, mask: { width, height, state }, pxPerMm });
}

/** Half of what is usual lies under it: of mostly sound film its own noise, whatever share is blistered. */
function lowerOf(values: number[]): number {
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length * 0.4)] ?? 0;
}

/** Widened and narrowed again by a disc of so many px: gaps are closed. O(pixels × disc). */
function closedBy(mask: Uint8Array, width: number, height: number, radius: number): Uint8Array {
  const disc: (readonly [number, number])[] = [];
  for (let dy = -radius; dy <= radius; dy++)
    for (let dx = -radius; dx <= radius; dx++) if (dx * dx + dy * dy <= radius * radius) disc.push([dx, dy]);
  const spread = (from: Uint8Array, of: 0 | 1): Uint8Array => {
    const out = Uint8Array.from(from);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        if (from[y * width + x] !== of) continue;
        for (const [dx, dy] of disc) {
          const [px, py] = [x + dx, y + dy];
          if (px >= 0 && py >= 0 && px < width && py < height) out[py * width + px] = of;
        }
      }
    return out;
  };
  return spread(spread(mask, 1), 0);
}

/** Blisters of a mask as somebody left it: how many, how large, how dense. O(pixels). */
export function countBlisters(
  mask: { readonly width: number; readonly height: number },
  state: Uint8Array,
  pxPerMm: number,
): BlisterCount {
  const blobs = blobsIn(
    Uint8Array.from(state, (s) => (s === 1 ? 1 : 0)),
    mask.width,
    mask.height,
  ).filter((b) => b.area >= 4);
  let [told, on] = [0, 0];
  for (const s of state) {
    if (s !== 3) told++;
    if (s === 1) on++;
  }
  const across = blobs.map((b) => Math.sqrt((4 * b.area) / Math.PI) / pxPerMm);
  const dm2 = told / (pxPerMm * pxPerMm) / 10_000;
  return {
    count: blobs.length,
    perDm2: dm2 > 0 ? blobs.length / dm2 : 0,
    medianMm: across.length > 0 ? middleOf(across) : null,
    coveredPercent: told === 0 ? 0 : (100 * on) / told,
  };
}

/** Size of blisters after ISO 4628-1: 3 clearly seen up to half a millimetre, 4 up to five, 5 larger. */
export const blisterSizeOf = (mm: number): 3 | 4 | 5 => (mm <= 0.5 ? 3 : mm <= 5 ? 4 : 5);
