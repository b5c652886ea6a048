import { CARD } from "@/core/photo";
import { seededRandom } from "@/core/statistics";
import type { Rgb } from "./lattice-photo";
import { noiseOf } from "./surface-photo";

export type CreepScene = {
  readonly seed: number;
  readonly width: number;
  readonly height: number;
  readonly film: Rgb;
  /** Mean creep on a side, mm, and how much farther the film is gone beyond it. */
  readonly creepMm: number;
  readonly looseMm: number;
  readonly scribeMm: number;
  readonly shadow: number;
  readonly glare: number;
  readonly stains: number;
  readonly noise: number;
  /** Degrees that the camera stands aslant, and turned. */
  readonly tiltDeg: number;
  readonly turnDeg: number;
  /** Distance, px of a millimetre at the card's middle. */
  readonly pxPerMm: number;
  /** How far the card is out of the picture, mm. */
  readonly cardOff: number;
};
export type CreepShot = {
  readonly picture: { width: number; height: number; rgba: Uint8ClampedArray };
  /** Ends of the scribe in the card's own plane, mm, and where they are seen, px. */
  readonly scribe: readonly [readonly [number, number], readonly [number, number]];
  readonly seen: (on: readonly [number, number]) => readonly [number, number];
  /** Mean width from side to side, mm: of what rusts, and of where the film is gone. */
  readonly rustedMm: number;
  readonly goneMm: number;
};

const WAYS = 3;
/** A photo of a scribed plate years later with the scale card beside it, made up from what is known of it. O(pixels). */
export function creepPhoto(scene: CreepScene): CreepShot {
  const random = seededRandom(scene.seed * 15485863 + 11);
  const normal = noiseOf(random);
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  const { width, height } = scene;
  // The camera over the plate: turned about the line of sight, then leant back; the middle of what it sees is at (40, 52).
  const [cx, cy] = [40, 52];
  const tilt = (scene.tiltDeg * Math.PI) / 180;
  const turn = (scene.turnDeg * Math.PI) / 180;
  const [cosTurn, sinTurn, cosTilt, sinTilt] = [Math.cos(turn), Math.sin(turn), Math.cos(tilt), Math.sin(tilt)];
  const focal = 1.1 * width;
  const distance = focal / scene.pxPerMm;
  const seen = ([u, v]: readonly [number, number]): readonly [number, number] => {
    const [x, y] = [u - cx - scene.cardOff, v - cy];
    const rx = x * cosTurn - y * sinTurn;
    const ry = x * sinTurn + y * cosTurn;
    const depth = distance + ry * sinTilt;
    return [width / 2 + (focal * rx) / depth, height / 2 + (focal * ry * cosTilt) / depth];
  };
  const onPlate = (px: number, py: number): readonly [number, number] => {
    const [a, b] = [(px - width / 2) / focal, (py - height / 2) / focal];
    const ry = (b * distance) / (cosTilt - b * sinTilt);
    const rx = a * (distance + ry * sinTilt);
    return [rx * cosTurn + ry * sinTurn + cx + scene.cardOff, -rx * sinTurn + ry * cosTurn + cy];
  };
  const slope = between(-0.12, 0.12);
  const [x0, x1] = [-8, 88];
  const y0 = 90;
  const ends = [
    [x0, y0 + slope * x0],
    [x1, y0 + slope * x1],
  ] as const;
  const long = Math.hypot(x1 - x0, slope * (x1 - x0));
  const along = [(x1 - x0) / long, (slope * (x1 - x0)) / long] as const;
  const waves = [0, 1].map(() =>
    Array.from({ length: WAYS }, (_, k) => ({
      every: between(6, 40) / (k + 1),
      at: between(0, 6),
      by: between(0.1, 0.28) / (k + 1),
    })),
  );
  const side = (t: number, which: number, mean: number): number =>
    Math.max(0, mean * (1 + (waves[which] ?? []).reduce((s, w) => s + w.by * Math.sin(t / w.every + w.at), 0)));
  const stains = Array.from({ length: scene.stains }, () => ({
    t: between(0, long),
    w: between(2, 5),
    h: between(8, 18),
    strength: between(0.2, 0.5),
  }));
  const shade = { at: between(0.25, 0.75) * width, turn: between(-0.6, 0.6), wide: between(6, 40) };
  const sun = { x: between(0, width), y: between(0.3, 1) * height, r: between(0.05, 0.14) * width };
  const rgba = new Uint8ClampedArray(width * height * 4);
  const metal = [between(120, 150), between(122, 150), between(124, 154)];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = onPlate(x + 0.5, y + 0.5);
      let body: number[];
      const card = cardAt(u, v);
      if (card !== null) body = card === 1 ? [28, 28, 30] : [238, 238, 234];
      else {
        const [dx, dy] = [u - ends[0][0], v - ends[0][1]];
        const t = dx * along[0] + dy * along[1];
        const off = -dx * along[1] + dy * along[0];
        const which = off > 0 ? 0 : 1;
        const rust = side(t, which, scene.creepMm) + scene.scribeMm / 2;
        const gone = rust + side(t + 31, 1 - which, scene.looseMm);
        const far = Math.abs(off);
        const within = t > -1 && t < long + 1;
        if (within && far < rust) {
          const deep = 0.3 + 0.7 * Math.min(1, (rust - far) / 0.8);
          const rough = 1 + normal(0.14);
          body = [(185 - 75 * deep) * rough, (110 - 52 * deep) * rough, (58 - 24 * deep) * rough];
        } else if (within && far < gone) {
          const rough = 1 + normal(0.05);
          body = metal.map((m) => m * rough);
        } else {
          let tint = 0;
          for (const s of stains)
            if (off > gone && Math.abs(t - s.t) < s.w && off < s.h + gone)
              tint = Math.max(tint, s.strength * (1 - (off - gone) / s.h) * (1 - ((t - s.t) / s.w) ** 2));
          body = scene.film.map((f, c) => f * (1 - tint) + ([165, 112, 66][c] as number) * tint);
        }
      }
      const light = 1 - scene.shadow * 0.6 * (1 / (1 + Math.exp(-(x + shade.turn * y - shade.at) / shade.wide)));
      const glare = scene.glare * 170 * Math.exp(-((x - sun.x) ** 2 + (y - sun.y) ** 2) / (2 * sun.r * sun.r));
      for (let c = 0; c < 3; c++)
        rgba[(y * width + x) * 4 + c] = (body[c] as number) * light + glare + normal(scene.noise);
      rgba[(y * width + x) * 4 + 3] = 255;
    }
  let [rusted, gone] = [0, 0];
  const steps = 2000;
  for (let i = 0; i < steps; i++) {
    const t = ((i + 0.5) / steps) * long;
    for (const which of [0, 1]) {
      const r = side(t, which, scene.creepMm) + scene.scribeMm / 2;
      rusted += r;
      gone += r + side(t + 31, 1 - which, scene.looseMm);
    }
  }
  return { picture: { width, height, rgba }, scribe: ends, seen, rustedMm: rusted / steps, goneMm: gone / steps };
}

