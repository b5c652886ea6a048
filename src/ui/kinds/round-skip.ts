import type { Say } from "./said";

export const say: Say = ({ round_skip: [row] = [] }) => `round left out: ${row?.reason ?? ""}`;
