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
 * Individuals and moving-range chart: x̄ ± 2.66·MR̄. Units are those of the values, in time order.
 * Failures: `no-values`, `not-finite`, `too-few-values` (two are needed). Source: Shewhart; ISO 7870-2.
 */
export function individualsChart(values: readonly number[]): Result<IndividualsChart> {
  const checked = checkValues(values);
  if (!checked.ok) return checked;
  if (values.length < 2) return err({ kind: "too-few-values", got: values.length, need: 2 });
  const movingRanges = values.slice(1).map((value, i) => Math.abs(value - (values[i] as number)));
  const centre = mean(values);
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
