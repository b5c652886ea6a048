import { err, ok, type Result } from "../result";
import { type Evidence, type Knowledge, laidOver } from "./knowledge";

/** A weight that a site sets otherwise than the knowledge that ships, with why. */
export type SiteWeight = {
  /** Of one defect alone; null of the cause whatever the defect. */
  readonly defect: string | null;
  readonly cause: string;
  readonly finding: string;
  readonly whenPresent: number;
  readonly whenAbsent: number;
  readonly because: string;
};
/** How common a cause of a defect is at a site, on the scale of the knowledge’s own. */
export type SiteBase = { readonly defect: string; readonly cause: string; readonly weight: number };
export type SiteChanges = { readonly weights: readonly SiteWeight[]; readonly bases: readonly SiteBase[] };

/**
 * The knowledge with a site's own weights laid over it. Failures: `unknown-cause`, `unknown-finding`, `unknown-defect`,
 * `bad-weight`. O(causes of all defects).
 */
export function withSite(knowledge: Knowledge, { weights, bases }: SiteChanges): Result<Knowledge> {
  for (const w of weights) {
    if (!knowledge.causes.has(w.cause)) return err({ kind: "unknown-cause", cause: w.cause });
    if (!knowledge.findings.has(w.finding)) return err({ kind: "unknown-finding", finding: w.finding });
    if (w.defect !== null && !knowledge.defects.get(w.defect)?.causes.has(w.cause))
      return err({ kind: "unknown-defect", defect: w.defect });
    for (const weight of [w.whenPresent, w.whenAbsent])
      if (!(Math.abs(weight) <= 5)) return err({ kind: "bad-weight", weight });
  }
  for (const b of bases) {
    if (!knowledge.defects.get(b.defect)?.causes.has(b.cause)) return err({ kind: "unknown-defect", defect: b.defect });
    if (!(b.weight >= 0.1 && b.weight <= 100)) return err({ kind: "bad-weight", weight: b.weight });
  }
  const defects = new Map(
    [...knowledge.defects].map(([id, defect]) => {
      const evidence = new Map(
        [...defect.evidence].map(([cause, rows]) => {
          const own = weights.filter((w) => w.cause === cause && (w.defect === null || w.defect === id));
          // What is said of one defect stands before what is said of the cause.
          const order = [...own].sort((a, b) => Number(a.defect !== null) - Number(b.defect !== null));
          return [cause, order.length === 0 ? rows : laidOver(rows, order satisfies readonly Evidence[])] as const;
        }),
      );
      const causes = new Map(
        [...defect.causes].map(([cause, weight]) => [
          cause,
          bases.find((b) => b.defect === id && b.cause === cause)?.weight ?? weight,
        ]),
      );
      return [id, { ...defect, evidence, causes }] as const;
    }),
  );
  return ok({ ...knowledge, defects });
}

/** As many confirmed cases as these weigh as much as what the knowledge said before them. */
export const CASES_BEFORE = 25;

/**
 * Base weights of a defect's causes after a site's confirmed cases: counts added to a prior worth 25 cases (Dirichlet), on
 * the scale of the knowledge, so that they move slowly. A cause that is none of the defect's counts nowhere. O(causes).
 */
export function learnedWeights(
  causes: ReadonlyMap<string, number>,
  confirmed: ReadonlyMap<string, number>,
): ReadonlyMap<string, number> {
  const sum = [...causes.values()].reduce((a, b) => a + b, 0);
  const cases = [...causes.keys()].reduce((n, cause) => n + (confirmed.get(cause) ?? 0), 0);
  return new Map(
    [...causes].map(([cause, weight]) => [
      cause,
      (sum * (CASES_BEFORE * (weight / sum) + (confirmed.get(cause) ?? 0))) / (CASES_BEFORE + cases),
    ]),
  );
}
