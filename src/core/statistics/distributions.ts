import jStat from "jstat";

/** Quantile of Student's t. p in (0, 1); degrees of freedom > 0. */
export function studentTQuantile(p: number, degreesOfFreedom: number): number {
  if (!(p > 0 && p < 1)) throw new RangeError(`probability outside (0, 1): ${p}`);
  if (!(degreesOfFreedom > 0)) throw new RangeError(`degrees of freedom not positive: ${degreesOfFreedom}`);
  return jStat.studentt.inv(p, degreesOfFreedom);
}

/** Cumulative normal distribution, dimensionless. */
export const normalCdf = (x: number, mean = 0, sd = 1): number => jStat.normal.cdf(x, mean, sd);
