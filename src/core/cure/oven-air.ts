import { err, ok, type Result } from "../result";
import type { Metal } from "./heat-up";
import { plateTimeConstant } from "./heat-up";
import type { Trace } from "./trace";

/** From a moment on, s after the door, the oven is set to this air temperature, °C. In order of time; the first at 0. */
export type SetPoint = {
  readonly fromS: number;
  readonly airC: number;
  /** Where the air follows this step otherwise than its set points: an oven that is off cools by its walls, s. */
  readonly tauS?: number;
};
/** How an oven's air goes to its set points: first-order, with its time constant, s, from what it was when the door closed, °C. */
export type OvenAir = {
  readonly startC: number;
  readonly tauS: number;
  readonly program: readonly SetPoint[];
};

/** How the air of an oven that is off falls, s: shut it keeps its heat for long, open it loses it soon. Usual figures, assumed. */
export const OFF_SHUT_TAU_S = 3600;
export const OFF_OPEN_TAU_S = 600;
/** Cooling in still air is slower than heating in moving air. A usual figure, said where it decides. */
export const COOLING_TAU_FACTOR = 1.6;
export const USUAL_ROOM_C = 22;

/** Failures: `no-program`, `program-out-of-order`, `bad-input`. */
export function checkOvenAir(air: OvenAir): Result<OvenAir> {
  const first = air.program[0];
  if (!first) return err({ kind: "no-program" });
  if (first.fromS !== 0) return err({ kind: "program-out-of-order", index: 0, fromS: first.fromS });
  if (!(air.tauS >= 0) || !Number.isFinite(air.tauS)) return err({ kind: "bad-input", name: "tauS", value: air.tauS });
  if (!Number.isFinite(air.startC)) return err({ kind: "bad-input", name: "startC", value: air.startC });
  for (const [index, step] of air.program.entries()) {
    const before = air.program[index - 1];
    if (!Number.isFinite(step.fromS) || (before && step.fromS <= before.fromS))
      return err({ kind: "program-out-of-order", index, fromS: step.fromS });
    if (!(step.airC > -60 && step.airC < 1000)) return err({ kind: "bad-input", name: "airC", value: step.airC });
    if (step.tauS !== undefined && !(step.tauS >= 0 && Number.isFinite(step.tauS)))
      return err({ kind: "bad-input", name: "tauS", value: step.tauS });
  }
  return ok(air);
}

/** The same program at a place that is so much colder or hotter than the oven's probe, K. */
export const shiftedAir = (air: OvenAir, offC: number): OvenAir =>
  offC === 0
    ? air
    : {
        ...air,
        startC: air.startC + offC,
        program: air.program.map((step) => ({ ...step, airC: step.airC + offC })),
      };

/** Metal and air this long after a state, s, toward one set point: the exact solution of both first-order equations. */
function after(state: { air: number; metal: number }, setC: number, airTauS: number, tauS: number, s: number) {
  const air0 = state.air - setC;
  const metal0 = state.metal - setC;
  const airDecay = airTauS > 0 ? Math.exp(-s / airTauS) : 0;
  const decay = Math.exp(-s / tauS);
  const apart = airTauS - tauS;
  // Where the two constants are alike the general solution divides nothing by nothing.
  const driven =
    Math.abs(apart) < 1e-6 * tauS ? (air0 * s * decay) / tauS : (air0 * airTauS * (airDecay - decay)) / apart;
  return { air: setC + air0 * airDecay, metal: setC + metal0 * decay + driven };
}

/**
 * Air and lumped metal, dT/dt = (T_air − T)/τ, sampled every `stepS` from the door to `untilS`. Exact between set points.
 * Failures: those of `checkOvenAir`, `bad-input`. O(samples).
 */
export function heatThrough(
  air: OvenAir,
  metal: { readonly tauS: number; readonly startC: number },
  untilS: number,
  stepS: number,
): Result<{ readonly air: Trace; readonly metal: Trace }> {
  const checked = checkOvenAir(air);
  if (!checked.ok) return checked;
  for (const [name, value] of [
    ["tauS", metal.tauS],
    ["untilS", untilS],
    ["stepS", stepS],
  ] as const)
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-input", name, value });
  if (!Number.isFinite(metal.startC)) return err({ kind: "bad-input", name: "startC", value: metal.startC });
  const steps = Math.floor(untilS / stepS + 1e-9);
  const timeS: number[] = [];
  const airC: number[] = [];
  const metalC: number[] = [];
  let state = { air: air.startC, metal: metal.startC };
  let sinceS = 0;
  let at = 0;
  for (let i = 0; i <= steps; i++) {
    const s = i * stepS;
    let next = air.program[at + 1];
    while (next && next.fromS <= s) {
      const step = air.program[at] as SetPoint;
      state = after(state, step.airC, step.tauS ?? air.tauS, metal.tauS, next.fromS - sinceS);
      sinceS = next.fromS;
      at++;
      next = air.program[at + 1];
    }
    const step = air.program[at] as SetPoint;
    const here = after(state, step.airC, step.tauS ?? air.tauS, metal.tauS, s - sinceS);
    timeS.push(s);
    airC.push(here.air);
    metalC.push(here.metal);
  }
  return ok({ air: { timeS, tempC: airC }, metal: { timeS, tempC: metalC } });
}

/** A piece as its heat-up needs it: metal and the thickness heated from both sides, mm; or a time constant that was measured, s. */
export type Section =
  | { readonly metal: Metal; readonly sectionMm: number; readonly hWPerM2K: number }
  | { readonly tauS: number };

/** The time constant of a section. Failures: those of `plateTimeConstant`. */
export function sectionTimeConstant(
  section: Section,
): Result<{ readonly tauS: number; readonly biot: number | null; readonly lumpedHolds: boolean }> {
  if ("tauS" in section)
    return section.tauS > 0 && Number.isFinite(section.tauS)
      ? ok({ tauS: section.tauS, biot: null, lumpedHolds: true })
      : err({ kind: "bad-input", name: "tauS", value: section.tauS });
  return plateTimeConstant({ material: section.metal, plateMm: section.sectionMm, hWPerM2K: section.hWPerM2K });
}
