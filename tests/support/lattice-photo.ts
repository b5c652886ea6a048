import { seededRandom } from "@/core/statistics";

/** A seeded stream with a number between two others. */
function randomOf(seed: number) {
  const random = seededRandom(seed);
  return { ...random, between: (from: number, to: number) => from + (to - from) * random.uniform() };
}
type Random = ReturnType<typeof randomOf>;
export type Rgb = readonly [number, number, number];
export type LatticeScene = {
  readonly seed: number;
  readonly width: number;
  readonly height: number;
  readonly film: Rgb;
  readonly metal: Rgb;
  /** Cuts in each direction; none draws no lattice. */
  readonly cuts: number;
  /** Width of a cut, of the spacing. */
  readonly kerf: number;
  /** Share of the lattice that came off, 0–1. */
  readonly lifted: number;
  /** Side of the lattice, of the picture's shorter side. */
  readonly size: number;
  readonly turnedDeg: number;
  /** How far it is seen from aslant, 0 (square on) to 0.3. */
  readonly aslant: number;
  readonly blurPx: number;
  readonly noise: number;
  /** Light falls off across the picture by this share. */
  readonly falloff: number;
  /** A highlight of the lamp on the gloss, 0 none to 1 strong. */
  readonly glare: number;
  /** The lattice's middle off the picture's, of its width and height. */
  readonly aside: readonly [number, number];
  /** How far the cuts run on past the lattice, of the spacing. */
  readonly overshoot: number;
};
export type LatticePhoto = {
  readonly picture: { width: number; height: number; rgba: Uint8ClampedArray };
  /** Share of the squares' area that came off, per square (row by row) and in all, 0–1. */
  readonly squares: readonly number[];
  readonly share: number;
  /** Corners of the lattice in the picture: upper left, upper right, lower right, lower left of its own. */
  readonly corners: readonly (readonly [number, number])[];
};

/** Places in a square (0–1 both ways) that came off: strips along cuts, corners, whole squares with ragged edges. */
function flakes(random: Random, squares: number, share: number): ((x: number, y: number) => boolean)[] {
  const wanted = share * squares;
  const shapes: ((x: number, y: number) => boolean)[] = Array.from({ length: squares }, () => () => false);
  if (share <= 0) return shapes;
  const areaOf = (shape: (x: number, y: number) => boolean) => {
    let n = 0;
    for (let i = 0; i < 400; i++) if (shape(((i % 20) + 0.5) / 20, (Math.floor(i / 20) + 0.5) / 20)) n++;
    return n / 400;
  };
  const ragged = (depth: number) => {
    const phases = [random.between(0, 6), random.between(0, 6)] as const;
    const [a, b] = [random.between(3, 7), random.between(9, 15)];
    return (t: number) => depth * (1 + 0.25 * Math.sin(a * t + phases[0]) + 0.15 * Math.sin(b * t + phases[1]));
  };
  let done = 0;
  for (let tries = 0; done < wanted && tries < squares * 60; tries++) {
    const at = Math.floor(random.between(0, squares - 1e-9));
    const before = shapes[at] as (x: number, y: number) => boolean;
    const left = wanted - done;
    const kind = random.between(0, 1);
    let shape: (x: number, y: number) => boolean;
    if (kind < 0.35) {
      // A corner, round.
      const r = Math.min(0.75, random.between(0.12, 0.5), Math.sqrt((4 * left) / Math.PI) + 0.03);
      const [cx, cy] = [random.between(0, 1) < 0.5 ? 0 : 1, random.between(0, 1) < 0.5 ? 0 : 1];
      const edge = ragged(r);
      shape = (x, y) => Math.hypot(x - cx, y - cy) < edge(Math.atan2(y - cy, x - cx));
    } else if (kind < 0.75) {
      // A strip along one side.
      const edge = ragged(Math.min(random.between(0.06, 0.4), left + 0.02));
      const side = Math.floor(random.between(0, 3.999));
      shape = (x, y) => ([y, 1 - x, 1 - y, x][side] as number) < edge(side % 2 === 0 ? x : y);
    } else if (left > 0.7) {
      shape = () => true;
    } else continue;
    const both = (x: number, y: number) => before(x, y) || shape(x, y);
    const more = areaOf(both) - areaOf(before);
    if (more <= 0) continue;
    if (done + more > wanted * 1.06 + 0.02) continue;
    shapes[at] = both;
    done += more;
  }
  return shapes;
}

