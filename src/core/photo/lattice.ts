import { err, ok, type Result } from "../result";
import { type Homography, homographyOf, type Point, seenAt } from "./homography";
import { type Plane, valueAt } from "./image";
import { leastSquares } from "./least-squares";
import { type Evidence, type Line, lineEvidence, straightLines, widened } from "./lines";
import { cornerPlaces } from "./squared-up";

/** A lattice of cuts as it is seen: its corners at 0 and `squares` of its own plane, px of the picture it was found in. */
export type Lattice = {
  readonly cuts: 6 | 11;
  /** From the lattice, in squares, to the picture, px. */
  readonly seen: Homography;
  /** Share of its cuts that are to be seen between their crossings, 0–1. */
  readonly support: number;
};

const MOST_LINES = 90;
/** Lines of one family may run apart by so much, as they are seen from aslant. */
const FAMILY = (16 * Math.PI) / 180;
/** Two families cross at no less than this. */
const LEAST_CROSSING = (60 * Math.PI) / 180;
/** Sequences of a family that are tried with those of the other. */
const TRIED = 8;
/** Less of the cuts than this to be seen is no lattice; where whole squares came off, the cuts between them are gone. */
const LEAST_SUPPORT = 0.45;
/** The smallest square that can be told, px. */
const LEAST_SQUARE = 9;

type Placed = { readonly t: number; readonly line: Line };
type Sequence = { readonly lines: readonly (Line | null)[]; readonly at: readonly number[]; readonly score: number };

/**
 * The lattice of a cross-cut in a picture, squared up. Failures: `no-lattice` (none that can be told from what else is there),
 * `two-lattices` (frame one of them). O(pixels + lines²).
 */
export function findLattice(planes: readonly Plane[], cuts: 6 | 11): Result<Lattice> {
  const evidence = lineEvidence(planes);
  const { lines, level } = straightLines(evidence, MOST_LINES);
  if (lines.length < cuts * 2) return err({ kind: "no-lattice", lines: lines.length });
  const wide = widened(evidence, 2);
  let best: Lattice | null = null;
  let bestScore = 0;
  const tried: Tried[] = [];
  const found: { readonly lattice: Lattice; readonly score: number }[] = [];
  for (const [a, b] of families(lines)) {
    const middle = middleOf(a, b, evidence);
    const [first, second] = [sequences(a, middle, cuts), sequences(b, middle, cuts)];
    for (const p of first)
      for (const q of second) {
        const lattice = latticeOf(p, q, cuts);
        if (lattice && fits(lattice, cuts, evidence))
          tried.push({ seen: lattice, ...supportOf(lattice, cuts, wide, level) });
      }
  }
  // The best few are set right line by line, and shifted by a square where that shows more.
  tried.sort((p, q) => worth(q) - worth(p));
  for (const one of tried.slice(0, SETTLED)) {
    const settled = settle(one, cuts, wide, level, evidence);
    found.push({ lattice: { cuts, seen: settled.seen, support: settled.support }, score: worth(settled) });
    if (worth(settled) > bestScore) {
      bestScore = worth(settled);
      best = { cuts, seen: settled.seen, support: settled.support };
    }
  }
  if (!best || best.support < LEAST_SUPPORT) return err({ kind: "no-lattice", support: best?.support ?? 0 });
  const corner = cornersOf(best.seen, cuts - 1);
  const elsewhere = found.find(
    (f) => f.lattice.support >= 0.85 && f.score > 0.9 * bestScore && apart(cornersOf(f.lattice.seen, cuts - 1), corner),
  );
  return elsewhere ? err({ kind: "two-lattices" }) : ok(best);
}

/** The corners of a lattice of n squares, as it is seen. */
export const cornersOf = (seen: Homography, n: number): readonly Point[] => cornerPlaces(n).map((c) => seenAt(seen, c));

/** Two lattices of which neither's middle lies in the other. */
function apart(a: readonly Point[], b: readonly Point[]): boolean {
  const middle = (c: readonly Point[]): Point => [
    c.reduce((s, p) => s + p[0], 0) / c.length,
    c.reduce((s, p) => s + p[1], 0) / c.length,
  ];
  const [ma, mb] = [middle(a), middle(b)];
  const reach = Math.max(...a.map((p) => Math.hypot(p[0] - ma[0], p[1] - ma[1])));
  return Math.hypot(ma[0] - mb[0], ma[1] - mb[1]) > 1.1 * reach;
}

type Family = { readonly direction: number; readonly lines: readonly Line[] };
const turned = (a: number, b: number): number => {
  const d = Math.abs(a - b) % Math.PI;
  return Math.min(d, Math.PI - d);
};

