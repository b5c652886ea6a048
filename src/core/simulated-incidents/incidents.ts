import { type Random, seededRandom } from "../statistics/random";
import { faults, goodInstead, severity } from "./faults";
import { type Outcome, ordinary, outcomeOf, type World } from "./world";

/** One piece on which something was seen, with what the simulation knows of why. */
export type Incident = {
  readonly seed: number;
  readonly defect: string;
  readonly world: World;
  readonly outcome: Outcome;
  /** Faults that were put in and without which it would be a good deal less, or not seen. */
  readonly acts: readonly string[];
  /** What acts beside them, by the same measure: what they did to film and metal, and what was so on an ordinary day. */
  readonly through: readonly string[];
};

const SEEN_FROM = 1;
/** A fault acts where without it the defect falls out of sight, or by this share. */
const ACTS_BY = 0.25;
const TRIES = 400;

/**
 * An incident of a defect with one fault or two, of the causes that a site reckons with: the faults are put into an
 * ordinary piece until the defect is seen, and everything that could be otherwise is put right, one at a time, to see what acts. Null where that never came
 * to be. Same seed, same incident.
 */
export function incident(seed: number, defect: string, wanted: readonly string[]): Incident | null {
  for (let tried = 0; tried < TRIES; tried++) {
    const random = seededRandom(seed * 1009 + tried);
    const start = ordinary(random);
    const state = seed * 7919 + tried;
    const chosen = faults.filter((f) => wanted.includes(f.cause));
    if (chosen.length !== wanted.length) return null;
    const world = { ...start };
    chosen.forEach((f, i) => {
      f.apply(world, seededRandom(state + i));
    });
    if (defect === "edge-rust" || defect === "filiform") world.spot = "edge";
    const outcome = outcomeOf(world);
    const full = severity(defect, world, outcome);
    if (full < SEEN_FROM) continue;
    const acting = Object.entries(goodInstead).flatMap(([cause, good]) => {
      const without: World = { ...world, ...good(world) };
      const left = severity(defect, without, outcomeOf(without));
      return left < SEEN_FROM * 0.8 || left <= full * (1 - ACTS_BY) ? [cause] : [];
    });
    const acts = wanted.filter((cause) => acting.includes(cause));
    if (acts.length !== wanted.length) continue;
    return { seed, defect, world, outcome, acts, through: acting.filter((c) => !acts.includes(c)) };
  }
  return null;
}

export type { Random };
