import { expect, test } from "vitest";
import { piecesIn } from "@/ui/bench/fault-fields";

test("pieces as they are typed: singly and in runs, each once, in order", () => {
  expect(piecesIn("", 20)).toEqual([]);
  expect(piecesIn("3 7-9", 20)).toEqual([3, 7, 8, 9]);
  expect(piecesIn("9, 3; 8–9", 20)).toEqual([3, 8, 9]);
  expect(piecesIn("20", 20)).toEqual([20]);
});
test("what is no piece of the rack is not guessed", () => {
  for (const text of ["0", "21", "9-7", "x", "3-", "1-21", "2.5"]) expect(piecesIn(text, 20), text).toBeNull();
});
