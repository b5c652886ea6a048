import { seededRandom } from "../statistics/random";

/**
 * What a defect looks like, as shapes on a piece of 40 × 30 mm seen under light from the left: made up by rule, from one
 * seed, so that a picture is always the same. Lengths in mm, heights in shades from −1 (dark) to 1 (light).
 */
export type Shape =
  | { readonly kind: "dot"; readonly x: number; readonly y: number; readonly r: number; readonly look: Look }
  | { readonly kind: "blob"; readonly points: readonly (readonly [number, number])[]; readonly look: Look }
  | {
      readonly kind: "line";
      readonly points: readonly (readonly [number, number])[];
      readonly width: number;
      readonly look: Look;
    };
/** A dome catches light on its left, a hollow on its right; the rest are colours of what is there. */
export type Look =
  | "dome"
  | "hollow"
  | "metal"
  | "rust"
  | "dark"
  | "pale"
  | "other"
  | "sag"
  | "scale"
  | "shade"
  | "glint";
export type DefectPicture = {
  readonly widthMm: number;
  readonly heightMm: number;
  /** What lies under the film at the edge of the picture, where the piece is seen in section or has an edge. */
  readonly edge: "none" | "right" | "seam" | "hole";
  readonly base: "film" | "metal" | "faded";
  readonly shapes: readonly Shape[];
};

const [W, H] = [40, 30];
type Random = ReturnType<typeof seededRandom>;
const between = (random: Random, low: number, high: number): number => low + (high - low) * random.uniform();
const dots = (random: Random, n: number, r: readonly [number, number], look: Look): Shape[] =>
  Array.from({ length: n }, () => ({
    kind: "dot",
    x: between(random, 1, W - 1),
    y: between(random, 1, H - 1),
    r: between(random, r[0], r[1]),
    look,
  }));
/** A closed outline about a middle, rough by a share of its radius. */
const blob = (random: Random, x: number, y: number, r: number, rough: number, look: Look, stretch = 1): Shape => ({
  kind: "blob",
  look,
  points: Array.from({ length: 18 }, (_, i) => {
    const turn = (i / 18) * 2 * Math.PI;
    const away = r * (1 + rough * (random.uniform() - 0.5) * 2);
    return [x + Math.cos(turn) * away * stretch, y + Math.sin(turn) * away] as const;
  }),
});
/** A line that wanders from a point. */
const wander = (
  random: Random,
  x: number,
  y: number,
  turn: number,
  steps: number,
  step: number,
): [number, number][] => {
  const points: [number, number][] = [[x, y]];
  let [a, b, t] = [x, y, turn];
  for (let i = 0; i < steps; i++) {
    t += (random.uniform() - 0.5) * 1.1;
    a += Math.cos(t) * step;
    b += Math.sin(t) * step;
    points.push([a, b]);
  }
  return points;
};

