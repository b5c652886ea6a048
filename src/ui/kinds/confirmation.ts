import { type Say, words } from "./said";

export const say: Say = ({ confirmation: [row] = [] }) =>
  row ? `cause confirmed: ${words(row.cause)}` : "cause confirmed";
