import type { CallReason, Frequency, Level, PlannedTest } from "@/core/test-plan";
import { cureTestName } from "./bench";

/** A planned test as it is called; what is not known by its own name. */
export const plannedTestName = (test: string): string =>
  ({ adhesion: "Cross-cut", rub: "Solvent rub", appearance: "Look", fits: "Threads and fits" })[
    test as "adhesion" | "rub" | "appearance" | "fits"
  ] ??
  cureTestName[test as Exclude<PlannedTest, "adhesion" | "rub" | "appearance" | "fits">] ??
  test;

const unitName: Record<Frequency, string> = {
  rack: "rack",
  nth: "run of racks",
  lot: "powder lot",
  load: "oven load",
  shift: "shift",
  job: "job",
};
/** How often: “every rack”, “one rack in 4”, “one of each powder lot”. */
export const everySaid = (every: Frequency, n: number | null): string =>
  every === "rack" ? "every rack" : every === "nth" ? `one rack in ${n ?? 1}` : `one of each ${unitName[every]}`;
export const levelName: Record<Level, string> = { normal: "normal", tightened: "tightened", eased: "eased" };

/** Why a rack is asked, or not. */
export function callSaid(call: {
  readonly every: Frequency;
  readonly n: number | null;
  readonly why: CallReason;
}): string {
  const unit = unitName[call.every];
  switch (call.why) {
    case "every-rack":
      return "the plan asks it of every rack";
    case "tightened":
      return "asked of every rack since a failure";
    case "coated-again":
      return "asked since it was coated again";
    case "first-of-unit":
      return call.every === "nth" ? `the one rack in ${call.n ?? 1}` : `the first of its ${unit}`;
    case "unit-not-known":
      return `its ${unit} is not on record, so it is asked itself`;
    case "unit-has-one":
      return call.every === "nth" ? "another of its run is asked" : `another of its ${unit} is asked`;
    case "joined-to-last":
      return `eased: the ${unit} before stands for it`;
  }
}
