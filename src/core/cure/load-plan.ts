import { err, ok, type Result } from "../result";
import type { PowderSchedule } from "./judge-bake";
import {
  COOLING_TAU_FACTOR,
  heatThrough,
  type OvenAir,
  type Section,
  sectionTimeConstant,
  shiftedAir,
  USUAL_ROOM_C,
} from "./oven-air";
import {
  type CureCurve,
  DEFAULT_ONSET_BELOW_SHEET_C,
  fitCureCurve,
  fitOverbakeCurve,
  requiredMinutes,
} from "./schedule";

export type PlannedPiece = {
  readonly id: string;
  readonly section: Section;
  readonly schedule: PowderSchedule;
  /** Of the metal when the door closes, °C: a preheated piece starts warm. */
  readonly startC: number;
  /** How far the air of its place is off the oven's, by the newest survey, K; 0 unless said. */
  readonly airOffC?: number;
  /** What it has earned before the plan begins: a load that is in already is planned from now. */
  readonly earned?: {
    readonly index: number;
    readonly overbake: number;
    /** Seconds it has been at or over each point of its sheet without a break, in the order of the points. */
    readonly heldS?: readonly number[];
  };
};
export type PiecePlan = {
  readonly id: string;
  readonly tauS: number;
  /** Null where the time constant was measured. Over 0.1 the piece is not of one temperature, and the plan is rough. */
  readonly biot: number | null;
  readonly lumpedHolds: boolean;
  /** The sheet's lowest temperature and when the metal is there, s after the door; null when it never is. */
  readonly toC: number;
  readonly reachesS: number | null;
  /** Earliest pull that cures it, by its index and, where asked, by a hold of its sheet too, s; null when the longest bake looked at does not. */
  readonly readyS: number | null;
  /** Latest pull that does not over-bake it, its cooling counted, s; null when the longest bake looked at does not. */
  readonly spoilsS: number | null;
  readonly curve: CureCurve;
  readonly timeS: readonly number[];
  readonly metalC: readonly number[];
  /** Cure index if pulled then, cooling left out; over-bake index with it. */
  readonly index: readonly number[];
  readonly overbake: readonly number[] | null;
};
export type LoadPlan = {
  readonly kind: "load-plan";
  readonly pieces: readonly PiecePlan[];
  /** From and to, s after the door, in which every piece is cured and none over-baked. Null: there is none. */
  readonly windowS: readonly [number, number | null] | null;
  /** Which piece the window waits for, and which ends it. */
  readonly slowest: string | null;
  readonly fastest: string | null;
  /** Loads that can each be pulled as one, fewest first; one where there is a window. */
  readonly loads: readonly { readonly pieces: readonly string[]; readonly windowS: readonly [number, number | null] }[];
  /** Pieces this program does not cure in the longest bake looked at, and those it spoils before they are cured. */
  readonly never: readonly string[];
  readonly spoiltFirst: readonly string[];
};

/** Beyond this no bake is planned. */
export const LONGEST_BAKE_S = 4 * 3600;
/** Steps of the plan, s: the index by the trapezium is within 0.1 of 100 of the integral. */
const STEP_S = 10;

/**
 * A mixed load under one program of the oven's air: for each piece when its metal is there, its index at any pull, and the
 * pulls that cure it without over-baking it; the time that does so for all, else the fewest loads that can each be pulled
 * as one. A piece's good pulls are one interval, so the fewest loads are the fewest moments that meet every interval.
 * `leastIndex` is what the site takes as cured (100, or its own); with `holdToo` a hold of the sheet must be met as well, so
 * that neither leaves the other to be looked at. Failures: `no-pieces`, those of the curves, the sections
 * and the air, with the piece. O(pieces · steps).
 */
