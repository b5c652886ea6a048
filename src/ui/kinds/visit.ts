import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ creep_measure: rows = [] }) =>
  rows.length > 0 ? `visited, creep on ${countOf(rows.length, "zone")}` : "visited";
