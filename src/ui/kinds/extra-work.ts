import type { Say } from "./said";

export const say: Say = ({ extra_work: [row] = [] }) =>
  row ? `${row.what}, ${row.minutes} min, ${row.charged ? "the customer pays" : "free"}` : "work nobody ordered";
