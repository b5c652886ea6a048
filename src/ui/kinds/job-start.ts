import type { Say } from "./said";

export const say: Say = ({ job_start: [row] = [] }) =>
  row?.start_at ? "start set by hand" : "start given back to the schedule";
