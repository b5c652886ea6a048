import { plannedTestName } from "../words/test-plan";
import type { Say } from "./said";

export const say: Say = ({ test_skip: [row] = [] }) =>
  `${plannedTestName(row?.test ?? "").toLowerCase()} left out: ${row?.reason ?? ""}`;
