import type { Say } from "./said";

export const say: Say = ({ pre_flight_item: rows = [] }) => {
  const off = rows.filter((r) => r.good === false).length;
  return `pre-flight, ${rows.filter((r) => r.how !== "skipped").length} looked at${off > 0 ? `, ${off} off` : ""}`;
};
