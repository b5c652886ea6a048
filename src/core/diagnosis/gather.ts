/** A defect on record, as far as it may be alike to another. */
export type Sighting = {
  readonly id: string;
  readonly atMs: number;
  readonly defect: string;
  readonly part: string;
  /** Face or zone; null where nobody said. */
  readonly place: string | null;
  readonly lot: string | null;
  readonly oven: string | null;
  readonly customer: string | null;
  readonly rack: string | null;
  readonly structure: string | null;
};
/** Sightings that are alike, with what they share. */
export type Gathered = {
  readonly defect: string;
  readonly sightings: readonly Sighting[];
  readonly shared: readonly ("part" | "place" | "lot" | "oven" | "customer" | "rack" | "structure")[];
};

const DAY_MS = 86_400_000;
/** Two of one kind are taken together from here on. */
const ALIKE = 3;
/** Each is held to so many before it: further off in time they are hardly alike. */
const LOOKED_BACK = 200;

/** How alike two defects of one kind are: part, place, time and what they met, added up. */
export function likeness(a: Sighting, b: Sighting): number {
  const same = (x: string | null, y: string | null): number => Number(x !== null && x === y);
  const days = Math.abs(a.atMs - b.atMs) / DAY_MS;
  return (
    3 * same(a.rack, b.rack) +
    2.5 * same(a.structure, b.structure) +
    1.5 * Number(a.part === b.part) +
    (days <= 3 ? 1.5 : days <= 10 ? 1 : days <= 30 ? 0 : -1) +
    0.75 * same(a.place, b.place) +
    0.75 * same(a.lot, b.lot) +
    0.25 * same(a.oven, b.oven) +
    0.25 * same(a.customer, b.customer) +
    // Weather and use are slow: in the field the time apart tells little.
    (a.structure !== null && b.structure !== null ? Math.min(1, Math.max(0, days / 10)) : 0)
  );
}

/**
 * Defects gathered by likeness into proposed cases: of one kind, joined where one is alike enough to another of the group.
 * The largest group first, in a group the newest first. O(defects × 200).
 */
export function gather(sightings: readonly Sighting[]): readonly Gathered[] {
  const order = [...sightings].sort((a, b) => a.atMs - b.atMs || (a.id < b.id ? -1 : 1));
  const head = order.map((_, i) => i);
  const rootOf = (i: number): number => {
    let at = i;
    while (head[at] !== at) {
      head[at] = head[head[at] as number] as number;
      at = head[at] as number;
    }
    return at;
  };
  const ofKind = new Map<string, number[]>();
  for (let i = 0; i < order.length; i++) {
    const one = order[i] as Sighting;
    const before = ofKind.get(one.defect) ?? [];
    for (const j of before.slice(-LOOKED_BACK))
      if (rootOf(j) !== rootOf(i) && likeness(order[j] as Sighting, one) >= ALIKE) head[rootOf(i)] = rootOf(j);
    ofKind.set(one.defect, [...before.slice(-LOOKED_BACK), i]);
  }
  const groups = new Map<number, Sighting[]>();
  for (let i = order.length - 1; i >= 0; i--) {
    const root = rootOf(i);
    const group = groups.get(root);
    if (group) group.push(order[i] as Sighting);
    else groups.set(root, [order[i] as Sighting]);
  }
  return [...groups.values()]
    .sort((a, b) => b.length - a.length || (b[0]?.atMs ?? 0) - (a[0]?.atMs ?? 0))
    .map((group) => ({
      defect: group[0]?.defect ?? "",
      sightings: group,
      shared: (["rack", "structure", "part", "place", "lot", "oven", "customer"] as const).filter(
        (k) => group[0]?.[k] != null && group.every((s) => s[k] === group[0]?.[k]),
      ),
    }));
}
