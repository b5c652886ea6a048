import { firstFrom } from "../control-charts/extremes";
import { err, ok, type Result } from "../result";

/** Seconds from the start and temperature in °C, one pair per sample; null where the recorder gave no number. */
export type Trace = { readonly timeS: readonly number[]; readonly tempC: readonly (number | null)[] };
export type Segment = { readonly fromS: number; readonly toS: number; readonly fromC: number; readonly toC: number };
export type Gap = { readonly fromS: number; readonly toS: number };

/** An interval longer than this many median intervals is a gap. */
export const GAP_MEDIAN_INTERVALS = 3;
/** This many samples in a row without a number make a channel dead. */
export const DEAD_SAMPLES = 3;
/** A channel that does not change at all while the oven's air moves more than this is dead. */
export const DEAD_WHILE_AIR_MOVES_C = 20;
/** The hottest and coldest an oven thermocouple can mean. */
const COLDEST_C = -60;
const HOTTEST_C = 1000;

/** Failures: `no-samples`, `lengths-differ`, `times-out-of-order` with the pair, `beyond-instrument`. */
export function checkTrace(trace: Trace): Result<Trace> {
  if (trace.timeS.length !== trace.tempC.length)
    return err({ kind: "lengths-differ", times: trace.timeS.length, temperatures: trace.tempC.length });
  if (trace.timeS.length < 2) return err({ kind: "no-samples", got: trace.timeS.length, need: 2 });
  for (let i = 0; i < trace.timeS.length; i++) {
    const time = trace.timeS[i] as number;
    const temp = trace.tempC[i] as number | null;
    if (!Number.isFinite(time)) return err({ kind: "not-finite", index: i, value: time });
    if (i > 0 && time <= (trace.timeS[i - 1] as number))
      return err({ kind: "times-out-of-order", index: i, previousS: trace.timeS[i - 1], timeS: time });
    if (temp !== null && !(temp >= COLDEST_C && temp <= HOTTEST_C))
      return err({ kind: "beyond-instrument", index: i, tempC: temp, least: COLDEST_C, most: HOTTEST_C });
  }
  return ok(trace);
}

export function medianIntervalS(timeS: readonly number[]): number {
  // A recorder keeps its interval: only where it does not is there anything to sort.
  const first = (timeS[1] as number) - (timeS[0] as number);
  let even = timeS.length > 1;
  for (let i = 2; even && i < timeS.length; i++) even = (timeS[i] as number) - (timeS[i - 1] as number) === first;
  if (even) return first;
  const steps = timeS
    .slice(1)
    .map((time, i) => time - (timeS[i] as number))
    .sort((a, b) => a - b);
  const middle = steps.length >> 1;
  return steps.length % 2 ? (steps[middle] as number) : ((steps[middle - 1] as number) + (steps[middle] as number)) / 2;
}

type Segments = {
  readonly segments: readonly (Segment & { readonly afterBreak: boolean })[];
  readonly gaps: readonly (Gap & { readonly fromC: number; readonly toC: number })[];
};
/** A trace is asked for its index, its over-bake and each hold: it is cut up once. */
const cutUp = new WeakMap<Trace, Segments>();

/** Splits a trace into straight segments between samples and the gaps that are never bridged. Missing samples open a gap when long enough. */
export function segmentsOf(trace: Trace): Segments {
  const known = cutUp.get(trace);
  if (known) return known;
  const limit = GAP_MEDIAN_INTERVALS * medianIntervalS(trace.timeS);
  const segments: (Segment & { afterBreak: boolean })[] = [];
  const gaps: (Gap & { fromC: number; toC: number })[] = [];
  let last: { s: number; c: number } | null = null;
  let afterBreak = true;
  for (let i = 0; i < trace.timeS.length; i++) {
    const c = trace.tempC[i] as number | null;
    if (c === null) continue;
    const s = trace.timeS[i] as number;
    if (last) {
      if (s - last.s > limit) {
        gaps.push({ fromS: last.s, toS: s, fromC: last.c, toC: c });
        afterBreak = true;
      } else {
        segments.push({ fromS: last.s, toS: s, fromC: last.c, toC: c, afterBreak });
        afterBreak = false;
      }
    }
    last = { s, c };
  }
  const found = { segments, gaps };
  cutUp.set(trace, found);
  return found;
}

/**
 * From when each channel is dead, s, or null: three samples without a number, or stuck. Stuck is no change at all while the
 * oven's air moves more than 20 °C, or while other metal falls so far or passes it by so much: a thin sheet that stands at
 * the set point while heavy metal still climbs to it is healthy. O(channels · samples).
 */
export function deadFromS(
  channels: readonly { readonly trace: Trace; readonly medium?: "air" | "metal" }[],
): readonly (number | null)[] {
  return channels.map(({ trace }, self) =>
    earliest(
      missingFrom(trace),
      stuckFrom(
        trace,
        channels.filter((_, i) => i !== self),
      ),
    ),
  );
}
const earliest = (a: number | null, b: number | null) => (a === null ? b : b === null ? a : Math.min(a, b));

function missingFrom(trace: Trace): number | null {
  let run = 0;
  for (let i = 0; i < trace.tempC.length; i++) {
    run = trace.tempC[i] === null ? run + 1 : 0;
    if (run === DEAD_SAMPLES) return trace.timeS[i - DEAD_SAMPLES + 1] as number;
  }
  return null;
}

