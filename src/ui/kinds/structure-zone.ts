import { type Say, words } from "./said";

export const say: Say = ({ structure_zone: [row] = [] }) =>
  row ? `zone ${row.zone}${row.gone ? ", no longer looked at" : `, ${words(row.what)}`}` : "zone of a structure";
