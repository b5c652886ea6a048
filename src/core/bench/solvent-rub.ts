import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";

/** Grade 5 no effect … 0 through to the metal. */
export type RubGrade = 0 | 1 | 2 | 3 | 4 | 5;
export type SolventRub = {
  readonly doubleRubs: number;
  readonly limit: number;
  readonly grade: number;
  readonly knownCuredGrade: number | null;
};

/**
 * Judges a solvent rub against this powder's own known-cured panel: as good or better passes, one grade lower is a
 * watch, more fails; through before the limit always fails; without a known-cured panel only grade 5 and 0–2 speak.
 * Failures: `bad-grade`, `bad-rubs`. Source: after ASTM D5402 and ISO 13523-11.
 */
export function judgeSolventRub(rub: SolventRub): Result<VerdictResult> {
  if (!Number.isInteger(rub.grade) || rub.grade < 0 || rub.grade > 5)
    return err({ kind: "bad-grade", grade: rub.grade });
  if (!Number.isInteger(rub.doubleRubs) || rub.doubleRubs < 1 || rub.limit < 1 || rub.doubleRubs > rub.limit)
    return err({ kind: "bad-rubs", doubleRubs: rub.doubleRubs, limit: rub.limit });
  if (rub.grade === 0) return ok("out");
  if (rub.doubleRubs < rub.limit) return ok("unknown");
  if (rub.knownCuredGrade === null) return ok(rub.grade === 5 ? "in" : rub.grade <= 2 ? "out" : "unknown");
  const short = rub.knownCuredGrade - rub.grade;
  return ok(short <= 0 ? "in" : short === 1 ? "watch" : "out");
}
