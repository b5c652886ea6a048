import { decisionWords } from "../words/decisions";
import { type Say, words } from "./said";

export const say: Say = ({ disposition: [row] = [] }) =>
  (decisionWords[row?.decision ?? ""] ?? (words(row?.decision) || "decision")).toLowerCase();
