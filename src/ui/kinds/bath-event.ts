import { withUnit } from "../format";
import { type Say, words } from "./said";

export const say: Say = ({ bath_event: [row] = [] }, { units }) =>
  row
    ? [words(row.event), row.amount_l === null ? "" : withUnit(row.amount_l, "volume", units), row.product ?? ""]
        .filter(Boolean)
        .join(" ")
    : "addition or change";
