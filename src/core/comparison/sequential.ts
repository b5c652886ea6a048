import { err, ok, type Result } from "../result";
import { wilsonInterval } from "../statistics/proportion";

export type Count = { readonly racks: number; readonly withIt: number };
export type EffectCheck = {
  readonly kind: "effect-check";
  readonly said: "worked" | "did-not-work" | "too-soon";
  /** The rate that it has to fall under: the lower end of what it was before, 0–1. */
  readonly before: number;
  readonly beforeInterval: readonly [number, number];
  /** Null where nothing was looked at since. */
  readonly afterInterval: readonly [number, number] | null;
  /** How many times likelier what was seen since is, had it fallen, than had it not: 20 is proof, whenever one looks. */
  readonly timesLikelier: number;
  /** The same the other way round. */
  readonly timesLikelierNot: number;
  /** Racks still wanted before it could be said, if none of them shows it; 0 where it is said. */
  readonly racksWanted: number;
};

/** From here on it is taken for proved: at most one in twenty such proofs is false, however often one looks. */
const PROOF = 20;
const STEPS = 400;
const Z90 = 1.6448536269514722;

/** Mean likelihood of k of n over rates between two bounds, against the rate at `at`; trapezoids. */
function meanRatio(k: number, n: number, from: number, to: number, at: number): number {
  if (n === 0 || to <= from) return 1;
  const ln = (p: number) =>
    (k === 0 ? 0 : k * Math.log(p / at)) + (n === k ? 0 : (n - k) * Math.log((1 - p) / (1 - at)));
  let sum = 0;
  for (let i = 0; i <= STEPS; i++) {
    const p = Math.min(1 - 1e-12, Math.max(1e-12, from + ((to - from) * i) / STEPS));
    sum += Math.exp(ln(p)) * (i === 0 || i === STEPS ? 0.5 : 1);
  }
  return sum / STEPS;
}

/**
 * Whether a corrective action worked, so that one may look as often as one likes: the rate since is held against the lower
 * end of the rate before (Wilson, 90 %) by a likelihood ratio averaged over all lower rates, whose chance of ever reaching
 * 20 without an effect is 1 in 20 (Ville 1939). The other way round it says that it did not work. Failures: `bad-input`,
 * `never-seen` where the defect was not seen before, so that nothing can fall. O(racks wanted).
 */
export function effectCheck(before: Count, after: Count): Result<EffectCheck> {
  for (const side of [before, after])
    if (!Number.isInteger(side.racks) || !Number.isInteger(side.withIt) || side.withIt < 0 || side.withIt > side.racks)
      return err({ kind: "bad-input", name: "count", value: `${side.withIt} of ${side.racks}` });
  if (before.withIt === 0) return err({ kind: "never-seen", racks: before.racks });
  const [low, high] = wilsonInterval(before.withIt, before.racks, Z90);
  const rate = Math.min(0.99, Math.max(0.001, low));
  const { withIt: k, racks: n } = after;
  const timesLikelier = meanRatio(k, n, 0, rate, rate);
  const timesLikelierNot = meanRatio(k, n, rate, Math.max(high, rate + 0.01), rate / 2);
  const said = timesLikelier >= PROOF ? "worked" : timesLikelierNot >= PROOF && k > 0 ? "did-not-work" : "too-soon";
  let racksWanted = 0;
  if (said === "too-soon") {
    let [least, most] = [1, 2];
    while (meanRatio(k, n + most, 0, rate, rate) < PROOF && most < 1e6) most *= 2;
    while (least < most) {
      const middle = (least + most) >> 1;
      if (meanRatio(k, n + middle, 0, rate, rate) >= PROOF) most = middle;
      else least = middle + 1;
    }
    racksWanted = least;
  }
  return ok({
    kind: "effect-check",
    said,
    before: rate,
    beforeInterval: wilsonInterval(before.withIt, before.racks),
    afterInterval: n > 0 ? wilsonInterval(k, n) : null,
    timesLikelier,
    timesLikelierNot,
    racksWanted,
  });
}
