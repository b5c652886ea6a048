import { err, ok, type Result } from "../result";
import { normalCdf } from "../statistics/distributions";
import { checkValues, mean } from "../statistics/mean";

/** Subgroups of this many are charted; larger ones are better served by s. */
export const SUBGROUP_SIZES = [2, 10] as const;

export type SubgroupChart = {
  readonly kind: "xbar-r-chart" | "xbar-s-chart";
  readonly size: number;
  readonly means: readonly number[];
  /** Ranges of an x̄–R chart, standard deviations of an x̄–s chart. */
  readonly spreads: readonly number[];
  readonly centre: number;
  readonly lower: number;
  readonly upper: number;
  readonly meanSpread: number;
  readonly spreadLower: number;
  readonly spreadUpper: number;
  /** Within-subgroup standard deviation: R̄/d₂ or s̄/c₄. */
  readonly sigma: number;
};

/** Expected standard deviation of n standard normal values: c₄ = √(2/(n−1)) Γ(n/2)/Γ((n−1)/2). */
export function c4(n: number): number {
  // Γ(n/2)/Γ((n−1)/2) by steps of one from 2: Γ(1)/Γ(1/2) = 1/√π, and r(n+1) = (n/2 − 1/2)/r(n).
  let ratio = 1 / Math.sqrt(Math.PI);
  for (let k = 2; k < n; k++) ratio = (k - 1) / 2 / ratio;
  return Math.sqrt(2 / (n - 1)) * ratio;
}

const REACH = 8;
const STEPS = 400;
const grid = Array.from({ length: STEPS + 1 }, (_, i) => -REACH + (2 * REACH * i) / STEPS);
const step = (2 * REACH) / STEPS;

/** Expected range of n standard normal values, d₂ = ∫ 1 − Φⁿ − (1 − Φ)ⁿ, by the trapezoid rule, exact to 1e-9 for a smooth integrand. */
export const d2 = (n: number): number =>
  step * grid.reduce((sum, x) => sum + 1 - normalCdf(x) ** n - (1 - normalCdf(x)) ** n, 0);

const d3Of = new Map<number, number>();
/** Standard deviation of that range, d₃ = √(E[R²] − d₂²), with E[R²] = 2 ∬_{x<y} 1 − Φ(y)ⁿ − (1 − Φ(x))ⁿ + (Φ(y) − Φ(x))ⁿ. O(400²) once a size. */
export function d3(n: number): number {
  const known = d3Of.get(n);
  if (known !== undefined) return known;
  const phi = grid.map((x) => normalCdf(x));
  let sum = 0;
  for (let i = 0; i <= STEPS; i++)
    for (let j = i; j <= STEPS; j++) {
      const below = phi[i] as number;
      const above = phi[j] as number;
      const f = 1 - above ** n - (1 - below) ** n + (above - below) ** n;
      sum += i === j ? f / 2 : f;
    }
  const value = Math.sqrt(2 * sum * step * step - d2(n) ** 2);
  d3Of.set(n, value);
  return value;
}

function checked(subgroups: readonly (readonly number[])[]): Result<number> {
  const size = subgroups[0]?.length ?? 0;
  if (subgroups.length < 2) return err({ kind: "too-few-values", got: subgroups.length, need: 2 });
  if (size < SUBGROUP_SIZES[0] || size > SUBGROUP_SIZES[1])
    return err({ kind: "bad-subgroup", size, least: SUBGROUP_SIZES[0], most: SUBGROUP_SIZES[1] });
  const odd = subgroups.findIndex((g) => g.length !== size);
  if (odd >= 0) return err({ kind: "subgroups-differ", index: odd, size: subgroups[odd]?.length, first: size });
  for (const group of subgroups) {
    const values = checkValues(group);
    if (!values.ok) return values;
  }
  return ok(size);
}

/**
 * x̄–R chart: x̿ ± A₂ R̄ with A₂ = 3/(d₂ √n), and R̄ (1 ± 3 d₃/d₂), not under 0. Failures: `too-few-values` (two subgroups),
 * `bad-subgroup` (n not 2 to 10), `subgroups-differ`, `not-finite`. Source: Shewhart; ISO 7870-2.
 */
export function xbarRChart(subgroups: readonly (readonly number[])[]): Result<SubgroupChart> {
  const size = checked(subgroups);
  if (!size.ok) return size;
  const n = size.value;
  const ranges = subgroups.map((g) => Math.max(...g) - Math.min(...g));
  const spread = (3 * d3(n)) / d2(n);
  return ok(chartOf("xbar-r-chart", subgroups, ranges, d2(n), spread));
}

/** x̄–s chart: x̿ ± A₃ s̄ with A₃ = 3/(c₄ √n), and s̄ (1 ± 3 √(1 − c₄²)/c₄), not under 0. Failures and source as `xbarRChart`. */
export function xbarSChart(subgroups: readonly (readonly number[])[]): Result<SubgroupChart> {
  const size = checked(subgroups);
  if (!size.ok) return size;
  const n = size.value;
  const deviations = subgroups.map((g) => {
    const m = mean(g);
    return Math.sqrt(g.reduce((sum, v) => sum + (v - m) ** 2, 0) / (n - 1));
  });
  const spread = (3 * Math.sqrt(1 - c4(n) ** 2)) / c4(n);
  return ok(chartOf("xbar-s-chart", subgroups, deviations, c4(n), spread));
}

function chartOf(
  kind: SubgroupChart["kind"],
  subgroups: readonly (readonly number[])[],
  spreads: readonly number[],
  expected: number,
  spread: number,
): SubgroupChart {
  const size = subgroups[0]?.length ?? 0;
  const means = subgroups.map(mean);
  const centre = mean(means);
  const meanSpread = mean(spreads);
  const sigma = meanSpread / expected;
  const half = (3 * sigma) / Math.sqrt(size);
  return {
    kind,
    size,
    means,
    spreads,
    centre,
    lower: centre - half,
    upper: centre + half,
    meanSpread,
    spreadLower: Math.max(0, meanSpread * (1 - spread)),
    spreadUpper: meanSpread * (1 + spread),
    sigma,
  };
}
