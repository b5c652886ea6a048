import { type Plane, plane, smoothed } from "./image";

/** How strongly each pixel lies on a thin line or an edge, and the direction across it, 0–π. */
export type Evidence = {
  readonly width: number;
  readonly height: number;
  readonly strength: Float32Array;
  readonly across: Float32Array;
};
/** A straight line: cos θ · x + sin θ · y = ρ, θ 0–π, px. */
export type Line = { readonly theta: number; readonly rho: number; readonly strength: number };

const RIDGE_SCALES = [1.3, 3];
/** An edge says less of where a cut lies than a line does. */
const EDGE_SHARE = 0.6;

/** Brightness and how much of a colour there is: a cut differs from its film in the one or the other. */
function brightAndColoured([red, green, blue]: readonly Plane[]): readonly Plane[] {
  const { width, height } = red as Plane;
  const [bright, coloured] = [plane(width, height), plane(width, height)];
  for (let i = 0; i < bright.values.length; i++) {
    const [r, g, b] = [red?.values[i] as number, green?.values[i] as number, blue?.values[i] as number];
    bright.values[i] = (r + g + b) / 3;
    coloured.values[i] = Math.max(r, g, b) - Math.min(r, g, b);
  }
  return [bright, coloured];
}

/** Lines and edges of brightness and colour, the strongest of each pixel, thinned across. O(pixels). */
export function lineEvidence(colours: readonly Plane[]): Evidence {
  const planes = brightAndColoured(colours);
  const [{ width, height }] = planes as readonly [Plane, Plane];
  const strength = new Float32Array(width * height);
  const across = new Float32Array(width * height);
  for (const channel of planes)
    for (const sigma of RIDGE_SCALES) {
      const { values: v } = smoothed(channel, sigma);
      const scale = sigma * sigma;
      const edges = sigma === RIDGE_SCALES[0];
      for (let y = 2; y < height - 2; y++)
        for (let x = 2; x < width - 2; x++) {
          const at = y * width + x;
          const c = v[at] as number;
          const l = v[at - 1] as number;
          const r = v[at + 1] as number;
          const u = v[at - width] as number;
          const d = v[at + width] as number;
          const xx = l + r - 2 * c;
          const yy = u + d - 2 * c;
          const xy =
            ((v[at + width + 1] as number) -
              (v[at + width - 1] as number) -
              (v[at - width + 1] as number) +
              (v[at - width - 1] as number)) /
            4;
          const spread = Math.sqrt((xx - yy) * (xx - yy) + 4 * xy * xy);
          const sum = xx + yy;
          const first = Math.abs(sum + spread);
          const second = Math.abs(sum - spread);
          // The larger curvature less the smaller: a line bends across and not along.
          const ridge = scale * (Math.abs(first - second) / 2);
          // Its direction is only worked out where it is the strongest so far: most pixels lie on nothing.
          if (ridge > (strength[at] as number)) {
            strength[at] = ridge;
            across[at] = 0.5 * Math.atan2(2 * xy, xx - yy) + (first >= second ? 0 : Math.PI / 2);
          }
          if (!edges) continue;
          const gx = (r - l) / 2;
          const gy = (d - u) / 2;
          const edge = EDGE_SHARE * sigma * Math.sqrt(gx * gx + gy * gy);
          if (edge > (strength[at] as number)) {
            strength[at] = edge;
            across[at] = Math.atan2(gy, gx);
          }
        }
    }
  return thinned({ width, height, strength, across });
}

/** What is not the strongest across its own direction is no line. */
function thinned({ width, height, strength, across }: Evidence): Evidence {
  const kept = new Float32Array(width * height);
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const at = y * width + x;
      const s = strength[at] as number;
      if (s <= 0) continue;
      const a = across[at] as number;
      const [dx, dy] = [Math.round(Math.cos(a)), Math.round(Math.sin(a))];
      if (s >= (strength[at + dy * width + dx] as number) && s >= (strength[at - dy * width - dx] as number))
        kept[at] = s;
      across[at] = ((a % Math.PI) + Math.PI) % Math.PI;
    }
  return { width, height, strength: kept, across };
}

