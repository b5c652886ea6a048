import { err, ok, type Result } from "../result";
import { goldenMinimum, mean, sampleSd, studentTQuantile } from "../statistics";
import { DEFAULT_HEAT_TRANSFER_W_PER_M2_K, type Metal, metals } from "./heat-up";
import { heatThrough, type OvenAir } from "./oven-air";
import { checkTrace, GAP_MEDIAN_INTERVALS, medianIntervalS, type Trace } from "./trace";

export type TimeConstantFit = {
  readonly kind: "time-constant-fit";
  readonly tauS: number;
  readonly rmsC: number;
  readonly iterations: number;
  readonly converged: boolean;
  readonly longEnough: boolean;
  readonly samples: number;
};

/** Metal that warmed less than this tells nothing. */
const LEAST_WARMING_C = 30;

/**
 * Time constant of a metal channel in the air that was logged beside it: dT/dt = (T_air(t) − T)/τ, air linear between
 * samples, from the first sample to the pull, least squares by golden section on ln τ. Samples where either channel has no
 * number are left out; a gap ends a stretch, and the next begins at the metal as it is then. Failures: those of `checkTrace`, `lengths-differ`, `too-few-samples`,
 * `no-heating`. O(samples · iterations).
 */
export function fitTimeConstant(air: Trace, metal: Trace, untilS: number): Result<TimeConstantFit> {
  for (const trace of [air, metal]) {
    const checked = checkTrace(trace);
    if (!checked.ok) return checked;
  }
  if (air.timeS.length !== metal.timeS.length)
    return err({ kind: "lengths-differ", times: air.timeS.length, temperatures: metal.timeS.length });
  const rows = metal.timeS.flatMap((s, i) => {
    const [a, m] = [air.tempC[i], metal.tempC[i]];
    return s <= untilS && typeof a === "number" && typeof m === "number" ? [{ s, a, m }] : [];
  });
  if (rows.length < 8) return err({ kind: "too-few-samples", got: rows.length, need: 8 });
  const first = rows[0] as (typeof rows)[number];
  const hottest = rows.reduce((most, r) => Math.max(most, r.m), first.m);
  if (hottest - first.m < LEAST_WARMING_C) return err({ kind: "no-heating", fromC: first.m, toC: hottest });
  const longestS = GAP_MEDIAN_INTERVALS * medianIntervalS(metal.timeS);
  const squares = (tauS: number): number => {
    let t = first.m;
    let sum = 0;
    for (let i = 1; i < rows.length; i++) {
      const [before, here] = [rows[i - 1] as (typeof rows)[number], rows[i] as (typeof rows)[number]];
      // What the air did in a gap nobody knows: the metal is taken up again where it is next on record.
      if (here.s - before.s > longestS) {
        t = here.m;
        continue;
      }
      t = follow(t, before.a, here.a, here.s - before.s, tauS);
      sum += (t - here.m) ** 2;
    }
    return sum;
  };
  const spanS = (rows.at(-1) as (typeof rows)[number]).s - first.s;
  const found = goldenMinimum(Math.log(spanS / 500), Math.log(spanS * 50), 1e-7, (x) => squares(Math.exp(x)));
  const tauS = Math.exp(found.at);
  return ok({
    kind: "time-constant-fit",
    tauS,
    rmsC: Math.sqrt(squares(tauS) / (rows.length - 1)),
    iterations: found.iterations,
    converged: found.converged,
    longEnough: spanS >= 1.5 * tauS,
    samples: rows.length,
  });
}

/** Lumped metal over one step in air that goes straight from one temperature to another: exact. */
export function follow(metalC: number, airFromC: number, airToC: number, forS: number, tauS: number): number {
  const slope = (airToC - airFromC) / forS;
  // T = A(s) − slope·τ + C e^(−s/τ): metal lags a steadily rising air by slope·τ.
  return airToC - slope * tauS + (metalC - airFromC + slope * tauS) * Math.exp(-forS / tauS);
}

/** Effective heat transfer from a measured time constant: h = ρ c (V/A) / τ, W/(m² K); V/A is half the plate that heats alike (`heatsAsPlateMm`). Failure: `bad-input`. */
export function heatTransferOf(tauS: number, metal: Metal, sectionMm: number): Result<number> {
  if (!(tauS > 0) || !Number.isFinite(tauS)) return err({ kind: "bad-input", name: "tauS", value: tauS });
  if (!(sectionMm > 0) || !Number.isFinite(sectionMm))
    return err({ kind: "bad-input", name: "sectionMm", value: sectionMm });
  const { densityKgPerM3, heatJPerKgK } = metals[metal];
  return ok((densityKgPerM3 * heatJPerKgK * (sectionMm / 2000)) / tauS);
}

