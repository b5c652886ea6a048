import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ lamp_check: [row] = [], light_spot: spots = [] }) =>
  row?.bumped ? "bumped before the bake" : `under the lamp, ${countOf(spots.length, "light place")}`;
