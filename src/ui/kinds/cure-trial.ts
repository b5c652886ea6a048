import type { Say } from "./said";

export const say: Say = ({ cure_trial: [row] = [] }) => `trial: ${row?.question ?? ""}`;
