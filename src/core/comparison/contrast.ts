import { ok, type Result } from "../result";
import { type FisherTest, fisherExact } from "./fisher";
import { type MannWhitneyTest, mannWhitney } from "./mann-whitney";
import { benjaminiHochberg } from "./several-tests";

/** One rack (or other thing) with what is recorded of it; what was never recorded is left out. */
export type Observed = {
  readonly affected: boolean;
  readonly values: ReadonlyMap<string, string | number>;
};
export type Side = { readonly n: number; readonly with: number };
export type Difference = {
  readonly variable: string;
  readonly p: number;
  /** Share of false finds, were this and all of smaller p taken for true; over everything tried. */
  readonly q: number;
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

/** Quantile ½, type 7. */
function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = (sorted.length - 1) / 2;
  return ((sorted[Math.floor(middle)] as number) + (sorted[Math.ceil(middle)] as number)) / 2;
}

/** How far from no difference: |ln odds ratio|, or |δ| on a like scale. */
const size = (d: Difference): number =>
  d.kind === "category" ? Math.abs(Math.log(d.test.oddsRatio)) : 4 * Math.abs(d.test.cliffsDelta);

/**
 * What differs between affected and unaffected: Fisher's exact test of each category against the rest, Mann–Whitney where
 * every value is a number, Benjamini–Hochberg over all that was tried. What has one value throughout, or is known of one
 * side only, is not tried. Failure: `not-finite` (with the figure). O(variables · n log n). A difference is no cause.
 */
export function contrast(things: readonly Observed[]): Result<Contrast> {
  const names = [...new Set(things.flatMap((t) => [...t.values.keys()]))].sort();
  const found: ({ readonly p: number } & (
    | Omit<Extract<Difference, { kind: "category" }>, "q">
    | Omit<Extract<Difference, { kind: "figure" }>, "q">
  ))[] = [];
  for (const variable of names) {
    const known = things.flatMap((t) => {
      const value = t.values.get(variable);
      return value === undefined ? [] : [{ affected: t.affected, value }];
    });
    const [mine, rest] = [known.filter((k) => k.affected), known.filter((k) => !k.affected)];
    const distinct = new Set(known.map((k) => k.value));
    if (mine.length === 0 || rest.length === 0 || distinct.size < 2) continue;
    if (known.every((k) => typeof k.value === "number")) {
      const [a, b] = [mine, rest].map((side) => side.map((k) => k.value as number)) as [number[], number[]];
      const test = mannWhitney(a, b);
      if (!test.ok) return test;
      found.push({
        kind: "figure",
        variable,
        p: test.value.p,
        affected: { n: a.length, median: median(a) },
        others: { n: b.length, median: median(b) },
        test: test.value,
      });
      continue;
    }
    // Of two categories the one says what the other says.
    const categories = [...distinct].map(String).sort();
    for (const value of categories.length === 2 ? categories.slice(0, 1) : categories) {
      const side = (of: typeof known): Side => ({
        n: of.length,
        with: of.filter((k) => String(k.value) === value).length,
      });
      const [a, b] = [side(mine), side(rest)];
      const test = fisherExact([
        [a.with, a.n - a.with],
        [b.with, b.n - b.with],
      ]);
      if (!test.ok) return test;
      found.push({ kind: "category", variable, value, p: test.value.p, affected: a, others: b, test: test.value });
    }
  }
  const qs = benjaminiHochberg(found.map((f) => f.p));
  if (!qs.ok) return qs;
  const differences = found
    .map((f, i): Difference => ({ ...f, q: qs.value[i] as number }))
    .sort((a, b) => a.p - b.p || size(b) - size(a));
  return ok({
    affected: things.filter((t) => t.affected).length,
    others: things.filter((t) => !t.affected).length,
    tried: found.length,
    differences,
  });
}