/** 1 black, 0 white of the card; null beside it. */
function cardAt(u: number, v: number): 0 | 1 | null {
  const b = CARD.borderMm;
  if (u < -b || v < -b || u > CARD.widthMm + b || v > CARD.heightMm + b) return null;
  for (const mx of [0, CARD.widthMm])
    for (const my of [0, CARD.heightMm]) {
      const r = Math.hypot(u - mx, v - my);
      if (r <= CARD.discMm || (r >= CARD.ringInnerMm && r <= CARD.ringOuterMm)) return 1;
    }
  return 0;
}

const films: readonly Rgb[] = [
  [38, 42, 46],
  [236, 234, 226],
  [190, 150, 20],
  [30, 70, 130],
  [96, 98, 100],
  [40, 90, 60],
  [200, 202, 198],
];
/** A scene as the field has them. */
export function creepSceneOf(seed: number, over: Partial<CreepScene> = {}): CreepScene {
  const random = seededRandom(seed * 7919 + 5);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random.uniform() * list.length)] as T;
  return {
    seed,
    width: 1200,
    height: 1100,
    film: pick(films),
    creepMm: pick([0.3, 0.8, 1.5, 3, 5, 7]),
    looseMm: pick([0, 0, 0.6, 1.5, 3]),
    scribeMm: pick([0.5, 1]),
    shadow: random.uniform() < 0.5 ? random.uniform() : 0,
    glare: random.uniform() < 0.3 ? 0.2 + 0.4 * random.uniform() : 0,
    stains: random.uniform() < 0.4 ? 1 + Math.floor(random.uniform() * 3) : 0,
    noise: 1 + 3 * random.uniform(),
    tiltDeg: -25 + 50 * random.uniform(),
    turnDeg: -20 + 40 * random.uniform(),
    pxPerMm: 6.5 + 1.5 * random.uniform(),
    cardOff: 0,
    ...over,
  };
}
