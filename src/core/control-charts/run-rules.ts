import { err, ok, type Result } from "../result";
import { checkValues } from "../statistics/mean";

export type RunRule = 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8;
export type RunRuleHits = Readonly<Partial<Record<RunRule, readonly number[]>>>;

const count = (window: readonly number[], test: (z: number) => boolean): number => window.filter(test).length;
const differences = (window: readonly number[]): number[] => window.slice(1).map((z, i) => z - (window[i] as number));
const bySide = (window: readonly number[], z: number, need: number): boolean =>
  count(window, (v) => v > z) >= need || count(window, (v) => v < -z) >= need;

/** The eight rules: window length and what the window must show. Source: Nelson, J. Quality Technology 16 (1984). */
const rules: Record<RunRule, { readonly points: number; readonly met: (window: readonly number[]) => boolean }> = {
  1: { points: 1, met: (w) => count(w, (z) => Math.abs(z) > 3) === 1 },
  2: { points: 9, met: (w) => bySide(w, 0, 9) },
  3: { points: 6, met: (w) => differences(w).every((d) => d > 0) || differences(w).every((d) => d < 0) },
  4: {
    points: 14,
    met: (w) => {
      const d = differences(w);
      return d.every((step, i) => (i === 0 ? step !== 0 : step * (d[i - 1] as number) < 0));
    },
  },
  5: { points: 3, met: (w) => bySide(w, 2, 2) },
  6: { points: 5, met: (w) => bySide(w, 1, 4) },
  7: { points: 15, met: (w) => w.every((z) => Math.abs(z) < 1) },
  8: { points: 8, met: (w) => w.every((z) => Math.abs(z) > 1) },
};
export const RUN_RULES = [1, 2, 3, 4, 5, 6, 7, 8] as const satisfies readonly RunRule[];

/**
 * Finds where each run rule is met. A rule is met at index i when the complete window ending at i satisfies it;
 * inequalities are strict. Windows that span a break (an addition, dump or recharge before index b) are not judged.
 * Failures: `no-values`, `not-finite`, `no-spread` (σ = 0: no rule can be judged), `bad-sigma`. O(n).
 */
export function runRules(
  values: readonly number[],
  chart: { readonly centre: number; readonly sigma: number },
  breaksBefore: readonly number[] = [],
): Result<RunRuleHits> {
  const checked = checkValues(values);
  if (!checked.ok) return checked;
  const { centre, sigma } = chart;
  if (sigma === 0) return err({ kind: "no-spread", value: centre });
  if (!(sigma > 0) || !Number.isFinite(centre)) return err({ kind: "bad-sigma", sigma, centre });
  const z = values.map((value) => (value - centre) / sigma);
  const breaks = new Set(breaksBefore);
  const sinceBreak: number[] = [];
  for (let i = 0; i < z.length; i++) sinceBreak.push(i === 0 || breaks.has(i) ? 1 : (sinceBreak[i - 1] as number) + 1);
  const hits: Partial<Record<RunRule, number[]>> = {};
  for (const rule of RUN_RULES) {
    const { points, met } = rules[rule];
    for (let i = points - 1; i < z.length; i++) {
      if ((sinceBreak[i] as number) < points || !met(z.slice(i - points + 1, i + 1))) continue;
      hits[rule] = [...(hits[rule] ?? []), i];
    }
  }
  return ok(hits);
}
