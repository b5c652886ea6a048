import { normalCdf } from "../statistics/distributions";
import { type Column, type Columns, orderOf } from "./columns";

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
  const order = orderOf(column.values);
  if (order.length === 0) return { codes: new Int32Array(column.values.length).fill(-1), labels: [] };
  const cuts = [0.2, 0.4, 0.6, 0.8].map(
    (q) => column.values[order[Math.floor(q * (order.length - 1))] as number] as number,
  );
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
  { affected, keep }: Columns,
  column: Column,
  value: string | null,
  by: { readonly codes: Int32Array; readonly labels: readonly string[] },
): Adjusted | null {
  if (by.labels.length > MOST_STRATA) return null;
  return column.kind === "category"
    ? ofCategory(affected, keep, column, value ?? "", by.codes, by.labels.length)
    : ofFigure(affected, keep, column, by.codes, by.labels.length);
}

function ofCategory(
  affected: Uint8Array,
  keep: Uint8Array | undefined,
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
    if (s < 0 || has < 0 || (keep && !keep[i])) continue;
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
  keep: Uint8Array | undefined,
  column: Extract<Column, { kind: "figure" }>,
  strata: Int32Array,
  count: number,
): Adjusted | null {
  const zeros = () => new Float64Array(count);
  const [n1, n2, rankSum, ties, below, mine, all] = [zeros(), zeros(), zeros(), zeros(), zeros(), zeros(), zeros()];
  const order = orderOf(column.values);
  const at = (a: Float64Array, i: number): number => a[i] as number;
  for (let from = 0; from < order.length; ) {
    const value = column.values[order[from] as number] as number;
    const touched: number[] = [];
    let to = from;
    for (; to < order.length && column.values[order[to] as number] === value; to++) {
      const i = order[to] as number;
      const s = strata[i] as number;
      if (s < 0 || (keep && !keep[i])) continue;
      if (at(all, s) === 0) touched.push(s);
      all[s] = at(all, s) + 1;
      if (affected[i]) mine[s] = at(mine, s) + 1;
    }
    for (const s of touched) {
      const [run, own] = [at(all, s), at(mine, s)];
      rankSum[s] = at(rankSum, s) + (own * (2 * at(below, s) + 1 + run)) / 2;
      ties[s] = at(ties, s) + run ** 3 - run;
      below[s] = at(below, s) + run;
      n1[s] = at(n1, s) + own;
      n2[s] = at(n2, s) + run - own;
      all[s] = 0;
      mine[s] = 0;
    }
    from = to;
  }
  let [sum, variance, deltas, weight, used] = [0, 0, 0, 0, 0];
  for (let s = 0; s < count; s++) {
    const [a, b] = [at(n1, s), at(n2, s)];
    if (a === 0 || b === 0) continue;
    const n = a + b;
    const u = at(rankSum, s) - (a * (a + 1)) / 2;
    const spread = ((a * b) / 12) * (n + 1 - at(ties, s) / (n * (n - 1)));
    if (spread <= 0) continue;
    used++;
    // Weights 1/(n + 1) of the ranks: a stratum counts by what it can tell.
    sum += (u - (a * b) / 2) / (n + 1);
    variance += spread / (n + 1) ** 2;
    deltas += ((2 * u - a * b) / (a * b)) * ((a * b) / (n + 1));
    weight += (a * b) / (n + 1);
  }
  if (used === 0 || variance <= 0) return null;
  const effect = deltas / weight;
  const half = (Z95 * 2 * Math.sqrt(variance)) / weight;
  return {
    variable: column.variable,
    value: null,
    strata: used,
    effect,
    interval: [Math.max(-1, effect - half), Math.min(1, effect + half)],
    p: Math.min(1, 2 * (1 - normalCdf(Math.abs(sum) / Math.sqrt(variance)))),
  };
}
