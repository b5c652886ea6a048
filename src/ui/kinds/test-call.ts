import { plannedTestName } from "../words/test-plan";
import type { Say } from "./said";

export const say: Say = ({ test_call: rows = [] }) => {
  const names = (asked: boolean) =>
    rows.flatMap((r) => (r.asked === asked ? [plannedTestName(r.test).toLowerCase()] : [])).join(", ");
  if (rows.length === 0) return "test plan";
  return [
    ...(rows.some((r) => r.asked) ? [`the test plan asks for ${names(true)}`] : []),
    ...(rows.some((r) => !r.asked) ? [`stands by another rack for ${names(false)}`] : []),
  ].join("; ");
};
