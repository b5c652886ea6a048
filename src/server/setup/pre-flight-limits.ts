import { type PreFlightLimits, usualPreFlightLimits } from "@/core/coating";
import type { SetupData } from "./setup-data";

/** What the pre-flight is held against: the set-up sheet, and the site where there is none. */
export function preFlightLimits(sheet: SetupData<"setup-sheet"> | null, site: SetupData<"site">): PreFlightLimits {
  return {
    ...usualPreFlightLimits,
    gunAirKPa: sheet && sheet.airReadAt === "flowing" ? sheet.gunAirKPa : [null, null],
    earthLimitMohm: sheet?.earthLimitMohm ?? 1,
    boothAirMPerS: sheet?.boothAirMPerS ?? [null, null],
    hookCyclesLimit: sheet?.hookCyclesLimit ?? 5,
    compressedAirDewPointC: site.compressedAirDewPointC,
    ...(sheet?.hopperFillPercent ? { hopperFillPercent: sheet.hopperFillPercent } : {}),
  };
}
