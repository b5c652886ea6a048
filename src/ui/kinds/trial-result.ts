import type { Say } from "./said";

export const say: Say = ({ trial_result: [row] = [] }) =>
  row
    ? `trial, cause ${row.arm === "repeated" ? "repeated" : "taken away"}: ${row.with_it} of ${row.panels} with it`
    : "result of a trial";
