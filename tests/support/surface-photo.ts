import { CARD } from "@/core/photo";
import { seededRandom } from "@/core/statistics";
import type { Rgb } from "./lattice-photo";

type Shot = { readonly picture: { width: number; height: number; rgba: Uint8ClampedArray } };

/** Noise from a table: a draw for every channel of every pixel is most of the work else. */
export function noiseOf(random: ReturnType<typeof seededRandom>): (spread: number) => number {
  const table = Float32Array.from({ length: 8191 }, () => random.normal(0, 1));
  let drawn = 0;
  return (spread) => spread * (table[drawn++ % table.length] as number);
}

/** A film with flakes off down to bare metal, some of it rusting, under a shadow; and the share that is off, 0–1. O(pixels × flakes). */
export function flakedPhoto(scene: {
  readonly seed: number;
  readonly film: Rgb;
  readonly metal: Rgb;
  readonly off: number;
  readonly shadow: number;
  readonly noise: number;
}): Shot & { readonly share: number } {
  const random = seededRandom(scene.seed * 32452843 + 1);
  const normal = noiseOf(random);
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  const [width, height] = [480, 360];
  const flakes: { x: number; y: number; r: number; rust: boolean; w: number; p: number }[] = [];
  for (let area = 0; area < scene.off * width * height && flakes.length < 300; ) {
    const r = Math.min(between(6, 40), Math.sqrt((scene.off * width * height) / Math.PI) + 2);
    flakes.push({
      x: between(0, width),
      y: between(0, height),
      r,
      rust: random.uniform() < 0.3,
      w: Math.round(between(3, 9)),
      p: between(0, 6),
    });
    area += Math.PI * r * r * 0.95;
  }
  const shade = { at: between(0.2, 0.8) * width, turn: between(-0.5, 0.5) };
  const rgba = new Uint8ClampedArray(width * height * 4);
  let off = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const flake = flakes.find((f) => {
        const [dx, dy] = [x - f.x, y - f.y];
        return Math.hypot(dx, dy) < f.r * (1 + 0.2 * Math.sin(f.w * Math.atan2(dy, dx) + f.p));
      });
      if (flake) off++;
      const rough = flake ? 1 + normal(flake.rust ? 0.14 : 0.05) : 1;
      const body = (flake ? (flake.rust ? [140, 80, 45] : scene.metal) : scene.film).map((c) => c * rough);
      const light = 1 - scene.shadow * 0.55 * (1 / (1 + Math.exp(-(x + shade.turn * y - shade.at) / 14)));
      for (let c = 0; c < 3; c++) rgba[(y * width + x) * 4 + c] = (body[c] as number) * light + normal(scene.noise);
      rgba[(y * width + x) * 4 + 3] = 255;
    }
  return { picture: { width, height, rgba }, share: off / (width * height) };
}

/** Blisters on a film under light from the side, square on, with the scale card above them; how many there are and how large. O(pixels × blisters). */
export function blisterPhoto(scene: {
  readonly seed: number;
  readonly film: Rgb;
  readonly count: number;
  readonly acrossMm: readonly [number, number];
  readonly noise: number;
}): Shot & { readonly count: number; readonly medianMm: number } {
  const random = seededRandom(scene.seed * 86028121 + 3);
  const normal = noiseOf(random);
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  const [width, height, px] = [1040, 1120, 8];
  const [left, top] = [-25, -14];
  const sun = between(0, 2 * Math.PI);
  const blisters: { x: number; y: number; r: number }[] = [];
  for (let tries = 0; blisters.length < scene.count && tries < 20_000; tries++) {
    const r = between(scene.acrossMm[0], scene.acrossMm[1]) / 2;
    const [x, y] = [between(left + r + 1, left + width / px - r - 1), between(64 + r, top + height / px - r - 1)];
    if (blisters.every((b) => Math.hypot(b.x - x, b.y - y) > 1.25 * (b.r + r) + 0.5)) blisters.push({ x, y, r });
  }
  const rgba = new Uint8ClampedArray(width * height * 4);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const [u, v] = [left + (i + 0.5) / px, top + (j + 0.5) / px];
      let body: readonly number[] = scene.film;
      let light = 1 + 0.08 * Math.sin(u / 60) + 0.05 * (v / 100);
      const b = CARD.borderMm;
      if (u > -b && v > -b && u < CARD.widthMm + b && v < CARD.heightMm + b) {
        const near = [0, CARD.widthMm].flatMap((mx) => [0, CARD.heightMm].map((my) => Math.hypot(u - mx, v - my)));
        const black = near.some((r) => r <= CARD.discMm || (r >= CARD.ringInnerMm && r <= CARD.ringOuterMm));
        body = black ? [28, 28, 30] : [238, 238, 234];
      } else
        for (const q of blisters) {
          const [dx, dy] = [(u - q.x) / q.r, (v - q.y) / q.r];
          const d2 = dx * dx + dy * dy;
          if (d2 < 1) light *= 1 + 0.35 * (dx * Math.cos(sun) + dy * Math.sin(sun));
        }
      for (let c = 0; c < 3; c++) rgba[(j * width + i) * 4 + c] = (body[c] as number) * light + normal(scene.noise);
      rgba[(j * width + i) * 4 + 3] = 255;
    }
  const across = blisters.map((q) => 2 * q.r).sort((a, b) => a - b);
  return {
    picture: { width, height, rgba },
    count: blisters.length,
    medianMm: across[Math.floor(across.length / 2)] ?? 0,
  };
}

/** A dark cloth that was rubbed over chalk in its middle, white paper beside it, in a light of so much; squares of 100 px. */
export function clothPhoto(scene: {
  readonly light: number;
  readonly clean: number;
  readonly rubbed: number;
  readonly white: number;
}): Shot {
  const [width, height] = [400, 200];
  const rgba = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const reflects = x < 130 ? scene.clean : x < 260 ? scene.rubbed : scene.white;
      const l = Math.min(1, reflects * scene.light);
      const value = 255 * (l <= 0.0031308 ? 12.92 * l : 1.055 * l ** (1 / 2.4) - 0.055);
      for (let c = 0; c < 3; c++) rgba[(y * width + x) * 4 + c] = value;
      rgba[(y * width + x) * 4 + 3] = 255;
    }
  return { picture: { width, height, rgba } };
}
