import { err, ok, type Result } from "../result";
import { mean, sampleSd, studentTQuantile } from "../statistics";

export type FaceDifference = {
  /** Mean of the one less mean of the other, µm. */
  readonly diffUm: number;
  /** 95 % of it, µm. */
  readonly interval: readonly [number, number];
  /** The interval leaves 0 out. */
  readonly toldApart: boolean;
};

/**
 * How much thicker the film of one face is than that of another, from the means of their spots. Failures: `too-few-values`
 * (two spots of each). Source: Welch 1947, degrees of freedom after Satterthwaite.
 */
export function faceDifference(one: readonly number[], other: readonly number[]): Result<FaceDifference> {
  for (const values of [one, other])
    if (values.length < 2) return err({ kind: "too-few-values", got: values.length, need: 2 });
  const diffUm = mean(one) - mean(other);
  const [a, b] = [sampleSd(one) ** 2 / one.length, sampleSd(other) ** 2 / other.length];
  if (a + b === 0) return ok({ diffUm, interval: [diffUm, diffUm], toldApart: diffUm !== 0 });
  const freedom = (a + b) ** 2 / (a ** 2 / (one.length - 1) + b ** 2 / (other.length - 1));
  const half = studentTQuantile(0.975, freedom) * Math.sqrt(a + b);
  const interval = [diffUm - half, diffUm + half] as const;
  return ok({ diffUm, interval, toldApart: interval[0] > 0 || interval[1] < 0 });
}
