import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ case_defect: rows = [] }) =>
  `${countOf(rows.length, "defect")} ${rows[0]?.state === "split" ? "split from" : "joined to"} a case`;
