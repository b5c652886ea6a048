import type { Say } from "./said";

export const say: Say = ({ bake: [row] = [] }, { name }) =>
  `${row?.pulled_at ? "out of" : "in"} ${row ? name(row.oven_id) || "the oven" : "the oven"}, load ${row?.load_no ?? "–"}`;
