import { type Box, type Equipment, fitAtSite, notSized } from "@/core/plan";
import type { UnitSystem } from "@/core/units";
import { type FitSaid, fitSaid, keptOut } from "../words/plan";

/** A part's fit in short, as the list of a delivery shows it. */
export type FitInShort =
  | {
      readonly fits: true;
      /** As words say it: of rooms without a size nothing is known. */
      readonly said: FitSaid;
      readonly turned: string;
      /** Null where the site has no rack or oven to count on. */
      readonly perRack: number | null;
      readonly perOven: number | null;
    }
  | { readonly fits: false; readonly keptOutBy: readonly { readonly place: string; readonly by: string }[] }
  | { readonly fits: null };
export type FitQuestion = {
  readonly number: number;
  readonly parts: readonly { readonly box: Box; readonly massKg: number }[];
  readonly places: readonly Equipment[];
  readonly rooms: { readonly marginMm: number; readonly gapMm: number };
  readonly units: UnitSystem;
};
export type FitAnswer = { readonly number: number; readonly found: readonly FitInShort[] };

/** Every part of a delivery against the site, away from the screen's own thread. */
export function answer({ number, parts, places, rooms, units }: FitQuestion): FitAnswer {
  const unsized = notSized(places);
  return {
    number,
    found: parts.map((part): FitInShort => {
      const { fit, loading } = fitAtSite(part, places, rooms);
      if (!fit.ok) return { fits: null };
      const { best, keptOutBy } = fit.value;
      if (!best)
        return {
          fits: false,
          keptOutBy: keptOutBy.map((a) => ({
            place: a.equipment,
            by: keptOut(a, units),
          })),
        };
      const counts = loading?.ok ? loading.value : null;
      return {
        fits: true,
        said: fitSaid(best.clearanceMm, unsized, units),
        turned: best.orientation.name,
        perRack: counts?.perRack ?? null,
        perOven: counts?.perOven ?? null,
      };
    }),
  };
}
