import { countOf } from "../format";
import { decisionWords } from "../words/decisions";
import { type Say, words } from "./said";

export const say: Say = ({ disposition: [row] = [] }) =>
  `${(decisionWords[row?.decision ?? ""] ?? (words(row?.decision) || "decision")).toLowerCase()}${row?.pieces ? `, ${countOf(row.pieces, "piece")} of the rack` : ""}${row?.class_given ? ` to class ${row.class_given}` : ""}`;
