import { normalCdf } from "../statistics/distributions";
import type { Column, Columns } from "./columns";

/** One variable's effect within the strata of another, put together. */
export type Adjusted = {
  readonly variable: string;
  readonly value: string | null;
  readonly strata: number;
  /** Common odds ratio of a category, mean Cliff’s δ of a figure. */
  readonly effect: number;
  readonly interval: readonly [number, number] | null;
  readonly p: number;
};

const MOST_STRATA = 60;
const Z95 = 1.959963984540054;

/** Which stratum each thing is in: a category's own, fifths of a figure; −1 where it was never recorded. O(n log n). */
export function strataOf(column: Column): { readonly codes: Int32Array; readonly labels: readonly string[] } {
  if (column.kind === "category") return column;
  const sorted = column.values.filter((v) => !Number.isNaN(v)).sort();
  if (sorted.length === 0) return { codes: new Int32Array(column.values.length).fill(-1), labels: [] };
  const cuts = [0.2, 0.4, 0.6, 0.8].map((q) => sorted[Math.floor(q * (sorted.length - 1))] as number);
  return {
    codes: Int32Array.from(column.values, (v) => (Number.isNaN(v) ? -1 : cuts.filter((c) => v > c).length)),
    labels: ["lowest fifth", "second fifth", "middle fifth", "fourth fifth", "highest fifth"],
  };
}

/**
 * A variable's effect once another is held still: Mantel–Haenszel over the strata for a category, van Elteren's test with
 * the mean of Cliff's δ for a figure. Null where no stratum holds both sides, or there are more than sixty strata.
 * O(n log n). Sources: Mantel and Haenszel 1959; Robins, Breslow and Greenland 1986; van Elteren 1960.
 */
export function adjusted(
  { affected }: Columns,
  column: Column,
  value: string | null,
  by: { readonly codes: Int32Array; readonly labels: readonly string[] },
): Adjusted | null {
  if (by.labels.length > MOST_STRATA) return null;
  return column.kind === "category"
    ? ofCategory(affected, column, value ?? "", by.codes, by.labels.length)
    : ofFigure(affected, column, by.codes, by.labels.length);
}

function ofCategory(
  affected: Uint8Array,
  column: Extract<Column, { kind: "category" }>,
  value: string,
  strata: Int32Array,
  count: number,
): Adjusted | null {
  const code = column.labels.indexOf(value);
  const cells = Array.from({ length: count }, () => [0, 0, 0, 0]);
  for (let i = 0; i < strata.length; i++) {
    const s = strata[i] as number;
    const has = column.codes[i] as number;
    if (s < 0 || has < 0) continue;
    const cell = cells[s] as number[];
    const place = (affected[i] ? 0 : 2) + (has === code ? 0 : 1);
    cell[place] = (cell[place] as number) + 1;
  }
  let [r, q, pr, psqr, qs, excess, variance, used] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const [a, b, c, d] of cells as [number, number, number, number][]) {
    const n = a + b + c + d;
    if (n < 2 || (a + b) * (c + d) === 0 || (a + c) * (b + d) === 0) continue;
    used++;
    const [ri, qi, p, u] = [(a * d) / n, (b * c) / n, (a + d) / n, (b + c) / n];
    r += ri;
    q += qi;
    pr += p * ri;
    psqr += p * qi + u * ri;
    qs += u * qi;
    excess += a - ((a + b) * (a + c)) / n;
    variance += ((a + b) * (c + d) * (a + c) * (b + d)) / (n * n * (n - 1));
  }
  if (used === 0 || variance <= 0) return null;
  const p = 2 * (1 - normalCdf(Math.max(0, Math.abs(excess) - 0.5) / Math.sqrt(variance)));
  if (r === 0 || q === 0)
    return {
      variable: column.variable,
      value,
      strata: used,
      effect: r === 0 ? 0 : Number.POSITIVE_INFINITY,
      interval: null,
      p,
    };
  const effect = r / q;
  const half = Z95 * Math.sqrt(pr / (2 * r * r) + psqr / (2 * r * q) + qs / (2 * q * q));
  return {
    variable: column.variable,
    value,
    strata: used,
    effect,
    interval: [effect * Math.exp(-half), effect * Math.exp(half)],
    p: Math.min(1, p),
  };
}

function ofFigure(
  affected: Uint8Array,
  column: Extract<Column, { kind: "figure" }>,
  strata: Int32Array,
  count: number,
): Adjusted | null {
  const groups = Array.from({ length: count }, () => [] as { value: number; mine: boolean }[]);
  for (let i = 0; i < strata.length; i++) {
    const s = strata[i] as number;
    const v = column.values[i] as number;
    if (s >= 0 && !Number.isNaN(v)) groups[s]?.push({ value: v, mine: affected[i] === 1 });
  }
  let [sum, variance, deltas, weight, used] = [0, 0, 0, 0, 0];
  for (const group of groups) {
    const n1 = group.filter((g) => g.mine).length;
    const n2 = group.length - n1;
    if (n1 === 0 || n2 === 0) continue;
    group.sort((a, b) => a.value - b.value);
    let [rankSum, ties] = [0, 0];
    for (let i = 0; i < group.length; ) {
      let j = i;
      while (j < group.length && group[j]?.value === group[i]?.value) j++;
      for (let k = i; k < j; k++) if (group[k]?.mine) rankSum += (i + 1 + j) / 2;
      ties += (j - i) ** 3 - (j - i);
      i = j;
    }
    const n = n1 + n2;
    const u = rankSum - (n1 * (n1 + 1)) / 2;
    const spread = n > 1 ? ((n1 * n2) / 12) * (n + 1 - ties / (n * (n - 1))) : 0;
    if (spread <= 0) continue;
    used++;
    // Weights 1/(n + 1) of the ranks: a stratum counts by what it can tell.
    sum += (u - (n1 * n2) / 2) / (n + 1);
    variance += spread / (n + 1) ** 2;
    deltas += ((2 * u - n1 * n2) / (n1 * n2)) * ((n1 * n2) / (n + 1));
    weight += (n1 * n2) / (n + 1);
  }
  if (used === 0 || variance <= 0) return null;
  const z = sum / Math.sqrt(variance);
  const effect = deltas / weight;
  const half = (Z95 * 2 * Math.sqrt(variance)) / weight;
  return {
    variable: column.variable,
    value: null,
    strata: used,
    effect,
    interval: [Math.max(-1, effect - half), Math.min(1, effect + half)],
    p: Math.min(1, 2 * (1 - normalCdf(Math.abs(z)))),
  };
}
