import { describe, expect, test } from "vitest";
import { underPointer } from "@/ui/cure/under-pointer";

type Args = Parameters<typeof underPointer>[0];
const rect = (left: number, top: number, width: number, height: number) => ({
  left,
  top,
  width,
  height,
  right: left + width,
  bottom: top + height,
});
/** Two places of an oven side by side, and a row far wider than either. */
const rects = new Map([
  ["place-A1", rect(0, 0, 60, 60)],
  ["place-B1", rect(140, 0, 60, 60)],
]);
const droppableContainers = [...rects.keys()].map((id) => ({
  id,
  key: id,
  disabled: false,
  data: { current: {} },
  node: { current: null },
  rect: { current: rects.get(id) ?? null },
}));
const over = (pointer: { x: number; y: number } | null, row: ReturnType<typeof rect>) =>
  underPointer({
    active: { id: "V202", data: { current: {} }, rect: { current: { initial: row, translated: row } } },
    collisionRect: row,
    droppableRects: rects,
    droppableContainers,
    pointerCoordinates: pointer,
  } as unknown as Args).map((c) => c.id);

describe("where a dragged rack drops", () => {
  const row = rect(-10, 5, 460, 50);
  test("is where the pointer is, though the row lies over both places", () => {
    expect(over({ x: 30, y: 30 }, row)[0]).toBe("place-A1");
    expect(over({ x: 170, y: 30 }, row)[0]).toBe("place-B1");
  });
  test("between places it drops nowhere, whatever the row covers", () => {
    expect(over({ x: 100, y: 30 }, row)).toEqual([]);
  });
  test("by key, without a pointer, it is the place that the row covers most", () => {
    expect(over(null, rect(130, 0, 80, 60))[0]).toBe("place-B1");
    expect(over(null, rect(-5, 0, 70, 60))[0]).toBe("place-A1");
    expect(over(null, rect(500, 500, 70, 60))).toEqual([]);
  });
});