/** The pairs of directions that most of the lines run in, most first, each with its lines. */
function families(lines: readonly Line[]): readonly (readonly [Family, Family])[] {
  const steps = 90;
  const weight = Array.from({ length: steps }, (_, i) => {
    const direction = (i * Math.PI) / steps;
    return lines.reduce(
      (s, l) => s + l.strength * Math.max(0, 1 - turned(l.theta, direction) / ((10 * Math.PI) / 180)),
      0,
    );
  });
  const pairs: { readonly i: number; readonly j: number; readonly w: number }[] = [];
  for (let i = 0; i < steps; i++)
    for (let j = i + 1; j < steps; j++)
      if (turned((i * Math.PI) / steps, (j * Math.PI) / steps) >= LEAST_CROSSING)
        pairs.push({ i, j, w: Math.sqrt((weight[i] as number) * (weight[j] as number)) });
  pairs.sort((a, b) => b.w - a.w);
  const taken: typeof pairs = [];
  for (const p of pairs) {
    const near = (a: number, b: number) => turned((a * Math.PI) / steps, (b * Math.PI) / steps) < (12 * Math.PI) / 180;
    if (taken.some((t) => (near(t.i, p.i) && near(t.j, p.j)) || (near(t.i, p.j) && near(t.j, p.i)))) continue;
    taken.push(p);
    if (taken.length === 3) break;
  }
  const of = (i: number): Family => {
    const direction = (i * Math.PI) / steps;
    return {
      direction,
      lines: lines.filter((l) => turned(l.theta, direction) <= FAMILY).map((l) => facing(l, direction)),
    };
  };
  return taken.map(({ i, j }) => [of(i), of(j)] as const);
}
/** The same line with its direction written the way the family's is. */
function facing(line: Line, direction: number): Line {
  const d = line.theta - direction;
  if (d > Math.PI / 2) return { ...line, theta: line.theta - Math.PI, rho: -line.rho };
  if (d < -Math.PI / 2) return { ...line, theta: line.theta + Math.PI, rho: -line.rho };
  return line;
}

const cross = (a: Line, b: Line): Point | null => {
  const det = Math.cos(a.theta) * Math.sin(b.theta) - Math.sin(a.theta) * Math.cos(b.theta);
  if (Math.abs(det) < 1e-6) return null;
  return [
    (a.rho * Math.sin(b.theta) - b.rho * Math.sin(a.theta)) / det,
    (b.rho * Math.cos(a.theta) - a.rho * Math.cos(b.theta)) / det,
  ];
};

/** Where the two families cross most: the middle of what they cut. */
function middleOf(a: Family, b: Family, { width, height }: Evidence): Point {
  const xs: number[] = [];
  const ys: number[] = [];
  for (const p of a.lines.slice(0, 14))
    for (const q of b.lines.slice(0, 14)) {
      const c = cross(p, q);
      if (!c || c[0] < 0 || c[1] < 0 || c[0] > width || c[1] > height) continue;
      xs.push(c[0]);
      ys.push(c[1]);
    }
  const mid = (v: number[]) => v.sort((p, q) => p - q)[Math.floor(v.length / 2)];
  return [mid(xs) ?? width / 2, mid(ys) ?? height / 2];
}

/** Where a line meets the crosswise line through a middle, px along it. */
const along = (line: Line, direction: number, middle: Point): number =>
  (line.rho - middle[0] * Math.cos(line.theta) - middle[1] * Math.sin(line.theta)) / Math.cos(line.theta - direction);

/**
 * So many lines of a family that lie evenly, as evenly as seen from aslant: t = (a + b·i) / (1 + c·i). The best few, each line
 * null where it is not to be seen.
 */
