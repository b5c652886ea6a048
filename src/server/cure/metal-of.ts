import { heatsAsPlateMm, type Metal } from "@/core/cure";
import type { Substrate } from "@/core/plan";
import type { SetupItem } from "../setup/setup-data";

/** The metal a substrate heats as: galvanised is steel under its zinc. */
export const metalOf: Record<Substrate, Metal> = {
  "hot-rolled-steel": "steel",
  "cold-rolled-steel": "steel",
  galvanised: "steel",
  stainless: "stainless",
  "cast-iron": "cast-iron",
  aluminium: "aluminium",
  "cast-aluminium": "cast-aluminium",
};

/** How a part takes heat: the plate that heats as its slowest section, mm, and whether it is hollow. */
export function heatsAs(part: SetupItem<"part">["data"]): { readonly plateMm: number; readonly hollow: boolean } {
  const hollow = part.features.includes("hollow-section");
  const thinnestMm = part.measures?.thinnestMm ?? part.thickestMm;
  return { hollow, plateMm: heatsAsPlateMm({ thickestMm: part.thickestMm, thinnestMm, hollow }) };
}
