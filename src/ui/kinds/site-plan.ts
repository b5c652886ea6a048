import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ site_plan: [row] = [] }) => {
  const marks = (row?.document as { readonly marks?: readonly unknown[] } | undefined)?.marks ?? [];
  return row ? `plan of ${row.site}: ${countOf(marks.length, "structure")} placed` : "site plan";
};
