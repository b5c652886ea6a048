import { expect, test } from "vitest";
import { overSheet } from "@/core/thickness";

const spots = [
  { id: "F1", um: 92 },
  { id: "F2", um: 131 },
  { id: "F3", um: 118 },
];
test("film over what its sheet bears is the thickest spot: in one coat where there is one, in all where there are more", () => {
  const sheet = { mostPerCoatUm: 120, mostInAllUm: 160 };
  expect(overSheet(spots, 1, sheet)).toEqual({ kind: "one-coat", spot: "F2", um: 131, limitUm: 120 });
  expect(overSheet(spots, 2, sheet)).toBeNull();
  expect(overSheet(spots, 2, { ...sheet, mostInAllUm: 130 })).toEqual({
    kind: "in-all",
    spot: "F2",
    um: 131,
    limitUm: 130,
  });
  // Of one coat without a limit of its own, the one in all holds.
  expect(overSheet(spots, 1, { mostPerCoatUm: null, mostInAllUm: 130 })?.kind).toBe("in-all");
  // At the limit is not over it.
  expect(overSheet(spots, 1, { mostPerCoatUm: 131, mostInAllUm: null })).toBeNull();
  expect(overSheet(spots, 1, { mostPerCoatUm: null, mostInAllUm: null })).toBeNull();
  expect(overSheet([], 1, sheet)).toBeNull();
});
