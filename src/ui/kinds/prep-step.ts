import type { PrepStep } from "@/core/preparation";
import { prepFigure, prepStepName } from "../words/preparation";
import { type Say, words } from "./said";

export const say: Say = ({ prep_step: [row] = [] }, { units }) => {
  if (!row) return "step of preparation";
  const step = row.step as PrepStep;
  const said = (prepStepName[step] ?? words(row.step)).toLowerCase();
  if (!row.done) return `${said} left out${row.note ? `: ${row.note}` : ""}`;
  return row.value === null ? said : `${said}, ${prepFigure(step, row.value, units)}`;
};
