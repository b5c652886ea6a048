import { withUnit } from "../format";
import type { Say } from "./said";

export const say: Say = ({ panel_film: [row] = [] }, { units }) =>
  row
    ? `${row.layer === "primer" ? "primer alone" : "film in all"} on panel ${row.panel_no}, mean ${withUnit(row.mean_um, "thickness", units)} of ${row.values_um.length}`
    : "film on a panel";
