/**
 * How hard a test is asked: as planned, of every rack, or half as often. In the manner of ISO 2859-1's switching between
 * normal, tightened and reduced inspection; the runs of good results are the shop's own.
 */
export const levels = ["normal", "tightened", "eased"] as const;
export type Level = (typeof levels)[number];
export type SwitchingRule = {
  /** Good results in a row that lead from tightened back to normal. */
  readonly backAfter: number;
  /** Good results in a row at normal that ease it; null where nothing is eased. */
  readonly easeAfter: number | null;
};
export const usualSwitching: SwitchingRule = { backAfter: 5, easeAfter: 10 };

export type Standing = {
  readonly level: Level;
  /** Good results in a row at this level. */
  readonly good: number;
};

/** So many of the newest results settle the level whatever came before them. */
export const resultsThatSettle = ({ backAfter, easeAfter }: SwitchingRule): number => backAfter + (easeAfter ?? 0);

/**
 * The level after some results in order of time, true for good. One failure tightens at once; so many good ones in a row lead
 * back to normal, so many more ease it; a failure while eased tightens. O(results).
 */
export function levelAfter(results: readonly boolean[], rule: SwitchingRule): Standing {
  let level: Level = "normal";
  let good = 0;
  for (const result of results) {
    if (!result) {
      level = "tightened";
      good = 0;
      continue;
    }
    good += 1;
    if (level === "tightened" && good >= rule.backAfter) {
      level = "normal";
      good = 0;
    } else if (level === "normal" && rule.easeAfter !== null && good >= rule.easeAfter) {
      level = "eased";
      good = 0;
    }
  }
  return { level, good };
}
