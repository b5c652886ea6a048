import type { Say } from "./said";

export const say: Say = ({ gauge_check: [row] = [] }) => `gauge ${row?.holds ? "holds" : "fails"} on its shims`;
