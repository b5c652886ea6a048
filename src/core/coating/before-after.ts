import { err, ok, type Result } from "../result";
import { mean, sampleSd, studentTQuantile } from "../statistics";

export type BeforeAfter = {
  readonly before: { readonly mean: number; readonly n: number };
  readonly after: { readonly mean: number; readonly n: number };
  /** After less before. */
  readonly difference: number;
  readonly interval: readonly [number, number];
  /** Whether it moved at all, and toward the aim: decided by the whole interval. */
  readonly says: "helped" | "made-worse" | "moved" | "cannot-tell";
};

/**
 * Whether a change helped: difference of the means with its 95 % interval, spreads not taken as equal. With an aim, nearer
 * to it is better: `helped` only where the whole interval of the distance to the aim is under nothing.
 * Failures: `too-few-values` (two on each side), `bad-input`. Source: Welch, Biometrika 34 (1947).
 */
export function beforeAfter(
  before: readonly number[],
  after: readonly number[],
  aim: number | null = null,
): Result<BeforeAfter> {
  for (const values of [before, after]) {
    if (values.length < 2) return err({ kind: "too-few-values", got: values.length, need: 2 });
    const bad = values.find((v) => !Number.isFinite(v));
    if (bad !== undefined) return err({ kind: "bad-input", name: "value", value: bad });
  }
  const difference = mean(after) - mean(before);
  const interval = welchInterval(before, after);
  const moved = interval[0] > 0 || interval[1] < 0;
  let says: BeforeAfter["says"] = moved ? "moved" : "cannot-tell";
  if (aim !== null) {
    const distance = (values: readonly number[]) => values.map((v) => Math.abs(v - aim));
    const [low, high] = welchInterval(distance(before), distance(after));
    says = high < 0 ? "helped" : low > 0 ? "made-worse" : "cannot-tell";
  }
  return ok({
    before: { mean: mean(before), n: before.length },
    after: { mean: mean(after), n: after.length },
    difference,
    interval,
    says,
  });
}

function welchInterval(before: readonly number[], after: readonly number[]): readonly [number, number] {
  const difference = mean(after) - mean(before);
  const [a, b] = [sampleSd(before) ** 2 / before.length, sampleSd(after) ** 2 / after.length];
  const error = Math.sqrt(a + b);
  if (error === 0) return [difference, difference];
  const degrees = (a + b) ** 2 / (a ** 2 / (before.length - 1) + b ** 2 / (after.length - 1));
  const half = studentTQuantile(0.975, degrees) * error;
  return [difference - half, difference + half];
}
