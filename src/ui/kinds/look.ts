import type { Say } from "./said";

export const say: Say = ({ look: [row] = [] }) =>
  row
    ? `looked at${row.distance_m === null ? "" : ` from ${row.distance_m} m`}${row.light_lux === null ? "" : ` in ${row.light_lux} lux`}: ${row.found ? "something found" : "nothing found"}`
    : "looked at";
