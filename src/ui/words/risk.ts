import type { RiskPlace } from "@/server/causes/containment";

export const riskPlaceName: Readonly<Record<RiskPlace, string>> = {
  stoppable: "On the line, not baked yet",
  "in-shop": "In the shop",
  shipped: "Shipped",
  "in-field": "In the field",
};
/** What is done about what is there. */
export const riskPlaceDo: Readonly<Record<RiskPlace, string>> = {
  stoppable: "Stop it before the next step: powder that is not baked comes off.",
  "in-shop": "Hold it, test it for what the case is about, then decide.",
  shipped: "Tell the customer, with what to look for; test what is still there.",
  "in-field": "Put it on the next round, look at the places that fail first, and tell the owner.",
};
