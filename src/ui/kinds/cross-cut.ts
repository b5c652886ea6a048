import type { Say } from "./said";

export const say: Say = ({ cross_cut: [row] = [] }) =>
  `${row?.method === "x-cut" ? `X-cut ${row.astm}` : `cross-cut grade ${row?.iso ?? "–"}`}${row?.method === "photo" ? " by photo" : ""}${row?.panel_no ? ` on panel ${row.panel_no}` : ""}`;
