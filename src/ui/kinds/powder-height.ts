import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ powder_height: rows = [] }) => `height of the powder, ${countOf(rows.length, "reading")}`;
