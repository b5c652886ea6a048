import type { Column, Columns } from "./columns";
import type { Difference } from "./contrast";

/** From here on two variables moved together so far that the record cannot tell them apart. */
const TOGETHER = 0.7;
/** So many things are enough to see it. */
const LOOKED_AT = 5000;

/**
 * Differences whose variables moved together over all the things, as groups of places in `differences`: within a group the
 * record cannot separate the one from the other. Each is in one group; alone where nothing moved with it. By the
 * correlation of ranks, or of having the category, over an even pick of at most 5,000 things. O(differences² · things).
 */
export function movedTogether(
  { columns, affected, keep }: Columns,
  differences: readonly Difference[],
): readonly (readonly number[])[] {
  const byName = new Map(columns.map((c) => [c.variable, c]));
  const places = evenPick(affected.length, keep);
  const series = differences.map((d) => {
    const column = byName.get(d.variable);
    return column ? valuesOf(column, d.kind === "category" ? d.value : null, places) : new Float64Array(0);
  });
  const head = differences.map((_, i) => i);
  const rootOf = (i: number): number => (head[i] === i ? i : rootOf(head[i] as number));
  for (let i = 0; i < series.length; i++)
    for (let j = i + 1; j < series.length; j++)
      if (
        differences[i]?.variable === differences[j]?.variable ||
        Math.abs(correlation(series[i] as Float64Array, series[j] as Float64Array)) >= TOGETHER
      )
        head[rootOf(j)] = rootOf(i);
  const groups = new Map<number, number[]>();
  for (let i = 0; i < head.length; i++) groups.set(rootOf(i), [...(groups.get(rootOf(i)) ?? []), i]);
  return [...groups.values()];
}

/** Places of at most so many things, evenly over those that are looked at. */
function evenPick(n: number, keep: Uint8Array | undefined): readonly number[] {
  const all: number[] = [];
  for (let i = 0; i < n; i++) if (!keep || keep[i]) all.push(i);
  const step = Math.max(1, Math.floor(all.length / LOOKED_AT));
  return all.filter((_, i) => i % step === 0);
}

/** Ranks of a figure, or whether it is the category, of an even pick; NaN where it was never recorded. */
function valuesOf(column: Column, value: string | null, places: readonly number[]): Float64Array {
  if (column.kind === "category") {
    const code = value === null ? -2 : column.labels.indexOf(value);
    return Float64Array.from(places, (i) => {
      const has = column.codes[i] as number;
      return has < 0 ? Number.NaN : Number(has === code);
    });
  }
  const picked = places.map((i) => column.values[i] as number);
  const order = picked
    .map((_, i) => i)
    .filter((i) => !Number.isNaN(picked[i]))
    .sort((a, b) => (picked[a] as number) - (picked[b] as number));
  const ranks = new Float64Array(picked.length).fill(Number.NaN);
  for (let i = 0; i < order.length; ) {
    let j = i;
    while (j < order.length && picked[order[j] as number] === picked[order[i] as number]) j++;
    for (let k = i; k < j; k++) ranks[order[k] as number] = (i + j - 1) / 2;
    i = j;
  }
  return ranks;
}

/** Pearson's, over what is known of both; 0 where one does not vary or fewer than eight are known. */
function correlation(a: Float64Array, b: Float64Array): number {
  let [n, sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < a.length; i++) {
    const [x, y] = [a[i] as number, b[i] as number];
    if (Number.isNaN(x) || Number.isNaN(y)) continue;
    n++;
    sa += x;
    sb += y;
    saa += x * x;
    sbb += y * y;
    sab += x * y;
  }
  const spread = (saa - (sa * sa) / n) * (sbb - (sb * sb) / n);
  return n < 8 || spread <= 1e-12 ? 0 : (sab - (sa * sb) / n) / Math.sqrt(spread);
}
