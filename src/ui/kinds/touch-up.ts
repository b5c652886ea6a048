import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ touch_up: rows = [] }) => {
  const done = rows.filter((r) => r.done);
  const left = rows.length - done.length;
  return `touched up ${countOf(done.length, "place")}${rows[0]?.with_what ? ` with ${rows[0].with_what}` : ""}${left > 0 ? `, ${left} left` : ""}`;
};
