import type { Say } from "./said";

export const say: Say = ({ cross_cut: [row] = [] }) => `cross-cut grade ${row?.iso ?? "–"}`;
