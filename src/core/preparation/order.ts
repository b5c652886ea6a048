import type { PrepStep } from "./steps";

/** What must be on record, done or left out with a reason, before another step: where both are asked for. */
const before: readonly (readonly [first: PrepStep, then: PrepStep])[] = [
  // Blasting drives grease into the metal, grinding smears it.
  ["degrease", "blast"],
  ["degrease", "sand"],
  ["degrease", "grind"],
  ["strip", "blast"],
  ["grind", "blast"],
  // Damage shows on bare metal only.
  ["blast", "look-over"],
  // Rubber burns, and gas must out, before any heat that cures.
  ["seals-out", "prebake"],
];
/** What must be on record before powder goes on. */
export const beforeCoat = ["seals-out", "prebake"] as const satisfies readonly PrepStep[];
/** What must be on record before an oven's door closes on it. */
export const beforeOven = ["seals-out"] as const satisfies readonly PrepStep[];

/**
 * The step that should have come first and is not on record; null where the order holds. Only steps asked for count: one
 * that is left out with its reason is on record. O(rules).
 */
export function stepMissedBefore(
  step: PrepStep,
  asked: readonly PrepStep[],
  onRecord: ReadonlySet<string>,
): PrepStep | null {
  return before.find(([first, then]) => then === step && asked.includes(first) && !onRecord.has(first))?.[0] ?? null;
}

/** The first of some steps that is asked for and not on record. */
export const stepMissed = (
  steps: readonly PrepStep[],
  asked: readonly PrepStep[],
  onRecord: ReadonlySet<string>,
): PrepStep | null => steps.find((step) => asked.includes(step) && !onRecord.has(step)) ?? null;
