import { withUnit } from "../format";
import type { Say } from "./said";

export const say: Say = ({ outgas: [row] = [] }, { units }) =>
  row?.held_c == null
    ? "outgassing bake, not held"
    : `outgassing bake, metal held at ${withUnit(row.held_c, "temperature", units)}`;
