import { err, ok, type Result } from "../result";
import type { Box, PartFeature, Substrate } from "./part";

/** A place on a face, in hundredths of its width and height from the upper left. */
export type SketchPoint = readonly [x: number, y: number];
/** Where a reading is taken: in the open, on an edge, or in a recess, where powder reaches last. */
export const spotGroups = ["face", "edge", "recess"] as const;
export type SpotGroup = (typeof spotGroups)[number];
/** How closely a place is looked at: A in plain sight, B seen in use, C out of sight; and what must stay bare of powder. */
export const zones = ["A", "B", "C"] as const;
export type Zone = (typeof zones)[number];
export const areaKinds = [...zones, "bare"] as const;
export type AreaKind = (typeof areaKinds)[number];
export type SketchArea = {
  readonly kind: AreaKind;
  readonly from: SketchPoint;
  readonly to: SketchPoint;
  readonly note: string;
};
export type Spot = { readonly id: string; readonly at: SketchPoint; readonly note: string; readonly group: SpotGroup };
export type Face = {
  readonly id: string;
  readonly name: string;
  readonly outline: readonly SketchPoint[];
  /** Below this line it is a recess; null where it has none. */
  readonly recessFromY: number | null;
  readonly zone: Zone;
  /** Width and height of the face, mm, so that it is drawn in its proportions; null where nobody measured it. */
  readonly sizeMm: readonly [number, number] | null;
  readonly areas: readonly SketchArea[];
  readonly spots: readonly Spot[];
};

const MOST_FACES = 12;
const MOST_CORNERS = 40;
const MOST_SPOTS = 60;

export const presets = ["plate", "box", "tube", "post", "frame", "casting"] as const;
export type Preset = (typeof presets)[number];

const rectangle: readonly SketchPoint[] = [
  [0, 0],
  [100, 0],
  [100, 100],
  [0, 100],
];
/** A frame, drawn round its opening and back, as one line. */
const frame: readonly SketchPoint[] = [
  [0, 0],
  [100, 0],
  [100, 100],
  [0, 100],
  [0, 1],
  [18, 18],
  [18, 82],
  [82, 82],
  [82, 18],
  [18, 17],
];
const casting: readonly SketchPoint[] = [
  [30, 0],
  [70, 0],
  [100, 26],
  [100, 78],
  [78, 100],
  [22, 100],
  [0, 78],
  [0, 26],
];
const five: readonly SketchPoint[] = [
  [50, 50],
  [14, 14],
  [86, 14],
  [14, 86],
  [86, 86],
];
const along: readonly SketchPoint[] = [8, 28, 48, 68, 86].map((y) => [50, y]);
const onFrame: readonly SketchPoint[] = [
  [50, 9],
  [91, 50],
  [50, 91],
  [9, 50],
  [91, 91],
];
const inCasting: readonly SketchPoint[] = [
  [50, 50],
  [50, 10],
  [88, 50],
  [50, 90],
  [12, 50],
];

type Drawn = readonly [
  id: string,
  name: string,
  outline: readonly SketchPoint[],
  spots: readonly SketchPoint[],
  zone: Zone,
];
const drawn: Record<Preset, readonly Drawn[]> = {
  plate: [
    ["F", "Front", rectangle, five, "A"],
    ["B", "Back", rectangle, five, "C"],
  ],
  box: [
    ["F", "Front", rectangle, five, "A"],
    ["S", "Sides", rectangle, five, "B"],
    ["B", "Back", rectangle, five, "B"],
    ["U", "Underside", rectangle, five, "C"],
  ],
  tube: [
    ["F", "One side", rectangle, along, "A"],
    ["B", "The other side", rectangle, along, "A"],
    ["E", "Ends", rectangle, five, "B"],
  ],
  post: [
    ["F", "Front", rectangle, along, "A"],
    ["B", "Back", rectangle, along, "A"],
    ["P", "Foot plate", rectangle, five, "B"],
  ],
  frame: [
    ["F", "Front", frame, onFrame, "A"],
    ["B", "Back", frame, onFrame, "B"],
  ],
  casting: [
    ["F", "Front", casting, inCasting, "A"],
    ["B", "Back", casting, inCasting, "B"],
    ["U", "Underside", casting, inCasting, "C"],
  ],
};

const faceOf = ([id, name, outline, spots, zone]: Drawn): Face => ({
  id,
  name,
  outline,
  recessFromY: null,
  zone,
  sizeMm: null,
  areas: [],
  spots: spots.map((at, i) => ({ id: `${id}${i + 1}`, at, note: "", group: "face" })),
});
/** The faces a shape begins with; each can be drawn otherwise. */
export const facesOf = (preset: Preset): readonly Face[] => drawn[preset].map(faceOf);

