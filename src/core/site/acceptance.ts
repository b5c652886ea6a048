import type { Zone } from "../plan";

/** How a zone of a part is looked at, and what is let pass on it. */
export type AcceptanceClass = {
  /** From so far, m; under so much light on the part, lx; for so long, s. */
  readonly distanceM: number;
  readonly lightLux: number;
  readonly seconds: number;
  /** Faults let pass on a face: so many, none larger than this, mm. */
  readonly mostFaults: number;
  readonly largestMm: number;
};
export type Acceptance = Readonly<Record<Zone, AcceptanceClass>>;

/** What a customer is held to who says nothing else. */
export const usualAcceptance: Acceptance = {
  A: { distanceM: 0.6, lightLux: 1000, seconds: 10, mostFaults: 0, largestMm: 0.5 },
  B: { distanceM: 1, lightLux: 600, seconds: 5, mostFaults: 2, largestMm: 1 },
  C: { distanceM: 2, lightLux: 300, seconds: 3, mostFaults: 5, largestMm: 3 },
};
export const usualAcceptanceSource = "common among coaters; what the customer asks goes first";
export const acceptanceBounds: Readonly<Record<keyof AcceptanceClass, readonly [number, number]>> = {
  distanceM: [0.1, 10],
  lightLux: [50, 10_000],
  seconds: [1, 120],
  mostFaults: [0, 100],
  largestMm: [0.1, 50],
};
/** Whether each zone lets pass no less than the one in plainer sight; gives the first that does not. */
export function strictestOutOfSight(classes: Acceptance): Zone | null {
  if (classes.B.mostFaults < classes.A.mostFaults || classes.B.largestMm < classes.A.largestMm) return "B";
  return classes.C.mostFaults < classes.B.mostFaults || classes.C.largestMm < classes.B.largestMm ? "C" : null;
}
