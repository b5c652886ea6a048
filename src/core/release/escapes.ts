import { type RailStage, railStages } from "../line";

/** Where a fault can be made: on the line, or in what came in. */
export const madeStages = ["as-it-came", ...railStages.slice(1, 6)] as const;
export type MadeStage = (typeof madeStages)[number];

/**
 * Stages that a fault passed before it was found: 0 where it was found at the stage that made it. Null where either is not
 * known, or it was found before it can have been made. O(1).
 */
export function stagesEscaped(made: string | null, found: string | null): number | null {
  if (made === null || found === null) return null;
  const at = (stage: string) => (stage === "as-it-came" ? 0 : railStages.indexOf(stage as RailStage));
  const [from, to] = [at(made), at(found)];
  return from < 0 || to < 0 || to < from ? null : to - from;
}
