/**
 * The four answers a judgement can give. `watch` is inside the rule with something to look at;
 * `unknown` is missing evidence, which is never the same as `in`.
 */
export type VerdictResult = "in" | "watch" | "out" | "unknown";

/** How a fact is known. Always shown beside the fact. */
export type EvidenceGrade = "measured" | "by-procedure" | "assumed" | "unknown";

const severity: Record<VerdictResult, number> = { in: 0, unknown: 1, watch: 2, out: 3 };
const gradeRank: Record<EvidenceGrade, number> = { measured: 0, "by-procedure": 1, assumed: 2, unknown: 3 };

/** The result that decides among several: out before watch before unknown before in. Nothing given: unknown. */
export function worstResult(results: readonly VerdictResult[]): VerdictResult {
  if (results.length === 0) return "unknown";
  return results.reduce((worst, next) => (severity[next] > severity[worst] ? next : worst), "in" as VerdictResult);
}

/** The weakest grade among several. Nothing given: unknown. */
export function weakestGrade(grades: readonly EvidenceGrade[]): EvidenceGrade {
  if (grades.length === 0) return "unknown";
  return grades.reduce(
    (weakest, next) => (gradeRank[next] > gradeRank[weakest] ? next : weakest),
    "measured" as EvidenceGrade,
  );
}
