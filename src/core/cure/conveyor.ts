import { err, ok, type Result } from "../result";
import { type Metal, plateTimeConstant } from "./heat-up";
import type { PowderSchedule } from "./judge-bake";
import { COOLING_TAU_FACTOR, USUAL_ROOM_C } from "./oven-air";
import {
  type CureCurve,
  DEFAULT_ONSET_BELOW_SHEET_C,
  fitCureCurve,
  fitOverbakeCurve,
  requiredMinutes,
} from "./schedule";
import type { Trace } from "./trace";

/** A stretch of a conveyor oven in order of travel: length m, air °C, effective heat transfer W/(m² K); infrared counts as hot air. */
export type Zone = {
  readonly name: string;
  readonly lengthM: number;
  readonly airC: number;
  readonly hWPerM2K: number;
};
export type ConveyorPiece = {
  readonly id: string;
  readonly metal: Metal;
  readonly sectionMm: number;
  readonly schedule: PowderSchedule;
};
/** The line stood still for so long, s, when the piece was so far in, m. */
export type Standstill = { readonly atM: number; readonly forS: number };
export type ConveyorRun = {
  readonly trace: Trace;
  readonly index: number;
  /** With cooling outside; null where the sheet gives no over-bake. */
  readonly overbake: number | null;
  readonly peakC: number;
  readonly dwellS: number;
};

const STEPS_PER_ZONE = 60;
const COOLING_S = 3600;
/** Speeds looked at, m/min. */
export const SLOWEST_M_PER_MIN = 0.05;
export const FASTEST_M_PER_MIN = 20;

/** Failures: `no-zones`, `bad-input` with the zone. */
function checkZones(zones: readonly Zone[]): Result<readonly Zone[]> {
  if (zones.length === 0) return err({ kind: "no-zones" });
  for (const zone of zones)
    for (const [name, value] of [
      ["lengthM", zone.lengthM],
      ["hWPerM2K", zone.hWPerM2K],
      ["airC", zone.airC],
    ] as const)
      if (!(value > 0) || !Number.isFinite(value) || (name === "airC" && value >= 1000))
        return err({ kind: "bad-input", name, value, zone: zone.name });
  return ok(zones);
}

/**
 * One piece through the zones at a speed, m/min, and out into the room: its trace, index and over-bake index. A standstill
 * holds it where it is, in that zone's air. Failures: those of the zones, the section and the curves, `bad-input`.
 */
