import type { VerdictResult } from "@/core/verdict";

/** How a creep rating is marked: 9 and 10 are as good as none, under 6 the system has failed there. */
export const creepResult = (rating: number | null): VerdictResult =>
  rating === null ? "unknown" : rating >= 9 ? "in" : rating >= 6 ? "watch" : "out";
/** How a degree of rusting is marked: none, the first specks, more. */
export const rustResult = (grade: number): VerdictResult => (grade === 0 ? "in" : grade <= 2 ? "watch" : "out");
