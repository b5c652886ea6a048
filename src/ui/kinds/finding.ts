import { type Say, words } from "./said";

export const say: Say = ({ finding: [row] = [] }) => (row ? `${words(row.finding)}: ${words(row.state)}` : "finding");
