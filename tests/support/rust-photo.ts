import { seededRandom } from "@/core/statistics";
import type { Rgb } from "./lattice-photo";

export type RustScene = {
  readonly seed: number;
  readonly width: number;
  readonly height: number;
  readonly film: Rgb;
  /** Share that rusts, about, 0–1. */
  readonly rusted: number;
  /** A shadow over part of it, 0 none to 1 deep; a highlight of the sun, 0 to 1. */
  readonly shadow: number;
  readonly glare: number;
  /** Tints that ran off rust, how many. */
  readonly stains: number;
  readonly noise: number;
};

/** A photo of a film with rust on it, made up from what is known of it: patches with ragged edges, rough and of changing brown. O(pixels × patches). */
export function rustPhoto(scene: RustScene): {
  readonly picture: { width: number; height: number; rgba: Uint8ClampedArray };
  /** Share that is rust, 0–1. */
  readonly share: number;
} {
  const random = seededRandom(scene.seed * 104729 + 7);
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  const { width, height, film } = scene;
  const wave = () => [between(3, 8), between(0, 6), between(9, 17), between(0, 6)] as const;
  const patches: { x: number; y: number; r: number; w: ReturnType<typeof wave> }[] = [];
  let area = 0;
  while (area < scene.rusted * width * height && patches.length < 400) {
    const r = Math.min(between(0.01, 0.09) * width, Math.sqrt((scene.rusted * width * height) / Math.PI) + 2);
    patches.push({ x: between(0, width), y: between(0, height), r, w: wave() });
    area += Math.PI * r * r * 0.9;
  }
  const stains = Array.from({ length: scene.stains }, () => ({
    x: between(0, width),
    y: between(0, height * 0.6),
    w: between(0.01, 0.03) * width,
    h: between(0.15, 0.4) * height,
    strength: between(0.25, 0.6),
  }));
  const shade = { at: between(0.2, 0.8) * width, turn: between(-0.5, 0.5) };
  const sun = { x: between(0, width), y: between(0, height), r: between(0.08, 0.2) * width };
  const rgba = new Uint8ClampedArray(width * height * 4);
  let rusted = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let deep = 0;
      for (const p of patches) {
        const [dx, dy] = [x - p.x, y - p.y];
        if (Math.abs(dx) > p.r * 1.5 || Math.abs(dy) > p.r * 1.5) continue;
        const a = Math.atan2(dy, dx);
        const edge = p.r * (1 + 0.22 * Math.sin(p.w[0] * a + p.w[1]) + 0.12 * Math.sin(p.w[2] * a + p.w[3]));
        const inward = edge - Math.hypot(dx, dy);
        if (inward > 0) deep = Math.max(deep, Math.min(1, inward / 6) * 0.7 + 0.3);
      }
      const isRust = deep > 0;
      if (isRust) rusted++;
      // From a light orange at the rim to a dark brown, rough all over.
      const rough = 1 + random.normal(0, 0.16);
      const rust = [
        (185 - 75 * deep) * rough,
        (110 - 52 * deep) * rough,
        (58 - 24 * deep) * rough * (1 + random.normal(0, 0.05)),
      ];
      let tint = 0;
      for (const s of stains)
        if (!isRust && Math.abs(x - s.x) < s.w && y > s.y && y < s.y + s.h)
          tint = Math.max(tint, s.strength * (1 - (y - s.y) / s.h) * (1 - (Math.abs(x - s.x) / s.w) ** 2));
      const light =
        (1 - scene.shadow * 0.65 * (1 / (1 + Math.exp(-(x + shade.turn * y - shade.at) / 14)))) *
        (1 + 0.02 * Math.sin(x / 40));
      const glare = scene.glare * 190 * Math.exp(-((x - sun.x) ** 2 + (y - sun.y) ** 2) / (2 * sun.r * sun.r));
      for (let c = 0; c < 3; c++) {
        const body = isRust
          ? (rust[c] as number)
          : (film[c] as number) * (1 - tint) + ([165, 112, 66][c] as number) * tint;
        rgba[(y * width + x) * 4 + c] = body * light + glare + random.normal(0, scene.noise);
      }
      rgba[(y * width + x) * 4 + 3] = 255;
    }
  return { picture: { width, height, rgba }, share: rusted / (width * height) };
}

const films: readonly Rgb[] = [
  [38, 42, 46],
  [236, 234, 226],
  [190, 150, 20],
  [30, 70, 130],
  [120, 122, 124],
  [40, 90, 60],
  [150, 152, 148],
];
/** A scene as the field has them. */
export function rustSceneOf(seed: number, over: Partial<RustScene> = {}): RustScene {
  const random = seededRandom(seed * 7919 + 3);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random.uniform() * list.length)] as T;
  return {
    seed,
    width: 480,
    height: 360,
    film: pick(films),
    rusted: pick([0, 0.003, 0.01, 0.03, 0.08, 0.15, 0.3]),
    shadow: random.uniform() < 0.5 ? random.uniform() : 0,
    glare: random.uniform() < 0.3 ? 0.2 + 0.6 * random.uniform() : 0,
    stains: random.uniform() < 0.4 ? 1 + Math.floor(random.uniform() * 3) : 0,
    noise: 1 + 4 * random.uniform(),
    ...over,
  };
}
