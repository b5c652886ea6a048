import type { Say } from "./said";

export const say: Say = ({ dry_off: [row] = [] }) => `dry-off: ${row?.parts_dry ? "dry" : "damp"}`;
