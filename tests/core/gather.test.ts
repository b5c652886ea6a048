import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { gather, likeness, type Sighting } from "@/core/diagnosis";

const DAY = 86_400_000;
let n = 0;
const seen = (over: Partial<Sighting> = {}): Sighting => ({
  id: `d${String(++n).padStart(5, "0")}`,
  atMs: 100 * DAY,
  defect: "orange-peel",
  part: "P1",
  place: null,
  lot: null,
  oven: null,
  customer: "C1",
  rack: `R${n}`,
  structure: null,
  ...over,
});
const sizes = (list: readonly Sighting[]) => gather(list).map((g) => g.sightings.length);

describe("defects gathered by likeness", () => {
  test("of one kind, part and week they are one; of another kind, part or month each its own", () => {
    expect(sizes([seen(), seen({ atMs: 102 * DAY }), seen({ atMs: 103 * DAY })])).toEqual([3]);
    expect(sizes([seen(), seen({ defect: "craters" })])).toEqual([1, 1]);
    expect(sizes([seen(), seen({ part: "P2", customer: "C2" })])).toEqual([1, 1]);
    expect(sizes([seen(), seen({ atMs: 160 * DAY })])).toEqual([1, 1]);
  });
  test("another part from the same lot, at the same place and time is alike: the powder may be it", () => {
    const other = { part: "P2", customer: "C2", lot: "L7", place: "A", oven: "O1" };
    expect(sizes([seen({ lot: "L7", place: "A", oven: "O1" }), seen(other)])).toEqual([2]);
  });
  test("a chain of days holds together as one spell, and ends where it stops", () => {
    const spell = [0, 2, 4, 6, 8, 10, 12].map((d) => seen({ atMs: (100 + d) * DAY }));
    const later = [60, 61].map((d) => seen({ atMs: (100 + d) * DAY }));
    expect(sizes([...spell, ...later])).toEqual([7, 2]);
  });
  test("hundreds on one rack are one", () => {
    const many = Array.from({ length: 900 }, (_, i) => seen({ rack: "R-1", place: `A${i % 9}`, atMs: 100 * DAY + i }));
    const groups = gather(many);
    expect(groups).toHaveLength(1);
    expect(groups[0]?.shared).toEqual(expect.arrayContaining(["rack", "part", "customer"]));
  });
  test("in the field what stands on one structure is one, years apart as well", () => {
    const field = (years: number) =>
      seen({ structure: "S-1", rack: null, atMs: years * 365 * DAY, defect: "rust-creep" });
    expect(sizes([field(1), field(2), field(4)])).toEqual([3]);
  });
  test("whatever the order, the groups are the same, and nothing is lost or doubled", () => {
    const some = fc.array(
      fc.record({
        atMs: fc.integer({ min: 0, max: 60 }).map((d) => d * DAY),
        defect: fc.constantFrom("orange-peel", "craters"),
        part: fc.constantFrom("P1", "P2"),
        lot: fc.constantFrom("L1", "L2", null),
        place: fc.constantFrom("A", "B", null),
      }),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(some, (list) => {
        const items = list.map((o) => seen(o));
        const groups = gather(items);
        expect(groups.flatMap((g) => g.sightings.map((s) => s.id)).sort()).toEqual(items.map((i) => i.id).sort());
        const asText = (g: typeof groups) => g.map((x) => x.sightings.map((s) => s.id).join()).sort();
        expect(asText(gather([...items].reverse()))).toEqual(asText(groups));
        for (const g of groups) expect(new Set(g.sightings.map((s) => s.defect)).size).toBe(1);
      }),
    );
  });
  test("likeness goes both ways", () => {
    const [a, b] = [seen({ lot: "L" }), seen({ place: "A", atMs: 107 * DAY })];
    expect(likeness(a, b)).toBe(likeness(b, a));
  });
});
