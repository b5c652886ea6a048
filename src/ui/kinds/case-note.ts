import type { Say } from "./said";

export const say: Say = ({ case_note: [row] = [] }) => (row ? `noted: ${row.text}` : "note of a case");
