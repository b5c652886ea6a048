import { err, ok, type Result } from "../result";
import { type Column, type Columns, columnsOf, type Observed, orderOf } from "./columns";
import { type FisherTest, fisherExact } from "./fisher";
import { type MannWhitneyTest, testOfU } from "./mann-whitney";
import { benjaminiHochberg } from "./several-tests";

export type Side = { readonly n: number; readonly with: number };
export type Difference = {
  readonly variable: string;
  readonly p: number;
  /** Share of false finds, were this and all of smaller p taken for true; over everything tried. */
  readonly q: number;
  /** The effect with its 95 % interval: the odds ratio of a category, Cliff’s δ of a figure. */
  readonly interval: readonly [number, number];
} & (
  | {
      readonly kind: "category";
      readonly value: string;
      readonly affected: Side;
      readonly others: Side;
      readonly test: FisherTest;
    }
  | {
      readonly kind: "figure";
      readonly affected: { readonly n: number; readonly median: number };
      readonly others: { readonly n: number; readonly median: number };
      readonly test: MannWhitneyTest;
    }
);
export type Contrast = {
  readonly affected: number;
  readonly others: number;
  /** Comparisons made: each category against the rest counts for one. */
  readonly tried: number;
  /** Least p first; those of one p by the size of the effect. */
  readonly differences: readonly Difference[];
};

/** How far from no difference: |ln odds ratio|, or |δ| on a like scale. */
const size = (d: Difference): number =>
  d.kind === "category" ? Math.abs(Math.log(d.test.oddsRatio)) : 4 * Math.abs(d.test.cliffsDelta);

type Untold<D> = D extends unknown ? Omit<D, "q"> : never;

/**
 * What differs between affected and unaffected: Fisher's exact test of each category against the rest, Mann–Whitney where
 * every value is a number, Benjamini–Hochberg over all that was tried. What has one value throughout, or is known of one
 * side only, is not tried. Failure: `not-finite` (with the figure). O(variables · n log n). A difference is no cause.
 */
export function contrast(things: readonly Observed[]): Result<Contrast> {
  for (const thing of things)
    for (const value of thing.values.values())
      if (typeof value === "number" && !Number.isFinite(value)) return err({ kind: "not-finite", value });
  return contrastColumns(columnsOf(things));
}

/** As `contrast`, of columns: O(variables · n) once the order of each figure is known, so that a hundred thousand things take some tenths of a second. */
export function contrastColumns(all: Columns): Result<Contrast> {
  const found: Untold<Difference>[] = [];
  for (const column of all.columns) {
    const tried = column.kind === "figure" ? ofFigure(column, all) : ofCategory(column, all);
    if (!tried.ok) return tried;
    found.push(...tried.value);
  }
  const qs = benjaminiHochberg(found.map((f) => f.p));
  if (!qs.ok) return qs;
  const differences = found
    .map((f, i): Difference => ({ ...f, q: qs.value[i] as number }))
    .sort((a, b) => a.p - b.p || size(b) - size(a));
  let [mine, rest] = [0, 0];
  for (let i = 0; i < all.affected.length; i++)
    if (!all.keep || all.keep[i]) {
      if (all.affected[i]) mine++;
      else rest++;
    }
  return ok({ affected: mine, others: rest, tried: found.length, differences });
}

function ofFigure(
  { variable, values }: Extract<Column, { kind: "figure" }>,
  { affected, keep }: Columns,
): Result<Untold<Difference>[]> {
  const order = orderOf(values);
  let [n1, n2] = [0, 0];
  for (const i of order) if (!keep || keep[i]) affected[i] ? n1++ : n2++;
  if (n1 === 0 || n2 === 0) return ok([]);
  const medians = [new Middle(n1), new Middle(n2)] as const;
  let [rankSum, ties, below, distinct] = [0, 0, 0, 0];
  for (let from = 0; from < order.length; ) {
    const value = values[order[from] as number] as number;
    let [mine, rest, to] = [0, 0, from];
    for (; to < order.length && values[order[to] as number] === value; to++) {
      const i = order[to] as number;
      if (keep && !keep[i]) continue;
      if (affected[i]) mine++;
      else rest++;
    }
    const run = mine + rest;
    if (run > 0) distinct++;
    rankSum += (mine * (2 * below + 1 + run)) / 2;
    ties += run ** 3 - run;
    medians[0].add(value, mine);
    medians[1].add(value, rest);
    below += run;
    from = to;
  }
  if (distinct < 2) return ok([]);
  const test = testOfU(rankSum - (n1 * (n1 + 1)) / 2, n1, n2, ties);
  return ok([
    {
      kind: "figure",
      variable,
      p: test.p,
      interval: deltaInterval(test.cliffsDelta, n1, n2),
      affected: { n: n1, median: medians[0].value },
      others: { n: n2, median: medians[1].value },
      test,
    },
  ]);
}

