import { err, ok, type Result } from "../result";
import { cholesky, studentTQuantile } from "../statistics";

/** What is known of a part's bake as the door closes. */
export type HeatSetting = {
  /** The plate that heats as it does, mm. */
  readonly plateMm: number;
  /** The load's metal as a share of what fills the oven; null where nobody weighed it. */
  readonly loadShare: number | null;
  /** How far the air at its place is set over the temperature wanted, K. */
  readonly overC: number;
  readonly airAtDoorC: number;
  /** Where it hangs; empty where that is not known. */
  readonly place: string;
  /** Time from the door to the temperature by the plain model with the usual heat transfer, s. */
  readonly modelS: number;
  /** How much that time shortens with a kelvin more of air: −d ln t / dT, 1/K. */
  readonly perC: number;
};
export type HeatSeen = HeatSetting & { readonly measuredS: number };
export type HeatForetold = {
  readonly seconds: number;
  /** Where the next such bake's lies, 90 %: soonest and latest, s. */
  readonly band: readonly [soonest: number, latest: number];
  readonly bakes: number;
};
export type HeatMemory = { readonly bakes: number; readonly foretell: (setting: HeatSetting) => HeatForetold };

/** Bakes with a probe from which an oven is remembered part by part; under them what is learnt stands by class of section. */
export const REMEMBERED_FROM_BAKES = 10;
/** A load nobody weighed counts as so much of a full one. */
const USUAL_SHARE = 0.3;
/** Nearer to the wanted temperature than this the moment of reaching it is ill-defined, K. */
const NEAR_C = 4;

/** Spreads of the logarithm of a time: of all of it, along each thing that is known, bent, and of a place. */
const WHOLE = 0.5;
const ALONG = 0.05;
const PLACE = 0.1;
/** What the air at a place differs by from bake to bake, K, as far as it moves the time. */
const AIR_C = 2;
/** How alike two bakes are by their distance. */
const LENGTH = 2;
const BENT = [0.15, 0.28, 0.4] as const;
const NOISE = [0.04, 0.08, 0.15] as const;

const featuresOf = (s: HeatSetting): readonly number[] => [
  Math.log(s.plateMm / 5) / 0.7,
  3 * (s.loadShare ?? USUAL_SHARE),
  Math.log(Math.max(NEAR_C, s.overC) / 18) / 0.4,
  (s.airAtDoorC - 95) / 20,
];
type Seen = { readonly f: readonly number[]; readonly place: string; readonly perC: number };
const seenOf = (s: HeatSetting): Seen => ({ f: featuresOf(s), place: s.place, perC: s.perC });

/** How much two bakes say of one another. */
function alike(a: Seen, b: Seen, bent: number): number {
  let along = WHOLE ** 2;
  let apart = 0;
  for (const [i, x] of a.f.entries()) {
    const y = b.f[i] as number;
    along += ALONG ** 2 * x * y;
    apart += (x - y) ** 2;
  }
  const place = a.place !== "" && a.place === b.place ? PLACE ** 2 : 0;
  return along + place + bent ** 2 * Math.exp(-apart / (2 * LENGTH ** 2));
}
const own = (s: Seen, noise: number): number => noise ** 2 + (AIR_C * s.perC) ** 2;

/**
 * What an oven's bakes with a probe teach of the next: how far the plain model was off in each (ln measured / modelled) as
 * a smooth function of section, load, margin and air at the door, with the place's own share, by Gaussian process (kriging);
 * its noise and bend chosen by what was seen. What the model leaves out (walls that store and radiate, the load's mass) is
 * then in what is foretold, and how bakes differ in its band. Null under ten bakes. Failure: `bad-input`.
 * Source: Rasmussen, Williams, Gaussian Processes for Machine Learning (2006), sections 2.2, 5.4. O(bakes³).
 */
export function rememberHeat(bakes: readonly HeatSeen[]): Result<HeatMemory | null> {
  for (const bake of bakes)
    for (const name of ["plateMm", "modelS", "measuredS"] as const)
      if (!(bake[name] > 0) || !Number.isFinite(bake[name])) return err({ kind: "bad-input", name, value: bake[name] });
  if (bakes.length < REMEMBERED_FROM_BAKES) return ok(null);
  const seen = bakes.map(seenOf);
  const off = bakes.map((b) => Math.log(b.measuredS / b.modelS));
  const fits = BENT.flatMap((bent) =>
    NOISE.map((noise) => {
      const factor = cholesky(
        seen.map((a, i) => seen.map((b, j) => alike(a, b, bent) + (i === j ? own(a, noise) : 0))),
      );
      const z = factor.forward(off);
      return { bent, noise, factor, likelihood: -(z.reduce((sum, v) => sum + v * v, 0) + factor.logDeterminant) / 2 };
    }),
  );
  const best = fits.reduce((a, b) => (b.likelihood > a.likelihood ? b : a));
  const weights = best.factor.solve(off);
  const t = studentTQuantile(0.95, Math.max(3, bakes.length - 8));
  return ok({
    bakes: bakes.length,
    foretell: (setting) => {
      const here = seenOf(setting);
      const k = seen.map((a) => alike(a, here, best.bent));
      const middle = k.reduce((sum, v, i) => sum + v * (weights[i] as number), 0);
      const told = best.factor.forward(k).reduce((sum, v) => sum + v * v, 0);
      const sd = Math.sqrt(Math.max(0, alike(here, here, best.bent) - told) + own(here, best.noise));
      const at = (x: number) => setting.modelS * Math.exp(x);
      return { seconds: at(middle), band: [at(middle - t * sd), at(middle + t * sd)], bakes: bakes.length };
    },
  });
}
