import { median } from "./film-and-metal";
import { type Homography, homographyOf, type Point, seenAt } from "./homography";
import { leastSquares } from "./least-squares";
import { AROUND, cornerPlaces, pixel, SQUARE_PX } from "./squared-up";

/** A place where a cut was seen, in squares: it is the cut of that number of the one family or the other. */
type CutSeen = { readonly family: 0 | 1; readonly cut: number; readonly u: number; readonly v: number };

/** Where cuts are seen between film on both sides, at the rim also where only outside is film; and how wide they are, in squares. */
export function cutsSeen(
  t: Float32Array,
  width: number,
  n: number,
): { readonly seen: readonly CutSeen[]; readonly kerf: number } {
  const reach = Math.round(0.3 * SQUARE_PX);
  const side = Math.round(0.17 * SQUARE_PX);
  const place = (px: number) => (px + 0.5) / SQUARE_PX - AROUND;
  const widths: number[] = [];
  const seen: CutSeen[] = [];
  const rims: (CutSeen & { readonly outward: number })[] = [];
  for (const family of [0, 1] as const)
    for (let cut = 0; cut <= n; cut++) {
      const middle = pixel(cut);
      for (let along = pixel(0) + 4; along < pixel(n) - 4; along += 3) {
        const w = place(along);
        if (Math.abs(w - Math.round(w)) < 0.16) continue;
        const value = (d: number): number =>
          (family === 0 ? t[along * width + middle + d] : t[(middle + d) * width + along]) as number;
        const at = (across: number) => (family === 0 ? { u: across, v: w } : { u: w, v: across });
        const [left, right] = [value(-reach), value(reach)];
        // The cut may still lie a good part of a square off: the most metal about is it, where film is on both sides of that.
        let top = -reach;
        for (let d = -reach; d <= reach; d++) if (value(d) > value(top)) top = d;
        if (Math.abs(value(top - side)) < 0.3 && Math.abs(value(top + side)) < 0.3) {
          let [sum, moment] = [0, 0];
          for (let d = top - side + 1; d < top + side; d++) {
            const v = value(d);
            if (v < 0.15) continue;
            sum += v;
            moment += v * d;
          }
          if (sum < 0.6 || sum > 0.25 * SQUARE_PX) continue;
          widths.push(sum / SQUARE_PX);
          seen.push({ family, cut, ...at(place(middle + moment / sum)) });
        } else if (
          (cut === 0 && Math.abs(left) < 0.3 && right > 0.7) ||
          (cut === n && Math.abs(right) < 0.3 && left > 0.7)
        ) {
          const outward = cut === 0 ? -1 : 1;
          for (let d = outward * reach; d !== -outward * reach; d -= outward) {
            const [here, next] = [value(d), value(d - outward)];
            if (here >= 0.5 || next < 0.5) continue;
            rims.push({ family, cut, outward, ...at(place(middle + d - (outward * (0.5 - here)) / (next - here))) });
            break;
          }
        }
      }
    }
  const kerf = widths.length > 0 ? median(widths) : 0.06;
  // Seen from outside a rim begins half a cut before its middle.
  for (const { outward, ...r } of rims)
    seen.push(r.family === 0 ? { ...r, u: r.u - (outward * kerf) / 2 } : { ...r, v: r.v - (outward * kerf) / 2 });
  return { seen, kerf };
}

/** Few places decide little: what they leave open stays as it was found. */
const HELD = 4;
/** Further off than this from its cut a place is of something else, in squares. */
const OFF_CUT = 0.05;

/** The lattice set right by all places where its cuts are seen; what they say nothing of stays as it was. */
export function cutsSetRight(
  t: Float32Array,
  width: number,
  n: number,
  seen: Homography,
): { readonly seen: Homography; readonly kerf: number } | null {
  const all = cutsSeen(t, width, n);
  if (all.seen.length < 40) return null;
  const still = [1, 0, 0, 0, 1, 0, 0, 0] as const;
  const prior = [HELD, HELD, HELD, HELD, HELD, HELD, HELD * n, HELD * n];
  let kept = all.seen;
  let g: Homography = still;
  for (let round = 0; round < 3; round++) {
    const rows = kept.map(({ family, cut, u, v }) =>
      family === 0 ? [u, v, 1, 0, 0, 0, -cut * u, -cut * v] : [0, 0, 0, u, v, 1, -cut * u, -cut * v],
    );
    const values = kept.map((c) => c.cut);
    for (const [k, weight] of prior.entries()) {
      rows.push(Array.from({ length: 8 }, (_, i) => (i === k ? weight : 0)));
      values.push(weight * (still[k] as number));
    }
    const solved = leastSquares(rows, values);
    if (!solved) return null;
    g = solved as unknown as Homography;
    const own = g;
    kept = all.seen.filter((c) => Math.abs(seenAt(own, [c.u, c.v])[c.family] - c.cut) < OFF_CUT / (round + 1) + 0.02);
    if (kept.length < 40) return null;
  }
  const set = homographyOf(
    cornerPlaces(n).map((corner): [Point, Point] => {
      let [u, v]: [number, number] = [corner[0], corner[1]];
      for (let k = 0; k < 8; k++) {
        const [x, y] = seenAt(g, [u, v]);
        u -= x - corner[0];
        v -= y - corner[1];
      }
      return [corner, seenAt(seen, [u, v])];
    }),
  );
  return set.ok ? { seen: set.value, kerf: all.kerf } : null;
}

/** Of the stretches of cuts that must show, those that do: metal between film on both sides, or an edge where one side is bare. */
export function cutsShown(t: Float32Array, state: Uint8Array, width: number, n: number): number {
  let [must, show] = [0, 0];
  const [near, far] = [Math.round(0.04 * SQUARE_PX), Math.round(0.3 * SQUARE_PX)];
  for (const family of [0, 1])
    for (let i = 0; i <= n; i++)
      for (let j = 0; j < n; j++) {
        let [ridge, step, looked] = [0, 0, 0];
        for (let k = 0; k < 16; k++) {
          const along = pixel(j + 0.16 + (0.68 * (k + 0.5)) / 16);
          const at = (d: number) => {
            const across = pixel(i) + d;
            return family === 0 ? along * width + across : across * width + along;
          };
          const [left, right] = [at(-far), at(far)];
          if (left < 0 || right >= t.length || state[left] === 2 || state[right] === 2) continue;
          const [l, r] = [t[left] as number, t[right] as number];
          let peak = 0;
          for (let d = -near; d <= near; d++) peak = Math.max(peak, t[at(d)] as number);
          if (l < 0.5 && r < 0.5) {
            looked++;
            if (peak - Math.max(l, r) > 0.22) ridge++;
          } else if (l < 0.5 !== r < 0.5) {
            // A flake may end anywhere; at the rim of the lattice it ends at its cut.
            if (i !== 0 && i !== n) continue;
            looked++;
            if (peak > 0.5) step++;
          }
        }
        if (looked < 6) continue;
        must++;
        if (ridge + step > 0.6 * looked) show++;
      }
  return must < 8 ? 0 : show / must;
}
