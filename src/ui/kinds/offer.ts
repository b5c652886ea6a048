import type { Say } from "./said";

export const say: Say = ({ offer: [row] = [] }) => (row ? `offered: ${row.what}` : "offer");