/** A photo of a cross-cut made up from what is known of it: the truth of its squares comes with it. O(pixels). */
export function latticePhoto(scene: LatticeScene): LatticePhoto {
  const random = randomOf(scene.seed);
  const { width, height, cuts, kerf } = scene;
  const n = Math.max(1, cuts - 1);
  const shapes = flakes(random, n * n, scene.lifted);
  const side = Math.min(width, height) * scene.size;
  const turn = (scene.turnedDeg * Math.PI) / 180;
  const [cx, cy] = [
    width / 2 + (random.between(-0.06, 0.06) + scene.aside[0]) * width,
    height / 2 + (random.between(-0.06, 0.06) + scene.aside[1]) * height,
  ];
  const tilt = random.between(0, 2 * Math.PI);
  const [px, py] = [(scene.aslant * Math.cos(tilt)) / side, (scene.aslant * Math.sin(tilt)) / side];
  // From the lattice (0–1 both ways) to the picture: turned, made larger, seen from aslant about its middle.
  const toPicture = (u: number, v: number): readonly [number, number] => {
    const [a, b] = [(u - 0.5) * side, (v - 0.5) * side];
    const [x, y] = [a * Math.cos(turn) - b * Math.sin(turn), a * Math.sin(turn) + b * Math.cos(turn)];
    const w = 1 + px * x + py * y;
    return [cx + x / w, cy + y / w];
  };
  const toLattice = (X: number, Y: number): readonly [number, number] => {
    const [dx, dy] = [X - cx, Y - cy];
    const w = 1 / (1 - px * dx - py * dy);
    const [x, y] = [dx * w, dy * w];
    const [a, b] = [x * Math.cos(turn) + y * Math.sin(turn), -x * Math.sin(turn) + y * Math.cos(turn)];
    return [a / side + 0.5, b / side + 0.5];
  };
  const half = kerf / 2;
  const over = scene.overshoot / n;
  const bare = (u: number, v: number): boolean => {
    if (cuts < 2) return false;
    const [a, b] = [u * n, v * n];
    const along = (w: number) => w > -over && w < 1 + over;
    const onCut = (w: number) => w > -0.5 && w < n + 0.5 && Math.abs(w - Math.round(w)) < half;
    if ((onCut(a) && along(v)) || (onCut(b) && along(u))) return true;
    if (a <= 0 || b <= 0 || a >= n || b >= n) return false;
    const [i, j] = [Math.floor(a), Math.floor(b)];
    // The square between its cuts, 0–1 both ways.
    const [x, y] = [(a - i - half) / (1 - kerf), (b - j - half) / (1 - kerf)];
    return (shapes[j * n + i] as (x: number, y: number) => boolean)(x, y);
  };
  const fall = random.between(0, 2 * Math.PI);
  const glareAt = [cx + random.between(-0.6, 0.6) * side, cy + random.between(-0.6, 0.6) * side] as const;
  const glareR = [random.between(0.25, 0.6) * side, random.between(0.12, 0.3) * side] as const;
  const rgba = new Uint8ClampedArray(width * height * 4);
  const raw = [new Float32Array(width * height), new Float32Array(width * height), new Float32Array(width * height)];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let metalShare = 0;
      for (const [sx, sy] of [
        [0.25, 0.25],
        [0.75, 0.25],
        [0.25, 0.75],
        [0.75, 0.75],
      ] as const)
        if (bare(...toLattice(x + sx, y + sy))) metalShare += 0.25;
      const light =
        1 -
        scene.falloff *
          (((x - width / 2) * Math.cos(fall) + (y - height / 2) * Math.sin(fall)) / Math.max(width, height) + 0.5);
      const spot =
        scene.glare *
        Math.exp(-(((x - glareAt[0]) / glareR[0]) ** 2 + ((y - glareAt[1]) / glareR[1]) ** 2)) *
        (1 - 0.6 * metalShare);
      for (let c = 0; c < 3; c++) {
        const body = (scene.film[c] as number) * (1 - metalShare) + (scene.metal[c] as number) * metalShare;
        (raw[c] as Float32Array)[y * width + x] = body * light + 200 * spot;
      }
    }
  for (let c = 0; c < 3; c++) {
    const soft = boxBlurred(raw[c] as Float32Array, width, height, scene.blurPx);
    for (let i = 0; i < soft.length; i++) rgba[i * 4 + c] = (soft[i] as number) + random.normal(0, scene.noise);
  }
  for (let i = 3; i < rgba.length; i += 4) rgba[i] = 255;
  const squares = shapes.map((shape) => {
    let count = 0;
    for (let i = 0; i < 3600; i++) if (shape(((i % 60) + 0.5) / 60, (Math.floor(i / 60) + 0.5) / 60)) count++;
    return count / 3600;
  });
  return {
    picture: { width, height, rgba },
    squares,
    share: squares.reduce((a, b) => a + b, 0) / squares.length,
    corners: [toPicture(0, 0), toPicture(1, 0), toPicture(1, 1), toPicture(0, 1)],
  };
}

