import { fahrenheitToC } from "../units";
import type { BakeChannel, PowderSchedule } from "./judge-bake";
import { fitTimeConstant } from "./learn-heat";
import { deadFromS, findPullS, medianIntervalS, type Trace } from "./trace";

export type TraceFault =
  /** Up or down faster than metal or air can, at one sample. */
  | {
      readonly kind: "absurd-rate";
      readonly channel: string;
      readonly atS: number;
      readonly fromC: number;
      readonly toC: number;
    }
  /** A metal channel that follows the air at once: its probe hangs in the air. */
  | { readonly kind: "heats-like-air"; readonly channel: string; readonly behindC: number }
  /** An air channel that lags like metal while a metal one does not: their plugs are changed over. */
  | { readonly kind: "changed-over"; readonly channel: string; readonly with: string }
  /** All of it reads as Fahrenheit where Celsius was said: offered, never done. */
  | { readonly kind: "fahrenheit-as-celsius"; readonly peakC: number; readonly asC: number }
  /** Leaves the others steadily while they hold. */
  | { readonly kind: "drifts"; readonly channel: string; readonly perHourC: number };

/** Faster than this between two samples is a fault of the probe, not of the oven: °C in one step, and per second. */
export const ABSURD_STEP_C = 60;
const ABSURD_PER_S = 5;
/** A probe this near to the air while the air climbs is in it. */
const LIKE_AIR_C = 10;
/** The part of the climb that is looked at: under this share of the rise the channels are far apart if they ever are. */
const CLIMB_SHARE = 0.85;
/** Over the hold a channel that moves this much against the others in an hour drifts. */
const DRIFT_PER_HOUR_C = 12;
const LEAST_HOLD_S = 480;
/** Channels are compared at so many samples; jumps are looked for in all of them. */
const MOST_COMPARED = 1500;
/** Under this no metal or air heats in an oven; a channel that does is in the air. */
const AIR_TAU_S = 45;

/**
 * What is wrong with a bake's channels, each said with its numbers; nothing is changed. Rates, probes in the air, plugs
 * changed over, a whole file in Fahrenheit, drift at the hold. O(channels · samples).
 */
export function traceFaults(channels: readonly BakeChannel[], schedule: PowderSchedule | null = null): TraceFault[] {
  const faults: TraceFault[] = [];
  const dead = deadFromS(channels);
  const step = Math.max(1, Math.ceil((channels[0]?.trace.timeS.length ?? 0) / MOST_COMPARED));
  const alive = channels.flatMap((c, i) => (dead[i] === null ? [{ ...c, trace: everyNth(c.trace, step) }] : []));
  const air = alive.filter((c) => c.medium === "air");
  const metal = alive.filter((c) => c.medium === "metal");
  const pullS = findPullS(metal.map((c) => c.trace)) ?? Number.POSITIVE_INFINITY;
  const fastest =
    air.length > 0 ? undefined : alive.map((c) => ({ c, lag: climbLag(c, alive) })).sort((a, b) => b.lag - a.lag)[0]?.c;
  const laggingAir = air.find((a) => metal.some((m) => aheadOf(m, a, pullS) > LIKE_AIR_C));
  if (laggingAir) {
    const first = [...metal].sort((a, b) => aheadOf(b, laggingAir, pullS) - aheadOf(a, laggingAir, pullS))[0];
    if (first) faults.push({ kind: "changed-over", channel: laggingAir.name, with: first.name });
  } else {
    for (const m of metal) {
      const reference = air[0];
      if (reference) {
        const behindC = -aheadOf(m, reference, pullS);
        if (behindC < LIKE_AIR_C && metal.length > 1) faults.push({ kind: "heats-like-air", channel: m.name, behindC });
      } else if (fastest === m && metal.length > 1) {
        // Without an air channel the rest of the load is the measure: what leads all of it by far is not metal in it.
        const others = metal.filter((o) => o !== m);
        const leads = Math.min(...others.map((o) => aheadOf(m, o, pullS)));
        const fit = leads > 4 * LIKE_AIR_C && others[0] ? fitTimeConstant(m.trace, others[0].trace, pullS) : null;
        if (fit?.ok && fit.value.rmsC < LIKE_AIR_C && ownTauS(m.trace) < AIR_TAU_S * 4)
          faults.push({ kind: "heats-like-air", channel: m.name, behindC: 0 });
      }
    }
  }
  // The middle of the channels' peaks, so that one bad sample is no unit; a room of 20 °C reads as 68 °F.
  const peaks = alive
    .map((c) => c.trace.tempC.reduce((most: number, t) => Math.max(most, t ?? most), Number.NEGATIVE_INFINITY))
    .sort((x, y) => x - y);
  const peakC = peaks[peaks.length >> 1] ?? 0;
  const startC = alive.reduce(
    (least, c) => Math.min(least, c.trace.tempC.find((t): t is number => t !== null) ?? least),
    Number.POSITIVE_INFINITY,
  );
  const sheetC = schedule?.points.reduce((most, p) => Math.max(most, p.metalC), 0) ?? 200;
  const asC = fahrenheitToC(peakC);
  if (peakC > sheetC + 100 && asC > sheetC - 90 && asC < sheetC + 60 && startC > 45)
    faults.push({ kind: "fahrenheit-as-celsius", peakC, asC });
  const drifting = metal
    .flatMap((m) => {
      const perHourC = driftOf(m, metal, pullS);
      return perHourC === null ? [] : [{ channel: m.name, perHourC }];
    })
    .sort((x, y) => Math.abs(y.perHourC) - Math.abs(x.perHourC))[0];
  // The one that leaves makes the others seem to leave it: the one that goes furthest is named.
  if (drifting && Math.abs(drifting.perHourC) > DRIFT_PER_HOUR_C) faults.push({ kind: "drifts", ...drifting });
  const inAir = new Set(
    faults.flatMap((f) => (f.kind === "changed-over" ? [f.with] : f.kind === "heats-like-air" ? [f.channel] : [])),
  );
  for (const channel of channels) {
    // Air falls at once when the door opens; metal cannot.
    const jump = absurdStep(channel.trace, channel.medium === "air" || inAir.has(channel.name));
    if (jump) faults.push({ kind: "absurd-rate", channel: channel.name, ...jump });
  }
  return faults;
}

