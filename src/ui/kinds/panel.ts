import { type Say, words } from "./said";

export const say: Say = ({ panel: [row] = [], stands_for: racks = [] }) =>
  `panel ${row?.number ?? "–"}, ${words(row?.metal)}${row?.hung_at ? `, hung ${row.hung_at}` : ""}${racks.length > 1 ? `, for ${racks.length} racks` : ""}`;
