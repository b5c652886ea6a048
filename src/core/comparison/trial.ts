import { err, ok, type Result } from "../result";
import { lnChoose } from "../statistics/factorial";

export type TrialPlan = {
  readonly kind: "trial-plan";
  /** Panels in each of the two groups. */
  readonly panels: number;
  /** How many of them are expected to show the defect with the cause and without it. */
  readonly expectedWith: number;
  readonly expectedWithout: number;
  /** How likely the trial is to prove the cause if the shares are as expected, 0–1. */
  readonly power: number;
};

const MOST_PANELS = 200;
const POWER_LEAST = 0.8;

/** Chance of so many or more with it in the first group, were both groups alike: Fisher's exact test, one-sided. */
export function oneSidedP(withA: number, panelsA: number, withB: number, panelsB: number): number {
  const [total, column] = [panelsA + panelsB, withA + withB];
  let p = 0;
  for (let x = withA; x <= Math.min(panelsA, column); x++)
    if (column - x <= panelsB)
      p += Math.exp(lnChoose(column, x) + lnChoose(total - column, panelsA - x) - lnChoose(total, panelsA));
  return Math.min(1, p);
}

const binomial = (n: number, share: number): number[] =>
  Array.from({ length: n + 1 }, (_, k) =>
    share === 0
      ? Number(k === 0)
      : share === 1
        ? Number(k === n)
        : Math.exp(lnChoose(n, k) + k * Math.log(share) + (n - k) * Math.log(1 - share)),
  );

/** How likely a trial of so many panels a group is to prove it, 0–1. O(panels²) tests. */
function powerOf(panels: number, withIt: number, without: number, certainty: number): number {
  const [a, b] = [binomial(panels, withIt), binomial(panels, without)];
  let power = 0;
  for (let y = 0; y <= panels; y++) {
    // The least count with the cause that proves it against y without: from there on all do.
    let x = y + 1;
    while (x <= panels && oneSidedP(x, panels, y, panels) > 1 - certainty) x++;
    for (; x <= panels; x++) power += (a[x] as number) * (b[y] as number);
  }
  return power;
}

/**
 * The smallest trial that proves a cause: as many panels with it made on purpose as with it taken away, so that in four of
 * five such trials the one-sided Fisher test falls under 1 − certainty. Shares 0–1, certainty 0.5–0.999. Failures:
 * `bad-input`, `no-plan` where 200 panels a group would not do.
 */
export function planTrial(withIt: number, without: number, certainty: number): Result<TrialPlan> {
  for (const [name, value, least, most] of [
    ["share with", withIt, 0, 1],
    ["share without", without, 0, 1],
    ["certainty", certainty, 0.5, 0.999],
  ] as const)
    if (!(value >= least && value <= most)) return err({ kind: "bad-input", name, value });
  if (withIt <= without) return err({ kind: "bad-input", name: "share with", value: withIt });
  for (let panels = 2; panels <= MOST_PANELS; panels += panels < 40 ? 1 : 10) {
    const power = powerOf(panels, withIt, without, certainty);
    if (power >= POWER_LEAST)
      return ok({
        kind: "trial-plan",
        panels,
        expectedWith: panels * withIt,
        expectedWithout: panels * without,
        power,
      });
  }
  return err({ kind: "no-plan", most: MOST_PANELS });
}
