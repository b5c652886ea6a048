import { err, ok, type Result } from "../result";
import { clopperPearson, wilsonInterval } from "../statistics";

/** A piece whose cure index and solvent rub are both on record. */
export type CureProof = { readonly index: number; readonly passed: boolean };
export type ProofAgreement = {
  readonly kind: "proof-agreement";
  readonly pairs: number;
  /** Index at or over 100 and rub passed, or under and failed. */
  readonly agree: number;
  readonly share: number;
  readonly interval: readonly [number, number];
  /** Cured by the index, failed by the rub: the ones that matter. */
  readonly indexMissed: number;
  readonly indexTooStrict: number;
  /** Lowest index from which on every rub passed; null under ten such rubs. */
  readonly safeIndex: number | null;
  readonly provenAbove: number;
  /** How often a rub may still fail above it, upper 95 % bound, with none seen. */
  readonly mayFailMost: number | null;
};

/** The site's own safe index is said from so many rubs on. */
export const SAFE_INDEX_FROM = 10;

/**
 * How well the cure index and the rub agree, and the site's own safe index: the lowest from which every rub on record
 * passed. Failures: `too-few-values`, `bad-input`. Source: Wilson 1927; Clopper and Pearson, Biometrika 26 (1934).
 */
export function proofAgreement(proofs: readonly CureProof[]): Result<ProofAgreement> {
  if (proofs.length === 0) return err({ kind: "too-few-values", got: 0, need: 1 });
  const bad = proofs.find((p) => !(p.index >= 0) || !Number.isFinite(p.index));
  if (bad) return err({ kind: "bad-input", name: "index", value: bad.index });
  const cured = (p: CureProof) => p.index >= 100;
  const agree = proofs.filter((p) => cured(p) === p.passed).length;
  const worstFailed = proofs.reduce((most, p) => (p.passed ? most : Math.max(most, p.index)), Number.NEGATIVE_INFINITY);
  const above = proofs.filter((p) => p.index > worstFailed);
  const safe = above.length >= SAFE_INDEX_FROM ? Math.min(...above.map((p) => p.index)) : null;
  return ok({
    kind: "proof-agreement",
    pairs: proofs.length,
    agree,
    share: agree / proofs.length,
    interval: wilsonInterval(agree, proofs.length),
    indexMissed: proofs.filter((p) => cured(p) && !p.passed).length,
    indexTooStrict: proofs.filter((p) => !cured(p) && p.passed).length,
    safeIndex: safe,
    provenAbove: above.length,
    mayFailMost: safe === null ? null : clopperPearson(0, above.length)[1],
  });
}

export type LayerBake = { readonly coatNo: number; readonly index: number; readonly overbakeIndex: number | null };
/**
 * What each layer has had in all: a bake counts for the layer it cured and for every one under it. Indexes add up, cooling
 * in the oven is in each. O(bakes · layers).
 */
export function indexByLayer(bakes: readonly LayerBake[]): readonly {
  readonly coatNo: number;
  readonly index: number;
  readonly overbakeIndex: number | null;
  readonly bakes: number;
}[] {
  const layers = [...new Set(bakes.map((b) => b.coatNo))].sort((a, b) => a - b);
  return layers.map((coatNo) => {
    const mine = bakes.filter((b) => b.coatNo >= coatNo);
    const known = mine.every((b) => b.overbakeIndex !== null);
    return {
      coatNo,
      bakes: mine.length,
      index: mine.reduce((sum, b) => sum + b.index, 0),
      overbakeIndex: known ? mine.reduce((sum, b) => sum + (b.overbakeIndex ?? 0), 0) : null,
    };
  });
}