function sequences(family: Family, middle: Point, cuts: number): readonly Sequence[] {
  const placed: Placed[] = family.lines
    .map((line) => ({ t: along(line, family.direction, middle), line }))
    .sort((p, q) => p.t - q.t);
  const strongest = Math.max(...placed.map((p) => p.line.strength), 1e-9);
  const out: Sequence[] = [];
  for (let p = 0; p < placed.length; p++)
    for (let q = p + 1; q < placed.length; q++) {
      const [from, to] = [placed[p] as Placed, placed[q] as Placed];
      const step = (to.t - from.t) / (cuts - 1);
      if (step < LEAST_SQUARE) continue;
      let at = Array.from({ length: cuts }, (_, i) => from.t + i * step);
      let matched = match(placed, at, 0.22 * step);
      for (let round = 0; round < 2; round++) {
        const spaced = evenly(matched.flatMap((m, i) => (m ? [[i, m.t] as const] : [])));
        if (!spaced) break;
        at = Array.from({ length: cuts }, (_, i) => spaced(i));
        matched = match(placed, at, 0.11 * step);
      }
      const seen = matched.filter((m) => m !== null);
      if (seen.length < cuts - 2 || !matched[0] || !matched[cuts - 1]) continue;
      const strength = seen.reduce((s, m) => s + Math.min(1, (1.6 * m.line.strength) / strongest), 0);
      // What lies as strong halfway between them says that the squares are smaller.
      const between = match(
        placed,
        at.slice(1).map((t, i) => (t + (at[i] as number)) / 2),
        0.12 * step,
      );
      const half = between.reduce((s, m) => s + (m ? Math.min(1, m.line.strength / strongest) : 0), 0);
      out.push({
        lines: matched.map((m) => m?.line ?? null),
        at,
        score: strength - 0.5 * half - 0.4 * (cuts - seen.length),
      });
    }
  out.sort((a, b) => b.score - a.score);
  const kept: Sequence[] = [];
  for (const s of out) {
    const step = ((s.at.at(-1) as number) - (s.at[0] as number)) / (cuts - 1);
    if (kept.some((k) => k.at.every((t, i) => Math.abs(t - (s.at[i] as number)) < 0.2 * step))) continue;
    kept.push(s);
    if (kept.length === TRIED) break;
  }
  return kept;
}

/** The strongest line near each place, or null. */
function match(placed: readonly Placed[], at: readonly number[], within: number): (Placed | null)[] {
  return at.map((t) => {
    let best: Placed | null = null;
    let worth = 0;
    for (const p of placed) {
      const off = Math.abs(p.t - t);
      if (off > within) continue;
      const w = p.line.strength * (1 - 0.5 * (off / within));
      if (w > worth) {
        worth = w;
        best = p;
      }
    }
    return best;
  });
}

/** t = (a + b·i) / (1 + c·i) through places, by least squares of t = a + b·i − c·i·t; straight where there are too few. */
function evenly(places: readonly (readonly [i: number, t: number])[]): ((i: number) => number) | null {
  if (places.length < 3) return null;
  const bent = places.length > 4;
  const solved = leastSquares(
    places.map(([i, t]) => (bent ? [1, i, -i * t] : [1, i])),
    places.map(([, t]) => t),
  );
  if (!solved) return null;
  const [a, b, c = 0] = solved as readonly [number, number, number?];
  return (i) => (a + b * i) / (1 + c * i);
}

type Tried = { readonly seen: Homography; readonly support: number; readonly beyond: number };
const worth = ({ support, beyond }: Tried): number => support - 0.6 * beyond;

/** Lattices that are set right line by line. */
const SETTLED = 14;
const SHIFTS = [-0.3, -0.2, -0.12, -0.06, 0, 0.06, 0.12, 0.2, 0.3];