/** A shape by what was said at intake: its features, its metal and its sizes. */
export function presetFor(part: {
  readonly features: readonly PartFeature[];
  readonly substrate: Substrate;
  readonly box: Box;
}): Preset {
  const [long, mid, short] = [part.box.lengthMm, part.box.widthMm, part.box.heightMm].sort((a, b) => b - a) as [
    number,
    number,
    number,
  ];
  if (part.features.includes("open-frame")) return "frame";
  if (part.substrate === "cast-aluminium" || part.substrate === "cast-iron") return "casting";
  if (long > 5 * mid) return part.features.includes("hollow-section") && mid < 1.5 * short ? "post" : "tube";
  return short < mid / 5 ? "plate" : "box";
}

/** A first sketch by what was said at intake, with places in recesses and on edges where it has them. */
export function firstSketch(part: Parameters<typeof presetFor>[0]): readonly Face[] {
  const faces = facesOf(presetFor(part));
  const missing = placesMissing(part.features, faces);
  return faces.map((face, i) => (i === 0 ? missing.reduce((f, group) => withSpot(f, faces, group), face) : face));
}

const EDGES: readonly PartFeature[] = ["thermal-cut-edges", "sharp-edges"];
/** Groups of places that a part has and its sketch does not: readings in the open say nothing of them. */
export function placesMissing(features: readonly PartFeature[], faces: readonly Face[]): readonly SpotGroup[] {
  const has = (group: SpotGroup) => faces.some((f) => f.spots.some((s) => s.group === group));
  const recess = has("recess") || faces.some((f) => f.recessFromY !== null);
  return [
    ...(features.includes("deep-recess") && !recess ? (["recess"] as const) : []),
    ...(features.some((f) => EDGES.includes(f)) && !has("edge") ? (["edge"] as const) : []),
  ];
}

/** The next free name of a spot on a face; a name taken off again is not given to another place. */
export function nextSpotId(face: Pick<Face, "id" | "spots">): string {
  const used = face.spots.map((s) => Number(/(\d+)$/.exec(s.id)?.[1] ?? 0));
  return `${face.id}${Math.max(0, ...used) + 1}`;
}
/** A face with one more spot of a group, where such a place usually is: by an edge, or by the lower end. */
export function withSpot(face: Face, all: readonly Face[], group: SpotGroup, at?: SketchPoint): Face {
  const usual: Record<SpotGroup, SketchPoint> = {
    face: [50, 50],
    edge: middleOfLongestSide(face.outline),
    recess: [50, 94],
  };
  const taken = new Set(all.flatMap((f) => f.spots.map((s) => s.id)));
  let id = nextSpotId(face);
  for (let n = 2; taken.has(id); n++) id = `${face.id}-${n}`;
  const place = at ?? usual[group];
  const spot: Spot = { id, at: isInside(place, face.outline) ? place : inside(face.outline), note: "", group };
  return { ...face, spots: [...face.spots, spot] };
}
type Side = readonly [SketchPoint, SketchPoint];
/** From each corner to the next, the last back to the first. */
export const sidesOf = (outline: readonly SketchPoint[]): readonly Side[] =>
  outline.map((a, i) => [a, outline[(i + 1) % outline.length] as SketchPoint]);
/** How far a place is from a side, in the sketch's hundredths. */
export function awayFrom([px, py]: SketchPoint, [[ax, ay], [bx, by]]: Side): number {
  const squared = (bx - ax) ** 2 + (by - ay) ** 2;
  const share = squared === 0 ? 0 : Math.max(0, Math.min(1, ((px - ax) * (bx - ax) + (py - ay) * (by - ay)) / squared));
  return Math.hypot(px - (ax + share * (bx - ax)), py - (ay + share * (by - ay)));
}
function middleOfLongestSide(outline: readonly SketchPoint[]): SketchPoint {
  const sides = sidesOf(outline);
  const length = ([[ax, ay], [bx, by]]: Side) => Math.hypot(bx - ax, by - ay);
  const [a, b] = sides.reduce((one, other) => (length(other) > length(one) ? other : one));
  const [cx, cy] = inside(outline);
  // Just within the outline: a probe sits on the edge, not off it.
  return [
    Math.round((a[0] + b[0]) / 2 + (cx - (a[0] + b[0]) / 2) * 0.06),
    Math.round((a[1] + b[1]) / 2 + (cy - (a[1] + b[1]) / 2) * 0.06),
  ];
}

/** A place within an outline: its middle where that is inside, else the point of a grid that is farthest in. O(corners). */
export function inside(outline: readonly SketchPoint[]): SketchPoint {
  const middle: SketchPoint = [
    outline.reduce((a, [x]) => a + x, 0) / outline.length,
    outline.reduce((a, [, y]) => a + y, 0) / outline.length,
  ];
  if (isInside(middle, outline)) return middle;
  const grid = Array.from({ length: 361 }, (_, i): SketchPoint => [5 + (i % 19) * 5, 5 + Math.floor(i / 19) * 5]);
  const sides = sidesOf(outline);
  const depth = (p: SketchPoint) => Math.min(...sides.map((side) => awayFrom(p, side)));
  return (
    grid
      .filter((p) => isInside(p, outline))
      .reduce<SketchPoint | null>((deepest, p) => (deepest && depth(deepest) >= depth(p) ? deepest : p), null) ?? middle
  );
}

