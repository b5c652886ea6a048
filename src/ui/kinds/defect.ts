import { subKindOf } from "@/core/bench";
import { type Say, words } from "./said";

export const say: Say = ({ defect: [row] = [] }) =>
  row?.pieces_affected === 0
    ? `looked for ${words(row.defect)}, none seen`
    : `${words(row?.defect)}${row?.sub_kind ? ` (${subKindOf(row.defect, row.sub_kind)?.label ?? words(row.sub_kind)})` : ""} seen${row?.face ? ` on ${row.face}` : ""}${row?.count && row.count > 1 ? `, ${row.count} of them` : ""}${row?.size_mm ? `, ${row.size_mm} mm` : ""}`;
