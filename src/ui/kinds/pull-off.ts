import { pullOffSaid } from "../words/bench";
import type { Say } from "./said";

export const say: Say = ({ pull_off: [row] = [] }) => (row ? `pull-off ${pullOffSaid(row)}` : "pull-off");
