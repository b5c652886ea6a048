import type { NextStep, RackState } from "@/core/line";
import type { RackOnLine } from "@/server/line/racks";

/** How a rack stands, in two or three words. */
export const rackStateName: Record<RackState, string> = {
  held: "Held",
  "adhesion-out": "Adhesion out",
  defect: "Defect seen",
  "film-open": "Film in hand",
  "to-release": "To release",
  running: "Running",
  bare: "Bare metal",
  "to-coat-again": "To coat again",
  "to-touch-up": "To touch up",
  "to-recoat": "To scuff, recoat",
  "to-strip": "To strip",
};
/** What a rack is held for, by what is on record of it; empty where nothing is wrong. */
export const whatIsWrong = (rack: Pick<RackOnLine, "heldBy" | "iso" | "defect">): string =>
  rack.heldBy === "adhesion"
    ? `cross-cut grade ${rack.iso}`
    : rack.heldBy === "defect"
      ? (rack.defect ?? "").replaceAll("-", " ")
      : "";
/** What comes next, as it is said of a rack. */
export const nextName: Record<NextStep, string> = {
  prepare: "Prepare the metal",
  wash: "Into the wash",
  coat: "Coat",
  cure: "Into the oven",
  pull: "Pull the load",
  trace: "The oven’s trace",
  film: "Read the film",
  tests: "Cross-cut and rub",
  release: "Decide its release",
  decide: "A lead decides",
  "coat-again": "Coat again",
  "touch-up": "Touch up",
  recoat: "Scuff and recoat",
  strip: "Strip and do again",
};
const pages: Record<NextStep, string> = {
  prepare: "prepare",
  wash: "prepare",
  coat: "coat",
  cure: "cure",
  pull: "cure",
  trace: "cure",
  film: "thickness",
  tests: "bench",
  release: "release",
  decide: "release",
  "coat-again": "coat",
  "touch-up": "release",
  recoat: "prepare",
  strip: "prepare",
};
/** Where that is done. */
export const nextHref = (number: string, next: NextStep): string => `/racks/${number}/${pages[next]}`;

/** How far it is with what it waits for: “12 of 30”. */
export const nextSoFar = (rack: Pick<RackOnLine, "next" | "readings" | "asked">): string =>
  rack.next === "film" ? `${rack.readings} of ${rack.asked}` : "";
