import {
  type LoadPlan,
  loadedAirTauS,
  type Metal,
  type PowderSchedule,
  planLoad,
  type SetPoint,
  usualHeatTransfer,
} from "@/core/cure";
import type { Result } from "@/core/result";

export type PlannerOven = {
  readonly code: string;
  readonly usualSetPointC: number;
  readonly mostSetPointC: number;
  readonly airAtDoorC: number;
  readonly emptyTauS: number;
  readonly fullTauS: number;
  readonly fullKgSteel: number;
  readonly idleKw: number;
  readonly efficiency: number;
  /** Effective heat transfer learnt by section class, and from how many bakes. */
  readonly learnt: readonly {
    readonly mostMm: number;
    readonly hollow: boolean;
    readonly hWPerM2K: number;
    /** Where the next bake's lies, 90 %: slowest and quickest. */
    readonly band: readonly [slow: number, quick: number];
    readonly bakes: number;
    readonly grade: "measured" | "assumed";
  }[];
};
export type PlannerPiece = {
  readonly id: string;
  readonly what: string;
  readonly metal: Metal;
  /** The plate that heats alike, mm; of a hollow section twice its wall. */
  readonly sectionMm: number;
  readonly hollow: boolean;
  readonly massKg: number | null;
  readonly powder: string;
  readonly schedule: PowderSchedule;
  /** On record under this number; null for a piece put in by hand. */
  readonly rack: string | null;
};
export type Placed = PlannerPiece & { readonly load: number; readonly startC: number };

/** Without a weight a rack counts as so much in the oven, kg; said beside the estimate. */
export const UNKNOWN_MASS_KG = 60;
export const MOST_LOADS = 4;
export const STEPS_C = [-15, 0, 10, 20];
export const minutes = (s: number) => `${Math.round(s / 60)} min`;

export const learntFor = (oven: PlannerOven, { sectionMm, hollow }: Pick<PlannerPiece, "sectionMm" | "hollow">) =>
  oven.learnt.find((l) => l.hollow === hollow && sectionMm <= l.mostMm) ?? usualHeatTransfer;

/** The plan of one load: its air made slower by what hangs in it, each piece by what this oven has learnt of its section. */
export function planOf(
  oven: PlannerOven,
  pieces: readonly Placed[],
  program: readonly SetPoint[],
  asked: { readonly leastIndex: number; readonly holdToo: boolean },
  /** With every piece as slow, or as quick, as the next may be. */
  end: "slow" | "quick" | null = null,
): Result<LoadPlan> {
  const heatOf = (p: Placed) => {
    const known = learntFor(oven, p);
    return end === null ? known.hWPerM2K : known.band[end === "slow" ? 0 : 1];
  };
  const weighed = pieces.map((p) => ({ metal: p.metal, massKg: p.massKg ?? UNKNOWN_MASS_KG }));
  return planLoad(
    {
      startC: oven.airAtDoorC,
      tauS: loadedAirTauS(oven, weighed),
      program,
    },
    pieces.map((p) => ({
      id: p.id,
      section: { metal: p.metal, sectionMm: p.sectionMm, hWPerM2K: heatOf(p) },
      schedule: p.schedule,
      startC: p.startC,
    })),
    asked,
  );
}
