import { type Say, words } from "./said";

export const say: Say = ({ upkeep_done: [row] = [] }, { name }) =>
  `${name(row?.item_id) || "upkeep"}: ${words(row?.result)}`;