/** Three boxes after one another, near enough to a Gaussian of so many px. */
function boxBlurred(values: Float32Array, width: number, height: number, sigma: number): Float32Array {
  if (sigma <= 0.3) return values;
  const r = Math.max(1, Math.round(sigma * 0.9));
  let from = values;
  for (let pass = 0; pass < 3; pass++)
    for (const across of [true, false]) {
      const to = new Float32Array(width * height);
      const [lines, length, step, next] = across ? [height, width, 1, width] : [width, height, width, 1];
      for (let l = 0; l < lines; l++) {
        let sum = 0;
        const at = (i: number) => from[l * next + Math.min(length - 1, Math.max(0, i)) * step] as number;
        for (let i = -r; i <= r; i++) sum += at(i);
        for (let i = 0; i < length; i++) {
          to[l * next + i * step] = sum / (2 * r + 1);
          sum += at(i + r + 1) - at(i - r);
        }
      }
      from = to;
    }
  return from;
}

const films: readonly Rgb[] = [
  [38, 42, 46],
  [236, 234, 226],
  [190, 150, 20],
  [30, 70, 130],
  [120, 122, 124],
  [150, 30, 34],
  [40, 90, 60],
];
const metals: readonly Rgb[] = [
  [176, 178, 180],
  [140, 138, 134],
  [205, 206, 208],
];
const apart = (a: Rgb, b: Rgb) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** A scene as a bench has them: film dark or light, any turn, some tilt, some blur, some light. */
export function sceneOf(seed: number, over: Partial<LatticeScene> = {}): LatticeScene {
  const random = randomOf(seed * 7919 + 13);
  const { pick } = random;
  const film = pick(films);
  let metal = pick(metals);
  while (apart(film, metal) < 55) metal = pick(metals);
  const side = random.between(0, 1) < 0.5 ? ([900, 700] as const) : ([700, 900] as const);
  const turnedDeg = random.between(-45, 45);
  const turned = Math.abs(Math.cos((turnedDeg * Math.PI) / 180)) + Math.abs(Math.sin((turnedDeg * Math.PI) / 180));
  return {
    seed,
    aside: [0, 0],
    width: side[0],
    height: side[1],
    film,
    metal,
    cuts: 6,
    kerf: random.between(0.05, 0.1),
    lifted: pick([0, 0, 0.02, 0.04, 0.09, 0.13, 0.2, 0.3, 0.45, 0.6]) * random.between(0.9, 1.05),
    // Turned it takes more room; whoever takes the photo has all of it in.
    size: random.between(0.5, 0.86) / turned,
    turnedDeg,
    aslant: random.between(0, 0.22),
    blurPx: random.between(0, 1.8),
    noise: random.between(1, 6),
    falloff: random.between(0, 0.4),
    glare: random.between(0, 1) < 0.35 ? random.between(0.1, 0.6) : 0,
    overshoot: random.between(0, 1) < 0.5 ? random.between(0.1, 0.6) : 0,
    ...over,
  };
}