/** Time constants looked between, s: foil and a block. */
const LEAST_TAU_S = 5;
const MOST_TAU_S = 50_000;
const REACH_STEP_S = 5;

/**
 * The time constant with which the oven's own model would have foretold a bake right: metal from `startC` at `toC` so many
 * seconds after the door, by halving on ln τ. What the model leaves out (walls that radiate, the load's mass, the place)
 * is then in the figure, and what differs from bake to bake in its spread. Failures: those of `heatThrough`, `never-reaches`.
 */
export function timeConstantReached(
  air: OvenAir,
  reached: { readonly startC: number; readonly toC: number; readonly atS: number },
): Result<number> {
  const at = (tauS: number): Result<boolean> => {
    const run = heatThrough(air, { tauS, startC: reached.startC }, Math.max(REACH_STEP_S, reached.atS), REACH_STEP_S);
    return run.ok ? ok((run.value.metal.tempC.at(-1) ?? reached.startC) >= reached.toC) : run;
  };
  const quickest = at(LEAST_TAU_S);
  if (!quickest.ok) return quickest;
  // Not even foil would have been as hot by then.
  if (!quickest.value)
    return err({ kind: "never-reaches", toC: reached.toC, airC: air.program.at(-1)?.airC ?? air.startC });
  let [low, high] = [Math.log(LEAST_TAU_S), Math.log(MOST_TAU_S)];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    const hot = at(Math.exp(middle));
    if (!hot.ok) return hot;
    if (hot.value) low = middle;
    else high = middle;
  }
  return ok(Math.exp(low));
}

export type LearntHeatTransfer = {
  readonly kind: "learnt-heat-transfer";
  readonly hWPerM2K: number;
  /** Interval of the mean, 95 %; null with fewer than two. */
  readonly interval: readonly [number, number] | null;
  /** Where the next bake's lies, 90 %: the band of a prediction. */
  readonly band: readonly [number, number];
  readonly bakes: number;
  readonly grade: "measured" | "assumed";
};

/** From so many bakes on what was learnt is relied on. */
export const LEARNT_FROM_BAKES = 5;
/** How far off a usual figure may be, either way, until something was learnt. */
const UNKNOWN_SPREAD = 0.3;

const alone = (h: number, bakes: number): LearntHeatTransfer => ({
  kind: "learnt-heat-transfer",
  hWPerM2K: h,
  interval: null,
  band: [h * (1 - UNKNOWN_SPREAD), h * (1 + UNKNOWN_SPREAD)],
  bakes,
  grade: "assumed",
});
/** The usual figure, where no bake of like sections is on record. */
export const usualHeatTransfer = alone(DEFAULT_HEAT_TRANSFER_W_PER_M2_K, 0);

/**
 * What an oven's bakes of like sections say of its heat transfer: geometric mean with its 95 % interval, and the 90 %
 * band of the next bake (t, n − 1, on ln h). Under five the usual figure stands beside it and the grade is assumed: with
 * none, 25 W/(m² K) ± 30 %. Failure: `bad-input`.
 */
export function learnHeatTransfer(values: readonly number[]): Result<LearntHeatTransfer> {
  const bad = values.find((h) => !(h > 0) || !Number.isFinite(h));
  if (bad !== undefined) return err({ kind: "bad-input", name: "hWPerM2K", value: bad });
  const n = values.length;
  if (n < 2) return ok(values[0] === undefined ? usualHeatTransfer : alone(values[0], 1));
  const logs = values.map(Math.log);
  const middle = mean(logs);
  const sd = sampleSd(logs);
  const around = (half: number) => [Math.exp(middle - half), Math.exp(middle + half)] as const;
  return ok({
    kind: "learnt-heat-transfer",
    hWPerM2K: Math.exp(middle),
    interval: around((studentTQuantile(0.975, n - 1) * sd) / Math.sqrt(n)),
    band: around(studentTQuantile(0.95, n - 1) * sd * Math.sqrt(1 + 1 / n)),
    bakes: n,
    grade: n >= LEARNT_FROM_BAKES ? "measured" : "assumed",
  });
}

/** Sections are alike within a class: what is learnt of 2 mm says little of 25 mm, since mass slows the oven too. */
export const sectionClasses = [
  { name: "up to 3 mm", mostMm: 3 },
  { name: "over 3 to 8 mm", mostMm: 8 },
  { name: "over 8 to 15 mm", mostMm: 15 },
  { name: "over 15 mm", mostMm: Number.POSITIVE_INFINITY },
] as const;
/** Hollow sections are a class of their own: air moves past a tube as it does not past a plate. */
export const sectionClassOf = (plateMm: number, hollow: boolean): string => {
  const { name } = sectionClasses.find((c) => plateMm <= c.mostMm) ?? sectionClasses[3];
  return hollow ? `hollow, as a plate ${name}` : name;
};
