import type { ConditionQuantity } from "@/core/preparation";
import { conditionFigure } from "../words/preparation";
import { type Say, words } from "./said";

export const say: Say = ({ condition: [row] = [] }, { units }) =>
  row
    ? `${words(row.quantity)} ${conditionFigure(row.quantity as ConditionQuantity, row.value, units)}, ${row.place}`
    : "air read";
