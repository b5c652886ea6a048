import type { Say } from "./said";

export const say: Say = ({ solvent_rub: [row] = [] }) =>
  row ? `solvent rub, grade ${row.grade} after ${row.double_rubs} double rubs` : "solvent rub";
