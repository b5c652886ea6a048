import { type BenchTest, benchTests } from "../bench";

/** What a test plan may thin out. Film and cure are read on every rack: each rack has its own. */
export const plannedTests = ["adhesion", "rub", ...benchTests, "appearance", "fits"] as const;
export type PlannedTest = "adhesion" | "rub" | BenchTest | "appearance" | "fits";

/** On what a test is done: every rack, one rack in so many, one of each lot, oven load, shift or job. */
export const frequencies = ["rack", "nth", "lot", "load", "shift", "job"] as const;
export type Frequency = (typeof frequencies)[number];
/** One rack in more than this is no plan. */
export const MOST_NTH = 100;

export type TestPlanLine = {
  readonly test: PlannedTest;
  readonly every: Frequency;
  /** One rack in so many; null but for `nth`. */
  readonly n: number | null;
  /** The first of its unit is tested before the rest is coated. */
  readonly first: boolean;
};

/** Whose work a plan is for; what is null or empty is no condition. */
export type TestPlanScope = {
  readonly customer: string | null;
  readonly part: string | null;
  readonly job: string | null;
  /** Any of these exposures makes it a risk that the plan is for. */
  readonly exposure: readonly string[];
};
export type RackScope = {
  readonly customer: string;
  readonly part: string;
  readonly job: string;
  readonly exposure: readonly string[];
};

const meets = (scope: TestPlanScope, rack: RackScope): boolean =>
  (scope.customer === null || scope.customer === rack.customer) &&
  (scope.part === null || scope.part === rack.part) &&
  (scope.job === null || scope.job === rack.job) &&
  (scope.exposure.length === 0 || scope.exposure.some((e) => rack.exposure.includes(e)));
/** A job says more than a part, a part more than its customer, a customer more than a risk. */
const closeness = (scope: TestPlanScope): number =>
  (scope.job === null ? 0 : 8) +
  (scope.part === null ? 0 : 4) +
  (scope.customer === null ? 0 : 2) +
  (scope.exposure.length > 0 ? 1 : 0);

/** The plan that goes for a rack: of those that meet it the closest, the first by code of equals; null where none does. O(plans). */
export function planFor<P extends { readonly code: string; readonly data: { readonly scope: TestPlanScope } }>(
  plans: Iterable<P>,
  rack: RackScope,
): P | null {
  let best: P | null = null;
  for (const plan of [...plans].sort((a, b) => (a.code < b.code ? -1 : 1)))
    if (meets(plan.data.scope, rack) && (!best || closeness(plan.data.scope) > closeness(best.data.scope))) best = plan;
  return best;
}
