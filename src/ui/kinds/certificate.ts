import type { Say } from "./said";

export const say: Say = ({ certificate: [row] = [] }) => `certificate ${row?.number ?? ""}`.trim();
