import type { StrangeReading } from "@/core/thickness";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";

/** Why a reading is asked about before it is taken. */
export function strangeWords(typed: string, strange: StrangeReading, units: UnitSystem): string {
  if (strange.kind === "unit-jump")
    return `“${typed}” among readings near ${withUnit(strange.asUm, "thickness", units)}: as if the gauge had changed to ${strange.slip === "mil-as-um" ? "mil" : "µm"}.`;
  if (strange.kind === "off-the-part") return `“${typed}” is no film: the probe was off the part, or on bare metal.`;
  return `“${typed}” where ${withUnit(strange.usualUm, "thickness", units)} is usual here.`;
}
