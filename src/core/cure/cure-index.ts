import { ok, type Result } from "../result";
import { type CureCurve, EXTRAPOLATION_C, isExtrapolated, requiredMinutes } from "./schedule";
import { checkTrace, type Gap, type Segment, segmentsOf, type Trace } from "./trace";

export type CureIndex = {
  readonly kind: "cure-index";
  /** 100 is just cured. */
  readonly index: number;
  /** Share of the index earned more than 15 °C outside the sheet's points, 0–1; 0 where the index is 0. */
  readonly extrapolatedShare: number;
  readonly gaps: readonly Gap[];
  /** The index if each gap had stayed at the hotter of its two ends: an upper bound, for over-bake. */
  readonly indexGapsFilledHot: number;
};

// Gauss–Legendre, five points on [−1, 1]: exact enough that the step of the recorder, not of the quadrature, limits the figure.
const nodes: readonly (readonly [number, number])[] = [
  [0, 0.5688888888888889],
  [-0.5384693101056831, 0.47862867049936647],
  [0.5384693101056831, 0.47862867049936647],
  [-0.906179845938664, 0.23692688505618908],
  [0.906179845938664, 0.23692688505618908],
];

/** Gauss–Legendre, two points: exact to the third power. */
const TWO_POINT_NODE = 1 / Math.sqrt(3);
const NARROW_C = 1;
const NOTHING_EARNED = { all: 0, extrapolated: 0 };

/** Index points earned on one straight segment, counting only T ≥ onset, split where it crosses the extrapolation bounds. */
function earned(segment: Segment, curve: CureCurve, onsetC: number): { all: number; extrapolated: number } {
  const { fromS, toS, fromC, toC } = segment;
  const [coolest, hottest] = fromC < toC ? [fromC, toC] : [toC, fromC];
  if (hottest < onsetC) return NOTHING_EARNED;
  const [low, high] = [curve.lowestC - EXTRAPOLATION_C, curve.highestC + EXTRAPOLATION_C];
  if (hottest - coolest <= NARROW_C && coolest >= onsetC && !crosses(low) && !crosses(high)) {
    // Over a degree the rate bends so little that two points are as exact as five; a shift at a sample a second is mostly this.
    const [middle, half] = [(fromC + toC) / 2, ((toC - fromC) / 2) * TWO_POINT_NODE];
    const rate = (1 / requiredMinutes(curve, middle - half) + 1 / requiredMinutes(curve, middle + half)) / 2;
    const all = rate * ((toS - fromS) / 60) * 100;
    return { all, extrapolated: isExtrapolated(curve, middle) ? all : 0 };
  }
  function crosses(level: number): boolean {
    return level > coolest && level < hottest;
  }
  const cuts = [0, 1];
  for (const level of [onsetC, low, high]) {
    const at = (level - fromC) / (toC - fromC);
    if (at > 0 && at < 1) cuts.push(at);
  }
  cuts.sort((a, b) => a - b);
  let all = 0;
  let extrapolated = 0;
  for (let i = 1; i < cuts.length; i++) {
    const u0 = cuts[i - 1] as number;
    const u1 = cuts[i] as number;
    const middleC = fromC + ((u0 + u1) / 2) * (toC - fromC);
    if (middleC < onsetC) continue;
    let rate = 0;
    for (const [node, weight] of nodes)
      rate += weight / requiredMinutes(curve, fromC + ((u0 + u1) / 2 + (node * (u1 - u0)) / 2) * (toC - fromC));
    const part = (((rate / 2) * (u1 - u0) * (toS - fromS)) / 60) * 100;
    all += part;
    if (isExtrapolated(curve, middleC)) extrapolated += part;
  }
  return { all, extrapolated };
}

/**
 * Cure index of a trace: 100 × ∫ dt / t_req(T(t)), counting only T ≥ onset, T linear between samples; gaps longer
 * than three median intervals add nothing. Failures: those of `checkTrace`. O(samples).
 */
export function cureIndex(trace: Trace, curve: CureCurve, onsetC: number): Result<CureIndex> {
  const checked = checkTrace(trace);
  if (!checked.ok) return checked;
  const { segments, gaps } = segmentsOf(trace);
  let index = 0;
  let extrapolated = 0;
  for (const segment of segments) {
    const part = earned(segment, curve, onsetC);
    index += part.all;
    extrapolated += part.extrapolated;
  }
  let filled = index;
  for (const gap of gaps) {
    const hotter = Math.max(gap.fromC, gap.toC);
    filled += earned({ ...gap, fromC: hotter, toC: hotter }, curve, onsetC).all;
  }
  return ok({
    kind: "cure-index",
    index,
    extrapolatedShare: index > 0 ? extrapolated / index : 0,
    gaps: gaps.map(({ fromS, toS }) => ({ fromS, toS })),
    indexGapsFilledHot: filled,
  });
}

export type Hold = {
  readonly kind: "hold";
  readonly atC: number;
  readonly totalS: number;
  readonly longestS: number;
  readonly crossingsS: readonly number[];
};

/** How long a trace that ends now has been at or above a metal temperature without a break, s; a missing number is a break. */
export function heldUntilNow(trace: Trace, atC: number): number {
  let at = trace.timeS.length - 1;
  const endS = trace.timeS[at] ?? 0;
  while (at >= 0 && (trace.tempC[at] ?? Number.NEGATIVE_INFINITY) >= atC) at--;
  return Math.max(0, endS - (trace.timeS[at + 1] ?? endS));
}

/** Time at or above a metal temperature, in all and the longest unbroken stretch; crossings by linear interpolation; a gap ends a stretch. */
export function holdAt(trace: Trace, atC: number): Result<Hold> {
  const checked = checkTrace(trace);
  if (!checked.ok) return checked;
  let totalS = 0;
  let longestS = 0;
  let stretch = 0;
  const crossingsS: number[] = [];
  for (const { fromS, toS, fromC, toC, afterBreak } of segmentsOf(trace).segments) {
    if (afterBreak) stretch = 0;
    const crossing = fromC >= atC === toC >= atC ? null : fromS + ((atC - fromC) / (toC - fromC)) * (toS - fromS);
    if (crossing !== null) crossingsS.push(crossing);
    const aboveS = fromC >= atC ? (crossing ?? toS) - fromS : toC >= atC ? toS - (crossing ?? fromS) : 0;
    totalS += aboveS;
    stretch = fromC >= atC ? stretch + aboveS : aboveS;
    longestS = Math.max(longestS, stretch);
    if (toC < atC) stretch = 0;
  }
  return ok({ kind: "hold", atC, totalS, longestS, crossingsS });
}