/** Every so-manieth sample, the same of each channel, so that they stay side by side. */
function everyNth(trace: Trace, n: number): Trace {
  if (n === 1) return trace;
  return { timeS: trace.timeS.filter((_, i) => i % n === 0), tempC: trace.tempC.filter((_, i) => i % n === 0) };
}

function absurdStep(trace: Trace, mayFall: boolean): { atS: number; fromC: number; toC: number } | null {
  const usualS = medianIntervalS(trace.timeS);
  let last: { s: number; c: number } | null = null;
  for (let i = 0; i < trace.timeS.length; i++) {
    const c = trace.tempC[i] as number | null;
    if (c === null) continue;
    const s = trace.timeS[i] as number;
    if (last && s - last.s <= 3 * usualS) {
      const step = Math.abs(c - last.c);
      if (
        !(mayFall && c < last.c) &&
        step > ABSURD_STEP_C &&
        step / (s - last.s) > Math.min(ABSURD_PER_S, ABSURD_STEP_C / usualS)
      )
        return { atS: s, fromC: last.c, toC: c };
    }
    last = { s, c };
  }
  return null;
}

/** Mean lead of one channel over another while the second climbs, °C; nothing where they share no samples. */
function aheadOf(one: BakeChannel, other: BakeChannel, untilS: number): number {
  const from = other.trace.tempC.find((t): t is number => t !== null) ?? 0;
  const top = other.trace.tempC.reduce((most: number, t) => Math.max(most, t ?? most), Number.NEGATIVE_INFINITY);
  let sum = 0;
  let n = 0;
  for (let i = 0; i < other.trace.timeS.length && i < one.trace.timeS.length; i++) {
    const [a, b] = [one.trace.tempC[i], other.trace.tempC[i]];
    if ((other.trace.timeS[i] as number) > untilS || typeof a !== "number" || typeof b !== "number") continue;
    if (b > from + CLIMB_SHARE * (top - from)) break;
    sum += a - b;
    n++;
  }
  return n > 0 ? sum / n : 0;
}

/** How far a channel leads the slowest of all. */
const climbLag = (c: BakeChannel, all: readonly BakeChannel[]): number =>
  all.reduce((most, o) => (o === c ? most : Math.max(most, aheadOf(c, o, Number.POSITIVE_INFINITY))), 0);

/** Time to 63 % of its own rise, s. */
function ownTauS(trace: Trace): number {
  const from = trace.tempC.find((t): t is number => t !== null) ?? 0;
  const top = trace.tempC.reduce((most: number, t) => Math.max(most, t ?? most), Number.NEGATIVE_INFINITY);
  const i = trace.tempC.findIndex((t) => t !== null && t > from + 0.632 * (top - from));
  return i < 0 ? Number.POSITIVE_INFINITY : (trace.timeS[i] as number) - (trace.timeS[0] as number);
}

/** Slope of a channel against the mean of the others over the last third before the pull, °C per hour; null where the hold is short. */
function driftOf(channel: BakeChannel, metal: readonly BakeChannel[], pullS: number): number | null {
  const others = metal.filter((m) => m !== channel);
  if (others.length < 2) return null;
  const endS = Math.min(pullS, channel.trace.timeS.at(-1) ?? 0);
  const fromS = (2 / 3) * endS;
  if (endS - fromS < LEAST_HOLD_S) return null;
  const points: [number, number][] = [];
  for (let i = 0; i < channel.trace.timeS.length; i++) {
    const s = channel.trace.timeS[i] as number;
    const c = channel.trace.tempC[i];
    if (s < fromS || s > endS || typeof c !== "number") continue;
    const beside = others.flatMap((o) => (typeof o.trace.tempC[i] === "number" ? [o.trace.tempC[i] as number] : []));
    if (beside.length < 2) continue;
    const middle = [...beside].sort((a, b) => a - b)[beside.length >> 1] as number;
    points.push([s, c - middle]);
  }
  if (points.length < 8) return null;
  const ms = points.reduce((a, p) => a + p[0], 0) / points.length;
  const md = points.reduce((a, p) => a + p[1], 0) / points.length;
  const slope =
    points.reduce((a, [s, d]) => a + (s - ms) * (d - md), 0) / points.reduce((a, [s]) => a + (s - ms) ** 2, 0);
  // Heavy metal still climbing toward the others comes nearer to them; only what goes away from them drifts.
  const [start, end] = [points[0]?.[1] ?? 0, points.at(-1)?.[1] ?? 0];
  return Math.abs(end) > Math.abs(start) ? slope * 3600 : null;
}
