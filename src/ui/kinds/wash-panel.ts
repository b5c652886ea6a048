import type { PanelLook } from "@/core/bath";
import { withUnit } from "../format";
import { lookName } from "../words/wash";
import { type Say, words } from "./said";

export const say: Say = ({ wash_panel: [row] = [] }, { units }) =>
  `panel ${row?.g_per_m2 == null ? words(row?.colour) : withUnit(row.g_per_m2, "coatingWeight", units)}, ${lookName[row?.look as PanelLook] ?? words(row?.look)}`;