/** Each cut moved at either end to where most of it is seen, and the whole by a square where that shows more; as long as it gains. */
function settle(start: Tried, cuts: number, wide: Plane, level: number, e: Evidence): Tried {
  const n = cuts - 1;
  let best = start;
  for (let round = 0; round < 4; round++) {
    const before = worth(best);
    const lines = [0, 1].map((family) =>
      Array.from({ length: cuts }, (_, i) => {
        const at = (w: number, v: number): Point => (family === 0 ? [w, v] : [v, w]);
        let [from, to] = [seenAt(best.seen, at(i, 0)), seenAt(best.seen, at(i, n))];
        let most = -1;
        for (const d0 of SHIFTS)
          for (const d1 of SHIFTS) {
            const [p, q] = [seenAt(best.seen, at(i + d0, 0)), seenAt(best.seen, at(i + d1, n))];
            let sum = -0.02 * (Math.abs(d0) + Math.abs(d1));
            for (let k = 0; k < 30; k++) {
              const t = (k + 0.5) / 30;
              const x = Math.round(p[0] + (q[0] - p[0]) * t);
              const y = Math.round(p[1] + (q[1] - p[1]) * t);
              if (x < 0 || y < 0 || x >= wide.width || y >= wide.height) continue;
              if ((wide.values[y * wide.width + x] as number) >= 0.8 * level) sum += 1 / 30;
            }
            if (sum > most) {
              most = sum;
              [from, to] = [p, q];
            }
          }
        return { from, to, seen: most };
      }),
    );
    const pairs: [Point, Point][] = [];
    for (let i = 0; i < cuts; i++)
      for (let j = 0; j < cuts; j++) {
        const [a, b] = [lines[0]?.[i], lines[1]?.[j]];
        // A line that is hardly seen says nothing of where it lies.
        if (!a || !b || a.seen < 0.4 || b.seen < 0.4) continue;
        const seen = meet(a.from, a.to, b.from, b.to);
        if (seen) pairs.push([[i, j], seen]);
      }
    const set = homographyOf(pairs);
    const candidates = [best.seen, ...(set.ok ? [set.value] : [])].flatMap((seen) =>
      [-1, 0, 1].flatMap((di) => [-1, 0, 1].map((dj) => shifted(seen, di, dj))),
    );
    for (const seen of candidates) {
      if (!seen || !fits(seen, cuts, e)) continue;
      const one = { seen, ...supportOf(seen, cuts, wide, level) };
      if (worth(one) > worth(best)) best = one;
    }
    if (worth(best) <= before + 1e-6) break;
  }
  return best;
}
/** The same plane, its first corner so many squares further. */
function shifted(h: Homography, di: number, dj: number): Homography | null {
  const at = (i: number, j: number) => [[i, j] as Point, seenAt(h, [i + di, j + dj])] as const;
  const moved = homographyOf([at(0, 0), at(5, 0), at(5, 5), at(0, 5)]);
  return moved.ok ? moved.value : null;
}
function meet(a: Point, b: Point, c: Point, d: Point): Point | null {
  const [rx, ry, sx, sy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  const det = rx * sy - ry * sx;
  if (Math.abs(det) < 1e-9) return null;
  const t = ((c[0] - a[0]) * sy - (c[1] - a[1]) * sx) / det;
  return [a[0] + t * rx, a[1] + t * ry];
}

/** The homography of two sequences that cross, from every crossing of lines that are to be seen. */
function latticeOf(p: Sequence, q: Sequence, cuts: number): Homography | null {
  const pairs: [Point, Point][] = [];
  for (let i = 0; i < cuts; i++)
    for (let j = 0; j < cuts; j++) {
      const [a, b] = [p.lines[i], q.lines[j]];
      if (!a || !b) continue;
      const seen = cross(a, b);
      if (seen) pairs.push([[i, j], seen]);
    }
  const h = homographyOf(pairs);
  return h.ok ? h.value : null;
}

/** A square lattice seen from no worse than aslant: its corners in the picture, its sides alike. */
function fits(seen: Homography, cuts: number, { width, height }: Evidence): boolean {
  const corners = cornersOf(seen, cuts - 1);
  const slack = 0.02 * Math.max(width, height);
  if (corners.some(([x, y]) => x < -slack || y < -slack || x > width + slack || y > height + slack)) return false;
  const sides = corners.map((c, i) => {
    const next = corners[(i + 1) % 4] as Point;
    return Math.hypot(next[0] - c[0], next[1] - c[1]);
  });
  return Math.min(...sides) > LEAST_SQUARE * (cuts - 1) && Math.max(...sides) < 1.75 * Math.min(...sides);
}

const LOOKS = 12;
/** Share of the stretches between crossings along which a line is seen; and of those one square beyond the lattice. */
function supportOf(
  seen: Homography,
  cuts: number,
  wide: Plane,
  level: number,
): { readonly support: number; readonly beyond: number } {
  const n = cuts - 1;
  const stretch = (from: Point, to: Point): number => {
    let on = 0;
    for (let k = 0; k < LOOKS; k++) {
      const t = (k + 0.5) / LOOKS;
      const [x, y] = seenAt(seen, [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t]);
      if (x < 0 || y < 0 || x >= wide.width || y >= wide.height) continue;
      if (valueAt(wide, x, y) >= 0.8 * level) on++;
    }
    return on / LOOKS;
  };
  let inside = 0;
  let count = 0;
  for (let i = 0; i <= n; i++)
    for (let j = 0; j < n; j++) {
      for (const s of [stretch([i, j], [i, j + 1]), stretch([j, i], [j + 1, i])]) {
        inside += s > 0.55 ? 1 : s;
        count++;
      }
    }
  // A line one square further would make it another lattice.
  const rows = [-1, n + 1].flatMap((i) => [
    Array.from({ length: n }, (_, j) => stretch([i, j], [i, j + 1])),
    Array.from({ length: n }, (_, j) => stretch([j, i], [j + 1, i])),
  ]);
  const beyond = Math.max(...rows.map((r) => r.filter((s) => s > 0.55).length / n));
  return { support: inside / count, beyond: Math.max(0, beyond - 0.4) };
}
