import { withUnit } from "../format";
import type { Say } from "./said";

export const say: Say = ({ panel_test: [row] = [] }, { units }) =>
  row?.test === "adhesion"
    ? `panel tested: cross-cut grade ${row.iso ?? "–"}`
    : `panel tested: salt spray ${row?.hours ?? "–"} h${row?.creep_mm == null ? "" : `, creep ${withUnit(row.creep_mm, "creep", units)}`}`;
