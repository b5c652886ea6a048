import type { MetalFault } from "@/core/preparation";
import { metalFaultName } from "../words/preparation";
import { type Say, words } from "./said";

export const say: Say = ({ metal_mark: [row] = [] }) =>
  `${metalFaultName[row?.what as MetalFault]?.toLowerCase() ?? words(row?.what)} marked on ${row?.face ?? "the metal"}`;
