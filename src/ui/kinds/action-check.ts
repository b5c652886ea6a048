import type { ActionState } from "@/core/kinds";
import { actionStateName } from "../words/actions";
import type { Say } from "./said";

export const say: Say = ({ action_check: [row] = [] }) =>
  row
    ? `corrective action: ${actionStateName[row.state as ActionState].toLowerCase()}`
    : "corrective action looked after";
