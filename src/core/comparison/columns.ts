/** One rack (or other thing) with what is recorded of it; what was never recorded is left out. */
export type Observed = {
  readonly affected: boolean;
  readonly values: ReadonlyMap<string, string | number>;
};

/** What is recorded of many things, a column a variable, so that a hundred thousand are gone through quickly. */
export type Column =
  /** NaN where it was never recorded. */
  | { readonly kind: "figure"; readonly variable: string; readonly values: Float64Array }
  /** −1 where it was never recorded. */
  | {
      readonly kind: "category";
      readonly variable: string;
      readonly labels: readonly string[];
      readonly codes: Int32Array;
    };
export type Columns = {
  readonly affected: Uint8Array;
  readonly columns: readonly Column[];
  /** 1 for the things that are looked at; all of them where it is not given. */
  readonly keep?: Uint8Array;
};

const orders = new WeakMap<Float64Array, Int32Array>();
/** The places of a figure's known values in ascending order: worked out once for each column. O(n log n) the first time. */
export function orderOf(values: Float64Array): Int32Array {
  const known = orders.get(values);
  if (known) return known;
  let n = 0;
  for (let i = 0; i < values.length; i++) if (!Number.isNaN(values[i] as number)) n++;
  const order = new Int32Array(n);
  for (let i = 0, at = 0; i < values.length; i++) if (!Number.isNaN(values[i] as number)) order[at++] = i;
  order.sort((a, b) => (values[a] as number) - (values[b] as number));
  orders.set(values, order);
  return order;
}

/** Things turned into columns, by name. A variable of which any value is a word is a category. O(things · variables). */
export function columnsOf(things: readonly Observed[]): Columns {
  const names = [...new Set(things.flatMap((t) => [...t.values.keys()]))].sort();
  return {
    affected: Uint8Array.from(things, (t) => Number(t.affected)),
    columns: names.map((variable) =>
      columnOf(
        variable,
        things.map((t) => t.values.get(variable) ?? null),
      ),
    ),
  };
}

/** One column of values in the order of the things; null where it was never recorded. O(things). */
export function columnOf(variable: string, values: readonly (string | number | null)[]): Column {
  if (values.every((v) => v === null || typeof v === "number"))
    return {
      kind: "figure",
      variable,
      values: Float64Array.from(values, (v) => (v === null ? Number.NaN : (v as number))),
    };
  const places = new Map<string, number>();
  const codes = Int32Array.from(values, (v) => {
    if (v === null) return -1;
    const label = String(v);
    const place = places.get(label) ?? places.size;
    places.set(label, place);
    return place;
  });
  return { kind: "category", variable, labels: [...places.keys()], codes };
}
