import { sludgeWord } from "../words/wash";
import { type Say, words } from "./said";

export const say: Say = ({ sludge: [row] = [] }) =>
  `sludge ${sludgeWord[row?.what as keyof typeof sludgeWord] ?? words(row?.what)}${row?.depth_mm == null ? "" : `, ${row.depth_mm} mm`}`;
