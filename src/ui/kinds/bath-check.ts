import { bathValue, parameterName } from "../words/baths";
import { type Say, words } from "./said";

export const say: Say = ({ bath_check: rows = [] }, { units }) =>
  rows.length === 0
    ? "checked"
    : `read ${rows.map((r) => `${parameterName[r.parameter] ?? words(r.parameter)} ${bathValue(r.parameter, r.value, units)}`).join(", ")}`;
