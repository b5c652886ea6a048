import { err, ok, type Result } from "../result";
import { checkValues, mean } from "../statistics/mean";

/** Factors of the individuals chart as printed in SPC tables (3/d₂ and D₄ for n = 2). */
export const INDIVIDUALS_FACTOR = 2.66;
export const MOVING_RANGE_FACTOR = 3.267;
/** d₂ for ranges of two: the mean range of two standard normal values. */
export const D2_OF_TWO = 2 / Math.sqrt(Math.PI);

export type IndividualsChart = {
  readonly kind: "individuals-chart";
  readonly centre: number;
  readonly meanMovingRange: number;
  readonly lowerControlLimit: number;
  readonly upperControlLimit: number;
  readonly movingRangeUpperLimit: number;
  /** MR̄ / d₂, the σ that the run rules use. */
  readonly sigma: number;
};

/**
 * Individuals and moving-range chart: x̄ ± 2.66·MR̄. Units are those of the values, in time order. Points left out
 * (a stretch with a known cause) count neither in the centre nor in a moving range; a range is taken only between
 * neighbours that are both kept. Failures: `no-values`, `not-finite`, `too-few-values` (two kept neighbours are needed).
 * Source: Shewhart; ISO 7870-2.
 */
export function individualsChart(
  values: readonly number[],
  leftOut: readonly boolean[] = [],
): Result<IndividualsChart> {
  const checked = checkValues(values);
  if (!checked.ok) return checked;
  const kept = values.filter((_, i) => !leftOut[i]);
  const movingRanges = values
    .slice(1)
    .flatMap((value, i) => (leftOut[i] || leftOut[i + 1] ? [] : [Math.abs(value - (values[i] as number))]));
  if (movingRanges.length === 0) return err({ kind: "too-few-values", got: kept.length, need: 2 });
  const centre = mean(kept);
  const meanMovingRange = mean(movingRanges);
  return ok({
    kind: "individuals-chart",
    centre,
    meanMovingRange,
    lowerControlLimit: centre - INDIVIDUALS_FACTOR * meanMovingRange,
    upperControlLimit: centre + INDIVIDUALS_FACTOR * meanMovingRange,
    movingRangeUpperLimit: MOVING_RANGE_FACTOR * meanMovingRange,
    sigma: meanMovingRange / D2_OF_TWO,
  });
}
