import { withUnit } from "../format";
import type { Say } from "./said";

export const say: Say = ({ base_metal: [row] = [] }, { units }) =>
  row ? `bare metal read, ${withUnit(row.mean_um, "thickness", units)}` : "bare metal read";
