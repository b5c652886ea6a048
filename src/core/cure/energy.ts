import { err, ok, type Result } from "../result";
import { type Metal, metals } from "./heat-up";

/** Energy of one load, kWh, by its parts: what the metal takes up, what the oven loses while it is shut, and in all from the supply. */
export type LoadEnergy = {
  readonly kind: "load-energy";
  readonly metalKWh: number;
  readonly lossKWh: number;
  readonly supplyKWh: number;
};

/**
 * Estimate: metal heat m·c·ΔT, and the oven's idle loss over the bake, over the share of the supply that reaches the air.
 * Failure: `bad-input`.
 */
export function loadEnergy(input: {
  readonly pieces: readonly {
    readonly metal: Metal;
    readonly massKg: number;
    readonly fromC: number;
    readonly toC: number;
  }[];
  readonly idleKw: number;
  readonly bakeS: number;
  readonly efficiency: number;
}): Result<LoadEnergy> {
  const { pieces, idleKw, bakeS, efficiency } = input;
  for (const [name, value, good] of [
    ["idleKw", idleKw, idleKw >= 0],
    ["bakeS", bakeS, bakeS >= 0],
    ["efficiency", efficiency, efficiency > 0 && efficiency <= 1],
  ] as const)
    if (!good || !Number.isFinite(value)) return err({ kind: "bad-input", name, value });
  let joules = 0;
  for (const { metal, massKg, fromC, toC } of pieces) {
    if (!(massKg >= 0) || !Number.isFinite(massKg)) return err({ kind: "bad-input", name: "massKg", value: massKg });
    joules += massKg * metals[metal].heatJPerKgK * Math.max(0, toC - fromC);
  }
  const metalKWh = joules / 3.6e6;
  const lossKWh = (idleKw * bakeS) / 3600;
  return ok({ kind: "load-energy", metalKWh, lossKWh, supplyKWh: (metalKWh + lossKWh) / efficiency });
}

/** The oven's air recovers slower with more cold metal in it: between its empty and its full time constant by the load's heat. */
export function loadedAirTauS(
  oven: { readonly emptyTauS: number; readonly fullTauS: number; readonly fullKgSteel: number },
  pieces: readonly { readonly metal: Metal; readonly massKg: number }[],
): number {
  const heat = pieces.reduce((sum, p) => sum + p.massKg * metals[p.metal].heatJPerKgK, 0);
  const share = Math.min(1, heat / (oven.fullKgSteel * metals.steel.heatJPerKgK));
  return oven.emptyTauS + share * (oven.fullTauS - oven.emptyTauS);
}