function stuckFrom(
  trace: Trace,
  others: readonly { readonly trace: Trace; readonly medium?: "air" | "metal" }[],
): number | null {
  let start = 0;
  for (let i = 1; i <= trace.tempC.length; i++) {
    if (i < trace.tempC.length && trace.tempC[i] === trace.tempC[start]) continue;
    const at = trace.tempC[start];
    const fromS = trace.timeS[start] as number;
    const toS = trace.timeS[i - 1] as number;
    if (i - start >= DEAD_SAMPLES && typeof at === "number" && others.some((o) => leaves(o, at, fromS, toS)))
      return fromS;
    start = i;
  }
  return null;
}

/** Whether another channel moves as one that stands at `atC` would have had to, between two moments. O(log samples + samples between). */
function leaves(
  other: { readonly trace: Trace; readonly medium?: "air" | "metal" },
  atC: number,
  fromS: number,
  toS: number,
): boolean {
  const { timeS, tempC } = other.trace;
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  let falls = 0;
  for (let i = firstFrom(timeS, fromS); i < timeS.length && (timeS[i] as number) <= toS; i++) {
    const c = tempC[i] as number | null;
    if (c === null) continue;
    high = Math.max(high, c);
    low = Math.min(low, c);
    falls = Math.max(falls, high - c);
  }
  if (other.medium === "air") return high - low > DEAD_WHILE_AIR_MOVES_C;
  return falls > DEAD_WHILE_AIR_MOVES_C || (high - low > DEAD_WHILE_AIR_MOVES_C && high - atC > DEAD_WHILE_AIR_MOVES_C);
}

/** The trace up to a time, s, cut between samples by interpolation; used to stop at the pull. */
export function traceUntil(trace: Trace, endS: number): Trace {
  const timeS: number[] = [];
  const tempC: (number | null)[] = [];
  for (let i = 0; i < trace.timeS.length; i++) {
    const s = trace.timeS[i] as number;
    if (s > endS) {
      const before = tempC[tempC.length - 1];
      const c = trace.tempC[i] as number | null;
      const from = timeS[timeS.length - 1];
      if (
        from !== undefined &&
        from < endS &&
        typeof before === "number" &&
        c !== null &&
        s - from <= GAP_MEDIAN_INTERVALS * medianIntervalS(trace.timeS)
      ) {
        timeS.push(endS);
        tempC.push(before + ((c - before) * (endS - from)) / (s - from));
      }
      break;
    }
    timeS.push(s);
    tempC.push(trace.tempC[i] as number | null);
  }
  return { timeS, tempC };
}

/** Rates are taken over so long, s: one sample of a recorder is noise. */
const RATE_OVER_S = 60;
/** Metal falls faster than this share of its fastest climb when it leaves the oven; when only the set point went down, slower. */
const FALL_OF_CLIMB = 0.3;
/** What falls by less has not been pulled, °C; and so much above where it fell from, it was not for good. */
const LEAST_FALL_C = 5;

/**
 * Pull time where no door event was recorded, s: where the middle of the metal channels begins to fall for good, and
 * faster than its oven can: a step down of the set point is no pull. Null where it never does, or where nobody can tell.
 */
export function findPullS(metal: readonly Trace[]): number | null {
  const first = metal[0];
  if (!first) return null;
  const medians: { s: number; c: number }[] = [];
  for (let i = 0; i < first.timeS.length; i++) {
    const here = metal
      .flatMap((trace) => (typeof trace.tempC[i] === "number" ? [trace.tempC[i] as number] : []))
      .sort((a, b) => a - b);
    if (here.length > 0) medians.push({ s: first.timeS[i] as number, c: here[here.length >> 1] as number });
  }
  // Hottest still to come, so that a dip is told from a fall for good.
  const after = medians.map((m) => m.c);
  for (let i = after.length - 2; i >= 0; i--) after[i] = Math.max(after[i] as number, after[i + 1] as number);
  let climb = 0;
  const ends: number[] = [];
  for (let i = 0, j = 0; i < medians.length; i++) {
    const from = medians[i] as { s: number; c: number };
    while (j < medians.length - 1 && (medians[j] as { s: number }).s - from.s < RATE_OVER_S) j++;
    ends.push(j);
    const to = medians[j] as { s: number; c: number };
    if (j > i) climb = Math.max(climb, (to.c - from.c) / (to.s - from.s));
  }
  const starts = medians.findIndex((from, i) => {
    const j = ends[i] as number;
    const to = medians[j] as { s: number; c: number };
    const falls = (from.c - to.c) / (to.s - from.s);
    return (
      j > i && from.c - to.c >= LEAST_FALL_C / 2 && falls >= FALL_OF_CLIMB * climb && (after[j] as number) < from.c
    );
  });
  if (starts < 0) return null;
  // Recorder noise breaks a strict fall: the last sample within 1 °C of the highest about there is where it begins.
  const end = medians.at(-1) as { s: number; c: number };
  const last = ends[starts] as number;
  const since = (medians[starts] as { s: number }).s - 5 * RATE_OVER_S;
  const near = medians.slice(0, last + 1).filter((m) => m.s >= since);
  const high = near.reduce((most, m) => Math.max(most, m.c), Number.NEGATIVE_INFINITY);
  const at = near.findLast((m) => m.c >= high - 1);
  return at && at.c - end.c >= LEAST_FALL_C ? at.s : null;
}