const ANGLES = 180;
const RHO_STEP = 1.5;
/** Of a line as long as the picture is wide; less is a chance row of specks. */
const LEAST_LINE = 0.0015;

/** The straight lines with the most evidence, strongest first. O(pixels with evidence + angles × reach). */
export function straightLines(e: Evidence, most: number): { readonly lines: Line[]; readonly level: number } {
  const sorted = Float32Array.from(e.strength.filter((s) => s > 0)).sort();
  if (sorted.length < 100) return { lines: [], level: 0 };
  // Most of what is seen is noise of the picture; a line stands well above it. A few very strong edges must not outvote the rest.
  const at = (share: number) => sorted[Math.floor((sorted.length - 1) * share)] as number;
  const level = Math.max(4 * at(0.5), 0.15 * at(0.997));
  const cap = 2.5 * level;
  const reach = Math.hypot(e.width, e.height);
  const rhos = Math.ceil((2 * reach) / RHO_STEP) + 1;
  const votes = new Float32Array(ANGLES * rhos);
  const cos = Array.from({ length: ANGLES }, (_, i) => Math.cos((i * Math.PI) / ANGLES));
  const sin = Array.from({ length: ANGLES }, (_, i) => Math.sin((i * Math.PI) / ANGLES));
  for (let y = 0; y < e.height; y++)
    for (let x = 0; x < e.width; x++) {
      const at = y * e.width + x;
      const s = e.strength[at] as number;
      if (s < level) continue;
      const middle = Math.round(((e.across[at] as number) * ANGLES) / Math.PI);
      for (let d = -3; d <= 3; d++) {
        const angle = (middle + d + ANGLES) % ANGLES;
        const rho = (cos[angle] as number) * x + (sin[angle] as number) * y;
        const bin = Math.round((rho + reach) / RHO_STEP);
        const cell = angle * rhos + bin;
        votes[cell] = (votes[cell] as number) + Math.min(s, cap) * (1 - Math.abs(d) / 5);
      }
    }
  const soft = smoothed({ width: rhos, height: ANGLES, values: votes }, 1.2).values;
  const lines: Line[] = [];
  for (let a = 0; a < ANGLES; a++)
    for (let r = 4; r < rhos - 4; r++) {
      const s = soft[a * rhos + r] as number;
      if (s <= 0) continue;
      let top = true;
      for (let da = -3; da <= 3 && top; da++)
        for (let dr = -4; dr <= 4; dr++) {
          if (da === 0 && dr === 0) continue;
          let angle = a + da;
          let bin = r + dr;
          // Past half a turn the same line has its distance turned round.
          if (angle < 0 || angle >= ANGLES) {
            angle = (angle + ANGLES) % ANGLES;
            bin = rhos - 1 - bin;
          }
          const other = bin < 0 || bin >= rhos ? 0 : (soft[angle * rhos + bin] as number);
          if (other > s || (other === s && (da < 0 || (da === 0 && dr < 0)))) {
            top = false;
            break;
          }
        }
      if (top) lines.push({ theta: (a * Math.PI) / ANGLES, rho: r * RHO_STEP - reach, strength: s });
    }
  const least = LEAST_LINE * Math.min(e.width, e.height) * level;
  const seen = lines.filter((l) => l.strength >= least).sort((p, q) => q.strength - p.strength);
  return { lines: seen.slice(0, most), level };
}

/** Evidence widened by so many px, for a look along a line that does not lie quite on it. */
export function widened(e: Evidence, by: number): Plane {
  const out = plane(e.width, e.height);
  for (let y = by; y < e.height - by; y++)
    for (let x = by; x < e.width - by; x++) {
      const s = e.strength[y * e.width + x] as number;
      if (s <= 0) continue;
      for (let dy = -by; dy <= by; dy++)
        for (let dx = -by; dx <= by; dx++) {
          const at = (y + dy) * e.width + x + dx;
          if ((out.values[at] as number) < s) out.values[at] = s;
        }
    }
  return out;
}
