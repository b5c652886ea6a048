import type { CoatingSystem } from "./system";

/** What a shop can do itself, by what it has set up. */
export type ShopHas = {
  readonly blast: boolean;
  /** What its conversion bath is; null without one. */
  readonly conversion: "iron-phosphate" | "zirconium" | null;
  /** A cleaner's bath, at the least. */
  readonly washes: boolean;
};
export type OutsideWork = "blast" | "iron-phosphate" | "zirconium" | "wash";

/** What of a system the shop cannot do: to be had outside, or another system is chosen. */
export function hadOutside(system: CoatingSystem, has: ShopHas): readonly OutsideWork[] {
  const out: OutsideWork[] = [];
  if (system.preparation === "blast" && !has.blast) out.push("blast");
  const { pretreatment } = system;
  if ((pretreatment === "iron-phosphate" || pretreatment === "zirconium") && pretreatment !== has.conversion)
    out.push(pretreatment);
  if (pretreatment === "wash" && !has.washes) out.push("wash");
  return out;
}

/** Whether an option, in the codes that risks are removed by, is one that the shop cannot do. */
export function optionOutside(option: string, has: ShopHas): boolean {
  if (option === "blast" || option === "sweep-blast") return !has.blast;
  if (option === "zirconium") return has.conversion !== "zirconium";
  if (option === "conversion-coat") return has.conversion === null;
  return option === "degrease" && !has.washes;
}
