import type { PanelLook } from "@/core/bath";

export const lookName: Record<PanelLook, string> = {
  "uniform-dull": "even and dull, as it should",
  streaked: "streaked",
  powdery: "powdery, comes off",
  rusted: "rusted",
  shiny: "shiny, hardly any coat",
};
export const sludgeWord = {
  measured: "measured",
  desludged: "dug out",
  "filter-changed": "filter changed",
} as const;