export function throughConveyor(
  zones: readonly Zone[],
  piece: ConveyorPiece,
  speedMPerMin: number,
  options: {
    readonly stop?: Standstill | null;
    /** From this place on the line runs at another speed. */
    readonly change?: { readonly atM: number; readonly toMPerMin: number } | null;
    readonly startC?: number;
    readonly roomC?: number;
  } = {},
): Result<ConveyorRun> {
  const { stop = null, change = null, startC = USUAL_ROOM_C, roomC = USUAL_ROOM_C } = options;
  const checked = checkZones(zones);
  if (!checked.ok) return checked;
  if (!(speedMPerMin > 0) || !Number.isFinite(speedMPerMin))
    return err({ kind: "bad-input", name: "speedMPerMin", value: speedMPerMin });
  if (stop && !(stop.forS >= 0 && Number.isFinite(stop.forS) && stop.atM >= 0))
    return err({ kind: "bad-input", name: "forS", value: stop.forS });
  if (change && !(change.toMPerMin > 0 && Number.isFinite(change.toMPerMin) && change.atM >= 0))
    return err({ kind: "bad-input", name: "toMPerMin", value: change.toMPerMin });
  const curve = fitCureCurve(piece.schedule.points);
  if (!curve.ok) return curve;
  const over = piece.schedule.overbake?.length ? fitOverbakeCurve(piece.schedule.overbake, curve.value) : null;
  if (over && !over.ok) return over;
  const onsetC = piece.schedule.onsetC ?? curve.value.lowestC - DEFAULT_ONSET_BELOW_SHEET_C;
  const secondsFrom = (fromM: number, toM: number): number => {
    const turnM = change ? Math.min(Math.max(change.atM, fromM), toM) : toM;
    const after = change ? ((toM - turnM) / change.toMPerMin) * 60 : 0;
    return ((turnM - fromM) / speedMPerMin) * 60 + after;
  };
  const timeS = [0];
  const tempC = [startC];
  const go = (airC: number, tauS: number, forS: number) => {
    const from = tempC.at(-1) as number;
    const since = timeS.at(-1) as number;
    for (let i = 1; i <= STEPS_PER_ZONE; i++) {
      const s = (forS * i) / STEPS_PER_ZONE;
      timeS.push(since + s);
      tempC.push(airC + (from - airC) * Math.exp(-s / tauS));
    }
  };
  let atM = 0;
  let slowestTauS = 0;
  for (const zone of zones) {
    const constant = plateTimeConstant({
      material: piece.metal,
      plateMm: piece.sectionMm,
      hWPerM2K: zone.hWPerM2K,
    });
    if (!constant.ok) return constant;
    const { tauS } = constant.value;
    slowestTauS = Math.max(slowestTauS, tauS);
    const endM = atM + zone.lengthM;
    if (stop && stop.forS > 0 && stop.atM >= atM && stop.atM < endM) {
      if (stop.atM > atM) go(zone.airC, tauS, secondsFrom(atM, stop.atM));
      go(zone.airC, tauS, stop.forS);
      go(zone.airC, tauS, secondsFrom(stop.atM, endM));
    } else go(zone.airC, tauS, secondsFrom(atM, endM));
    atM = endM;
  }
  const dwellS = timeS.at(-1) as number;
  const peakC = tempC.reduce((a, b) => Math.max(a, b));
  // Inside the oven cure counts; outside, the tail goes to the over-bake alone, as in a batch plan.
  const index = earned({ timeS: [...timeS], tempC: [...tempC] }, curve.value, onsetC);
  go(roomC, slowestTauS * COOLING_TAU_FACTOR, COOLING_S);
  return ok({
    trace: { timeS, tempC },
    index,
    overbake: over ? earned({ timeS, tempC }, over.value, onsetC) : null,
    peakC,
    dwellS,
  });
}

/** The integral by the trapezium on unequal steps: gaps are no concern in a computed trace. */
function earned(
  trace: { timeS: readonly number[]; tempC: readonly number[] },
  curve: CureCurve,
  onsetC: number,
): number {
  const rate = trace.tempC.map((c) => (c >= onsetC ? 100 / (60 * requiredMinutes(curve, c)) : 0));
  let sum = 0;
  for (let i = 1; i < rate.length; i++)
    sum +=
      (((rate[i - 1] as number) + (rate[i] as number)) / 2) *
      ((trace.timeS[i] as number) - (trace.timeS[i - 1] as number));
  return sum;
}

export type SpeedBand = {
  readonly kind: "speed-band";
  /** Slowest that over-bakes nothing (null: no sheet gives an over-bake) and fastest that cures all, m/min. */
  readonly slowestMPerMin: number | null;
  readonly fastestMPerMin: number;
  /** The heaviest decides how fast, the lightest how slow. */
  readonly fastestFor: string;
  readonly slowestFor: string | null;
  /** False where no speed does both: the pieces want runs of their own. */
  readonly feasible: boolean;
};

/**
 * The speeds that cure every piece without over-baking any: the index falls with the speed, so each bound is one
 * bisection. `leastIndex` is what the site takes as cured. Failures: `no-pieces`, `never-cures` (with the piece, even at
 * the slowest speed looked at), those of `throughConveyor`. O(pieces · zones).
 */