/** Whether a place is within an outline or on it, by the crossings of a ray. O(corners). */
export function isInside([x, y]: SketchPoint, outline: readonly SketchPoint[]): boolean {
  let within = false;
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [ax, ay] = outline[i] as SketchPoint;
    const [bx, by] = outline[j] as SketchPoint;
    const cross = (bx - ax) * (y - ay) - (by - ay) * (x - ax);
    if (
      Math.abs(cross) < 1e-9 &&
      x >= Math.min(ax, bx) &&
      x <= Math.max(ax, bx) &&
      y >= Math.min(ay, by) &&
      y <= Math.max(ay, by)
    )
      return true;
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) within = !within;
  }
  return within;
}

/** Whether an outline crosses itself: two sides that are not neighbours meet. O(corners²). */
export function crossesItself(outline: readonly SketchPoint[]): boolean {
  const n = outline.length;
  const side = ([ax, ay]: SketchPoint, [bx, by]: SketchPoint, [px, py]: SketchPoint) =>
    Math.sign((bx - ax) * (py - ay) - (by - ay) * (px - ax));
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) {
      if (j === i + 1 || (i === 0 && j === n - 1)) continue;
      const [a, b] = [outline[i] as SketchPoint, outline[(i + 1) % n] as SketchPoint];
      const [c, d] = [outline[j] as SketchPoint, outline[(j + 1) % n] as SketchPoint];
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return true;
    }
  return false;
}

/**
 * Whether faces can be a part's sketch: each by a name of its own, an outline of three corners or more that does not cross
 * itself, its spots within it, each by a name of its own in the part. Failures: `no-face`, `too-many`, `face-named-twice`,
 * `bad-outline` (why), `outside-the-field`, `spot-outside`, `spot-named-twice`, `no-spot`, `empty-area`, `bad-size`.
 */
export function checkSketch(faces: readonly Face[]): Result<readonly Face[]> {
  if (faces.length === 0) return err({ kind: "no-face" });
  if (faces.length > MOST_FACES) return err({ kind: "too-many", what: "faces", most: MOST_FACES });
  const spots = new Set<string>();
  for (const [i, face] of faces.entries()) {
    const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
    if (faces.some((f, j) => j !== i && (same(f.name, face.name) || same(f.id, face.id))))
      return err({ kind: "face-named-twice", face: face.name });
    if (face.outline.length < 3) return err({ kind: "bad-outline", face: face.name, why: "corners" });
    if (face.outline.length > MOST_CORNERS) return err({ kind: "too-many", what: "corners", most: MOST_CORNERS });
    const points = [...face.outline, ...face.spots.map((s) => s.at), ...face.areas.flatMap((a) => [a.from, a.to])];
    const stray = points.find((p) => p.some((c) => !(c >= 0 && c <= 100)));
    if (stray) return err({ kind: "outside-the-field", face: face.name, x: stray[0], y: stray[1] });
    if (crossesItself(face.outline)) return err({ kind: "bad-outline", face: face.name, why: "crossed" });
    if (face.sizeMm?.some((mm) => !(mm > 0) || mm > 30_000))
      return err({ kind: "bad-size", name: `${face.name}, mm`, value: face.sizeMm.join(" × ") });
    if (face.spots.length > MOST_SPOTS) return err({ kind: "too-many", what: "spots on a face", most: MOST_SPOTS });
    for (const spot of face.spots) {
      if (spots.has(spot.id.toLowerCase())) return err({ kind: "spot-named-twice", spot: spot.id });
      spots.add(spot.id.toLowerCase());
      if (!isInside(spot.at, face.outline)) return err({ kind: "spot-outside", face: face.name, spot: spot.id });
    }
    const flat = face.areas.find((a) => Math.abs(a.from[0] - a.to[0]) < 1 || Math.abs(a.from[1] - a.to[1]) < 1);
    if (flat) return err({ kind: "empty-area", face: face.name });
  }
  return spots.size === 0 ? err({ kind: "no-spot" }) : ok(faces);
}

/** Edges of a shape, m, from its box: a first figure to be counted over. A casting's are rounded, and counted by hand. */
export function edgesM(preset: Preset, box: Box): number | null {
  const [long, mid, short] = [box.lengthMm, box.widthMm, box.heightMm].map((mm) => mm / 1000).sort((a, b) => b - a) as [
    number,
    number,
    number,
  ];
  switch (preset) {
    case "plate":
      return 2 * (long + mid);
    case "box":
      return 4 * (long + mid + short);
    case "tube":
      return 2 * Math.PI * mid;
    case "post":
      return 4 * long + 4 * (mid + short);
    case "frame":
      return 4 * (long + mid);
    case "casting":
      return null;
  }
}
