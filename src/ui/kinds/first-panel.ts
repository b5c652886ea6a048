import type { Say } from "./said";

export const say: Say = ({ first_panel: [row] = [] }, { name }) =>
  `first panel of ${name(row?.lot_id)} ${row?.result === "off" ? "is off" : "matches"}`;
