import type { VerdictResult } from "../verdict";
import type { FoundName } from "./zone-verdict";
import type { ZoneKind } from "./zones";

/** What a repair asks: an hour with a brush, a day on site, or taken down and coated anew. */
export type CostClass = "small" | "middle" | "large";
export const repairs = [
  "wash-and-watch",
  "spot-repair",
  "edge-repair",
  "open-and-seal",
  "foot-repair",
  "recoat",
  "wash-and-polish",
  "coat-over-faded",
] as const;
export type Repair = (typeof repairs)[number];
export type RepairAdvice = { readonly repair: Repair; readonly cost: CostClass };
export const designNotes = [
  "break-edges",
  "close-laps",
  "drain-and-lift",
  "guard-knocks",
  "part-contacts",
  "better-grade",
] as const;
export type DesignNote = (typeof designNotes)[number];

/** More of a face than this is no spot any more, %. */
const SPOT_MOST_PERCENT = 8;

/** What a zone asks for, by what it is and what was found there: nothing where it is good or was not looked at. Trade practice. */
export function repairFor(zone: {
  readonly what: ZoneKind;
  readonly protection: VerdictResult;
  readonly appearance: VerdictResult;
  readonly worst: readonly FoundName[];
  readonly rustPercent: number | null;
}): readonly RepairAdvice[] {
  const out: RepairAdvice[] = [];
  if (zone.protection === "watch") out.push({ repair: "wash-and-watch", cost: "small" });
  if (zone.protection === "out") {
    if ((zone.rustPercent ?? 0) > SPOT_MOST_PERCENT || zone.worst.includes("flaking") || zone.worst.includes("tape"))
      out.push({ repair: "recoat", cost: "large" });
    else if (zone.what === "seam" || zone.worst.includes("seam")) out.push({ repair: "open-and-seal", cost: "middle" });
    else if (zone.what === "foot" || zone.what === "splash") out.push({ repair: "foot-repair", cost: "middle" });
    else if (zone.what === "edge" || zone.what === "weld") out.push({ repair: "edge-repair", cost: "middle" });
    else out.push({ repair: "spot-repair", cost: "small" });
  }
  if (zone.appearance === "out")
    out.push(
      zone.worst.includes("chalk") || zone.worst.includes("colour")
        ? { repair: "coat-over-faded", cost: "large" }
        : { repair: "wash-and-polish", cost: "small" },
    );
  return out;
}

/** What to do otherwise on the next one, by the zones that did not last. */
export function designFor(
  zones: readonly { readonly what: ZoneKind; readonly protection: VerdictResult; readonly appearance: VerdictResult }[],
): readonly DesignNote[] {
  const failed = new Set(zones.filter((z) => z.protection === "out").map((z) => z.what));
  return designNotes.filter((note) => {
    if (note === "break-edges") return failed.has("edge") || failed.has("weld");
    if (note === "close-laps") return failed.has("seam");
    if (note === "drain-and-lift") return failed.has("foot") || failed.has("splash");
    if (note === "guard-knocks") return failed.has("chip");
    if (note === "part-contacts") return failed.has("contact");
    return zones.some((z) => z.appearance === "out");
  });
}
