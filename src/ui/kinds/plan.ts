import type { Say } from "./said";

export const say: Say = ({ job_plan: [row] = [] }) =>
  row ? `plan, version ${row.version}${row.released ? ", released" : ""}` : "plan";
