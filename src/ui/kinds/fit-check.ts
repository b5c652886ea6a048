import type { Say } from "./said";

export const say: Say = ({ fit_try: rows = [] }) => {
  const stuck = rows.filter((r) => !r.goes);
  return stuck.length > 0
    ? `fits tried: ${stuck.map((r) => r.fit).join(", ")} does not go`
    : `fits tried: ${rows.length === 1 ? `${rows[0]?.fit} goes` : `all ${rows.length} go`}`;
};
