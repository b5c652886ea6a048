import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ creep_measure: creep = [], rust_share: rust = [] }) =>
  [
    "visited",
    ...(creep.length > 0 ? [`creep on ${countOf(creep.length, "zone")}`] : []),
    ...(rust.length > 0 ? [`rust grade ${Math.max(...rust.map((r) => r.grade))} at most`] : []),
  ].join(", ");
