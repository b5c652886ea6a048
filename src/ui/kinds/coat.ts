import type { Say } from "./said";

export const say: Say = ({ coat: [row] = [] }, { name }) =>
  row ? `coated, ${row.layer}, lot ${name(row.lot_id)}` : "coated";