export function planLoad(
  air: OvenAir,
  pieces: readonly PlannedPiece[],
  options: { readonly leastIndex?: number; readonly holdToo?: boolean; readonly roomC?: number } = {},
): Result<LoadPlan> {
  const { leastIndex = 100, holdToo = false, roomC = USUAL_ROOM_C } = options;
  if (pieces.length === 0) return err({ kind: "no-pieces" });
  if (!(leastIndex > 0) || !Number.isFinite(leastIndex))
    return err({ kind: "bad-input", name: "leastIndex", value: leastIndex });
  const planned: PiecePlan[] = [];
  for (const piece of pieces) {
    const one = planPiece(air, piece, leastIndex, holdToo, roomC);
    if (!one.ok) return err({ ...one.error, piece: piece.id });
    planned.push(one.value);
  }
  const curable = planned.filter((p) => p.readyS !== null && (p.spoilsS === null || p.spoilsS >= p.readyS));
  const loads = fewestLoads(curable);
  const [only] = loads;
  const whole = loads.length === 1 && only && curable.length === planned.length ? only : null;
  const by = (pick: (p: PiecePlan) => number, most: boolean) =>
    planned.reduce((best, p) => ((most ? pick(p) > pick(best) : pick(p) < pick(best)) ? p : best));
  return ok({
    kind: "load-plan",
    pieces: planned,
    windowS: whole?.windowS ?? null,
    slowest: by((p) => p.readyS ?? Number.POSITIVE_INFINITY, true).id,
    fastest: planned.some((p) => p.spoilsS !== null)
      ? by((p) => p.spoilsS ?? Number.POSITIVE_INFINITY, false).id
      : null,
    loads,
    never: planned.filter((p) => p.readyS === null).map((p) => p.id),
    spoiltFirst: planned
      .filter((p) => p.readyS !== null && p.spoilsS !== null && p.spoilsS < p.readyS)
      .map((p) => p.id),
  });
}

function planPiece(
  air: OvenAir,
  piece: PlannedPiece,
  leastIndex: number,
  holdToo: boolean,
  roomC: number,
): Result<PiecePlan> {
  const constant = sectionTimeConstant(piece.section);
  if (!constant.ok) return constant;
  const curve = fitCureCurve(piece.schedule.points);
  if (!curve.ok) return curve;
  const over = piece.schedule.overbake?.length ? fitOverbakeCurve(piece.schedule.overbake, curve.value) : null;
  if (over && !over.ok) return over;
  const onsetC = piece.schedule.onsetC ?? curve.value.lowestC - DEFAULT_ONSET_BELOW_SHEET_C;
  const { tauS, biot, lumpedHolds } = constant.value;
  const heated = heatThrough(
    shiftedAir(air, piece.airOffC ?? 0),
    { tauS, startC: piece.startC },
    LONGEST_BAKE_S,
    STEP_S,
  );
  if (!heated.ok) return heated;
  const { timeS, tempC } = heated.value.metal;
  const metalC = tempC as readonly number[];
  const index = accumulate(metalC, curve.value, onsetC, piece.earned?.index ?? 0);
  const cooling = over ? coolingIndex(over.value, onsetC, tauS * COOLING_TAU_FACTOR, roomC) : null;
  const overAt = over ? accumulate(metalC, over.value, onsetC, piece.earned?.overbake ?? 0) : null;
  const overbake = overAt && cooling ? overAt.map((x, i) => x + cooling(metalC[i] as number)) : null;
  const toC = curve.value.lowestC;
  return ok({
    id: piece.id,
    tauS,
    biot,
    lumpedHolds,
    toC,
    reachesS: firstAt(timeS, metalC, toC),
    readyS: later(
      firstAt(timeS, index, leastIndex),
      holdToo ? holdMetAt(timeS, metalC, piece.schedule, piece.earned?.heldS ?? []) : 0,
    ),
    spoilsS: overbake ? firstAt(timeS, overbake, 100) : null,
    curve: curve.value,
    timeS,
    metalC,
    index,
    overbake,
  });
}

/** Index points earned by each sample, trapezium over the steps, counting only T ≥ onset. */
function accumulate(metalC: readonly number[], curve: CureCurve, onsetC: number, from: number): number[] {
  const rate = metalC.map((c) => (c >= onsetC ? 100 / (60 * requiredMinutes(curve, c)) : 0));
  const sums = [from];
  for (let i = 1; i < rate.length; i++)
    sums.push((sums[i - 1] as number) + (((rate[i - 1] as number) + (rate[i] as number)) / 2) * STEP_S);
  return sums;
}

