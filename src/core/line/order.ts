import { passageStages } from "../shorthand";

export type Passed = {
  readonly stage: string;
  readonly enteredMs: number;
  /** Null while nobody saw it leave. */
  readonly leftMs: number | null;
};
export type OrderFacts = {
  /** Stages of its route as planned. */
  readonly route: readonly string[];
  /** Passages of this metal since it was last bare, in order of time. */
  readonly passed: readonly Passed[];
  /** Coats and bakes of this pass. */
  readonly coatedMs: readonly number[];
  readonly baked: readonly { readonly closedMs: number; readonly pulledMs: number | null }[];
  /** Over an old film: the metal was washed under it. */
  readonly recoat: boolean;
};
export type OrderFault =
  | { readonly kind: "not-washed"; readonly missing: readonly string[] }
  /** A coat of later than that is none for this bake. */
  | { readonly kind: "not-coated"; readonly coatedLaterMs: number | null }
  | { readonly kind: "still-in-washer"; readonly stage: string; readonly untilMs: number }
  | { readonly kind: "still-in-oven"; readonly closedMs: number }
  | { readonly kind: "washed-after-coat" }
  | { readonly kind: "washed-after-oven" };

/** Stages that wet the metal or dry it after. */
export const washStages: ReadonlySet<string> = new Set([
  "clean",
  "clean-rinse",
  "conversion",
  "rinse",
  "seal",
  "final-rinse",
  "dry-off",
]);
const coatsAt = new Set(["booth", "coat"]);

/**
 * What stands against a rack's entering a stage at a moment by its own route: no booth without the wash it is to have, nor
 * while it is by its speed still in the washer; no oven without a coat; no wash over loose powder or after the oven; out
 * of one oven before anything else. Null where the order holds. O(stages · passages).
 */
export function orderFault(stage: string, atMs: number, facts: OrderFacts): OrderFault | null {
  const inOven = facts.baked.find((b) => b.closedMs <= atMs && (b.pulledMs === null || b.pulledMs > atMs));
  // Of two loads at once the load itself says which it is in.
  if (inOven && stage !== "cool" && stage !== "oven") return { kind: "still-in-oven", closedMs: inOven.closedMs };
  const coated = facts.coatedMs.some((ms) => ms <= atMs);
  if (washStages.has(stage)) {
    if (facts.baked.some((b) => b.closedMs < atMs)) return { kind: "washed-after-oven" };
    return coated ? { kind: "washed-after-coat" } : null;
  }
  if (coatsAt.has(stage)) {
    const wet = facts.passed.filter((p) => washStages.has(p.stage));
    const still = wet.find((p) => (p.leftMs ?? p.enteredMs) > atMs);
    if (still) return { kind: "still-in-washer", stage: still.stage, untilMs: still.leftMs ?? still.enteredMs };
    if (facts.recoat || coated) return null;
    const missing = passageStages.filter(
      (s) => washStages.has(s) && s !== "dry-off" && facts.route.includes(s) && !wet.some((p) => p.stage === s),
    );
    return missing.length > 0 ? { kind: "not-washed", missing } : null;
  }
  return stage === "oven" && !coated
    ? { kind: "not-coated", coatedLaterMs: facts.coatedMs.length > 0 ? Math.min(...facts.coatedMs) : null }
    : null;
}
