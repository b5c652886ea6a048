import { describe, expect, it } from "vitest";
import { cellOf, MAP_CELLS, placeMap } from "@/core/yield";

describe("places over racks", () => {
  it("puts every place of a face into a cell, the edges too", () => {
    expect([0, 12.4, 12.5, 99.9, 100].map(cellOf)).toEqual([0, 0, 1, MAP_CELLS - 1, MAP_CELLS - 1]);
  });
  it("counts a rack once in a cell, and shares by the racks looked at", () => {
    const cells = placeMap(
      [
        { rack: "1", face: "A", x: 10, y: 90 },
        { rack: "1", face: "A", x: 11, y: 91 },
        { rack: "2", face: "A", x: 9, y: 92 },
        { rack: "2", face: "B", x: 50, y: 50 },
      ],
      new Map([["A", 8]]),
    );
    expect(cells[0]).toMatchObject({ face: "A", column: 0, row: 7, racks: ["1", "2"], share: 0.25 });
    // Wilson 95 % of 2 in 8.
    expect(cells[0]?.interval?.[0]).toBeCloseTo(0.0715, 3);
    expect(cells[0]?.interval?.[1]).toBeCloseTo(0.5907, 3);
    expect(cells[1]).toMatchObject({ face: "B", racks: ["2"], share: null, interval: null });
  });
  it("never says more than all: a place that was noted was looked at", () => {
    const [cell] = placeMap(
      [
        { rack: "1", face: "A", x: 1, y: 1 },
        { rack: "2", face: "A", x: 1, y: 1 },
      ],
      new Map([["A", 1]]),
    );
    expect(cell?.share).toBe(1);
  });
});
