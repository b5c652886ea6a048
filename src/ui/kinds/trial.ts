import { type Say, words } from "./said";

export const say: Say = ({ trial: [row] = [] }) =>
  row ? `trial planned: ${words(row.cause)}, twice ${row.panels} panels` : "trial planned";