const drawn: Readonly<Record<string, (random: Random) => Partial<DefectPicture> & { shapes: readonly Shape[] }>> = {
  "orange-peel": (r) => ({
    shapes: Array.from({ length: 130 }, (_, i): Shape => {
      const [column, row] = [i % 13, Math.floor(i / 13)];
      return {
        kind: "dot",
        x: column * 3.2 + (row % 2) * 1.6 + between(r, -0.5, 0.5),
        y: row * 3.1 + between(r, -0.5, 0.5),
        r: between(r, 1.1, 1.6),
        look: "dome",
      };
    }),
  }),
  pinholes: (r) => ({
    shapes: Array.from(
      { length: 26 },
      () => [between(r, 2, W - 2), between(r, 2, H - 2), between(r, 0.2, 0.45)] as const,
    ).flatMap(([x, y, size]): Shape[] => [
      { kind: "dot", x, y, r: size * 2.1, look: "dome" },
      { kind: "dot", x, y, r: size, look: "dark" },
    ]),
  }),
  craters: (r) => ({
    shapes: Array.from(
      { length: 9 },
      () => [between(r, 3, W - 3), between(r, 3, H - 3), between(r, 0.8, 2)] as const,
    ).flatMap(([x, y, size]): Shape[] => [
      { kind: "dot", x, y, r: size, look: "hollow" },
      { kind: "dot", x: x - size * 0.15, y: y - size * 0.15, r: size * 0.3, look: "glint" },
    ]),
  }),
  inclusions: (r) => ({
    shapes: [
      ...dots(r, 12, [0.2, 0.5], "dark"),
      ...dots(r, 5, [0.3, 0.5], "other"),
      ...Array.from(
        { length: 4 },
        (): Shape => ({
          kind: "line",
          width: 0.25,
          look: "dark",
          points: wander(r, between(r, 5, 32), between(r, 5, 25), between(r, 0, 6), 5, 0.9),
        }),
      ),
    ],
  }),
  "light-coverage": (r) => ({
    edge: "none",
    shapes: [blob(r, 31, 22, 9, 0.25, "shade"), blob(r, 32, 23, 6.5, 0.25, "pale"), blob(r, 33, 24, 3.5, 0.3, "metal")],
  }),
  sags: (r) => ({
    shapes: [5, 13, 20, 28, 35].map((x): Shape => {
      const length = between(r, 10, 24);
      return {
        kind: "blob",
        look: "sag",
        points: [
          [x - 2.2, 0],
          [x + 2.2, 0],
          [x + 1.8, length - 4],
          [x + 2.4, length - 1],
          [x + 1.2, length + 1.2],
          [x - 1.2, length + 1.2],
          [x - 2.4, length - 1],
          [x - 1.8, length - 4],
        ],
      };
    }),
  }),
  "back-ionisation": (r) => ({
    shapes: Array.from({ length: 34 }, () => [between(r, 1, W - 1), between(r, 1, H - 1)] as const).flatMap(
      ([x, y]): Shape[] => [
        { kind: "dot", x, y, r: between(r, 0.25, 0.5), look: "hollow" },
        ...[0, 1, 2, 3, 4].map((i): Shape => {
          const turn = (i / 5) * 2 * Math.PI + x;
          return {
            kind: "line",
            width: 0.15,
            look: "shade",
            points: [
              [x + Math.cos(turn) * 0.5, y + Math.sin(turn) * 0.5],
              [x + Math.cos(turn) * 1.1, y + Math.sin(turn) * 1.1],
            ],
          };
        }),
      ],
    ),
  }),
  "colour-shift": () => ({
    shapes: [
      {
        kind: "blob",
        look: "other",
        points: [
          [20, 0],
          [40, 0],
          [40, 30],
          [20, 30],
        ],
      },
    ],
  }),
  "gloss-off": (r) => ({
    shapes: [
      {
        kind: "blob",
        look: "pale",
        points: [
          [0, 4],
          [18, 0],
          [20, 0],
          [0, 8],
        ],
      },
      ...dots(r, 160, [0.1, 0.22], "shade").map((d) => (d.kind === "dot" ? { ...d, x: 20 + d.x / 2 } : d)),
    ],
  }),
  "soft-film": (r) => ({
    shapes: [
      {
        kind: "line",
        width: 1.6,
        look: "hollow",
        points: [
          [5, 22],
          [14, 17],
          [24, 13],
          [36, 8],
        ],
      },
      {
        kind: "line",
        width: 0.5,
        look: "glint",
        points: [
          [6, 23.2],
          [15, 18.2],
          [25, 14.2],
          [36, 9.4],
        ],
      },
      blob(r, 10, 9, 3, 0.2, "shade", 1.3),
    ],
  }),
  "brittle-film": (r) => ({
    shapes: [
      ...[0, 1, 2, 3, 4, 5, 6, 7].map(
        (i): Shape => ({
          kind: "line",
          width: 0.3,
          look: "dark",
          points: wander(r, 20 + Math.cos(i * 0.8) * 2, 15 + Math.sin(i * 0.8) * 2, i * 0.8, 7, 1.7),
        }),
      ),
      blob(r, 20, 15, 2, 0.35, "metal"),
    ],
  }),
  "adhesion-loss": (r) => ({
    shapes: [
      ...[0, 1, 2, 3, 4, 5].flatMap((i): Shape[] => [
        {
          kind: "line",
          width: 0.25,
          look: "dark",
          points: [
            [12 + i * 3, 7],
            [12 + i * 3, 23],
          ],
        },
        {
          kind: "line",
          width: 0.25,
          look: "dark",
          points: [
            [11, 8 + i * 2.8],
            [29, 8 + i * 2.8],
          ],
        },
      ]),
      ...[
        [12, 8],
        [18, 10.8],
        [24, 13.6],
        [21, 19.2],
        [15, 16.4],
      ].map(
        ([x = 0, y = 0]): Shape => ({
          kind: "blob",
          look: "metal",
          points: [
            [x + 0.2, y + 0.2],
            [x + 2.9, y + 0.1 + r.uniform() * 0.5],
            [x + 2.8, y + 2.7],
            [x + 0.1, y + 2.6],
          ],
        }),
      ),
    ],
  }),
  delamination: (r) => ({
    shapes: [
      blob(r, 17, 15, 10, 0.28, "shade", 1.25),
      blob(r, 16.4, 14.4, 9.2, 0.3, "metal", 1.25),
      blob(r, 27, 20, 3.2, 0.35, "pale"),
    ],
  }),
  blistering: (r) => ({
    shapes: Array.from(
      { length: 22 },
      () => [between(r, 2, W - 2), between(r, 2, H - 2), between(r, 0.5, 1.7)] as const,
    ).map(([x, y, size]): Shape => ({ kind: "dot", x, y, r: size, look: "dome" })),
  }),
  "rust-creep": (r) => ({
    shapes: [
      blob(r, 20, 15, 5, 0.4, "dome", 2.4),
      blob(r, 20, 15, 3.4, 0.5, "rust", 2.6),
      {
        kind: "line",
        width: 0.6,
        look: "dark",
        points: [
          [7, 19],
          [16, 16.4],
          [25, 13.6],
          [34, 11],
        ],
      },
    ],
  }),
  "edge-rust": (r) => ({
    edge: "right",
    shapes: Array.from({ length: 26 }, (_, i): Shape => blob(r, 38.2, i * 1.2, between(r, 0.6, 2), 0.5, "rust")),
  }),
  "seam-rust": (r) => ({
    edge: "seam",
    shapes: [
      ...Array.from(
        { length: 20 },
        (_, i): Shape => blob(r, i * 2.1, 16 + between(r, -0.3, 0.7), between(r, 0.5, 1.4), 0.5, "rust"),
      ),
      ...[8, 19, 27].map(
        (x): Shape => ({ kind: "line", width: 0.8, look: "rust", points: wander(r, x, 17, 1.57, 6, 1.6) }),
      ),
    ],
  }),
  "flash-rust": (r) => ({
    base: "metal",
    shapes: [
      ...Array.from(
        { length: 60 },
        (): Shape => blob(r, between(r, 0, W), between(r, 0, H), between(r, 0.3, 1.3), 0.6, "rust"),
      ),
    ],
  }),
  chalking: (r) => ({
    base: "faded",
    shapes: [
      ...dots(r, 260, [0.1, 0.3], "pale"),
      {
        kind: "line",
        width: 3.4,
        look: "other",
        points: [
          [6, 22],
          [16, 18],
          [28, 12],
          [35, 8],
        ],
      },
    ],
  }),
  "bare-marks": () => ({
    shapes: [
      {
        kind: "blob",
        look: "metal",
        points: [
          [17, 3],
          [21, 3],
          [22, 9],
          [20, 12],
          [17.5, 10],
          [16.5, 6],
        ],
      },
      {
        kind: "blob",
        look: "hollow",
        points: [
          [9, 19],
          [12, 17.5],
          [15, 19],
          [15.6, 24],
          [12, 26.5],
          [8.6, 24],
        ],
      },
      ...[0, 1, 2, 3].map(
        (i): Shape => ({
          kind: "line",
          width: 0.3,
          look: "shade",
          points: [
            [9.4, 20 + i * 1.6],
            [12, 19.2 + i * 1.6],
            [15, 20.2 + i * 1.6],
          ],
        }),
      ),
    ],
  }),
  "coated-fit": () => ({
    edge: "hole",
    shapes: [{ kind: "dot", x: 20, y: 15, r: 6.4, look: "sag" }],
  }),
  "pinpoint-rust": (r) => ({ shapes: dots(r, 46, [0.25, 0.7], "rust") }),
  filiform: (r) => ({
    edge: "right",
    shapes: [4, 9, 13, 18, 22, 27].flatMap((y): Shape[] => {
      const points = wander(r, 39, y, Math.PI, 12, 1.5);
      const [hx, hy] = points.at(-1) ?? [20, y];
      return [
        { kind: "line", width: 0.8, look: "dome", points },
        { kind: "dot", x: hx, y: hy, r: 0.6, look: "dark" },
      ];
    }),
  }),
};

/** The picture of a defect; null of one that has none. The same every time. */
export function defectPicture(defect: string): DefectPicture | null {
  const draw = drawn[defect];
  if (!draw) return null;
  const seed = [...defect].reduce((n, c) => (n * 31 + c.charCodeAt(0)) >>> 0, 7);
  return { widthMm: W, heightMm: H, edge: "none", base: "film", ...draw(seededRandom(seed)) };
}
