import { type Say, words } from "./said";

export const say: Say = ({ defect: [row] = [] }) =>
  row?.pieces_affected === 0
    ? `looked for ${words(row.defect)}, none seen`
    : `${words(row?.defect)} seen${row?.face ? ` on ${row.face}` : ""}`;
