import { err, ok, type Result } from "../result";
import { goldenMinimum } from "../statistics/golden-minimum";

/** Density kg/m³, heat capacity J/(kg K), conductivity W/(m K). */
export const metals = {
  steel: { densityKgPerM3: 7850, heatJPerKgK: 490, conductivityWPerMK: 50 },
  "cast-iron": { densityKgPerM3: 7200, heatJPerKgK: 500, conductivityWPerMK: 50 },
  stainless: { densityKgPerM3: 7930, heatJPerKgK: 500, conductivityWPerMK: 16 },
  aluminium: { densityKgPerM3: 2700, heatJPerKgK: 900, conductivityWPerMK: 160 },
  "cast-aluminium": { densityKgPerM3: 2700, heatJPerKgK: 900, conductivityWPerMK: 110 },
  zinc: { densityKgPerM3: 6600, heatJPerKgK: 390, conductivityWPerMK: 113 },
  brass: { densityKgPerM3: 8500, heatJPerKgK: 380, conductivityWPerMK: 115 },
  glass: { densityKgPerM3: 2500, heatJPerKgK: 840, conductivityWPerMK: 1 },
} as const;
export type Metal = keyof typeof metals;
/** Effective (convection and radiation) for a convection batch oven, until learnt. */
export const DEFAULT_HEAT_TRANSFER_W_PER_M2_K = 25;
export const BIOT_LIMIT = 0.1;

export type HeatUp = {
  readonly kind: "heat-up";
  readonly tauS: number;
  readonly biot: number;
  readonly lumpedHolds: boolean;
};

/** Time constant of a plate heated from both sides (V/A = half its thickness): τ = ρ c (V/A) / h, s. Failure: `bad-input`. */
export function plateTimeConstant(input: {
  readonly material: Metal;
  readonly plateMm: number;
  readonly hWPerM2K?: number;
}): Result<HeatUp> {
  const { material, plateMm, hWPerM2K = DEFAULT_HEAT_TRANSFER_W_PER_M2_K } = input;
  const metal = metals[material];
  if (!metal) return err({ kind: "bad-input", name: "material", value: material });
  if (!(plateMm > 0) || !Number.isFinite(plateMm)) return err({ kind: "bad-input", name: "plateMm", value: plateMm });
  if (!(hWPerM2K > 0) || !Number.isFinite(hWPerM2K))
    return err({ kind: "bad-input", name: "hWPerM2K", value: hWPerM2K });
  const volumePerAreaM = plateMm / 1000 / 2;
  const biot = (hWPerM2K * volumePerAreaM) / metal.conductivityWPerMK;
  return ok({
    kind: "heat-up",
    tauS: (metal.densityKgPerM3 * metal.heatJPerKgK * volumePerAreaM) / hWPerM2K,
    biot,
    lumpedHolds: biot < BIOT_LIMIT,
  });
}

/**
 * The plate, mm, that heats as a part does: its thickest section, heated from both sides. A hollow section, tube or closed
 * box takes heat from outside only, so its wall (the thinnest section) heats as a plate of twice that.
 */
export const heatsAsPlateMm = (part: {
  readonly thickestMm: number;
  readonly thinnestMm: number;
  readonly hollow: boolean;
}): number => (part.hollow ? Math.max(part.thickestMm, 2 * part.thinnestMm) : part.thickestMm);

/** Seconds from start to a temperature in steady air. 0 when already there. Failures: `never-reaches`, `bad-input`. */
export function secondsToReach(input: {
  readonly tauS: number;
  readonly airC: number;
  readonly startC: number;
  readonly toC: number;
}): Result<number> {
  const { tauS, airC, startC, toC } = input;
  if (!(tauS > 0) || !Number.isFinite(tauS)) return err({ kind: "bad-input", name: "tauS", value: tauS });
  if (toC <= startC) return ok(0);
  if (toC >= airC) return err({ kind: "never-reaches", toC, airC });
  return ok(tauS * Math.log((airC - startC) / (airC - toC)));
}

export type HeatUpFit = {
  readonly kind: "heat-up-fit";
  readonly airC: number;
  readonly tauS: number;
  readonly converged: boolean;
  readonly iterations: number;
  readonly rmsC: number;
  readonly longEnough: boolean;
};

/**
 * Fits τ and air temperature to a logged channel, T₀ = first sample, from the first sample to the pull. For each τ
 * the air temperature is linear least squares; τ is found by golden section on ln τ. A trace shorter than 1.5 τ
 * cannot tell the two apart: `longEnough` is false. Failures: `too-few-samples`, `no-heating`.
 */
export function fitHeatUp(timeS: readonly number[], tempC: readonly number[]): Result<HeatUpFit> {
  if (timeS.length !== tempC.length || timeS.length < 4)
    return err({ kind: "too-few-samples", got: Math.min(timeS.length, tempC.length), need: 4 });
  const t0 = timeS[0] as number;
  const c0 = tempC[0] as number;
  const spanS = (timeS[timeS.length - 1] as number) - t0;
  if (!(Math.max(...tempC) - c0 > 5)) return err({ kind: "no-heating", fromC: c0, toC: Math.max(...tempC) });
  const atTau = (tauS: number) => {
    let gg = 0;
    let gy = 0;
    for (let i = 0; i < timeS.length; i++) {
      const g = 1 - Math.exp(-((timeS[i] as number) - t0) / tauS);
      gg += g * g;
      gy += g * ((tempC[i] as number) - c0);
    }
    const rise = gy / gg;
    let squares = 0;
    for (let i = 0; i < timeS.length; i++)
      squares += ((tempC[i] as number) - c0 - rise * (1 - Math.exp(-((timeS[i] as number) - t0) / tauS))) ** 2;
    return { airC: c0 + rise, squares };
  };
  const found = goldenMinimum(Math.log(spanS / 200), Math.log(spanS * 50), 1e-9, (x) => atTau(Math.exp(x)).squares);
  const tauS = Math.exp(found.at);
  const { airC, squares } = atTau(tauS);
  return ok({
    kind: "heat-up-fit",
    airC,
    tauS,
    converged: found.converged,
    iterations: found.iterations,
    rmsC: Math.sqrt(squares / timeS.length),
    longEnough: spanS >= 1.5 * tauS,
  });
}