const later = (a: number | null, b: number | null): number | null => (a === null || b === null ? null : Math.max(a, b));

/** When the first of the sheet's holds is met without a break, s; null when none is. */
function holdMetAt(
  timeS: readonly number[],
  metalC: readonly number[],
  schedule: PowderSchedule,
  heldS: readonly number[],
): number | null {
  let best: number | null = null;
  for (const [n, point] of schedule.points.entries()) {
    const needS = point.minutes * 60;
    let since: number | null = (metalC[0] as number) >= point.metalC ? -(heldS[n] ?? 0) : null;
    for (let i = 1; i < timeS.length; i++) {
      const [a, b] = [metalC[i - 1] as number, metalC[i] as number];
      const [from, to] = [timeS[i - 1] as number, timeS[i] as number];
      if (b < point.metalC) since = null;
      else since ??= a >= point.metalC ? from : from + ((point.metalC - a) / (b - a)) * (to - from);
      if (since !== null && to - since >= needS) {
        const at = Math.max(0, since + needS);
        best = best === null ? at : Math.min(best, at);
        break;
      }
    }
  }
  return best;
}

/** What cooling adds from a temperature down to the onset: ∫ dt / t_req along T' = −(T − room)/τ, as a function of where it begins. */
function coolingIndex(curve: CureCurve, onsetC: number, coolTauS: number, roomC: number): (fromC: number) => number {
  const least = Math.max(onsetC, roomC + 1);
  const sums = [0];
  const rateAt = (c: number) => (100 * coolTauS) / (60 * requiredMinutes(curve, c) * (c - roomC));
  for (let c = least; sums.length < 700; c++) sums.push((sums.at(-1) as number) + (rateAt(c) + rateAt(c + 1)) / 2);
  return (fromC) => {
    if (fromC <= least) return 0;
    const at = Math.min(fromC - least, sums.length - 2);
    const low = Math.floor(at);
    return (sums[low] as number) + (at - low) * ((sums[low + 1] as number) - (sums[low] as number));
  };
}

/** When a rising row first is at a level, linear between samples; null when it never is. */
function firstAt(timeS: readonly number[], values: readonly number[], level: number): number | null {
  const i = values.findIndex((v) => v >= level);
  if (i < 0) return null;
  if (i === 0) return timeS[0] as number;
  const [before, here] = [values[i - 1] as number, values[i] as number];
  const [from, to] = [timeS[i - 1] as number, timeS[i] as number];
  return from + ((level - before) / (here - before)) * (to - from);
}

/** The fewest moments that meet every interval [ready, spoils]: always the earliest end that is still open. */
function fewestLoads(pieces: readonly PiecePlan[]): LoadPlan["loads"][number][] {
  const endOf = (p: PiecePlan) => p.spoilsS ?? Number.POSITIVE_INFINITY;
  const left = [...pieces].sort((a, b) => endOf(a) - endOf(b));
  const loads: LoadPlan["loads"][number][] = [];
  while (left.length > 0) {
    const end = endOf(left[0] as PiecePlan);
    const mine = left.filter((p) => (p.readyS as number) <= end);
    for (const p of mine) left.splice(left.indexOf(p), 1);
    loads.push({
      pieces: mine.map((p) => p.id),
      windowS: [Math.max(...mine.map((p) => p.readyS as number)), Number.isFinite(end) ? end : null],
    });
  }
  return loads;
}

/** The value of a planned row at a moment, s: linear between its steps, held beyond them. */
export function plannedAt(row: readonly number[], atS: number): number {
  const at = Math.min(Math.max(0, atS / STEP_S), row.length - 1);
  const low = Math.min(Math.floor(at), row.length - 2);
  return (row[low] as number) + (at - low) * ((row[low + 1] as number) - (row[low] as number));
}
