import { err, ok, type Result } from "../result";
import { lnChoose } from "../statistics/factorial";

export type SamplingPlan = {
  readonly kind: "sampling-plan";
  /** Pieces to pull, and the most defective ones among them that still accept the lot. */
  readonly n: number;
  readonly c: number;
  readonly pAcceptAql: number;
  readonly pAcceptRql: number;
};
export type Risks = {
  /** Pieces in the lot. */
  readonly lot: number;
  /** Shares defective, 0 to 1: what is still good, and what must not get through. */
  readonly aql: number;
  readonly rql: number;
  /** Chance that a lot at the AQL is refused, and that one at the RQL is accepted. */
  readonly producerRisk: number;
  readonly consumerRisk: number;
};
/** A lot larger than this is a process, not a lot: watch it by a chart. */
export const LARGEST_LOT = 1_000_000;

/** Half to even, so that neither side of a half is favoured. */
export function defectivesIn(lot: number, share: number): number {
  const exact = lot * share;
  const below = Math.floor(exact);
  const rest = exact - below;
  if (Math.abs(rest - 0.5) < 1e-9) return below % 2 === 0 ? below : below + 1;
  return Math.round(exact);
}

/** Chance that a sample of n from a lot with D defective pieces holds c or fewer of them: hypergeometric. O(c). */
export function acceptance(lot: number, defective: number, n: number, c: number): number {
  let sum = 0;
  for (let k = Math.max(0, n - (lot - defective)); k <= Math.min(c, n, defective); k++)
    sum += Math.exp(lnChoose(defective, k) + lnChoose(lot - defective, n - k) - lnChoose(lot, n));
  return Math.min(1, sum);
}

/**
 * The smallest sample, and with it the smallest acceptance number, that keeps both risks: P(accept | AQL) ≥ 1 − producer's,
 * P(accept | RQL) ≤ consumer's, hypergeometric for the lot; defectives are the share of the lot, rounded half to even.
 * Failures: `bad-input`, `inspect-all` (the two shares round to the same number of pieces, or no sample short of the lot
 * tells them apart). Source: acceptance sampling by attributes, ISO 2859-2 for isolated lots. O(n · c).
 */
export function samplingPlan(risks: Risks): Result<SamplingPlan> {
  const { lot, aql, rql, producerRisk, consumerRisk } = risks;
  if (!Number.isInteger(lot) || lot < 1 || lot > LARGEST_LOT)
    return err({ kind: "bad-input", name: "lot", value: lot });
  for (const [name, value] of Object.entries({ aql, rql, producerRisk, consumerRisk }))
    if (!(value >= 0 && value < 1)) return err({ kind: "bad-input", name, value });
  if (!(rql > aql)) return err({ kind: "bad-input", name: "rql", value: rql });
  if (!(producerRisk > 0)) return err({ kind: "bad-input", name: "producerRisk", value: producerRisk });
  if (!(consumerRisk > 0)) return err({ kind: "bad-input", name: "consumerRisk", value: consumerRisk });
  const good = defectivesIn(lot, aql);
  const bad = defectivesIn(lot, rql);
  if (bad <= good) return err({ kind: "inspect-all", lot, atAql: good, atRql: bad });
  // The larger the acceptance number, the more both chances grow: for each n only the first one that keeps the producer's
  // risk can keep the consumer's, and it never falls as n grows.
  let c = 0;
  for (let n = 1; n <= lot; n++) {
    while (c < n && acceptance(lot, good, n, c) < 1 - producerRisk - 1e-12) c++;
    const pAcceptRql = acceptance(lot, bad, n, c);
    if (pAcceptRql <= consumerRisk + 1e-12)
      return n < lot
        ? ok({ kind: "sampling-plan", n, c, pAcceptAql: acceptance(lot, good, n, c), pAcceptRql })
        : err({ kind: "inspect-all", lot, atAql: good, atRql: bad });
  }
  return err({ kind: "inspect-all", lot, atAql: good, atRql: bad });
}

/** The operating curve: chance of acceptance by defective pieces in the lot, up to a share. O(points · c). */
export function operatingCurve(
  lot: number,
  plan: { readonly n: number; readonly c: number },
  upToShare = 0.3,
): readonly { readonly defective: number; readonly share: number; readonly pAccept: number }[] {
  const most = Math.ceil(lot * upToShare);
  const step = Math.max(1, Math.floor(most / 60));
  const out: { defective: number; share: number; pAccept: number }[] = [];
  for (let defective = 0; defective <= most; defective += step)
    out.push({ defective, share: defective / lot, pAccept: acceptance(lot, defective, plan.n, plan.c) });
  return out;
}
