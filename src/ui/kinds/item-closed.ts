import type { OpenKind } from "@/core/line";
import { openName } from "../words/open";
import type { Say } from "./said";

export const say: Say = ({ item_closed: [row] = [] }) =>
  row ? `${openName[row.what as OpenKind] ?? row.what}: looked at, ${row.seen}` : "looked at";
