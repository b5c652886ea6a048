import type { CoachFacts, CoatSituation, PreFlightItem } from "@/core/coating";
import type { RackFile } from "../rack/load-rack";
import type { SetupData } from "../setup/setup-data";

/** What the coach is told of this rack, before its next coat. Pure. */
export function coachFacts(input: {
  readonly rack: Pick<RackFile, "part" | "powder">;
  readonly sheet: SetupData<"setup-sheet"> | null;
  readonly site: SetupData<"site">;
  readonly coatNo: number;
  readonly situation: CoatSituation;
  readonly off: readonly PreFlightItem[];
  readonly values: CoachFacts["values"];
  readonly lotDaysLeft: number | null;
  readonly outgassed: boolean;
  readonly lastKv: number | null;
}): CoachFacts {
  const { rack, sheet, site, coatNo, situation, off, values, lotDaysLeft, outgassed, lastKv } = input;
  const { substrate, features } = rack.part.data;
  return {
    features,
    cast: substrate === "cast-aluminium" || substrate === "cast-iron",
    situation,
    coatNo,
    traits: rack.powder.data.traits,
    off,
    values,
    windows: {
      metalC: [null, site.boothMetalC],
      ...(sheet && {
        kv: situation === "recoat" ? (sheet.recoatKv ?? sheet.kv) : sheet.kv,
        gunAirKPa: sheet.gunAirKPa,
        boothAirMPerS: sheet.boothAirMPerS,
        reclaimPercent: [null, sheet.reclaimLimitPercent] as const,
        ...(sheet.distanceMm && { distanceMm: sheet.distanceMm }),
      }),
    },
    recessKv: sheet?.recessKv ?? null,
    lotDaysLeft,
    outgassed,
    lastKv,
  };
}
