import type { Say } from "./said";

export const say: Say = ({ offer_answer: [row] = [] }) =>
  row ? `offer ${row.taken ? "taken" : "declined"} by ${row.who}` : "answer to an offer";
