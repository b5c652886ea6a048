import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ film_plan: [row] = [] }) =>
  row ? `what to read, planned: ${countOf(row.spots, "place")}` : "what to read, planned";
