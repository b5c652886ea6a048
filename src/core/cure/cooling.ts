import { err, ok, type Result } from "../result";
import type { EvidenceGrade } from "../verdict";

/** What still air and radiation take from hanging metal as it cools, W/(m² K): careful, parts that hang close cool slower. */
export const STILL_AIR_W_PER_M2_K = 10;

export type Cooling = {
  readonly kind: "cooling";
  readonly state: "cool" | "warm";
  /** The metal now, °C. */
  readonly nowC: number;
  /** Measured where the newest reading says it is cool, else as still air would have it. */
  readonly grade: EvidenceGrade;
  /** Seconds until it may be handled; 0 where it may. */
  readonly coolInS: number;
};

/**
 * Whether a piece may be taken down, by its newest reading as it cools or from the pull on, as one lump in still air:
 * T = room + (T₀ − room) e^(−s/τ). A reading under the limit settles it; over it the cooling is counted from there.
 * Failures: `bad-input`.
 */
export function coolingNow(input: {
  /** Hottest metal as it left the oven, °C, and how long ago, s. */
  readonly pulledC: number;
  readonly sincePullS: number;
  /** Newest reading of the metal since, °C, and how long ago, s. */
  readonly reading: { readonly metalC: number; readonly agoS: number } | null;
  readonly tauS: number;
  readonly roomC: number;
  readonly handleBelowC: number;
}): Result<Cooling> {
  const { reading, tauS, roomC, handleBelowC } = input;
  const [fromC, sinceS] = reading ? [reading.metalC, reading.agoS] : [input.pulledC, input.sincePullS];
  if (!(tauS > 0) || !Number.isFinite(tauS)) return err({ kind: "bad-input", name: "tauS", value: tauS });
  if (!(handleBelowC > roomC)) return err({ kind: "bad-input", name: "handleBelowC", value: handleBelowC });
  if (!Number.isFinite(fromC)) return err({ kind: "bad-input", name: "metalC", value: fromC });
  if (!(sinceS >= 0)) return err({ kind: "bad-input", name: "sinceS", value: sinceS });
  if (reading && reading.metalC <= handleBelowC)
    return ok({ kind: "cooling", state: "cool", nowC: reading.metalC, grade: "measured", coolInS: 0 });
  const nowC = roomC + (fromC - roomC) * Math.exp(-sinceS / tauS);
  const coolInS = nowC <= handleBelowC ? 0 : tauS * Math.log((nowC - roomC) / (handleBelowC - roomC));
  return ok({ kind: "cooling", state: coolInS > 0 ? "warm" : "cool", nowC, grade: "assumed", coolInS });
}
