import { err, ok, type Result } from "../result";
import { seededRandom } from "../statistics/random";

export type Period = { readonly defective: number; readonly inspected: number };
export type ChangePoint = {
  readonly kind: "change-point";
  /** Index of the first period of the later rate. */
  readonly firstAffectedPeriod: number;
  readonly logLikelihoodGain: number;
  readonly rateBefore: number;
  readonly rateAfter: number;
  /** Gain that chance alone reaches in 5 of 100 shuffles of the same periods. */
  readonly gainByChance: number;
  /** The later rate is the higher, and the gain beyond chance. */
  readonly onset: boolean;
};
const SHUFFLES = 999;
const SEED = 1965;

/** Binomial log-likelihood at its own rate, without the part that no split changes. */
function logLikelihood(defective: number, inspected: number): number {
  if (defective === 0 || defective === inspected) return 0;
  const rate = defective / inspected;
  return defective * Math.log(rate) + (inspected - defective) * Math.log(1 - rate);
}

/** The split that gains most; the earliest where several do. */
function bestSplit(periods: readonly Period[]): { at: number; gain: number } {
  const total = periods.reduce((sum, p) => ({ d: sum.d + p.defective, n: sum.n + p.inspected }), { d: 0, n: 0 });
  const whole = logLikelihood(total.d, total.n);
  let [d, n, at, gain] = [0, 0, 1, Number.NEGATIVE_INFINITY];
  for (let i = 1; i < periods.length; i++) {
    d += (periods[i - 1] as Period).defective;
    n += (periods[i - 1] as Period).inspected;
    const here = logLikelihood(d, n) + logLikelihood(total.d - d, total.n - n) - whole;
    if (here > gain + 1e-12) [at, gain] = [i, here];
  }
  return { at, gain };
}

/**
 * Where in time the share of defectives changed: the split of most likelihood for a binomial, called an onset only where
 * the later rate is higher and the gain is beyond the 95th percentile of 999 seeded shuffles. Failures: `too-few-values`
 * (two periods), `bad-input` (defective over inspected, not whole, nothing inspected). O(999 · periods). Source: Hinkley 1970.
 */
export function changePoint(periods: readonly Period[]): Result<ChangePoint> {
  if (periods.length < 2) return err({ kind: "too-few-values", got: periods.length, need: 2 });
  const bad = periods.find(
    (p) =>
      !Number.isInteger(p.defective) ||
      !Number.isInteger(p.inspected) ||
      p.defective < 0 ||
      p.inspected < 1 ||
      p.defective > p.inspected,
  );
  if (bad)
    return err({ kind: "bad-input", name: "defective of inspected", value: `${bad.defective} of ${bad.inspected}` });
  const { at, gain } = bestSplit(periods);
  const rate = (part: readonly Period[]) =>
    part.reduce((s, p) => s + p.defective, 0) / part.reduce((s, p) => s + p.inspected, 0);
  const random = seededRandom(SEED);
  const gains: number[] = [];
  const shuffled = [...periods];
  for (let k = 0; k < SHUFFLES; k++) {
    for (let i = shuffled.length - 1; i > 0; i--) {
      const j = Math.floor(random.uniform() * (i + 1));
      [shuffled[i], shuffled[j]] = [shuffled[j] as Period, shuffled[i] as Period];
    }
    gains.push(bestSplit(shuffled).gain);
  }
  gains.sort((a, b) => a - b);
  const gainByChance = gains[Math.ceil(0.95 * (SHUFFLES + 1)) - 1] as number;
  const [rateBefore, rateAfter] = [rate(periods.slice(0, at)), rate(periods.slice(at))];
  return ok({
    kind: "change-point",
    firstAffectedPeriod: at,
    logLikelihoodGain: gain,
    rateBefore,
    rateAfter,
    gainByChance,
    onset: rateAfter > rateBefore && gain > gainByChance,
  });
}
