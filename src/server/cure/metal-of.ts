import type { Metal } from "@/core/cure";
import type { Substrate } from "@/core/plan";

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
