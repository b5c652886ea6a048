import type { Say } from "./said";

export const say: Say = ({ complaint_answer: [row] = [] }) => `complaint answered to ${row?.sent_to ?? "the customer"}`;