/** The median, type 7, of values that come in ascending runs. */
class Middle {
  readonly #low: number;
  readonly #high: number;
  #seen = 0;
  #sum = 0;
  constructor(n: number) {
    this.#low = Math.floor((n - 1) / 2);
    this.#high = Math.ceil((n - 1) / 2);
  }
  add(value: number, count: number): void {
    const to = this.#seen + count;
    if (this.#low >= this.#seen && this.#low < to) this.#sum += value;
    if (this.#high >= this.#seen && this.#high < to) this.#sum += value;
    this.#seen = to;
  }
  get value(): number {
    return this.#sum / 2;
  }
}

function ofCategory(
  { variable, labels, codes }: Extract<Column, { kind: "category" }>,
  { affected, keep }: Columns,
): Result<Untold<Difference>[]> {
  const counts = [new Int32Array(labels.length), new Int32Array(labels.length)] as const;
  const known = [0, 0];
  for (let i = 0; i < codes.length; i++) {
    const code = codes[i] as number;
    if (code < 0 || (keep && !keep[i])) continue;
    const side = affected[i] ? 0 : 1;
    counts[side][code] = (counts[side][code] as number) + 1;
    known[side] = (known[side] as number) + 1;
  }
  const [mine, rest] = known as [number, number];
  const there = labels
    .map((label, code) => ({ label, a: counts[0][code] as number, b: counts[1][code] as number }))
    .filter((c) => c.a + c.b > 0)
    .sort((x, y) => (x.label < y.label ? -1 : 1));
  if (mine === 0 || rest === 0 || there.length < 2) return ok([]);
  const out: Untold<Difference>[] = [];
  // Of two categories the one says what the other says.
  for (const { label, a, b } of there.length === 2 ? there.slice(0, 1) : there) {
    const test = fisherExact([
      [a, mine - a],
      [b, rest - b],
    ]);
    if (!test.ok) return test;
    out.push({
      kind: "category",
      variable,
      value: label,
      p: test.value.p,
      interval: oddsInterval(a, mine - a, b, rest - b),
      affected: { n: mine, with: a },
      others: { n: rest, with: b },
      test: test.value,
    });
  }
  return ok(out);
}

const Z95 = 1.959963984540054;

/** 95 % interval of an odds ratio, a half added to each cell. Source: Woolf 1955, Haldane 1956. */
function oddsInterval(a: number, b: number, c: number, d: number): readonly [number, number] {
  const [w, x, y, z] = [a + 0.5, b + 0.5, c + 0.5, d + 0.5];
  const ln = Math.log((w * z) / (x * y));
  const half = Z95 * Math.sqrt(1 / w + 1 / x + 1 / y + 1 / z);
  return [Math.exp(ln - half), Math.exp(ln + half)];
}

/** 95 % interval of Cliff's δ, by the variance of the area under the curve that it is. Source: Hanley and McNeil 1982. */
function deltaInterval(delta: number, n1: number, n2: number): readonly [number, number] {
  const area = (delta + 1) / 2;
  const [q1, q2] = [area / (2 - area), (2 * area * area) / (1 + area)];
  const variance = (area * (1 - area) + (n1 - 1) * (q1 - area * area) + (n2 - 1) * (q2 - area * area)) / (n1 * n2);
  const half = Z95 * Math.sqrt(Math.max(0, variance));
  return [2 * Math.max(0, area - half) - 1, 2 * Math.min(1, area + half) - 1];
}