export function speedBand(
  zones: readonly Zone[],
  pieces: readonly ConveyorPiece[],
  leastIndex = 100,
): Result<SpeedBand> {
  if (pieces.length === 0) return err({ kind: "no-pieces" });
  let fastest: [number, string] | null = null;
  let slowest: [number, string] | null = null;
  for (const piece of pieces) {
    const run = (speed: number) => throughConveyor(zones, piece, speed);
    const least = run(SLOWEST_M_PER_MIN);
    if (!least.ok) return err({ ...least.error, piece: piece.id });
    if (least.value.index < leastIndex)
      return err({ kind: "never-cures", piece: piece.id, peakC: least.value.peakC, index: least.value.index });
    const highest = bisect((speed) => {
      const found = run(speed);
      return found.ok && found.value.index >= leastIndex;
    });
    if (!fastest || highest < fastest[0]) fastest = [highest, piece.id];
    if (least.value.overbake !== null && least.value.overbake > 100) {
      const still = bisect((speed) => {
        const found = run(speed);
        return found.ok && (found.value.overbake ?? 0) > 100;
      });
      if (!slowest || still > slowest[0]) slowest = [still, piece.id];
    }
  }
  const [fastestMPerMin, fastestFor] = fastest as [number, string];
  return ok({
    kind: "speed-band",
    slowestMPerMin: slowest?.[0] ?? null,
    fastestMPerMin,
    fastestFor,
    slowestFor: slowest?.[1] ?? null,
    feasible: !slowest || slowest[0] <= fastestMPerMin,
  });
}

/** The highest speed for which a property that holds when slow still holds. */
function bisect(holds: (speed: number) => boolean): number {
  let [low, high] = [SLOWEST_M_PER_MIN, FASTEST_M_PER_MIN];
  if (holds(high)) return high;
  for (let i = 0; i < 50 && high - low > 1e-6; i++) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** Places in an oven looked at one by one, m apart. */
const PLACE_STEP_M = 0.5;

export type StopEffect = { readonly atM: number; readonly index: number; readonly overbake: number | null };

function byPlace(zones: readonly Zone[], runAt: (atM: number) => Result<ConveyorRun>): Result<readonly StopEffect[]> {
  const lengthM = zones.reduce((sum, z) => sum + z.lengthM, 0);
  const effects: StopEffect[] = [];
  for (let atM = 0; atM < lengthM; atM += PLACE_STEP_M) {
    const run = runAt(atM);
    if (!run.ok) return run;
    effects.push({ atM, index: run.value.index, overbake: run.value.overbake });
  }
  return ok(effects);
}

/**
 * What a standstill does to a piece wherever in the oven it is: index and over-bake by its place when the line stopped,
 * every half metre. Failures: those of `throughConveyor`. O(places · zones).
 */
export function stopEffects(
  zones: readonly Zone[],
  piece: ConveyorPiece,
  speedMPerMin: number,
  forS: number,
): Result<readonly StopEffect[]> {
  return byPlace(zones, (atM) => throughConveyor(zones, piece, speedMPerMin, { stop: { atM, forS } }));
}

/**
 * What a change of speed does to a piece wherever in the oven it is: index and over-bake by its place as the speed changed,
 * every half metre. Failures: those of `throughConveyor`. O(places · zones).
 */
export function speedChangeEffects(
  zones: readonly Zone[],
  piece: ConveyorPiece,
  fromMPerMin: number,
  toMPerMin: number,
): Result<readonly StopEffect[]> {
  return byPlace(zones, (atM) => throughConveyor(zones, piece, fromMPerMin, { change: { atM, toMPerMin } }));
}

export type AffectedStretch = { readonly fromM: number; readonly toM: number; readonly hangers: number };

/** The stretch of the oven in which what stood there is affected, and how many hangers that is; null where none is. */
export function affectedStretch(
  effects: readonly StopEffect[],
  pitchM: number,
  isAffected: (effect: StopEffect) => boolean,
): AffectedStretch | null {
  const hit = effects.filter(isAffected);
  const [first, last] = [hit[0], hit.at(-1)];
  if (!first || !last) return null;
  const toM = last.atM + PLACE_STEP_M;
  return { fromM: first.atM, toM, hangers: Math.ceil((toM - first.atM) / pitchM) };
}
