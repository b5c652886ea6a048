import { ok, type Result } from "../result";
import { type LoadPlan, type PlannedPiece, planLoad } from "./load-plan";
import type { OvenAir } from "./oven-air";

/** What to do with a load that is in the oven, seconds from now. */
export type LoadAdvice =
  /** Not everything is cured: the earliest pull, and the piece it waits for; where there is one, the pull after which a piece is spoilt. */
  | {
      readonly kind: "not-before";
      readonly inS: number;
      readonly waitsFor: string;
      readonly spoilsInS: number | null;
      readonly spoils: string | null;
    }
  /** All are cured: pull, at the latest when the first would be over-baked. */
  | { readonly kind: "pull-now"; readonly spoilsInS: number | null; readonly spoils: string | null }
  /** One is spoilt before another is cured: take these out when they are done, leave the others in. */
  | {
      readonly kind: "take-out-first";
      readonly first: readonly string[];
      readonly inS: number;
      readonly latestInS: number | null;
      readonly afterwards: readonly string[];
    }
  /** A piece is over-baked already. */
  | { readonly kind: "over-baked"; readonly pieces: readonly string[] }
  /** At this heat these are not cured however long they stay. */
  | { readonly kind: "never"; readonly pieces: readonly string[] };

/**
 * Advice for a load from its state now: each piece with its metal now and what it has earned, the air as it is and is set.
 * Failures: those of `planLoad`.
 */
export function adviseLoad(
  air: OvenAir,
  pieces: readonly PlannedPiece[],
  leastIndex: number,
  holdToo = false,
): Result<{ readonly advice: LoadAdvice; readonly plan: LoadPlan }> {
  const planned = planLoad(air, pieces, { leastIndex, holdToo });
  if (!planned.ok) return planned;
  const plan = planned.value;
  const spoilt = plan.pieces.filter((p) => p.spoilsS === 0);
  const advise = (): LoadAdvice => {
    if (spoilt.length > 0) return { kind: "over-baked", pieces: spoilt.map((p) => p.id) };
    if (plan.never.length > 0) return { kind: "never", pieces: plan.never };
    if (plan.windowS) {
      const [from, to] = plan.windowS;
      const spoils = to === null ? null : plan.fastest;
      return from <= 0
        ? { kind: "pull-now", spoilsInS: to, spoils }
        : { kind: "not-before", inS: from, waitsFor: plan.slowest ?? "", spoilsInS: to, spoils };
    }
    const [first, ...rest] = plan.loads;
    // A piece this heat spoils before it cures goes first as well: nothing is won by leaving it in.
    return {
      kind: "take-out-first",
      first: [...plan.spoiltFirst, ...(first?.pieces ?? [])],
      inS: first?.windowS[0] ?? 0,
      latestInS: first?.windowS[1] ?? null,
      afterwards: rest.flatMap((l) => l.pieces),
    };
  };
  return ok({ advice: advise(), plan });
}
